import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readOutput } from '$lib/server/http/requests.ts';
import { printDocument } from '$lib/server/documents/writing.ts';
import type { PageServerLoad } from './$types.js';

/** The pages of the document's PDF, on the paper and of the tables that the address names. */
export const load: PageServerLoad = ({ params, url }) =>
	answer(async () => {
		const output = readOutput(url);
		return {
			...(await printDocument(db(), readId(params.id, 'document'), output)),
			paper: output.paper!,
			only: output.only
		};
	});
