import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { alikeTables } from '$lib/server/styles/lifting.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The tables that look like the one in `?table=`, from 0. */
export const GET: RequestHandler = ({ params, url }) =>
	answer<Gives<'GET /api/documents/*/alike'>>(() =>
		alikeTables(db(), readId(params.id, 'document'), readIndex(url, 'table'))
	);
