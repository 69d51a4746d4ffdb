import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { replaceDrawing } from '$lib/server/drawings/drawings.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { uploaded } from '$lib/server/http/files.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** A newer file of the drawing: its bytes are the body, its name is in `?name=`, the version that the sender saw in `?version=`. */
export const PUT: RequestHandler = ({ params, request, url }) =>
	answer<Gives<'PUT /api/drawings/*/file'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'drawing.svg');
		return replaceDrawing(
			db(),
			readId(params.id, 'drawing'),
			readIndex(url, 'version'),
			name,
			await uploaded(request, name)
		);
	});
