import { load as answer } from '$lib/server/http/answers.ts';
import { countRules } from '$lib/server/census/read.ts';
import { db } from '$lib/server/database.ts';
import { houseSteps, loadHouse } from '$lib/server/house/house.ts';
import { listStyles } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:house');
	depends('heptarch:census');
	return answer(async () => ({
		house: await loadHouse(db()),
		steps: await houseSteps(db()),
		counted: await countRules(db()),
		styles: (await listStyles(db())).map(({ id, definition, aside }) => ({ id, name: definition.name, aside }))
	}));
};
