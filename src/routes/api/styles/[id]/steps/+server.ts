import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId } from '$lib/server/http/requests.ts';
import { loadStyleSteps } from '$lib/server/styles/steps.ts';
import type { RequestHandler } from './$types.js';

/** A style's steps, and where it stands among them. */
export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/styles/*/steps'>>(() => loadStyleSteps(db(), readId(params.id, 'style')));
