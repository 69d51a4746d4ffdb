import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { restoreEdition } from '$lib/server/styles/editions.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Makes the draft what an edition was. */
export const POST: RequestHandler = ({ params }) =>
	answer<Gives<'POST /api/styles/*/editions/*/restore'>>(() =>
		restoreEdition(db(), readId(params.id, 'style'), Number(params.number) || 0)
	);
