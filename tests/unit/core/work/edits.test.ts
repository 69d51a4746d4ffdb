import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { gridFault } from '../../../../src/lib/core/table/grid.ts';
import { clipOf, emptied, filled, pasted, replaced, found, typed } from '../../../../src/lib/core/work/cells.ts';
import { joinCells, JOINS, partAll, splitCell } from '../../../../src/lib/core/work/join.ts';
import { insertColumns, insertRows, moveLines, removeLines } from '../../../../src/lib/core/work/lines.ts';
import { swapped } from '../../../../src/lib/core/work/swap.ts';
import { withLock } from '../../../../src/lib/core/work/locks.ts';
import { applyPatch, patchBetween } from '../../../../src/lib/core/work/patch.ts';
import { cellsIn, everything, whole, type Range } from '../../../../src/lib/core/work/selection.ts';
import { sortRows } from '../../../../src/lib/core/work/sort.ts';
import {
	cellOf,
	contentOfCell,
	emptyTable,
	isCovered,
	textOfContent,
	workFault,
	type WorkTable,
	asTyped,
	tidy,
	withCells
} from '../../../../src/lib/core/work/table.ts';
import { parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import { SUMMARIES } from '../../../../src/lib/core/values/summary.ts';
import { workedOut } from '../../../../src/lib/core/work/working.ts';
import { checkWork } from '../../../../src/lib/core/work/validate.ts';
import { tableOf, workOf } from '../../../../src/lib/core/work/convert.ts';
import { lined, touched, untouched, withLook, copiedLook, touchList } from '../../../../src/lib/core/work/touches.ts';
import { runs } from '../../runs.ts';

/** One random edit: numbers are taken modulo what the table has. */
interface Edit {
	readonly what: number;
	readonly a: number;
	readonly b: number;
	readonly c: number;
	readonly d: number;
	readonly text: string;
}
const edit = fc.record({
	what: fc.nat(22),
	a: fc.nat(1000),
	b: fc.nat(1000),
	c: fc.nat(1000),
	d: fc.nat(1000),
	text: fc.constantFrom('', 'fern', '12.50', '€ 3.10', 'Bed 7', '2031-04-05', 'two\nlines')
});

const FORMULAS = [
	undefined,
	...[
		'“Column 1” × 2',
		'“Column 1” + “Column 2”',
		'total of “Column 2”',
		'above + 1',
		'sum of (“Column 1”; “Column 3”)',
		'round (mean of “Column 3”; 1)'
	].map((text) => parseFormula(text))
];

const rangeIn = (work: WorkTable, { a, b, c, d }: Edit): Range => {
	const rows = work.rows.length;
	const columns = work.columns.length;
	return whole(work, {
		top: Math.min(a % rows, b % rows),
		bottom: Math.max(a % rows, b % rows),
		start: Math.min(c % columns, d % columns),
		end: Math.max(c % columns, d % columns)
	});
};

function edited(work: WorkTable, one: Edit): WorkTable {
	const rows = work.rows.length;
	const columns = work.columns.length;
	const [r, c] = [one.a % rows, one.c % columns];
	const range = rangeIn(work, one);
	switch (one.what) {
		case 0:
		case 1:
			return typed(work, r, c, one.text);
		case 2:
			return insertRows(work, one.a % (rows + 1), 1 + (one.b % 3));
		case 3:
			return insertColumns(work, one.c % (columns + 1), 1 + (one.d % 2));
		case 4:
			return removeLines(work, 'rows', new Set([r, one.b % rows]));
		case 5:
			return removeLines(work, 'columns', new Set([c]));
		case 6:
			return moveLines(work, 'rows', r, Math.min(1 + (one.b % 2), rows - r), one.d % (rows + 1));
		case 7:
			return moveLines(work, 'columns', c, 1, one.d % (columns + 1));
		case 8:
		case 9:
			return joinCells(work, range, JOINS[one.d % 3]!);
		case 10:
			return splitCell(work, r, c, 1 + (one.b % 3), 1 + (one.d % 3));
		case 11:
			return partAll(work, [range]);
		case 12:
			return sortRows(work, [{ column: c, order: one.b % 2 ? 'rising' : 'falling' }], 'en-GB');
		case 13:
			return touched(work, cellsIn(work, [range]), [['fill.ink', one.b % 3 ? 'fern' : undefined]]);
		case 14:
			return lined(
				work,
				[{ r, c, side: (['top', 'bottom', 'start', 'end'] as const)[one.b % 4]! }],
				one.d % 3 ? { pattern: 'solid', weight: '1pt' } : null
			);
		case 15:
			return filled(work, range, one.d % 2 ? 'down' : 'across', 1 + (one.b % 2), one.a % 2 === 0);
		case 16:
			return pasted(work, r, c, clipOf(work, range)).work;
		case 17:
			return emptied(work, cellsIn(work, [range]));
		case 18:
			return withLook(work, [range], copiedLook(work, r, c));
		case 20: {
			const formula = FORMULAS[one.d % FORMULAS.length];
			return {
				...work,
				columns: work.columns.map((column, i) => (i === c ? tidy({ ...column, formula, across: undefined }) : column))
			};
		}
		case 21:
			return withCells(work, [{ r, c }], (cell) =>
				tidy({ ...asTyped(cell), content: undefined, formula: FORMULAS[one.d % FORMULAS.length] })
			);
		case 22:
			return withCells(work, [{ r, c }], (cell) =>
				tidy({ ...asTyped(cell), content: undefined, total: SUMMARIES[one.d % SUMMARIES.length] })
			);
		default:
			return one.d % 5 === 0 && rows * columns < 100 ? swapped(work) : untouched(work, [range]);
	}
}

/** Every text of a table, each cell's lines apart, sorted; empty ones left out. */
const words = (work: WorkTable) =>
	work.rows
		.flatMap(({ cells }) => cells.flatMap((slot) => (isCovered(slot) ? [] : slot.text.split('\n'))))
		.filter(Boolean)
		.sort();

const begin = (): WorkTable => {
	let work = emptyTable(6, 4, { headers: 1, totals: 1 });
	work.rows.forEach((_, r) => {
		for (let c = 0; c < 4; c++) work = typed(work, r, c, r === 0 ? `Column ${c}` : `cell ${r}.${c}`);
	});
	return joinCells(work, { top: 2, bottom: 3, start: 1, end: 2 }, 'one');
};

test('whatever is done to a table, it stays one: every slot has one cell, the grid is whole, patches lead there and back', () => {
	const start = begin();
	fc.assert(
		fc.property(fc.array(edit, { minLength: 1, maxLength: 25 }), (edits) => {
			let work = start;
			for (const one of edits) {
				let next: WorkTable;
				try {
					next = edited(work, one);
				} catch (error) {
					assert.ok(error instanceof InputError, `${(error as Error).stack}`);
					assert.match(error.message, /[.!?]$/);
					continue;
				}
				assert.equal(workFault(next), undefined, `edit ${one.what}`);
				assert.equal(gridFault(tableOf(next)), undefined);
				const done = workedOut(next);
				assert.equal(workedOut(done.work).work, done.work, 'what is worked out stays so');
				next = done.work;
				checkWork(JSON.parse(JSON.stringify(next)));
				// Undo and redo by patches, as they are stored.
				const stored = JSON.parse(JSON.stringify(patchBetween(work, next)));
				assert.deepEqual(applyPatch(work, stored), JSON.parse(JSON.stringify(next)));
				assert.deepEqual(
					applyPatch(next, JSON.parse(JSON.stringify(patchBetween(next, work)))),
					JSON.parse(JSON.stringify(work))
				);
				work = next;
				if (work.rows.length * work.columns.length > 400) break;
			}
		}),
		{ numRuns: runs(600) }
	);
});

test('moving, sorting, joining and splitting lose no word; moving and sorting lose no touch and no role', () => {
	const start = touched(begin(), [{ r: 4, c: 1 }], [['fill.ink', 'mist']]);
	const touches = (work: WorkTable) =>
		touchList(work)
			.map(({ set }) => JSON.stringify(set))
			.sort();
	const roles = (work: WorkTable) => work.rows.map(({ role }) => role).sort();
	fc.assert(
		fc.property(fc.array(edit, { minLength: 1, maxLength: 20 }), (edits) => {
			let work = start;
			for (const one of edits) {
				const kind = [6, 7, 8, 10, 11, 12][one.what % 6]!;
				let next: WorkTable;
				try {
					next = edited(work, { ...one, what: kind });
				} catch (error) {
					assert.ok(error instanceof InputError);
					continue;
				}
				assert.deepEqual(words(next), words(work), `edit ${kind}`);
				if (kind === 6 || kind === 7 || kind === 12) {
					assert.deepEqual(touches(next), touches(work));
					assert.deepEqual(roles(next), roles(work));
				}
				work = next;
				if (work.rows.length * work.columns.length > 400) break;
			}
		}),
		{ numRuns: runs(300) }
	);
});

test('what is locked stays as it is, whatever is tried', () => {
	const locked = withLock(begin(), [{ r: 1, c: 1 }], 'both');
	const cell = cellOf(locked, 1, 1);
	fc.assert(
		fc.property(fc.array(edit, { minLength: 1, maxLength: 15 }), (edits) => {
			let work = locked;
			for (const one of edits) {
				if (one.what === 14 || one.what === 19) continue;
				try {
					work = edited(work, one);
				} catch (error) {
					assert.ok(error instanceof InputError);
				}
				if (work.rows.length * work.columns.length > 400) break;
			}
			const kept = work.rows.flatMap(({ cells }) => cells).filter((slot) => !isCovered(slot) && slot.lock === 'both');
			assert.equal(kept.length, 1);
			assert.equal((kept[0] as typeof cell).text, cell.text);
			assert.deepEqual((kept[0] as typeof cell).touch, cell.touch);
		}),
		{ numRuns: runs(200) }
	);
	assert.throws(
		() => typed(locked, 1, 1, 'x'),
		/row 2, column 2 \(“cell 1.1”\) is locked: its content and look stays\. Unlock it first\./
	);
	assert.throws(() => removeLines(locked, 'rows', new Set([1])), /locked/);
	assert.throws(() => joinCells(locked, { top: 1, bottom: 1, start: 0, end: 1 }, 'one'), /locked/);
});

test('a table goes into work and comes out the same', () => {
	const work = lined(touched(begin(), [{ r: 4, c: 1 }], [['text.weight', 700]]), [{ r: 2, c: 2, side: 'end' }], {
		pattern: 'double'
	});
	const table = tableOf(work);
	const again = tableOf(workOf(table));
	assert.deepEqual(again.cells, table.cells);
	assert.deepEqual(again.touches, table.touches);
	assert.deepEqual(again.roles, table.roles);
	assert.deepEqual(again.columnInfo, table.columnInfo);
});

test('inserted rows take role and place: body beside body, the next tier beside a header, inside a joined cell part of it', () => {
	const work = begin();
	assert.deepEqual(
		insertRows(work, 1, 1, 0).rows.map(({ role }) => role),
		['header:1', 'body', 'body', 'body', 'body', 'body', 'total']
	);
	assert.equal(insertRows(work, 1, 1, 1).rows[1]!.role, 'body');
	assert.equal(insertRows(work, 5, 1, 5).rows[5]!.role, 'body');
	assert.equal(insertRows(work, 0, 1, 0).rows[0]!.role, 'header:1');
	const inside = insertRows(work, 3, 2);
	assert.deepEqual([cellOf(inside, 4, 2).rows, cellOf(inside, 4, 2).text], [4, cellOf(work, 2, 1).text]);
});

test('joining says what it cannot join; splitting gives back rows and columns', () => {
	const work = begin();
	assert.throws(
		() => joinCells(work, { top: 0, bottom: 1, start: 0, end: 0 }, 'one'),
		/these rows are header and body/
	);
	assert.throws(() => joinCells(work, { top: 2, bottom: 3, start: 0, end: 2 }, 'rows'), /reaches out/);
	const joined = joinCells(work, { top: 1, bottom: 1, start: 0, end: 2 }, 'one');
	assert.equal(cellOf(joined, 1, 2).text, 'cell 1.0\ncell 1.1\ncell 1.2');
	const split = splitCell(joined, 1, 0, 1, 3);
	assert.deepEqual(
		[0, 1, 2].map((c) => cellOf(split, 1, c).text),
		['cell 1.0\ncell 1.1\ncell 1.2', '', '']
	);
	const finer = splitCell(work, 1, 0, 2, 2);
	assert.deepEqual([finer.rows.length, finer.columns.length], [7, 5]);
	assert.equal(workFault(finer), undefined);
	assert.equal(cellOf(finer, 0, 1).text, 'Column 0');
	assert.deepEqual([cellOf(finer, 2, 4).text, cellOf(finer, 2, 0).text], ['cell 1.3', '']);
});

test('emphasis inside text survives replacing, joining and a way through a file', () => {
	const content = [
		{
			runs: [
				{ text: 'Osmunda ', italic: true },
				{ text: 'regalis', italic: true, weight: 700 }
			]
		}
	];
	let work = typed(begin(), 4, 0, content);
	work = replaced(work, found(work, everything(work), { text: 'osmunda' }), { text: 'osmunda' }, 'Royal');
	assert.deepEqual(contentOfCell(cellOf(work, 4, 0)), [
		{
			runs: [
				{ text: 'Royal ', italic: true },
				{ text: 'regalis', italic: true, weight: 700 }
			]
		}
	]);
	const joined = joinCells(work, { top: 4, bottom: 4, start: 0, end: 1 }, 'one');
	assert.equal(textOfContent(contentOfCell(cellOf(joined, 4, 0))), 'Royal regalis\ncell 4.1');
	assert.equal(
		(contentOfCell(cellOf(joined, 4, 0))[0] as unknown as { runs: { italic?: boolean }[] }).runs[0]!.italic,
		true
	);
});
