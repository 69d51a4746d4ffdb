import { load as answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readIndex } from '$lib/server/requests.ts';
import { formatViews } from '$lib/server/writing.ts';
import type { PageServerLoad } from './$types.js';

/** One table of the document as every format shows it. */
export const load: PageServerLoad = ({ params, url }) =>
	answer(() => formatViews(db(), readId(params.id, 'document'), readIndex(url, 'table')));
