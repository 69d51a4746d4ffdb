import { answer, NotFoundError } from '$lib/server/http/answers.ts';
import { known } from '$lib/server/http/signed.ts';
import { endLinks } from '$lib/server/people/links.ts';
import { note } from '$lib/server/people/members.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Takes an invitation back: its link leads nowhere from now on. */
export const DELETE: RequestHandler = ({ params, locals }) =>
	answer(async () => {
		if (!/^[0-9a-f]{64}$/.test(params.id)) throw new NotFoundError('This invitation is no longer here.');
		const { house, person } = known(locals);
		const { door } = await entrance();
		await endLinks(door, 'invitation', { house, hash: params.id });
		await note(door, house, person, 'people', 'an invitation was taken back');
	});
