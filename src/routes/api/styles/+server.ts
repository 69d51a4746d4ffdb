import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { createStyle, importStyle, listStyles } from '$lib/server/styles/styles.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer<Gives<'GET /api/styles'>>(() => listStyles(db()));

/** A new style: blank, from another one, or from a style file. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/styles'>>(async () => {
		const { definition, ...beginning } = await readRequest(request, 'newStyle');
		return { id: definition === undefined ? await createStyle(db(), beginning) : await importStyle(db(), definition) };
	}, 201);
