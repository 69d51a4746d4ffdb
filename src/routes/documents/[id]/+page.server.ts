import { redirect } from '@sveltejs/kit';
import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { documentRow } from '$lib/server/documents/rows.ts';
import { loadDocumentPage } from '$lib/server/documents/list.ts';
import { Wardrobe } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = async ({ params, url }) => {
	const { kind } = await answer(() => documentRow(db(), readId(params.id, 'document')));
	if (kind === 'svg') redirect(307, `/documents/${params.id}/sheet`);
	return answer(async () => {
		const wardrobe = await Wardrobe.load(db());
		const house = await loadHouse(db());
		return {
			document: await loadDocumentPage(db(), params.id, url.searchParams.has('at') ? readIndex(url, 'at') : 0),
			styles: wardrobe.offered(),
			older: wardrobe.older(house),
			house
		};
	});
};
