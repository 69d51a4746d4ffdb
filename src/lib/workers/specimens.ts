import type { House } from '../core/house.ts';
import { appearanceOf, type Appearance } from '../core/cascade/look.ts';
import { resolve, restyle, type EdgeResult, type Resolved, type Decided } from '../core/cascade/resolve.ts';
import type { Structure } from '../core/cascade/structure.ts';
import { flatten } from '../core/style/inherit.ts';
import type { Style } from '../core/style/types.ts';
import type { Table } from '../core/table/grid.ts';

/** What the specimen worker is told: which tables there are, then one style after another. */
export type Order =
	| { readonly tables: readonly { readonly key: string; readonly table: Table }[] }
	| {
			readonly id: number;
			readonly style: Style;
			/** Its base chain, by the references that the styles give. */
			readonly bases: readonly (readonly [reference: string, style: Style])[];
			readonly house: House;
	  };

/** One table in the style. What stays the same from style to style is sent once. */
export interface Answered extends Omit<Appearance, 'cellLook' | 'across' | 'down'> {
	readonly key: string;
	readonly structure?: Omit<Structure, 'table'>;
	readonly cellLook?: Int32Array;
	readonly leaves: readonly ReadonlyMap<string, Decided>[];
	readonly edges: readonly EdgeResult[];
}

export interface SpecimensResolved {
	readonly id: number;
	readonly tables: readonly Answered[];
	/** Milliseconds that resolving took, without the way here and back. */
	readonly took: number;
}

let tables: readonly { key: string; table: Table }[] = [];
let kept = new Map<string, Resolved>();

function answered(key: string, before: Resolved | undefined, resolved: Resolved): Answered {
	const { cellLook, across: _across, down: _down, ...shown } = appearanceOf(resolved);
	const { table: _, ...structure } = resolved.structure;
	const isNew = before?.structure !== resolved.structure;
	return { key, ...(isNew && { structure, cellLook }), leaves: resolved.leaves, edges: resolved.edges, ...shown };
}

addEventListener('message', ({ data }: MessageEvent<Order>) => {
	if ('tables' in data) {
		tables = data.tables;
		kept = new Map();
		return;
	}
	const started = performance.now();
	const bases = new Map(data.bases);
	const flat = flatten(data.style, (reference) => bases.get(reference));
	const before = kept;
	kept = new Map(
		tables.map(({ key, table }) => {
			const old = before.get(key);
			return [key, old ? restyle(old, flat, data.house) : resolve(table, flat, data.house)];
		})
	);
	const answers = [...kept].map(([key, resolved]) => answered(key, before.get(key), resolved));
	const answer: SpecimensResolved = { id: data.id, tables: answers, took: performance.now() - started };
	postMessage(answer);
});
