import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { addDocument, listDocuments } from '$lib/server/documents.ts';
import { uploaded } from '$lib/server/files.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer(() => listDocuments(db()));

/** Takes one file in: its bytes are the body, its name is in `?name=`. */
export const POST: RequestHandler = ({ request, url }) =>
	answer(async () => {
		const name = url.searchParams.get('name')?.trim() || 'document.docx';
		return addDocument(db(), name, await uploaded(request, name));
	}, 201);
