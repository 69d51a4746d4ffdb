import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { queue } from '$lib/server/runs/queue.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { startReread } from '$lib/server/runs/runs.ts';
import type { RequestHandler } from './$types.js';

/** Begins a run in which every schedule of some drawings is read again. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/drawings/reread'>>(async () => {
		const { documents } = await readRequest(request, 'startReread');
		return startReread(db(), documents, (await queue(db())).send);
	}, 201);
