import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { useStyle } from '$lib/server/styles/styles.ts';
import type { RequestHandler } from './$types.js';

/** Says where a style is offered from now on; what wears it goes on wearing it. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/styles/*/use'>>(async () => {
		const { kinds, document } = await readRequest(request, 'useStyle');
		await useStyle(db(), readId(params.id, 'style'), kinds ? { kinds } : document ? { document } : null);
	});
