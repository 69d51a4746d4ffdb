import { load as answer, NotFoundError } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadSpecimens } from '$lib/server/styles/specimens.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId } from '$lib/server/http/requests.ts';
import { loadStyleSteps } from '$lib/server/styles/steps.ts';
import { chosenSpecimens, listStyles } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

/** How many tables are put on a sheet that nobody chose tables for, the built-in one aside. */
const MOST = 5;

export const load: PageServerLoad = ({ params, depends }) => {
	depends('heptarch:bench');
	return answer(async () => {
		const id = readId(params.id, 'style');
		const styles = await listStyles(db());
		const style = styles.find((record) => record.id === id);
		if (!style) throw new NotFoundError('This style is no longer in the Stylebook.');
		const keys = await chosenSpecimens(db(), id);
		return {
			style,
			styles,
			house: await loadHouse(db()),
			history: await loadStyleSteps(db(), id),
			specimens: await loadSpecimens(db(), MOST, keys),
			hasBuiltIn: !keys || keys.includes('built-in')
		};
	});
};
