import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/documents.ts';
import { readId } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** What taking the file would change, and what its read-back finds. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => (await writeDocument(db(), readId(params.id, 'document'))).account);
