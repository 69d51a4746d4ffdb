import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { queue } from '$lib/server/runs/queue.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { listRuns, startRun } from '$lib/server/runs/runs.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer<Gives<'GET /api/runs'>>(() => listRuns(db()));

/** Begins a run: a style for every table of some documents. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/runs'>>(async () => {
		const wanted = await readRequest(request, 'startRun');
		return startRun(db(), wanted, (await queue(db())).send);
	}, 201);
