import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { drawingObjects } from '$lib/server/drawings/drawings.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The drawing's objects with their places and attributes. */
export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/drawings/*/objects'>>(() => drawingObjects(db(), readId(params.id, 'drawing')));
