import fc from 'fast-check';
import { LEAVES } from '../../../src/lib/core/properties/index.ts';
import type { Leaf } from '../../../src/lib/core/properties/property.ts';
import { settingsOf } from '../../../src/lib/core/style/leaves.ts';
import { createGrid, type Span } from '../../../src/lib/core/table/grid.ts';
import type { LeafValue, PartSettings, Style } from '../../../src/lib/core/style/types.ts';

/** Any value that a leaf's schema allows. */
function anyValue(schema: Record<string, unknown>): fc.Arbitrary<LeafValue> {
	if (Array.isArray(schema.enum)) return fc.constantFrom(...(schema.enum as LeafValue[]));
	if (schema.type === 'boolean') return fc.boolean();
	if (schema.type === 'integer') return fc.integer({ min: Number(schema.minimum), max: Number(schema.maximum) });
	if (schema.type === 'number') return fc.constantFrom(0.25, 0.5, 1);
	const pattern = String(schema.pattern ?? '');
	if (pattern.includes('pt')) return fc.constantFrom('1pt', '0.5mm', '2in');
	if (pattern.includes('[A-Z]{3}')) return fc.constantFrom('EUR', 'GBP');
	return fc.constantFrom('fern', 'loam', 'mist');
}
const settingsOutOf = (leaves: readonly Leaf[]): fc.Arbitrary<PartSettings> =>
	fc
		.subarray([...leaves], { maxLength: 6 })
		.chain((chosen) =>
			fc.tuple(...chosen.map(({ path, schema }) => anyValue(schema).map((value) => [path, value] as const)))
		)
		.map((set) => settingsOf(new Map(set as [string, LeafValue][])));
/** What any part can set. */
export const anySettings = settingsOutOf(LEAVES.filter(({ only }) => only === undefined));
const ground = settingsOutOf(LEAVES);
const PARTS = [
	'ground',
	'columnBand:1',
	'rowBand:1',
	'rowBand:2',
	'columns:money',
	'columns:"Cost"',
	'firstColumn',
	'lastColumn',
	'note',
	'group',
	'group:1',
	'subtotal',
	'total',
	'header',
	'header:2',
	'title',
	'corner:header-first'
];
export const anyStyle: fc.Arbitrary<Style> = fc
	.tuple(ground, fc.dictionary(fc.constantFrom(...PARTS.slice(1)), anySettings))
	.map(([own, parts]) => ({
		format: 'heptarch-style',
		version: 1,
		name: 'Any',
		basedOn: null,
		parts: { ...(Object.keys(own).length && { ground: own }), ...parts }
	}));

/** Grids with spans that do not overlap: spans are tried one after the other, and those that fit are kept. */
export const anyGrid = fc
	.tuple(
		fc.integer({ min: 1, max: 8 }),
		fc.integer({ min: 1, max: 6 }),
		fc.array(fc.tuple(fc.nat(7), fc.nat(5), fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 })), {
			maxLength: 8
		})
	)
	.map(([rows, columns, wanted]) => {
		const texts = Array.from({ length: rows }, (_, r) => Array.from({ length: columns }, (_, c) => `${r},${c}`));
		const spans: Span[] = [];
		for (const [r, c, high, wide] of wanted)
			try {
				const span = { r, c, rows: high, cols: wide };
				createGrid(texts, [...spans, span]);
				if (high > 1 || wide > 1) spans.push(span);
			} catch {
				// Reaches outside or overlaps.
			}
		return { texts, spans };
	});
