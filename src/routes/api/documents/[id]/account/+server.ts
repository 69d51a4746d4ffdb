import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/documents/writing.ts';
import { readId, readOutput } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** What taking the file would change, and what its read-back finds; the address says in what format and how. */
export const GET: RequestHandler = ({ params, url }) =>
	answer<Gives<'GET /api/documents/*/account'>>(
		async () => (await writeDocument(db(), readId(params.id, 'document'), readOutput(url))).account
	);
