import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listDocuments, loadDocument } from '$lib/server/documents/list.ts';
import { Wardrobe } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId } from '$lib/server/http/requests.ts';
import { listStarters } from '$lib/server/tables/tables.ts';
import type { PageServerLoad } from './$types.js';

/** Documents that have text around their tables, or a sheet, so that a table can be put in. */
const TAKES_TABLES: readonly string[] = ['docx', 'odt', 'html', 'svg'];

export const load: PageServerLoad = ({ url }) =>
	answer(async () => {
		const wardrobe = await Wardrobe.load(db());
		const house = await loadHouse(db());
		const into = url.searchParams.get('into');
		const { documents } = await listDocuments(db(), { kinds: TAKES_TABLES, most: 200 });
		const opened = into ? await loadDocument(db(), readId(into, 'document')) : undefined;
		const target = opened && TAKES_TABLES.includes(opened.kind) ? opened : undefined;
		const isListed = !target || documents.some(({ id }) => id === target.id);
		return {
			starters: await listStarters(db()),
			styles: wardrobe.offered(),
			older: wardrobe.older(house),
			house,
			documents: (isListed ? documents : [target, ...documents]).map(({ id, name }) => ({ id, name })),
			into: target && {
				id: target.id,
				kind: target.kind as string,
				name: target.name,
				version: target.version,
				blocks: target.blocks.map((block) =>
					block.kind === 'table'
						? { kind: block.kind, text: target.tables[block.index]!.place.caption ?? `table ${block.index + 1}` }
						: { kind: block.kind, text: 'text' in block ? block.text : block.picture.alternative }
				)
			},
			starter: url.searchParams.get('starter')
		};
	});
