import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadSpecimens } from '$lib/server/styles/specimens.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { listStyles } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:styles');
	return answer(async () => ({
		styles: await listStyles(db()),
		house: await loadHouse(db()),
		specimens: await loadSpecimens(db(), 1)
	}));
};
