import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { changeHouse, loadHouse } from '$lib/server/house/house.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer<Gives<'GET /api/house'>>(() => loadHouse(db()));

/** Changes inks, type roles or the locale, as one step. */
export const PUT: RequestHandler = ({ request }) =>
	answer<Gives<'PUT /api/house'>>(async () => {
		const { version, label, state, inks, typeRoles } = await readRequest(request, 'changeHouse');
		return changeHouse(db(), version, label, state, { ...(inks && { inks }), ...(typeRoles && { typeRoles }) });
	});
