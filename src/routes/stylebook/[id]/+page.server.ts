import { load as answer, NotFoundError } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadSpecimens } from '$lib/server/documents.ts';
import { loadHouse } from '$lib/server/house.ts';
import { readId } from '$lib/server/requests.ts';
import { listStyles } from '$lib/server/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ params }) =>
	answer(async () => {
		const styles = await listStyles(db());
		const style = styles.find(({ id }) => id === readId(params.id, 'style'));
		if (!style) throw new NotFoundError('This style is no longer in the Stylebook.');
		return { style, styles, house: await loadHouse(db()), specimens: await loadSpecimens(db(), 5) };
	});
