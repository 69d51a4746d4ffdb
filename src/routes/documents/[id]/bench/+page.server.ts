import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { documentRow } from '$lib/server/documents/rows.ts';
import { Wardrobe } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId, readIndex } from '$lib/server/http/requests.ts';
import { fileLookOf, loadWork } from '$lib/server/tables/work.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ params, url }) =>
	answer(async () => {
		const id = readId(params.id, 'document');
		const index = url.searchParams.has('table') ? readIndex(url, 'table') : 0;
		const { name } = await documentRow(db(), id);
		const { base, from, steps, at, by, entry, state, kind, others, tables } = await loadWork(db(), id, index);
		const wardrobe = await Wardrobe.load(db());
		const house = await loadHouse(db());
		return {
			id,
			index,
			name,
			kind,
			place: entry.place,
			others,
			tables,
			work: { base, from, steps, at, by },
			wears: state.tables[index] ?? {},
			fileLook: await fileLookOf(db(), id, index, state),
			styles: wardrobe.offered(),
			older: wardrobe.older(house),
			house
		};
	});
