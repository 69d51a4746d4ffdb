import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { writeDocument } from '$lib/server/documents.ts';
import { readId } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** The document's file as it stands now. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { name, bytes } = await writeDocument(db(), readId(params.id, 'document'));
		const file = `${name}.docx`;
		return new Response(bytes, {
			headers: {
				'Content-Type': DOCX,
				'Content-Disposition': `attachment; filename="${file.replace(/[^\x20-\x7e]|["\\]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(file)}`
			}
		});
	});
