import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { reuseSchedule } from '$lib/server/drawings/drawings.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Places a schedule in other drawings; each lists its own objects. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/drawings/reuse'>>(async () => {
		const { placed, state, drawings } = await readRequest(request, 'reuseSchedule');
		return reuseSchedule(db(), placed, state, drawings);
	});
