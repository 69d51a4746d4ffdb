import fc from 'fast-check';
import { ASPECTS } from '../../../src/lib/core/style/types.ts';
import { emu } from '../../../src/lib/core/units.ts';
import type { DocumentState, TableState } from '../../../src/lib/workbench/state.ts';

const index = fc.nat({ max: 40 });

/** States with anything in them that a document, a drawing or its tables can be in; some tables wear one of `styles`. */
export function anyState(styles: readonly string[]): fc.Arbitrary<DocumentState> {
	const table = fc.record<TableState>(
		{
			style: fc.constantFrom(...styles, 'ffffffff-0000-4000-8000-000000000000'),
			edition: fc.integer({ min: 1, max: 9 }),
			pinned: fc.boolean(),
			partsOff: fc.subarray(['rowBand', 'total', 'header:2']),
			carry: fc.subarray([...ASPECTS]),
			cleared: fc.boolean(),
			roles: fc.dictionary(fc.nat({ max: 9 }).map(String), fc.constantFrom('total', 'header:1'), {
				noNullPrototype: true
			}) as never,
			kinds: fc.dictionary(fc.nat({ max: 9 }).map(String), fc.constantFrom('code', 'money'), {
				noNullPrototype: true
			}) as never,
			firstColumns: fc.nat({ max: 3 }),
			lastColumns: fc.nat({ max: 3 }),
			dropsEmphasis: fc.boolean(),
			widths: fc.array(fc.nat({ max: 9_000_000 }).map(emu), { maxLength: 4 }),
			work: fc.integer({ min: 1, max: 900 }),
			touches: fc.array(fc.record({ r: index, c: index, set: fc.constant({ fill: { ink: 'mist' } }) }), {
				maxLength: 3
			})
		},
		{ requiredKeys: [], noNullPrototype: true }
	);
	return fc.record<DocumentState>(
		{
			tables: fc.dictionary(index.map(String), table, { maxKeys: 6, noNullPrototype: true }) as never,
			added: fc.array(fc.record({ after: fc.integer({ min: -1, max: 30 }) }), { maxLength: 4 }),
			gone: fc.array(index, { maxLength: 4 }),
			drawing: fc.record(
				{
					file: fc.constant('a'.repeat(64)),
					sheet: fc.constant({ scale: 50, unit: 'mm' as const }),
					attributes: fc.dictionary(
						fc.constantFrom('fern/1', 'fern/2'),
						fc.constant({ species: 'Dryopteris', pot: null }),
						{ noNullPrototype: true }
					),
					placed: fc.constant([])
				},
				{ requiredKeys: [], noNullPrototype: true }
			) as never
		},
		{ requiredKeys: ['tables'], noNullPrototype: true }
	);
}
