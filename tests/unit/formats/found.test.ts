import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Look } from '../../../src/lib/core/cascade/look.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { bareAppearance, plainContent } from '../../../src/lib/formats/bare.ts';
import { contentKey, wearsOf } from '../../../src/lib/formats/carried.ts';
import { foundTable, shownHints } from '../../../src/lib/formats/found.ts';

const grid = createGrid([
	['Bed', 'Plants', 'Note'],
	['Fern walk', '12', ''],
	['Lily court', '8', '']
]);

/** A table whose parts say how often they were worked out. */
function counted(carried: Parameters<typeof foundTable>[0]['carried'] = { styles: [], tables: [] }) {
	const times = { hints: 0, appearance: 0, content: 0 };
	const table = foundTable({
		index: 0,
		place: { where: 'body', part: 'test' },
		grid,
		widths: [],
		wornName: null,
		locked: [],
		carried,
		hints: (appearance) => {
			times.hints++;
			return shownHints(grid, (cell) => appearance().looks[appearance().cellLook[cell]!]!);
		},
		appearance: () => {
			times.appearance++;
			return bareAppearance(grid);
		},
		content: () => {
			times.content++;
			return plainContent(grid.cells);
		}
	});
	return { table, times };
}

describe('a table that a reader found', () => {
	it('is worked out as far as somebody asks, and once', () => {
		const { table, times } = counted();
		assert.deepEqual(times, { hints: 0, appearance: 0, content: 0 });
		assert.equal(table.appearance.cellLook.length, 9);
		assert.deepEqual(times, { hints: 0, appearance: 1, content: 0 }, 'a look needs no recognition');
		assert.equal(table.table.roles[0], 'header:1');
		assert.equal(table.recognition.rows.length, 3);
		assert.equal(table.content.length, 9);
		void [table.table, table.content, table.appearance];
		assert.deepEqual(times, { hints: 1, appearance: 1, content: 1 });
	});
	it('has what its file carries of it laid over what was recognised', () => {
		const { table: plain } = counted();
		const wears = { ...wearsOf(plain.table, 'Beacon'), roles: ['header:1', 'body', 'total'] as const };
		const { table } = counted({ styles: [], tables: [{ index: 4, key: contentKey(grid), wears }] });
		assert.equal(table.carried?.style, 'Beacon');
		assert.deepEqual(table.table.roles, wears.roles);
		assert.equal(table.recognition.rows[2]!.is, 'body');
	});
	it('says no locks where there are none', () => assert.ok(!('locked' in counted().table)));
});

describe('what the looks of its cells show of a row', () => {
	const shown = (looks: readonly Look[]) => shownHints(grid, (cell) => looks[cell]!);
	const bold: Look = { weight: 700, fill: '#DDDDDD' };
	const plain: Look = { weight: 400, fill: 'none' };
	it('is bold where all of its filled cells are', () => {
		const { bold: isBold } = shown([bold, bold, bold, bold, bold, plain, bold, plain, plain]);
		assert.deepEqual([0, 1, 2].map(isBold), [true, true, false]);
	});
	it('has the fill that most of its cells have, and none is no fill', () => {
		const { fill } = shown([bold, bold, plain, plain, bold, bold, plain, plain, plain]);
		assert.deepEqual([0, 1, 2].map(fill), ['#DDDDDD', undefined, undefined]);
	});
});

describe('the key of a table’s content', () => {
	it('is the one that written files carry', () => assert.equal(contentKey(grid), '3x3-7744a6a6'));
	it('tells texts and places apart', () => {
		const keys = [[['a', 'b']], [['a'], ['b']], [['ab', '']], [['', 'ab']], [['b', 'a']]].map((texts) =>
			contentKey(createGrid(texts))
		);
		assert.equal(new Set(keys).size, keys.length);
	});
});
