import { InputError } from '$lib/core/errors.ts';
import { MAX_FILE_BYTES } from '$lib/formats/index.ts';
import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { addDocument, listDocuments } from '$lib/server/documents.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer(() => listDocuments(db()));

/** Takes one file in: its bytes are the body, its name is in `?name=`. */
export const POST: RequestHandler = ({ request, url }) =>
	answer(async () => {
		const name = url.searchParams.get('name')?.trim() || 'document.docx';
		const tooLarge = () =>
			new InputError(
				'too-large',
				`“${name}” is larger than ${MAX_FILE_BYTES / 2 ** 20} MB, the most that is taken. It was not added.`,
				name
			);
		if (Number(request.headers.get('content-length') ?? 0) > MAX_FILE_BYTES) throw tooLarge();
		const bytes = new Uint8Array(await request.arrayBuffer());
		if (bytes.length > MAX_FILE_BYTES) throw tooLarge();
		return addDocument(db(), name, bytes);
	}, 201);
