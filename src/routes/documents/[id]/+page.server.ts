import { load as answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadDocument } from '$lib/server/documents.ts';
import { Wardrobe } from '$lib/server/editions.ts';
import { loadHouse } from '$lib/server/house.ts';
import { readId } from '$lib/server/requests.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ params }) =>
	answer(async () => {
		const wardrobe = await Wardrobe.load(db());
		const house = await loadHouse(db());
		return {
			document: await loadDocument(db(), readId(params.id, 'document')),
			styles: wardrobe.offered(),
			older: wardrobe.older(house),
			house
		};
	});
