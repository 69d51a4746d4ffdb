import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/documents.ts';
import { download, DOCX } from '$lib/server/files.ts';
import { readId } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** The document's file as it stands now. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { name, bytes } = await writeDocument(db(), readId(params.id, 'document'));
		return download(bytes, `${name}.docx`, DOCX);
	});
