import { aboutKind } from '$lib/formats/kinds.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { fileOf } from '$lib/server/documents/writing.ts';
import { download } from '$lib/server/http/files.ts';
import { readId, readOutput } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The document's file as it stands now; the address says in what format and how. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => {
		const { name, kind, body } = await fileOf(db(), readId(params.id, 'document'), readOutput(url));
		return download(body, `${name}.${kind}`, aboutKind(kind).mediaType);
	});
