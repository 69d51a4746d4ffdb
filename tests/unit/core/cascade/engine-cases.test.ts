import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { PartSettings, Style } from '../../../../src/lib/core/style/types.ts';
import type { TableFile } from '../../../../src/lib/core/table/file.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';
import { line, Shown, style, table } from '../../support.ts';

/*
 * Expected results written by hand from engine.md §§4, 5 and 11: what a cell's leaf is and who set it, what an edge
 * shows and who claimed it.
 */

type Side = 'top' | 'bottom' | 'start' | 'end';
interface Setup {
	readonly rows: RowRole[];
	readonly columns: number;
	readonly parts: Record<string, PartSettings>;
	readonly table?: Partial<TableFile>;
	readonly style?: Partial<Style>;
}
type CellCase = [why: string, r: number, c: number, path: string, expected: string | undefined];
type EdgeCase = [why: string, r: number, c: number, side: Side, expected: string | null | undefined];

const show = ({ rows, columns, parts, table: rest, style: more }: Setup) =>
	new Shown(table(rows, columns, rest), style(parts, more));

let count = 0;
function cells(what: string, setup: Setup, cases: readonly CellCase[]) {
	describe(what, () => {
		const shown = show(setup);
		for (const [why, r, c, path, expected] of cases) {
			count++;
			it(why, () => assert.equal(shown.leaf(r, c, path), expected));
		}
	});
}
function edges(what: string, setup: Setup, cases: readonly EdgeCase[]) {
	describe(what, () => {
		const shown = show(setup);
		for (const [why, r, c, side, expected] of cases) {
			count++;
			it(why, () => assert.equal(shown.edge(r, c, side), expected));
		}
	});
}

const fill = (ink: string): PartSettings => ({ fill: { ink } });
const kinds = (...list: ('text' | 'money' | 'count')[]) => list.map((kind, c) => ({ kind, name: `c${c}` }));

cells(
	'corners (rank V)',
	{
		rows: ['header:1', 'header:2', 'body', 'total'],
		columns: 3,
		table: { firstColumns: 1, lastColumns: 1 },
		parts: {
			ground: fill('g'),
			firstColumn: fill('f'),
			lastColumn: fill('l'),
			header: fill('h'),
			total: fill('t'),
			'corner:header-first': { text: { ink: 'hf' } },
			'corner:header-last': fill('hl'),
			'corner:total-first': fill('tf')
		}
	},
	[
		['a corner beats its row and its column', 0, 2, 'fill.ink', 'hl@corner:header-last'],
		['in every tier of the header', 1, 2, 'fill.ink', 'hl@corner:header-last'],
		['what it does not say comes from the row, not the column', 0, 0, 'fill.ink', 'h@header'],
		['and it says what it says', 0, 0, 'text.ink', 'hf@corner:header-first'],
		['the total has its own', 3, 0, 'fill.ink', 'tf@corner:total-first'],
		['a corner that nobody set leaves the row', 3, 2, 'fill.ink', 't@total'],
		['beside the corner the row rules', 0, 1, 'fill.ink', 'h@header'],
		['below it the column', 2, 0, 'fill.ink', 'f@firstColumn'],
		['and the middle is ground', 2, 1, 'fill.ink', 'g@ground']
	]
);

cells(
	'merged cells',
	{
		rows: ['header:1', 'body', 'body', 'body', 'total'],
		columns: 3,
		table: {
			firstColumns: 1,
			lastColumns: 1,
			spans: [
				{ r: 0, c: 0, rows: 1, cols: 2 },
				{ r: 0, c: 2, rows: 2, cols: 1 },
				{ r: 2, c: 1, rows: 1, cols: 2 },
				{ r: 3, c: 0, rows: 2, cols: 1 }
			]
		},
		parts: {
			ground: fill('g'),
			'rowBand:1': fill('b1'),
			'rowBand:2': fill('b2'),
			firstColumn: { text: { ink: 'f' } },
			lastColumn: { text: { ink: 'l' } },
			header: fill('h'),
			total: fill('t')
		}
	},
	[
		['a first-column cell where it starts there, however far it reaches', 0, 0, 'text.ink', 'f@firstColumn'],
		['over two roles it is ruled by the row it starts in', 0, 2, 'fill.ink', 'h@header'],
		['it is no last-column cell where it starts before', 2, 1, 'text.ink', undefined],
		['it takes the band of its row', 2, 1, 'fill.ink', 'b2@rowBand:2'],
		['from a body row down into the total it stays body', 3, 0, 'fill.ink', 'b1@rowBand:1'],
		['beside it the total is the total', 4, 1, 'fill.ink', 't@total']
	]
);

cells(
	'a label over several rows makes them one row of the cycle',
	{
		rows: ['body', 'body', 'body', 'body'],
		columns: 2,
		table: { firstColumns: 1, spans: [{ r: 0, c: 0, rows: 2, cols: 1 }] },
		parts: { 'rowBand:1': fill('b1'), 'rowBand:2': fill('b2') }
	},
	[
		['the first row', 0, 1, 'fill.ink', 'b1@rowBand:1'],
		['the second row of the label', 1, 1, 'fill.ink', 'b1@rowBand:1'],
		['the row after it', 2, 1, 'fill.ink', 'b2@rowBand:2'],
		['and so on', 3, 1, 'fill.ink', 'b1@rowBand:1']
	]
);

cells(
	'parts that are switched off',
	{
		rows: ['header:1', 'header:2', 'body', 'body', 'total'],
		columns: 2,
		table: { firstColumns: 1, partsOff: ['rowBand', 'firstColumn', 'header:2'] },
		parts: {
			ground: fill('g'),
			'rowBand:2': fill('b2'),
			firstColumn: fill('f'),
			header: fill('h'),
			'header:2': fill('h2'),
			'corner:header-first': fill('hf'),
			total: fill('t'),
			'corner:total-first': fill('tf')
		}
	},
	[
		['a family is off with its members', 3, 1, 'fill.ink', 'g@ground'],
		['a column is off', 2, 0, 'fill.ink', 'g@ground'],
		['a tier is off, the header is not', 1, 1, 'fill.ink', 'h@header'],
		['a corner is off with its column', 0, 0, 'fill.ink', 'h@header'],
		['at the total as well', 4, 0, 'fill.ink', 't@total']
	]
);

cells(
	'explicit none and unset',
	{
		rows: ['header:1', 'body', 'body'],
		columns: 1,
		parts: {
			ground: { fill: { ink: 'g', tint: 0.5, opacity: 0.8 }, text: { underline: 'single' } },
			'rowBand:2': fill('none'),
			header: { fill: { tint: 1 }, text: { underline: 'none' } }
		}
	},
	[
		['none competes like any other value', 2, 0, 'fill.ink', 'none@rowBand:2'],
		['its tint is still ground’s: leaf by leaf', 2, 0, 'fill.tint', '0.5@ground'],
		['a tint is overruled without its ink', 0, 0, 'fill.tint', '1@header'],
		['the ink stays', 0, 0, 'fill.ink', 'g@ground'],
		['and the opacity', 0, 0, 'fill.opacity', '0.8@ground'],
		['no underline is said', 0, 0, 'text.underline', 'none@header'],
		['what nobody sets is nothing', 1, 0, 'text.case', undefined]
	]
);

cells(
	'reading up',
	{
		rows: ['total', 'body', 'body', 'group:1', 'body', 'header:2', 'header:1'],
		columns: 1,
		style: { reading: 'up' },
		parts: {
			'rowBand:1': fill('b1'),
			'rowBand:2': fill('b2'),
			header: fill('h'),
			'header:1': fill('h1'),
			'group:1': fill('gr'),
			total: fill('t')
		}
	},
	[
		['tier 1 is the lowest', 6, 0, 'fill.ink', 'h1@header:1'],
		['tier 2 stands on it', 5, 0, 'fill.ink', 'h@header'],
		['bands count from the header upwards', 4, 0, 'fill.ink', 'b1@rowBand:1'],
		['a group heading stands below its rows and begins the count anew', 2, 0, 'fill.ink', 'b1@rowBand:1'],
		['upwards from it', 1, 0, 'fill.ink', 'b2@rowBand:2'],
		['the heading itself', 3, 0, 'fill.ink', 'gr@group:1'],
		['the total on top', 0, 0, 'fill.ink', 't@total']
	]
);

cells(
	'columns that are first and last, by kind and by name',
	{
		rows: ['title', 'body', 'group:1', 'subtotal:2', 'note'],
		columns: 3,
		table: { columns: kinds('text', 'money', 'count'), firstColumns: 1, lastColumns: 1 },
		parts: {
			'columnBand:1': { text: { case: 'upper' } },
			'columns:money': { text: { weight: 500 } },
			'columns:"c1"': { text: { weight: 600 } },
			'columns:count': { text: { ink: 'count' } },
			lastColumn: { text: { ink: 'last' } },
			subtotal: { text: { ink: 'sub' } },
			'subtotal:2': { text: { italic: true } }
		}
	},
	[
		['a name is later than a kind', 1, 1, 'text.weight', '600@columns:"c1"'],
		['last column is later than a kind', 1, 2, 'text.ink', 'last@lastColumn'],
		['the only middle column is the first stripe', 1, 1, 'text.case', 'upper@columnBand:1'],
		['in group rows, too', 2, 1, 'text.case', 'upper@columnBand:1'],
		['columns do not rule titles', 0, 1, 'text.weight', undefined],
		['nor notes', 4, 2, 'text.ink', undefined],
		['a level refines the bare subtotal', 3, 2, 'text.italic', 'true@subtotal:2'],
		['which still says the rest', 3, 2, 'text.ink', 'sub@subtotal']
	]
);

const weights = (top: string, between: string): PartSettings => ({
	lines: {
		top: line('solid', top, 'black'),
		bottom: line('solid', top, 'black'),
		betweenRows: line('solid', between, 'grey')
	}
});

edges(
	'lines of a part: its outside and its inside',
	{
		rows: ['header:1', 'header:2', 'body', 'body', 'subtotal:1', 'subtotal:1', 'total'],
		columns: 2,
		parts: {
			ground: weights('1pt', '0.25pt'),
			header: { lines: { bottom: line('double', '2pt', 'teal'), betweenRows: line('dotted', '0.5pt') } },
			subtotal: { lines: { top: line('dashed', '0.5pt'), betweenRows: line('none') } }
		}
	},
	[
		['above the table', 0, 0, 'top', 'solid 1pt black@ground'],
		['between the tiers; the ink is ground’s, leaf by leaf', 0, 1, 'bottom', 'dotted 0.5pt grey@header'],
		['under the header', 1, 0, 'bottom', 'double 2pt teal@header'],
		['between body rows', 2, 0, 'bottom', 'solid 0.25pt grey@ground'],
		['over the subtotals, likewise', 3, 1, 'bottom', 'dashed 0.5pt grey@subtotal'],
		['between them, none is said', 4, 1, 'bottom', 'none@subtotal'],
		['under them ground goes on', 5, 0, 'bottom', 'solid 0.25pt grey@ground'],
		['between columns nobody claims', 2, 0, 'end', null],
		['below the table', 6, 1, 'bottom', 'solid 1pt black@ground']
	]
);

edges(
	'merged cells',
	{
		rows: ['body', 'body', 'total'],
		columns: 3,
		table: {
			spans: [
				{ r: 0, c: 0, rows: 2, cols: 2 },
				{ r: 2, c: 1, rows: 1, cols: 2 }
			]
		},
		parts: {
			ground: { lines: { betweenRows: line('solid', '0.5pt', 'grey'), betweenColumns: line('solid', '1pt', 'black') } },
			total: { lines: { top: line('solid', '2pt', 'red') } }
		}
	},
	[
		['no edge inside, down', 0, 0, 'end', undefined],
		['no edge inside, across', 0, 1, 'bottom', undefined],
		['its side, first segment', 0, 1, 'end', 'solid 1pt black@ground'],
		['its side, second segment', 1, 1, 'end', 'solid 1pt black@ground'],
		['below it the total claims', 1, 0, 'bottom', 'solid 2pt red@total'],
		['segment by segment', 1, 1, 'bottom', 'solid 2pt red@total'],
		['inside the merged total', 2, 1, 'end', undefined],
		['before it', 2, 0, 'end', 'solid 1pt black@ground']
	]
);

const besideEachOther = (left: PartSettings, right: PartSettings, more: Partial<Setup> = {}): Setup => ({
	rows: ['body'],
	columns: 2,
	table: { columns: kinds('text', 'money') },
	parts: { 'columns:text': left, 'columns:money': right },
	...more
});
const endLine = (...args: Parameters<typeof line>): PartSettings => ({ lines: { end: line(...args) } });
const startLine = (...args: Parameters<typeof line>): PartSettings => ({ lines: { start: line(...args) } });

for (const [why, left, right, expected] of [
	['one claim alone', endLine('dotted', '1pt', 'red'), fill('none'), 'dotted 1pt red@columns:text'],
	['a none against nobody', endLine('none'), fill('none'), 'none@columns:text'],
	[
		'kinds have no order: the thicker',
		endLine('solid', '3pt', 'red'),
		startLine('solid', '1pt', 'teal'),
		'solid 3pt red@columns:text'
	],
	[
		'a weight alone is no claim',
		{ lines: { end: { weight: '3pt' } } },
		startLine('solid', '1pt', 'teal'),
		'solid 1pt teal@columns:money'
	]
] as const)
	edges(`two kinds side by side`, besideEachOther(left, right), [[why, 0, 0, 'end', expected]]);

edges(
	'ties in one part, decided by thickness, pattern, ink and place',
	{
		rows: ['body', 'body', 'body', 'body', 'body', 'body'],
		columns: 1,
		table: {
			touches: [
				{ r: 0, c: 0, set: { lines: { bottom: line('solid', '1pt', 'grey') } } },
				{ r: 2, c: 0, set: { lines: { bottom: line('none') } } },
				{ r: 4, c: 0, set: { lines: { bottom: { ink: 'red' } } } }
			]
		},
		parts: {
			'rowBand:1': { lines: { bottom: line('solid', '2pt', 'black') } },
			'rowBand:2': { lines: { top: line('double', '1pt', 'teal') } }
		}
	},
	[
		['a touch beats every part', 0, 0, 'bottom', 'solid 1pt grey@touch'],
		['where a band has no line above, the one before it claims', 1, 0, 'bottom', null],
		['a touched none takes the line away', 2, 0, 'bottom', 'none@touch'],
		['nobody between band 2 and band 1', 3, 0, 'bottom', null],
		['a touched ink takes the stronger claim’s line', 4, 0, 'bottom', 'solid 2pt red@touch']
	]
);

edges(
	'reading up',
	{
		rows: ['body', 'body', 'header:1'],
		columns: 1,
		style: { reading: 'up' },
		parts: {
			ground: { lines: { top: line('solid', '0.5pt', 'grey'), bottom: line('solid', '0.5pt', 'grey') } },
			header: { lines: { top: line('solid', '2pt', 'black') } }
		}
	},
	[
		['top means as seen: the header’s line stands over it', 1, 0, 'bottom', 'solid 2pt black@header'],
		['the foot of the table is under the header', 2, 0, 'bottom', 'solid 0.5pt grey@ground'],
		['and its top over the newest row', 0, 0, 'top', 'solid 0.5pt grey@ground']
	]
);

edges(
	'switched-off parts and aspects not carried',
	{
		rows: ['header:1', 'body'],
		columns: 1,
		table: { partsOff: ['header'] },
		parts: {
			ground: { lines: { betweenRows: line('solid', '0.25pt', 'grey') } },
			header: { lines: { bottom: line('solid', '2pt', 'black') } }
		}
	},
	[['a part that is off draws nothing', 0, 0, 'bottom', 'solid 0.25pt grey@ground']]
);

it('are more than 60 cases', () => assert.ok(count > 60, String(count)));
