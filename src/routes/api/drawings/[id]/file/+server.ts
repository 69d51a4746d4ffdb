import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { replaceDrawing } from '$lib/server/drawings.ts';
import { uploaded } from '$lib/server/files.ts';
import { readId, readIndex } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** A newer file of the drawing: its bytes are the body, its name is in `?name=`, the step that the sender saw in `?after=`. */
export const PUT: RequestHandler = ({ params, request, url }) =>
	answer(async () => {
		const name = url.searchParams.get('name')?.trim() || 'drawing.svg';
		return replaceDrawing(
			db(),
			readId(params.id, 'drawing'),
			readIndex(url, 'after'),
			name,
			await uploaded(request, name)
		);
	});
