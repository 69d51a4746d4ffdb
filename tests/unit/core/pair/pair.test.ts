import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { linesBetween } from '../../../../src/lib/core/pair/rows.ts';
import { pairTables } from '../../../../src/lib/core/pair/tables.ts';
import type { Pairable } from '../../../../src/lib/core/pair/likeness.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid, type Table } from '../../../../src/lib/core/table/grid.ts';

const tableOf = (...rows: string[]): Table =>
	recognisedTable(createGrid(rows.map((row) => row.split('|').map((cell) => cell.trim())))).table;
const at = (table: Table, caption = '', heading = ''): Pairable => ({
	table,
	place: { where: 'body', ...(caption && { caption }), ...(heading && { heading }) }
});
const pairsOf = (before: Pairable[], after: Pairable[]) =>
	pairTables(before, after).pairs.map(({ old, new: now }) => [old, now]);
const changes = (old: Table, now: Table) => linesBetween(old, now).changes;

const visitors = tableOf(
	'House | April | May',
	'Lily court | 1204 | 1420',
	'Fern grotto | 880 | 902',
	'Total | 2084 | 2322'
);
const plants = tableOf('Plant | Bed', 'Royal fern | North', 'Lady fern | South', 'Maidenhair | East');
const costs = tableOf('Item | Cost', 'Seed | 12.00', 'Glass | 30.50', 'Total | 42.50');

const word = fc.constantFrom('fern', 'lily', 'palm', 'moss', 'bed', 'seed', 'glass', '12', '30', '4.5', '');
const anyTable = fc
	.array(fc.array(word, { minLength: 3, maxLength: 3 }), { minLength: 2, maxLength: 6 })
	.map((rows) => recognisedTable(createGrid(rows)).table);
const anyDocument = fc.array(
	fc
		.record({ table: anyTable, caption: fc.constantFrom('', 'Beds', 'Table 2: Costs') })
		.map(({ table, caption }) => at(table, caption)),
	{ maxLength: 8 }
);

describe('pairing the tables of two versions', () => {
	it('finds the same pairs the other way round', () => {
		fc.assert(
			fc.property(anyDocument, anyDocument, (before, after) => {
				const back = pairsOf(after, before).map(([now, old]) => [old, now]);
				assert.deepEqual(
					pairsOf(before, after),
					back.sort(([a], [b]) => a! - b!)
				);
			})
		);
	});
	it('pairs each table once and loses none', () => {
		fc.assert(
			fc.property(anyDocument, anyDocument, (before, after) => {
				const { pairs, gone, new: fresh } = pairTables(before, after);
				const all = (count: number) => Array.from({ length: count }, (_, i) => i);
				assert.deepEqual(
					[...pairs.map(({ old }) => old), ...gone].sort((a, b) => a - b),
					all(before.length)
				);
				assert.deepEqual(
					[...pairs.map(({ new: now }) => now), ...fresh].sort((a, b) => a - b),
					all(after.length)
				);
			})
		);
	});
	it('of the same file pairs every table with itself, and no row differs', () => {
		fc.assert(
			fc.property(anyDocument, (document) => {
				assert.deepEqual(
					pairsOf(document, document),
					document.map((_, i) => [i, i])
				);
				for (const { table } of document) assert.deepEqual(changes(table, table), { added: [], gone: [], changed: [] });
			})
		);
	});
	it('finds a permutation of tables that say different things', () => {
		fc.assert(
			fc.property(
				fc
					.uniqueArray(fc.stringMatching(/^[a-z]{6}$/), { minLength: 2, maxLength: 9 })
					.chain((names) => fc.tuple(fc.constant(names), fc.shuffledSubarray(names, { minLength: names.length }))),
				([names, shuffled]) => {
					const made = (name: string) =>
						at(
							tableOf('Bed | Plants', `${name} a | 1${name.length}`, `${name} b | 20`, `${name} c | 30`),
							'Beds',
							'The beds'
						);
					const found = pairsOf(names.map(made), shuffled.map(made));
					assert.deepEqual(
						found,
						names.map((name, i) => [i, shuffled.indexOf(name)])
					);
				}
			)
		);
	});

	it('goes by content over surroundings, and by names and shape where all figures are new', () => {
		const newer = tableOf(
			'House | June | July',
			'Lily court | 1771 | 1903',
			'Fern grotto | 702 | 655',
			'Total | 2473 | 2558'
		);
		const dearer = tableOf('Item | Cost', 'Seed | 14.00', 'Glass | 33.10', 'Total | 47.10');
		const before = [at(visitors, 'Visitors', 'One'), at(plants, 'Plants', 'Two'), at(costs, 'Costs', 'Three')];
		const after = [at(plants, 'Visitors', 'One'), at(dearer, 'Costs', 'Two'), at(newer, 'Plants', 'Three')];
		assert.deepEqual(pairsOf(before, after), [
			[0, 2],
			[1, 0],
			[2, 1]
		]);
	});
	it('keeps the order of twins, with one more between them', () => {
		const before = [at(plants), at(plants), at(plants)];
		assert.deepEqual(pairsOf(before, [at(costs), at(plants), at(visitors), at(plants), at(plants)]), [
			[0, 1],
			[1, 3],
			[2, 4]
		]);
	});
	it('gives a table that became two to the larger part', () => {
		const long = tableOf('Plant | Bed', ...Array.from({ length: 12 }, (_, i) => `Plant ${i} | Bed ${i % 3}`));
		const part = (from: number, to: number) =>
			tableOf(
				'Plant | Bed',
				...Array.from({ length: to - from }, (_, i) => `Plant ${from + i} | Bed ${(from + i) % 3}`)
			);
		const { pairs, new: fresh } = pairTables([at(long)], [at(part(0, 4)), at(part(4, 12))]);
		assert.deepEqual([pairs.map(({ old, new: now }) => [old, now]), fresh], [[[0, 1]], [0]]);
	});
	it('leaves what is another table', () => {
		assert.deepEqual(pairTables([at(plants)], [at(visitors)]), { pairs: [], gone: [0], new: [0] });
		assert.deepEqual(pairTables([], [at(visitors)]), { pairs: [], gone: [], new: [0] });
	});
});

describe('what became of the rows', () => {
	it('rows that moved, spacing and paragraph breaks are no change', () => {
		const now = tableOf('Plant | Bed', 'Maidenhair | East', 'Royal  fern | North', 'Lady\nfern | South');
		assert.deepEqual(changes(plants, now), { added: [], gone: [], changed: [] });
	});
	it('a row is changed by its label, or by its place between others', () => {
		const now = tableOf(
			'Plant | Bed',
			'Royal fern | West',
			'Hart’s tongue | South',
			'Maidenhair | East',
			'Moss | North'
		);
		assert.deepEqual(changes(plants, now), {
			added: [4],
			gone: [],
			changed: [
				[1, 1],
				[2, 2]
			]
		});
	});
	it('rows that came and went, and a total that changed with them', () => {
		const now = tableOf('Item | Cost', 'Seed | 12.00', 'Pots | 8.00', 'Total | 20.00');
		assert.deepEqual(changes(costs, now), {
			added: [],
			gone: [],
			changed: [
				[2, 2],
				[3, 3]
			]
		});
		const fewer = tableOf('Item | Cost', 'Glass | 30.50', 'Total | 30.50');
		assert.deepEqual(changes(costs, fewer), { added: [], gone: [1], changed: [[3, 2]] });
	});
	it('a column that is new, gone or renamed changes the header row only', () => {
		const wider = tableOf(
			'Plant | Height | Bed',
			'Royal fern | 140 | North',
			'Lady fern | 90 | South',
			'Maidenhair | 35 | East'
		);
		assert.deepEqual(changes(plants, wider), { added: [], gone: [], changed: [[0, 0]] });
		assert.deepEqual(changes(wider, plants), { added: [], gone: [], changed: [[0, 0]] });
		const renamed = tableOf('Plant | Stands in', 'Royal fern | North', 'Lady fern | South', 'Maidenhair | East');
		assert.deepEqual(changes(plants, renamed), { added: [], gone: [], changed: [[0, 0]] });
	});
	it('every old row is in the new table or gone, every new one was there or is added', () => {
		fc.assert(
			fc.property(anyTable, anyTable, (old, now) => {
				const { rows, changes: found } = linesBetween(old, now);
				assert.equal(rows.size + found.gone.length, old.rows);
				assert.equal(new Set(rows.values()).size + found.added.length, now.rows);
				for (const [a, b] of found.changed) assert.equal(rows.get(a), b);
			})
		);
	});
});
