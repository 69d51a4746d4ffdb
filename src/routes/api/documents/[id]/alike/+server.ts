import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { alikeTables } from '$lib/server/lifting.ts';
import { readId, readIndex } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** The tables that look like the one in `?table=`, from 0. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(() => alikeTables(db(), readId(params.id, 'document'), readIndex(url, 'table')));
