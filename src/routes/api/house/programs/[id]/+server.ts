import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId } from '$lib/server/http/requests.ts';
import { endToken } from '$lib/server/programs/tokens.ts';
import type { RequestHandler } from './$types.js';

/** A token leads nowhere from now on. */
export const DELETE: RequestHandler = ({ params }) => answer(() => endToken(db(), readId(params.id, 'token')));
