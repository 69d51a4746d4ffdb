import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { shownDrawing } from '$lib/server/drawings/drawings.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The drawing as it may be shown: its text inside JSON, so that no browser takes it for a page of its own. */
export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/drawings/*/shown'>>(() => shownDrawing(db(), readId(params.id, 'drawing')));
