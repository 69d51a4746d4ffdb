import { load as answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadDocument } from '$lib/server/documents.ts';
import { loadHouse } from '$lib/server/house.ts';
import { readId } from '$lib/server/requests.ts';
import { listStyles } from '$lib/server/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ params }) =>
	answer(async () => ({
		document: await loadDocument(db(), readId(params.id, 'document')),
		styles: await listStyles(db()),
		house: await loadHouse(db())
	}));
