import { answer } from '$lib/server/http/answers.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { known } from '$lib/server/http/signed.ts';
import { leave, setRole } from '$lib/server/people/members.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Somebody has another role from now on. */
export const PUT: RequestHandler = ({ request, params, locals }) =>
	answer(async () => {
		const { role } = await readRequest(request, 'setRole');
		const { house, person } = known(locals);
		await setRole((await entrance()).door, house, readId(params.id, 'person'), role, person);
	});

/** Somebody no longer belongs to the house. */
export const DELETE: RequestHandler = ({ params, locals }) =>
	answer(async () => {
		const { house, person } = known(locals);
		await leave((await entrance()).door, house, readId(params.id, 'person'), person);
	});
