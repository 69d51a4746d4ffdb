import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listSpecimens } from '$lib/server/styles/specimens.ts';
import type { RequestHandler } from './$types.js';

/** Every table that can stand on a specimen sheet. */
export const GET: RequestHandler = () => answer<Gives<'GET /api/specimens'>>(() => listSpecimens(db()));
