import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { archiveDocument, bringBackDocument, removeDocument } from '$lib/server/documents/shelf.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Takes the document out; it can be brought back for a day. */
export const DELETE: RequestHandler = ({ params }) =>
	answer<Gives<'DELETE /api/documents/*'>>(() => removeDocument(db(), readId(params.id, 'document')));

/** Puts it aside or back, or brings back what was taken out. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/documents/*'>>(async () => {
		const { archived, removed } = await readRequest(request, 'keepDocument');
		const id = readId(params.id, 'document');
		if (removed === false) await bringBackDocument(db(), id);
		if (archived !== undefined) await archiveDocument(db(), id, archived);
	});
