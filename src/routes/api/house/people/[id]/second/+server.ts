import { answer } from '$lib/server/http/answers.ts';
import { readId } from '$lib/server/http/requests.ts';
import { known } from '$lib/server/http/signed.ts';
import { memberInCare, note } from '$lib/server/people/members.ts';
import { takeSecondFrom } from '$lib/server/people/second-factor.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Takes the second factor from somebody who lost it; they sign in by their password again. */
export const DELETE: RequestHandler = ({ params, locals }) =>
	answer(async () => {
		const open = await entrance();
		const { house, person } = known(locals);
		const { id, name } = await memberInCare(open.door, house, readId(params.id, 'person'), person);
		await takeSecondFrom(open, id);
		await note(open.door, house, person, 'people', `the second factor of ${name} was taken off`);
	});
