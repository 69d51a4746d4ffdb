import { db } from '$lib/server/database.ts';
import { Wardrobe } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { listStarters } from '$lib/server/tables/tables.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = async ({ depends }) => {
	depends('heptarch:starters');
	const wardrobe = await Wardrobe.load(db());
	const house = await loadHouse(db());
	return { starters: await listStarters(db()), styles: wardrobe.offered(), older: wardrobe.older(house), house };
};
