import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { mergedLeaves, same } from '../../../src/lib/core/merge.ts';
import { typed } from '../../../src/lib/core/work/cells.ts';
import { insertColumns, insertRows, removeLines } from '../../../src/lib/core/work/lines.ts';
import { mergedWork } from '../../../src/lib/core/work/merge.ts';
import { workOfRows } from '../../../src/lib/core/work/begin.ts';
import { workedOut } from '../../../src/lib/core/work/working.ts';
import { emptyTable, isCovered, withCells, type WorkTable } from '../../../src/lib/core/work/table.ts';

describe('two changes of one thing, leaf by leaf', () => {
	const thing = fc.dictionary(
		fc.constantFrom('fill', 'text', 'align'),
		fc.dictionary(fc.constantFrom('ink', 'size', 'h'), fc.constantFrom('fern', '9pt', 'end'), {
			maxKeys: 3,
			noNullPrototype: true
		}),
		{ maxKeys: 3, noNullPrototype: true }
	);
	test('what one of them left alone is as the other made it', () => {
		fc.assert(
			fc.property(thing, thing, (base, changed) => {
				assert.deepEqual(mergedLeaves(base, base, changed), { merged: changed, mine: changed, clashes: [] });
				assert.deepEqual(mergedLeaves(base, changed, base), { merged: changed, mine: changed, clashes: [] });
				assert.deepEqual(mergedLeaves(base, changed, changed).clashes, []);
			})
		);
	});
	test('the two may come in either order, but for who has the clashes', () => {
		fc.assert(
			fc.property(thing, thing, thing, (base, a, b) => {
				const [one, other] = [mergedLeaves(base, a, b), mergedLeaves(base, b, a)];
				assert.ok(same(one.merged, other.mine) && same(one.mine, other.merged));
				assert.equal(one.clashes.length, other.clashes.length);
				assert.equal(one.clashes.length === 0, same(one.merged, one.mine));
			})
		);
	});
	test('a group that one of them took out is its leaves taken out: what the other put in stays', () => {
		const base = { text: { ink: 'fern' } };
		const { merged, mine, clashes } = mergedLeaves<object>(base, { text: { ink: 'fern', size: '9pt' } }, {});
		assert.deepEqual([merged, mine, clashes], [{ text: { size: '9pt' } }, { text: { size: '9pt' } }, []]);
		assert.deepEqual(mergedLeaves<object>(base, { text: { ink: 'rust' } }, {}).clashes.length, 1);
	});
	test('a clash names its place and both values; lists are leaves', () => {
		const { merged, mine, clashes } = mergedLeaves<object>(
			{ fill: { ink: 'fern' }, rules: [1] },
			{ fill: { ink: 'mist', tint: 0.5 }, rules: [1, 2] },
			{ fill: { ink: 'loam' }, rules: [1] }
		);
		assert.deepEqual(merged, { fill: { ink: 'loam', tint: 0.5 }, rules: [1, 2] });
		assert.deepEqual(mine, { fill: { ink: 'mist', tint: 0.5 }, rules: [1, 2] });
		assert.deepEqual(clashes, [{ path: ['fill', 'ink'], mine: 'mist', theirs: 'loam' }]);
	});
});

describe('two changes of one table, cell by cell', () => {
	const base = emptyTable(4, 3, { headers: 1 });
	const text = (work: WorkTable) =>
		work.rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? '' : slot.text)).join('|')).join('\n');
	const place = fc.record({ r: fc.nat(3), c: fc.nat(2) });
	const edits = fc.array(fc.tuple(place, fc.constantFrom('a', 'b', 'c')), { maxLength: 6 });
	const made = (list: readonly (readonly [{ r: number; c: number }, string])[]) =>
		list.reduce((work, [{ r, c }, words]) => typed(work, r, c, words), base);
	test('both stand, in either order; a cell that both changed otherwise is asked about, with both texts', () => {
		fc.assert(
			fc.property(edits, edits, (ours, others) => {
				const [a, b] = [made(ours), made(others)];
				const [one, other] = [mergedWork(base, a, b)!, mergedWork(base, b, a)!];
				assert.equal(text(one.merged), text(other.mine));
				assert.equal(text(one.mine), text(other.merged));
				one.merged.rows.forEach(({ cells }, r) =>
					cells.forEach((slot, c) => {
						const at = (work: WorkTable) => {
							const found = work.rows[r]!.cells[c]!;
							return isCovered(found) ? '' : found.text;
						};
						const isClash = at(a) !== at(b) && at(a) !== '' && at(b) !== '';
						assert.equal(
							one.clashes.some(
								(clash) => clash.r === r && clash.c === c && clash.mine === at(a) && clash.theirs === at(b)
							),
							isClash
						);
						if (!isClash) assert.equal(isCovered(slot) ? '' : slot.text, at(a) || at(b));
					})
				);
			})
		);
	});
	test('rows that one of them put in stand among what the other typed', () => {
		const rows = insertRows(base, 2, 1);
		const words = typed(base, 3, 1, 'fern');
		const { merged, clashes } = mergedWork(base, rows, words)!;
		assert.deepEqual(clashes, []);
		assert.equal(merged.rows.length, 5);
		assert.equal(text(merged), '||\n||\n||\n||\n|fern|');
		assert.equal(text(mergedWork(base, words, rows)!.merged), text(merged));
	});
	test('what is worked out is no clash: it is worked out from what both typed', () => {
		const made = workOfRows([
			['Bed', 'Plants'],
			['North', '1'],
			['South', '2'],
			['Total', '']
		]);
		const rows = made.rows.map((row, r) => ({
			...row,
			role: r === 0 ? ('header:1' as const) : r === 3 ? ('total' as const) : ('body' as const)
		}));
		const total = workedOut(withCells({ ...made, rows }, [{ r: 3, c: 1 }], (cell) => ({ ...cell, total: 'sum' }))).work;
		const edit = (r: number, text: string) => workedOut(typed(total, r, 1, text)).work;
		const { merged, clashes } = mergedWork(total, edit(1, '10'), edit(2, '20'))!;
		assert.deepEqual(clashes, []);
		assert.deepEqual(
			merged.rows.map(({ cells }) => (isCovered(cells[1]!) ? '' : cells[1]!.text)),
			['Plants', '10', '20', '30']
		);
	});
	test('what cannot go together at all is told apart: a row taken out that the other changed, rows moved by both', () => {
		const words = typed(base, 3, 1, 'fern');
		assert.equal(mergedWork(base, removeLines(base, 'rows', new Set([3])), words), undefined);
		assert.ok(mergedWork(base, removeLines(base, 'rows', new Set([2])), words));
		assert.equal(mergedWork(base, insertRows(base, 1, 1), insertRows(base, 3, 1)), undefined);
		assert.equal(mergedWork(base, insertColumns(base, 1, 1), words), undefined);
	});
});
