import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readNumber, readRequest } from '$lib/server/http/requests.ts';
import { takeOut } from '$lib/server/tables/tables.ts';
import type { RequestHandler } from './$types.js';

/** Takes a table out of its document. */
export const DELETE: RequestHandler = ({ params, request }) =>
	answer<Gives<'DELETE /api/documents/*/tables/*'>>(async () => {
		const { version } = await readRequest(request, 'takeOut');
		return takeOut(db(), readId(params.id, 'document'), readNumber(params.index, 'table'), version);
	});
