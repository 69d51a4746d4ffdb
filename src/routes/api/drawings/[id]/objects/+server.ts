import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { drawingObjects } from '$lib/server/drawings.ts';
import { readId } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** The drawing's objects with their places and attributes. */
export const GET: RequestHandler = ({ params }) => answer(() => drawingObjects(db(), readId(params.id, 'drawing')));
