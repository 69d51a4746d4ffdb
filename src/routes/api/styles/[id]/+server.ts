import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { removeStyle } from '$lib/server/styles/removal.ts';
import { saveStyle } from '$lib/server/styles/steps.ts';
import { loadStyle } from '$lib/server/styles/styles.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/styles/*'>>(() => loadStyle(db(), readId(params.id, 'style')));

/** What an editor did since the version that it saw: steps, and where it stands among them. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/styles/*'>>(async () =>
		saveStyle(db(), readId(params.id, 'style'), await readRequest(request, 'saveStyle'))
	);

export const DELETE: RequestHandler = ({ params, request }) =>
	answer<Gives<'DELETE /api/styles/*'>>(async () => {
		const { replacement } = await readRequest(request, 'removeStyle');
		await removeStyle(db(), readId(params.id, 'style'), replacement);
	});
