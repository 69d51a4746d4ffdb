import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { countStarter, makeTable } from '$lib/server/tables/tables.ts';
import type { RequestHandler } from './$types.js';

/** Makes a table, on its own or in a document. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/tables'>>(async () => {
		const { starter, ...made } = await readRequest(request, 'newTable');
		const place = await makeTable(db(), made);
		if (starter) await countStarter(db(), starter);
		return place;
	}, 201);
