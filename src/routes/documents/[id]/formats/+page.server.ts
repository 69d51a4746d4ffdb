import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import { formatViews } from '$lib/server/documents/writing.ts';
import type { PageServerLoad } from './$types.js';

/** One table of the document as every format shows it. */
export const load: PageServerLoad = ({ params, url }) =>
	answer(() => formatViews(db(), readId(params.id, 'document'), readIndex(url, 'table')));
