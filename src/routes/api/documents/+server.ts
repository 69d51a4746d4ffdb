import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { addDocument } from '$lib/server/documents/add.ts';
import { listDocuments } from '$lib/server/documents/list.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { uploaded } from '$lib/server/http/files.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer<Gives<'GET /api/documents'>>(() => listDocuments(db()));

/** Takes one file in: its bytes are the body, its name is in `?name=`. */
export const POST: RequestHandler = ({ request, url }) =>
	answer<Gives<'POST /api/documents'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'document.docx');
		return addDocument(db(), name, await uploaded(request, name));
	}, 201);
