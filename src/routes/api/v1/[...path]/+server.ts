import { dispatch } from '$lib/server/api/dispatch.ts';
import type { RequestHandler } from './$types.js';

const answer: RequestHandler = ({ request, url }) => dispatch(request, url);

/** The door for programs: `server/api/operations.ts` says what there is. */
export const GET: RequestHandler = answer;
export const POST: RequestHandler = answer;
export const PUT: RequestHandler = answer;
export const PATCH: RequestHandler = answer;
export const DELETE: RequestHandler = answer;
