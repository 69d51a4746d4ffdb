import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadSheet } from '$lib/server/drawings/drawings.ts';
import { Wardrobe } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ params, depends }) =>
	answer(async () => {
		depends('heptarch:sheet');
		const wardrobe = await Wardrobe.load(db());
		const house = await loadHouse(db());
		return {
			drawing: await loadSheet(db(), readId(params.id, 'drawing')),
			styles: wardrobe.offered(),
			older: wardrobe.older(house),
			house
		};
	});
