import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { houseSteps, loadHouse } from '$lib/server/house/house.ts';
import { loadStore } from '$lib/server/house/store.ts';
import { listStyles } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:house');
	return answer(async () => ({
		house: await loadHouse(db()),
		steps: await houseSteps(db()),
		store: await loadStore(db()),
		styles: await listStyles(db())
	}));
};
