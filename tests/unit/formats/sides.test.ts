import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Appearance, Line } from '../../../src/lib/core/cascade/look.ts';
import { createGrid, type Span } from '../../../src/lib/core/table/grid.ts';
import { fromPoints } from '../../../src/lib/core/units.ts';
import { CellSides, commonLine, isEven } from '../../../src/lib/formats/sides.ts';

const THIN: Line = { pattern: 'solid', weight: fromPoints(0.5), ink: '#000000' };
const THICK: Line = { pattern: 'solid', weight: fromPoints(2), ink: '#1F6F66' };
const [NONE, ONE, TWO] = [0, 1, 2];

/** A table of two rows and three columns; its three rows of edges, thin where nothing is said. */
function sidesOf(spans: readonly Span[], across: readonly number[], sayable = (line: Line | null) => line) {
	const grid = createGrid(
		[
			['a', 'b', 'c'],
			['d', 'e', 'f']
		],
		spans
	);
	const appearance: Appearance = {
		looks: [{}],
		cellLook: new Int32Array(grid.cells.length),
		lines: [null, THIN, THICK],
		across: Int32Array.from(across),
		down: new Int32Array(8).fill(ONE)
	};
	return new CellSides(grid, appearance, sayable);
}
const wide = (r: number, c: number, cols: number): Span => ({ r, c, rows: 1, cols });

describe('the line of a side', () => {
	it('is what most of it is to be; of equals the thicker, then the first', () => {
		assert.equal(commonLine([THICK, THIN, { ...THIN }]), THIN);
		assert.equal(commonLine([THIN, THICK]), THICK);
		assert.equal(commonLine([null, THIN, null]), null);
		assert.equal(commonLine([null, THIN]), THIN);
		const [red, blue] = (['#FF0000', '#0000FF'] as const).map((ink) => ({ ...THIN, ink }));
		assert.equal(commonLine([red!, blue!]), red);
		assert.equal(commonLine([]), null);
	});
	it('is even where all its segments show the same', () => {
		assert.ok(isEven([]));
		assert.ok(isEven([THIN, { ...THIN }]));
		assert.ok(!isEven([THIN, null]));
		assert.ok(!isEven([null, THIN]));
	});
});

describe('the sides of a cell', () => {
	it('are its edges, as far as the format can say them', () => {
		const sides = sidesOf(
			[],
			[ONE, ONE, ONE, TWO, NONE, ONE, ONE, ONE, TWO],
			(line) => line && { ...line, ink: '#123456' }
		);
		assert.deepEqual(sides.line(0, 'bottom'), { ...THICK, ink: '#123456' });
		assert.deepEqual(sides.line(3, 'top'), { ...THICK, ink: '#123456' });
		assert.equal(sides.line(1, 'bottom'), null);
		assert.deepEqual(sides.line(5, 'bottom'), { ...THICK, ink: '#123456' });
		assert.deepEqual(sides.line(5, 'end'), { ...THIN, ink: '#123456' });
	});
	it('know the cells beyond them', () => {
		const sides = sidesOf([wide(0, 0, 2), wide(1, 1, 2)], Array<number>(9).fill(ONE));
		assert.deepEqual(sides.beyond(0, 'bottom'), [2, 3]);
		assert.deepEqual(sides.beyond(3, 'top'), [0, 1]);
		assert.deepEqual(sides.beyond(0, 'end'), [1]);
		assert.deepEqual(sides.beyond(0, 'start'), []);
		assert.deepEqual(sides.beyond(0, 'top'), []);
		assert.deepEqual(sides.beyond(3, 'bottom'), []);
	});
	it('are left to the finer cells beyond where they show several lines', () => {
		const sides = sidesOf([wide(0, 0, 3)], [ONE, ONE, ONE, ONE, TWO, NONE, ONE, ONE, ONE]);
		assert.equal(sides.line(0, 'bottom'), undefined);
		assert.deepEqual(
			[1, 2, 3].map((cell) => sides.line(cell, 'top')),
			[THIN, THICK, null]
		);
	});
	it('are what most of them is to be at the rim, where nobody else can say it', () => {
		const sides = sidesOf([wide(1, 0, 3)], [ONE, ONE, ONE, ONE, ONE, ONE, TWO, ONE, ONE]);
		assert.deepEqual(sides.line(3, 'bottom'), THIN);
	});
	it('are what most of them is to be where the cells beyond are merged otherwise and have several lines, too', () => {
		const sides = sidesOf([wide(0, 0, 2), wide(1, 1, 2)], [ONE, ONE, ONE, ONE, TWO, ONE, ONE, ONE, ONE]);
		assert.deepEqual(sides.line(0, 'bottom'), THICK);
		assert.deepEqual(sides.line(3, 'top'), THICK);
		assert.deepEqual(sides.line(2, 'top'), THIN);
	});
	it('leave to the finer cells what those can say, and speak for the rest', () => {
		// Only the middle segment is left to the two merged cells, and it shows nothing.
		const spans = [wide(0, 0, 2), wide(1, 1, 2)];
		const sides = sidesOf(spans, [ONE, ONE, ONE, TWO, NONE, ONE, ONE, ONE, ONE]);
		assert.equal(sides.line(0, 'bottom'), undefined);
		assert.equal(sides.line(3, 'top'), undefined);
		assert.deepEqual(sides.line(2, 'top'), THICK);
		assert.deepEqual(sides.line(1, 'bottom'), THIN);
	});
	it('run down a cell of several rows, too', () => {
		const sides = sidesOf([{ r: 0, c: 0, rows: 2, cols: 1 }], Array<number>(9).fill(ONE));
		assert.deepEqual(sides.beyond(0, 'end'), [1, 3]);
		assert.deepEqual(sides.line(0, 'end'), THIN);
	});
});
