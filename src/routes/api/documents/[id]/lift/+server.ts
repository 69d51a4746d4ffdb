import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { liftStyle, previewLift } from '$lib/server/styles/lifting.ts';
import { readId, readIndex, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** What lifting a style from the table in `?table=` (from 0) would give. */
export const GET: RequestHandler = ({ params, url }) =>
	answer<Gives<'GET /api/documents/*/lift'>>(() =>
		previewLift(db(), readId(params.id, 'document'), readIndex(url, 'table'))
	);

/** Lifts a style from a table into the Stylebook. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/documents/*/lift'>>(
		async () => liftStyle(db(), readId(params.id, 'document'), await readRequest(request, 'lift')),
		201
	);
