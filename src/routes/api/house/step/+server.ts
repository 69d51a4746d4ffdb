import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { moveHouse } from '$lib/server/house/house.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Undo and redo. */
export const PUT: RequestHandler = ({ request }) =>
	answer<Gives<'PUT /api/house/step'>>(async () => {
		const { version, to } = await readRequest(request, 'moveHouse');
		return moveHouse(db(), version, to);
	});
