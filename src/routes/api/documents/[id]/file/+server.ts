import { MEDIA_TYPES } from '$lib/formats/index.ts';
import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/writing.ts';
import { download } from '$lib/server/files.ts';
import { readId, readOutKind } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** The document's file as it stands now; `?as=` asks for another format. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => {
		const { name, kind, bytes } = await writeDocument(db(), readId(params.id, 'document'), readOutKind(url));
		return download(bytes, `${name}.${kind}`, MEDIA_TYPES[kind]);
	});
