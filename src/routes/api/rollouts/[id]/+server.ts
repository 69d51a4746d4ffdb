import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId } from '$lib/server/http/requests.ts';
import { undoRollOut } from '$lib/server/runs/rollouts.ts';
import type { RequestHandler } from './$types.js';

/** Takes a roll-out back, in all its documents at once. */
export const DELETE: RequestHandler = ({ params }) =>
	answer<Gives<'DELETE /api/rollouts/*'>>(() => undoRollOut(db(), readId(params.id, 'roll-out')));
