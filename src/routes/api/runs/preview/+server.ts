import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { previewRun } from '$lib/server/runs/preview.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** What a run would do to its documents, in pictures; nothing is begun. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/runs/preview'>>(async () => previewRun(db(), await readRequest(request, 'startRun')));
