import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import { impactPicture } from '$lib/server/runs/rollouts.ts';
import type { RequestHandler } from './$types.js';

/** A table (`?document=`, `?table=` from 0) with what it wears, for looking at what an edition would change. */
export const GET: RequestHandler = ({ url }) =>
	answer<Gives<'GET /api/styles/*/impact'>>(() =>
		impactPicture(db(), {
			document: readId(url.searchParams.get('document') ?? '', 'document'),
			index: readIndex(url, 'table')
		})
	);
