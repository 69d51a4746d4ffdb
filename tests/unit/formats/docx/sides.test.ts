import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Appearance, Line } from '../../../../src/lib/core/cascade/look.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';
import type { CellGround } from '../../../../src/lib/formats/docx/looks.ts';
import { NAMESPACES, W_NAMESPACE } from '../../../../src/lib/formats/docx/names.ts';
import { INSIDE, WantedSides } from '../../../../src/lib/formats/docx/sides.ts';
import { readGrid } from '../../../../src/lib/formats/docx/tables.ts';
import { parseXml } from '../../../../src/lib/formats/package/xml.ts';

const cell = (text: string, properties = '') =>
	`<w:tc>${properties && `<w:tcPr>${properties}</w:tcPr>`}<w:p><w:r><w:t>${text}</w:t></w:r></w:p></w:tc>`;
const row = (...cells: string[]) => `<w:tr>${cells.join('')}</w:tr>`;
const gridOf = (...rows: string[]) =>
	readGrid(
		parseXml(`<w:tbl xmlns:w="${W_NAMESPACE}">${rows.join('')}</w:tbl>`, 'test', { namespaces: NAMESPACES }).root,
		'test'
	);

const THIN: Line = { pattern: 'solid', weight: fromPoints(0.5), ink: '#000000' };
const THICK: Line = { pattern: 'solid', weight: fromPoints(2), ink: '#1F6F66' };
/** Numbers of lines: none, a thin one, a thick one. */
const LINES = [null, THIN, THICK];
const [NONE, ONE, TWO] = [0, 1, 2];

/** The sides of a table whose style and table say these lines around every cell. */
function sidesOf(
	source: ReturnType<typeof gridOf>,
	edges: Pick<Appearance, 'across' | 'down'>,
	around: CellGround['around'] = [undefined, undefined, undefined, undefined]
) {
	const cells = source.rows.flatMap((one) => one.cells);
	const grounds = cells.map(() => ({ around }) as unknown as CellGround);
	const appearance = { ...edges, lines: LINES, looks: [], cellLook: new Int32Array() };
	return new WantedSides(source, cells, grounds, appearance, LINES, undefined);
}
const idOf = (line: Line) => LINES.indexOf(line);

describe('the sides of the cells of a DOCX table', () => {
	it('are those of the edges around them: top, bottom, start, end', () => {
		const sides = sidesOf(gridOf(row(cell('a'), cell('b')), row(cell('c'), cell('d'))), {
			across: Int32Array.from([TWO, TWO, ONE, NONE, TWO, NONE]),
			down: Int32Array.from([TWO, ONE, TWO, TWO, NONE, TWO])
		});
		const linesOf = (number: number) => [0, 1, 2, 3].map((side) => sides.line(number, side));
		assert.deepEqual(linesOf(0), [THICK, THIN, THICK, THIN]);
		assert.deepEqual(linesOf(1), [THICK, null, THIN, THICK]);
		assert.deepEqual(linesOf(3), [null, null, null, THICK]);
	});
	it('have none inside a merged cell', () => {
		const restart = '<w:vMerge w:val="restart"/>';
		const sides = sidesOf(gridOf(row(cell('a', restart)), row(cell('', '<w:vMerge/>'))), {
			across: Int32Array.from([ONE, -1, ONE]),
			down: Int32Array.from([ONE, ONE, ONE, ONE])
		});
		assert.equal(sides.line(0, 1), undefined);
		assert.equal(sides.line(1, 0), undefined);
		assert.equal(INSIDE, -2);
		assert.ok(sides.isStated(0, 1), 'there is nothing to say');
	});
	it('are stated where style and table say just that, also that there is no line', () => {
		const edges = { across: Int32Array.from([ONE, NONE]), down: Int32Array.from([TWO, NONE]) };
		const sides = sidesOf(gridOf(row(cell('a'))), edges, [{ ...THIN }, undefined, THIN, null]);
		assert.deepEqual(
			[0, 1, 2, 3].map((side) => sides.isStated(0, side)),
			[true, true, false, true]
		);
	});
	it('over several columns are said by the finer cells where they are uneven, and both then say it', () => {
		const source = gridOf(row(cell('a', '<w:gridSpan w:val="2"/>')), row(cell('b'), cell('c')));
		const uneven = sidesOf(source, {
			across: Int32Array.from([NONE, NONE, ONE, TWO, NONE, NONE]),
			down: Int32Array.from([NONE, -1, NONE, NONE, NONE, NONE])
		});
		assert.ok(!uneven.isStated(0, 1));
		assert.ok(uneven.isContested(1) && uneven.isContested(2));
		const even = sidesOf(
			source,
			{
				across: Int32Array.from([NONE, NONE, ONE, ONE, NONE, NONE]),
				down: Int32Array.from([NONE, -1, NONE, NONE, NONE, NONE])
			},
			[THIN, THIN, undefined, undefined]
		);
		assert.ok(even.isStated(0, 1));
		assert.ok(!even.isContested(0));
	});
	it('have one key where the same is wanted and stated, and another where not', () => {
		const keys = (across: number[], down: number[], around?: CellGround['around']) =>
			sidesOf(gridOf(row(cell('a'))), { across: Int32Array.from(across), down: Int32Array.from(down) }, around).key(
				0,
				false,
				idOf
			);
		const key = keys([ONE, TWO], [NONE, ONE]);
		assert.equal(keys([ONE, TWO], [NONE, ONE]), key);
		const others = [
			keys([TWO, ONE], [NONE, ONE]),
			keys([ONE, TWO], [ONE, NONE]),
			keys([ONE, TWO], [NONE, ONE], [THIN, undefined, undefined, undefined]),
			keys([ONE, TWO], [TWO, ONE])
		];
		assert.equal(new Set([key, ...others]).size, 5);
		const sides = sidesOf(gridOf(row(cell('a'))), {
			across: Int32Array.from([ONE, TWO]),
			down: Int32Array.from([NONE, ONE])
		});
		assert.notEqual(sides.key(0, true, idOf), key);
		assert.equal(typeof sides.key(0, false, () => 5_000), 'string', 'more lines than a number can hold');
	});
});
