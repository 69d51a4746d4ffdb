import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Line, Look } from '../../../../src/lib/core/cascade/look.ts';
import { marksOf, headOf, type Mark } from '../../../../src/lib/core/layout/marks.ts';
import { lineStrokes, strokePath } from '../../../../src/lib/core/layout/patterns.ts';
import { cutTable, repeatedRows, rowKeeps } from '../../../../src/lib/core/layout/pages.ts';
import { fillLines, justified, measureParagraph } from '../../../../src/lib/core/layout/paragraph.ts';
import { layTable, type TableInput } from '../../../../src/lib/core/layout/table.ts';
import { lineHeightOf, piecesOf } from '../../../../src/lib/core/layout/text.ts';
import { columnWidths, type ColumnWidth } from '../../../../src/lib/core/layout/widths.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import type { CellPicture } from '../../../../src/lib/core/table/content.ts';
import { createGrid, type Span, type Table } from '../../../../src/lib/core/table/grid.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';
import { emu, parseLength, type Emu } from '../../../../src/lib/core/units.ts';
import { bareAppearance } from '../../../../src/lib/formats/bare.ts';
import { shippedFaces } from '../../../../src/lib/formats/pdf/fonts.ts';

const LOOK: Look = {
	family: 'Source Sans 3',
	size: parseLength('10pt'),
	marginStart: parseLength('2mm'),
	marginEnd: parseLength('2mm'),
	marginTop: parseLength('1mm'),
	marginBottom: parseLength('1mm')
};
const MEASURE = parseLength('170mm');

/** A table laid out as its texts say, every cell in one look. */
function input(
	texts: (string | null)[][],
	{
		look = LOOK,
		spans = [],
		roles,
		widths = []
	}: { look?: Look; spans?: Span[]; roles?: RowRole[]; widths?: ColumnWidth[] } = {}
): TableInput {
	const { table } = recognisedTable(createGrid(texts, spans));
	const own: Table = roles ? { ...table, roles } : table;
	return {
		table: own,
		appearance: { ...bareAppearance(own), looks: [look] },
		content: own.cells.map(({ text }) => text.split('\n').map((one) => ({ runs: one ? [{ text: one }] : [] }))),
		widths
	};
}
const paragraph = (text: string, look: Look = LOOK) => measureParagraph(piecesOf([{ text }], look, shippedFaces));
const wordsOf = (lines: ReturnType<typeof fillLines>) =>
	lines.map(({ pieces }) =>
		pieces
			.map(({ text }) => text)
			.join('')
			.trimEnd()
	);
const textsOf = (marks: readonly Mark[]) =>
	marks.flatMap((mark) => (mark.kind === 'text' ? [mark.piece.text.trimEnd()] : []));

test('lines break where Unicode lets them, and a longer word only where it must', () => {
	assert.deepEqual(wordsOf(fillLines(paragraph('Adiantum venustum'), 1e9)), ['Adiantum venustum']);
	const { min, max } = paragraph('Adiantum venustum');
	assert.ok(min < max);
	assert.deepEqual(wordsOf(fillLines(paragraph('Adiantum venustum'), min)), ['Adiantum', 'venustum']);
	// A no-break space holds, a hyphen does not.
	assert.deepEqual(wordsOf(fillLines(paragraph('12\u00a0000 m'), paragraph('12\u00a0000').max)), ['12\u00a0000', 'm']);
	assert.deepEqual(wordsOf(fillLines(paragraph('frost-hardy'), paragraph('hardy--').max)), ['frost-', 'hardy']);
	const chopped = fillLines(paragraph('Matteuccia'), paragraph('Matte').max);
	assert.ok(chopped.length > 1);
	assert.equal(wordsOf(chopped).join(''), 'Matteuccia');
});

test('no line is longer than its measure, and nothing of the text is lost, whatever the text', () => {
	fc.assert(
		fc.property(
			// Ligatures are written as their letters.
			fc.string({ unit: 'grapheme', maxLength: 60 }).filter((text) => !/[\uFB00-\uFB06]/.test(text)),
			fc.integer({ min: 400_000, max: 4_000_000 }),
			(text, measure) => {
				const lines = fillLines(paragraph(text), measure);
				const most = Math.max(
					...[...new Intl.Segmenter().segment(text)].map(({ segment }) => paragraph(segment).max),
					0
				);
				for (const line of lines) assert.ok(line.width <= Math.max(measure, most) + 2, `${line.width} of ${measure}`);
				const bare = (value: string) => value.replace(/\s/g, '');
				assert.equal(
					bare(lines.flatMap(({ pieces }) => pieces.map((piece) => piece.typed ?? piece.text)).join('')),
					bare(text)
				);
			}
		),
		{ numRuns: 300 }
	);
});

test('a justified line fills its measure, the last one does not', () => {
	const measured = paragraph('Ferns are planted from the stream upwards, bed by bed, and counted twice.');
	const measure = Math.round(measured.max / 2.4);
	const lines = fillLines(measured, measure).map((line) => justified(line, measure));
	assert.ok(lines.length > 2);
	for (const line of lines.slice(0, -1)) {
		const last = line.pieces.at(-1)!;
		const trailing = /\s*$/.exec(last.text)![0].length;
		assert.equal(Math.round(line.width), measure);
		assert.ok(Math.abs(last.x + last.width - measure) < (trailing ? parseLength('10pt') : 2));
	}
	assert.ok(lines.at(-1)!.width < measure);
});

test('case and small capitals show other letters and keep what was typed', () => {
	const [upper] = piecesOf([{ text: 'Straße' }], { ...LOOK, case: 'upper' }, shippedFaces);
	assert.equal(upper!.text, 'STRASSE');
	assert.equal(upper!.typed, 'Straße');
	const small = piecesOf([{ text: 'Lily court' }], { ...LOOK, case: 'small-caps' }, shippedFaces);
	assert.deepEqual(
		small.map(({ text }) => text),
		['L', 'ILY', ' ', 'COURT']
	);
	assert.ok(small[1]!.size < small[0]!.size);
	assert.equal(piecesOf([{ text: 'fern grotto' }], { ...LOOK, case: 'title' }, shippedFaces)[0]!.text, 'Fern Grotto');
});

test('widths: fixed, shared, fitted; together never more than the measure, and whole EMU', () => {
	const grid = createGrid([['a', 'b', 'c']]);
	const needs = [
		{ min: 100, max: 300 },
		{ min: 200, max: 400 },
		{ min: 50, max: 100 }
	];
	assert.deepEqual(columnWidths(grid, needs, [], 10_000 as Emu), [300, 400, 100]);
	assert.deepEqual(columnWidths(grid, needs, [{ fixed: 500 as Emu }], 10_000 as Emu), [500, 400, 100]);
	assert.deepEqual(columnWidths(grid, needs, ['fitted', { share: 3 }, { share: 1 }], 1_100 as Emu), [300, 600, 200]);
	// Between least and most, room is given in proportion to what each could use.
	assert.deepEqual(columnWidths(grid, needs, [], 575 as Emu), [200, 300, 75]);
	assert.deepEqual(columnWidths(grid, needs, [], 175 as Emu), [50, 100, 25]);
	const width = fc.oneof(
		fc.constant('fitted' as const),
		fc.integer({ min: 1, max: 500 }).map((fixed) => ({ fixed: fixed as Emu })),
		fc.integer({ min: 1, max: 5 }).map((share) => ({ share }))
	);
	fc.assert(
		fc.property(
			fc.array(fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 900 }), width), {
				minLength: 1,
				maxLength: 8
			}),
			fc.integer({ min: 1, max: 3_000 }),
			(columns, measure) => {
				const row = createGrid([columns.map(() => 'x')]);
				const widths = columnWidths(
					row,
					columns.map(([min, more]) => ({ min, max: min + more })),
					columns.map(([, , way]) => way),
					measure as Emu
				);
				assert.ok(widths.every((one) => Number.isInteger(one) && one >= 0));
				const sum = widths.reduce((total, one) => total + one, 0);
				assert.ok(sum <= measure, `${sum} of ${measure}`);
				const least = columns.reduce(
					(total, [min, , way]) => total + (typeof way === 'object' && 'fixed' in way ? way.fixed : min),
					0
				);
				if (least <= measure)
					columns.forEach(([min, , way], c) =>
						assert.ok(widths[c]! >= (typeof way === 'object' && 'fixed' in way ? way.fixed : min) - 1)
					);
			}
		),
		{ numRuns: 500 }
	);
});

test('a spanning cell widens its columns; a tall one adds its height to the last row it spans', () => {
	const wide = layTable(
		input(
			[
				['A heading over both of its columns', null],
				['1', '2']
			],
			{ spans: [{ r: 0, c: 0, rows: 1, cols: 2 }] }
		),
		MEASURE,
		shippedFaces
	);
	assert.equal(wide.cells[0]!.lines.length, 1);
	const tall = layTable(
		input(
			[
				['one\ntwo\nthree\nfour', 'x'],
				[null, 'y']
			],
			{ spans: [{ r: 0, c: 0, rows: 2, cols: 1 }] }
		),
		MEASURE,
		shippedFaces
	);
	const one = lineHeightOf(LOOK) + parseLength('2mm');
	assert.equal(tall.heights[0], emu(Math.ceil(one)));
	assert.ok(tall.heights[1]! > tall.heights[0]!);
	assert.ok(Math.abs(tall.tops.at(-1)! - (4 * lineHeightOf(LOOK) + parseLength('2mm'))) <= 2);
});

test('decimal marks of a column stand below each other, whatever stands before and after them', () => {
	const texts = [['Cost'], ['1.5'], ['12.25'], ['(3.125)'], ['40'], ['Total 1']];
	const laid = layTable(
		input(texts, { look: { ...LOOK, h: 'decimal' }, roles: ['header:1', 'body', 'body', 'body', 'body', 'body'] }),
		MEASURE,
		shippedFaces
	);
	const face = piecesOf([{ text: 'x' }], LOOK, shippedFaces)[0]!.face;
	const marks = [1, 2, 3].map((i) => {
		const { x, line } = laid.cells[i]!.lines[0]!;
		const { text, size } = line.pieces[0]!;
		return x + face.advance(text.slice(0, text.indexOf('.'))) * size;
	});
	for (const mark of marks) assert.ok(Math.abs(mark - marks[0]!) <= 1, marks.join(' '));
	// A whole number ends where the others have their mark.
	const whole = laid.cells[4]!.lines[0]!;
	assert.ok(Math.abs(whole.x + whole.line.width - marks[0]!) <= 1);
	for (const cell of laid.cells)
		for (const { x, line } of cell.lines) assert.ok(x >= 0 && x + line.width <= laid.widths[0]! + 1);
});

test('turned text makes its row as high as it is long, and stays inside its cell', () => {
	for (const rotate of [90, 270] as const) {
		const laid = layTable(
			input([['Number of plants in the bed', '1']], { look: { ...LOOK, rotate } }),
			MEASURE,
			shippedFaces
		);
		assert.ok(laid.heights[0]! > paragraph('Number of plants in the bed').max);
		assert.ok(laid.widths[0]! < paragraph('Number').max);
		const marks = marksOf(laid, [0, laid.tops.at(-1)!], 0, 0).cells[0]!.marks;
		for (const mark of marks) {
			assert.ok(mark.kind === 'text' && mark.turn === rotate);
			assert.ok(mark.x > 0 && mark.x < laid.widths[0]!);
			const end = rotate === 90 ? mark.y + mark.piece.width : mark.y - mark.piece.width;
			assert.ok(Math.min(mark.y, end) >= 0 && Math.max(mark.y, end) <= laid.heights[0]! + 1);
		}
	}
});

const rows = (count: number, text = (i: number) => `row ${i}`): string[][] => [
	['Item', 'Cost'],
	...Array.from({ length: count }, (_, i) => [text(i), String(i)])
];

test('pages: every row once and in order, no heading alone at a foot, no total alone at a head', () => {
	const texts = [...rows(40), ['Total', '780']];
	const roles: RowRole[] = [
		'header:1',
		...Array.from({ length: 40 }, (_, i): RowRole => (i % 8 === 0 ? 'group:1' : 'body')),
		'total'
	];
	const laid = layTable(input(texts, { roles }), MEASURE, shippedFaces);
	const keeps = rowKeeps(roles);
	fc.assert(
		fc.property(fc.integer({ min: 4, max: 20 }), fc.integer({ min: 0, max: 20 }), (fullRows, firstRows) => {
			const row = laid.heights[0]!;
			const stretches = cutTable(laid, keeps, firstRows * row + 5, fullRows * row + 5);
			let at = 0;
			stretches.forEach(([from, to], i) => {
				assert.equal(from, at);
				assert.ok(to - from <= (i === 0 ? Math.max(firstRows, 0) : fullRows) * row + 6);
				at = to;
				const next = laid.tops.indexOf(to);
				assert.ok(next >= 0, 'cut between rows');
				if (to > from && to < laid.tops.at(-1)!) {
					assert.notEqual(roles[next - 1], 'group:1');
					assert.notEqual(roles[next - 1], 'header:1');
					assert.notEqual(roles[next], 'total');
				}
			});
			assert.equal(at, laid.tops.at(-1));
		})
	);
});

test('a row higher than a page is cut between its lines, and no line is drawn twice or left out', () => {
	const long = Array.from({ length: 120 }, (_, i) => `line ${i}`).join('\n');
	const laid = layTable(
		input(
			[
				['Item', 'Note'],
				['fern', long]
			],
			{ roles: ['header:1', 'body'] }
		),
		MEASURE,
		shippedFaces
	);
	const stretches = cutTable(laid, rowKeeps(['header:1', 'body']), parseLength('200mm'), parseLength('150mm'));
	assert.ok(stretches.length > 2);
	const drawn = stretches.flatMap((stretch) =>
		marksOf(laid, stretch, 0, 0).cells.flatMap(({ marks }) => textsOf(marks))
	);
	assert.deepEqual(drawn, ['Item', 'Note', 'fern', ...long.split('\n')]);
});

test('what repeats is the head of the table, and a title says that it goes on', () => {
	const roles: RowRole[] = ['title', 'header:1', 'header:2', 'body', 'body'];
	const texts = [
		['Planting', null],
		['Bed', 'Plants'],
		['', 'number'],
		['Hollow', '3'],
		['Old wall', '4']
	];
	const made = input(texts, { roles, spans: [{ r: 0, c: 0, rows: 1, cols: 2 }] });
	assert.equal(repeatedRows(made, rowKeeps(roles)), 3);
	const laid = layTable(made, MEASURE, shippedFaces);
	const head = headOf(laid, 3, ' (continued)', shippedFaces);
	const drawn = marksOf(head, [0, head.tops.at(-1)!], 0, 0).cells.flatMap(({ marks }) => textsOf(marks));
	assert.equal(drawn.join(' '), 'Planting (continued) Bed Plants number');
	assert.deepEqual(head.widths, laid.widths);
	// A cell that reaches from the head into the body holds the head back.
	const caught = input(texts, {
		roles,
		spans: [
			{ r: 0, c: 0, rows: 1, cols: 2 },
			{ r: 2, c: 0, rows: 2, cols: 1 }
		]
	});
	assert.equal(repeatedRows(caught, rowKeeps(roles)), 2);
});

test('lines stand where their edges are, once each, and none inside a merged cell', () => {
	const line: Line = { pattern: 'solid', weight: parseLength('1pt'), ink: '#000000' };
	const made = input(
		[
			['a', 'b'],
			[null, 'c']
		],
		{ spans: [{ r: 0, c: 0, rows: 2, cols: 1 }] }
	);
	const full: TableInput = { ...made, appearance: { ...made.appearance, lines: [line] } };
	const laid = layTable(full, MEASURE, shippedFaces);
	const { lines } = marksOf(laid, [0, laid.tops.at(-1)!], 0, 0);
	const inside = lines.filter((mark) => mark.kind === 'line' && mark.y1 === laid.tops[1] && mark.y2 === laid.tops[1]);
	assert.equal(inside.length, 1);
	assert.ok(inside[0]!.kind === 'line' && inside[0]!.x1 === laid.lefts[1] && inside[0]!.x2 === laid.lefts[2]);
	assert.equal(lines.length, 3 + 3);
});

test('a line is drawn as thick as it is said to be, whatever its pattern', () => {
	const weight = parseLength('3pt');
	for (const pattern of ['solid', 'dashed', 'dotted', 'dash-dot', 'double', 'triple', 'wavy'] as const) {
		const drawn = lineStrokes({ pattern, weight, ink: '#000000' });
		const reach = drawn.map(({ aside, thick, swing = 0 }) => [aside - swing - thick / 2, aside + swing + thick / 2]);
		const whole = Math.max(...reach.map(([, to]) => to!)) - Math.min(...reach.map(([from]) => from!));
		if (pattern !== 'wavy') assert.ok(Math.abs(whole - 3) < 1e-9, `${pattern}: ${whole}`);
		assert.equal(drawn.length, { double: 2, triple: 3 }[pattern as string] ?? 1);
		for (const stroke of drawn) {
			const path = strokePath([10, 20], [40, 20], stroke);
			assert.match(path, stroke.swing ? /^M10\.000 20\.000Q.*40\.000 20\.000$/ : /^M10\.000 [\d.]+L40\.000 [\d.]+$/);
		}
	}
	assert.deepEqual(lineStrokes({ pattern: 'none', weight, ink: '#000000' }), []);
});

test('a picture is as large as it is by itself, or as wide as its cell, and no page cuts it', () => {
	const picture = (fits: 'cell' | 'row'): CellPicture => ({
		source: 'data:image/png;base64,',
		alternative: 'a fern',
		width: parseLength('30mm'),
		height: parseLength('20mm'),
		fits
	});
	const lay = (fits: 'cell' | 'row', width: string, look: Look = LOOK) => {
		const plain = input([['Fern'], ['below']], { look, widths: [{ fixed: parseLength(width) }] });
		return layTable({ ...plain, content: [[{ picture: picture(fits) }], plain.content[1]!] }, MEASURE, shippedFaces);
	};
	const size = ({ cells }: ReturnType<typeof lay>) =>
		[cells[0]!.pictures[0]!.width, cells[0]!.pictures[0]!.height].map((length) => Math.round(length / 36_000));
	assert.deepEqual(size(lay('row', '60mm')), [30, 20]);
	assert.deepEqual(size(lay('cell', '64mm')), [60, 40]);
	assert.deepEqual(size(lay('row', '16mm')), [12, 8], 'no wider than its cell, in proportion');
	assert.deepEqual(size(lay('cell', '60mm', { ...LOOK, rotate: 90 })), [30, 20], 'upright where text is turned');
	const laid = lay('row', '60mm', { ...LOOK, h: 'end' });
	const [placed] = laid.cells[0]!.pictures;
	assert.equal(Math.round((placed!.x + placed!.width) / 36_000), 58);
	assert.ok(laid.tops[1]! >= placed!.top + placed!.height, 'its row has room for it');
	const [mark] = marksOf(laid, [0, laid.tops.at(-1)!], 0, 0).cells[0]!.marks;
	assert.equal(mark!.kind, 'picture');
	// Half of it has room on the page: all of it goes to the next one.
	const many = layTable(
		{ ...input([['a'], ['b']]), content: [[{ runs: [{ text: 'a' }] }], [{ picture: picture('row') }]] },
		MEASURE,
		shippedFaces
	);
	const cuts = cutTable(many, rowKeeps(['body', 'body']), many.tops[1]! + parseLength('10mm'), MEASURE);
	assert.deepEqual(cuts, [
		[0, many.tops[1]],
		[many.tops[1], many.tops[2]]
	]);
});
