import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { addDocument } from '$lib/server/documents/add.ts';
import { documentsFound } from '$lib/server/documents/list.ts';
import { readDocumentQuery } from '$lib/server/http/requests.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { uploaded } from '$lib/server/http/files.ts';
import type { RequestHandler } from './$types.js';

/** The documents that the address asks for, a page of them. */
export const GET: RequestHandler = ({ url }) =>
	answer<Gives<'GET /api/documents'>>(() => documentsFound(db(), readDocumentQuery(url)));

/** Takes one file in: its bytes are the body, its name is in `?name=`. */
export const POST: RequestHandler = ({ request, url }) =>
	answer<Gives<'POST /api/documents'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'document.docx');
		return addDocument(db(), name, await uploaded(request, name));
	}, 201);
