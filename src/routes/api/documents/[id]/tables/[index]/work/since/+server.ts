import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readNumber } from '$lib/server/http/requests.ts';
import { workSince } from '$lib/server/tables/work.ts';
import type { RequestHandler } from './$types.js';

/** Whether a table still stands at the step in `?after=`, which is empty for one that was not worked on. */
export const GET: RequestHandler = ({ params, url }) =>
	answer<Gives<'GET /api/documents/*/tables/*/work/since'>>(async () => {
		const after = url.searchParams.get('after') ?? '';
		return workSince(
			db(),
			readId(params.id, 'document'),
			readNumber(params.index, 'table'),
			after === '' ? null : readNumber(after, 'step')
		);
	});
