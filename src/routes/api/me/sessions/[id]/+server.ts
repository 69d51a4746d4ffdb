import { answer } from '$lib/server/http/answers.ts';
import { readId } from '$lib/server/http/requests.ts';
import { known } from '$lib/server/http/signed.ts';
import { endSession } from '$lib/server/people/sessions.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Signs out of one session, wherever it is. */
export const DELETE: RequestHandler = ({ params, locals }) =>
	answer(async () => endSession((await entrance()).door, known(locals).person, readId(params.id, 'session')));
