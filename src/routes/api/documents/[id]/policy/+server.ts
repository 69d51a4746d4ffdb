import { judgeDocument, mendTables } from '$lib/server/census/judged.ts';
import { db } from '$lib/server/database.ts';
import { answer } from '$lib/server/http/answers.ts';
import type { Gives } from '$lib/server/http/contract.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** What the house's policy has against the document's tables. */
export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/documents/*/policy'>>(() => judgeDocument(db(), readId(params.id, 'document')));

/** Puts tables right by a rule. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/documents/*/policy'>>(async () =>
		mendTables(db(), readId(params.id, 'document'), await readRequest(request, 'mendTables'))
	);
