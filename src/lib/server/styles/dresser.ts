import { appearanceOf } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import type { Seen } from '../../core/census/settings.ts';
import type { House } from '../../core/house.ts';
import { ONLY_TEXT, OWN_LOOK } from '../../core/style/bare.ts';
import { flatten, type FlatStyle } from '../../core/style/inherit.ts';
import { ASPECTS } from '../../core/style/types.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { TableState } from '../../workbench/state.ts';
import { stateTable, touchedTable } from '../../workbench/table.ts';
import { thumbnailOf, type Thumbnail } from '../../workbench/thumbnail.ts';
import { isMeantFor, type Place } from '../../workbench/use.ts';
import type { Db } from '../documents/rows.ts';
import { loadHouse } from '../house/house.ts';
import { Wardrobe } from './editions.ts';
import { findIn } from './styles.ts';

/** Nothing but text, and the look that a table came with, under its touches. */
const BARE = flatten(ONLY_TEXT);
const OWN = flatten(OWN_LOOK);

/** Tables are seen in what they wear, or in another style in its place. */
export class Dresser {
	private constructor(
		private readonly wardrobe: Wardrobe,
		readonly house: House
	) {}
	static async of(db: Db): Promise<Dresser> {
		return new Dresser(await Wardrobe.load(db), await loadHouse(db));
	}

	/** Styles that tables of some documents can be given, each as its tables would wear it. */
	offered(places: readonly Place[]): { id: string; name: string; style: FlatStyle }[] {
		return this.wardrobe
			.offered()
			.filter(({ aside, use }) => !aside && places.some((place) => isMeantFor(use, place)))
			.map(({ id, definition }) => ({ id, name: definition.name, style: this.flat(definition) }));
	}
	private flat(definition: Parameters<typeof flatten>[0]): FlatStyle {
		return flatten(definition, findIn(this.wardrobe.styles));
	}

	/** A table as it is seen: with what a person decided of it, in what it wears. */
	seen(entry: DocumentTable, state: TableState | undefined, instead?: FlatStyle): Seen {
		const { cleared, ...rest } = state ?? {};
		const own = rest.style ? this.wardrobe.definition(rest) : undefined;
		const worn = instead ?? (own && this.flat(own));
		const isBare = !worn && !!cleared;
		const touched = worn || isBare ? undefined : touchedTable(entry, rest);
		const table =
			touched ?? stateTable(entry, { ...rest, ...(isBare && { carry: ASPECTS, partsOff: [], touches: [] }) });
		const style = worn ?? (isBare ? BARE : touched ? OWN : undefined);
		return {
			table,
			appearance: style ? appearanceOf(resolve(table, style, this.house), entry.appearance) : entry.appearance
		};
	}

	picture(entry: DocumentTable, state: TableState | undefined, instead?: FlatStyle): Thumbnail {
		const { table, appearance } = this.seen(entry, state, instead);
		return thumbnailOf(entry.place.caption ?? '', table, appearance, entry.widths);
	}
}
