import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/writing.ts';
import { readId, readOutKind } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** What taking the file would change, and what its read-back finds; `?as=` asks for another format. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => (await writeDocument(db(), readId(params.id, 'document'), readOutKind(url))).account);
