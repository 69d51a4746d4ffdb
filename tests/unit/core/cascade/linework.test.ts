import type { Side } from '../../../../src/lib/core/table/grid.ts';
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { edgeAt, resolve, traceEdge } from '../../../../src/lib/core/cascade/resolve.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { tableFromFile } from '../../../../src/lib/core/table/file.ts';
import { line, Shown, style, table } from '../../support.ts';
import { anyGrid, anyStyle } from '../any.ts';

describe('the worked example of the design', () => {
	const shown = new Shown(table(['header:1', 'body', 'body', 'total'], 2), {
		ground: {
			lines: {
				top: line('solid', '1pt', 'fern'),
				bottom: line('solid', '1pt', 'fern'),
				start: line('solid', '1pt', 'fern'),
				end: line('solid', '1pt', 'fern'),
				betweenRows: line('solid', '0.25pt', 'mist')
			}
		},
		header: { lines: { bottom: line('solid', '2pt', 'loam') } },
		total: { lines: { top: line('none') } }
	});
	it('header over body', () => assert.equal(shown.edge(0, 0, 'bottom'), 'solid 2pt loam@header'));
	it('body over body', () => assert.equal(shown.edge(1, 0, 'bottom'), 'solid 0.25pt mist@ground'));
	it('body over total: the total’s none wins', () => assert.equal(shown.edge(2, 1, 'bottom'), 'none@total'));
	it('the bottom of the table', () => assert.equal(shown.edge(3, 0, 'bottom'), 'solid 1pt fern@ground'));
	it('the rim', () => {
		assert.equal(shown.edge(0, 0, 'top'), 'solid 1pt fern@ground');
		assert.equal(shown.edge(1, 0, 'start'), 'solid 1pt fern@ground');
		assert.equal(shown.edge(1, 1, 'end'), 'solid 1pt fern@ground');
	});
	it('nobody claims between columns', () => assert.equal(shown.edge(1, 0, 'end'), null));
});

describe('blocks', () => {
	it('two total rows apart are two, side by side one', () => {
		const apart = new Shown(table(['total', 'body', 'total', 'total'], 1), {
			total: { lines: { top: line('solid', '2pt'), betweenRows: line('dotted', '1pt') } }
		});
		assert.equal(apart.edge(0, 0, 'top'), 'solid 2pt@total');
		assert.equal(apart.edge(1, 0, 'bottom'), 'solid 2pt@total');
		assert.equal(apart.edge(2, 0, 'bottom'), 'dotted 1pt@total');
	});
	it('adjacent columns of one kind are one', () => {
		const money = {
			columns: [
				{ kind: 'text' as const, name: 'A' },
				{ kind: 'money' as const, name: 'B' },
				{ kind: 'money' as const, name: 'C' }
			]
		};
		const shown = new Shown(table(['header:1', 'body'], 3, money), {
			'columns:money': {
				lines: {
					start: line('solid', '1pt'),
					betweenColumns: line('dashed', '1pt'),
					betweenRows: line('dotted', '1pt')
				}
			}
		});
		assert.equal(shown.edge(1, 0, 'end'), 'solid 1pt@columns:money');
		assert.equal(shown.edge(1, 1, 'end'), 'dashed 1pt@columns:money');
		assert.equal(shown.edge(0, 1, 'bottom'), 'dotted 1pt@columns:money', 'header cells belong to the column');
		assert.equal(shown.edge(1, 2, 'end'), null);
	});
	it('every stripe is its own', () => {
		const same = new Shown(
			table(['body', 'body', 'body'], 1),
			{ 'rowBand:1': { lines: { top: line('solid', '1pt'), betweenRows: line('dotted', '1pt') } } },
			{ bands: { rows: { sizes: [1] } } }
		);
		assert.equal(same.edge(0, 0, 'bottom'), 'solid 1pt@rowBand:1');
		const pairs = new Shown(
			table(['body', 'body', 'body'], 1),
			{ 'rowBand:1': { lines: { top: line('solid', '1pt'), betweenRows: line('dotted', '1pt') } } },
			{ bands: { rows: { sizes: [2] } } }
		);
		assert.equal(pairs.edge(0, 0, 'bottom'), 'dotted 1pt@rowBand:1');
		assert.equal(pairs.edge(1, 0, 'bottom'), 'solid 1pt@rowBand:1');
	});
	it('column stripes side by side are two', () => {
		const shown = new Shown(
			table(['body', 'body'], 2),
			{ 'columnBand:1': { lines: { start: line('solid', '1pt'), betweenRows: line('dotted', '1pt') } } },
			{ bands: { columns: { sizes: [1] } } }
		);
		assert.equal(shown.edge(0, 0, 'end'), 'solid 1pt@columnBand:1');
		assert.equal(shown.edge(0, 1, 'bottom'), 'dotted 1pt@columnBand:1');
	});
	it('tiers are inside the header’s block', () => {
		const shown = new Shown(table(['header:1', 'header:2', 'body'], 1), {
			header: { lines: { betweenRows: line('dotted', '1pt'), bottom: line('solid', '2pt') } },
			'header:2': { lines: { top: line('solid', '0.5pt') } }
		});
		assert.equal(shown.edge(0, 0, 'bottom'), 'solid 0.5pt@header:2', 'the tier’s top is the later part');
		assert.equal(shown.edge(1, 0, 'bottom'), 'solid 2pt@header');
	});
});

describe('the stronger claim', () => {
	const between = (upper: object, lower: object, rest = {}) =>
		new Shown(
			table(['header:1', 'total'], 1),
			{ header: { lines: upper }, total: { lines: lower } } as never,
			rest
		).edge(0, 0, 'bottom');
	const beside = (start: object, end: object) =>
		new Shown(
			table(['body'], 2, {
				columns: [
					{ kind: 'count', name: 'A' },
					{ kind: 'money', name: 'B' }
				]
			}),
			{ 'columns:count': { lines: { end: start } }, 'columns:money': { lines: { start: end } } } as never
		).edge(0, 0, 'end');
	it('the later part of a rank', () =>
		assert.equal(between({ bottom: line('solid', '1pt') }, { top: line('solid', '5pt') }), 'solid 1pt@header'));
	it('an explicit none wins like any other', () =>
		assert.equal(between({ bottom: line('none') }, { top: line('solid', '5pt') }), 'none@header'));
	it('the thicker', () => assert.equal(beside(line('solid', '1pt'), line('solid', '2pt')), 'solid 2pt@columns:money'));
	it('none counts as thickness 0', () =>
		assert.equal(beside(line('none', '9pt'), line('solid', '0.25pt')), 'solid 0.25pt@columns:money'));
	const order = ['double', 'triple', 'solid', 'dashed', 'dash-dot', 'dotted', 'wavy'] as const;
	order
		.slice(1)
		.forEach((weaker, i) =>
			it(`${order[i]} over ${weaker}`, () =>
				assert.equal(beside(line(weaker, '1pt'), line(order[i]!, '1pt')), `${order[i]} 1pt@columns:money`))
		);
	it('the darker ink', () =>
		assert.equal(beside(line('solid', '1pt', 'grey'), line('solid', '1pt', 'black')), 'solid 1pt black@columns:money'));
	it('the cell that comes first', () =>
		assert.equal(
			beside(line('solid', '1pt', '#808080'), line('solid', '1pt', 'grey')),
			'solid 1pt #808080@columns:count'
		));
	it('the lower cell first where the style reads up', () => {
		const up = new Shown(
			table(['body', 'body'], 1),
			{ 'rowBand:1': { lines: { top: line('solid', '1pt', '#808080'), bottom: line('solid', '1pt', 'grey') } } },
			{ reading: 'up', bands: { rows: { sizes: [1] } } }
		);
		assert.equal(up.edge(0, 0, 'bottom'), 'solid 1pt #808080@rowBand:1');
	});
	it('a claim’s rank is that of its highest leaf', () => {
		const shown = new Shown(table(['body', 'total'], 1), {
			ground: { lines: { betweenRows: line('solid', '1pt', 'grey') } },
			total: { lines: { top: { ink: 'red' } } },
			'rowBand:1': { lines: { bottom: line('double', '3pt', 'black') } }
		});
		assert.equal(
			shown.edge(0, 0, 'bottom'),
			'solid 1pt red@total',
			'pattern and weight from ground, ink from total; the claim wins whole'
		);
	});
	it('without a pattern there is no claim', () => {
		const shown = new Shown(table(['body', 'total'], 1), { total: { lines: { top: { ink: 'red', weight: '2pt' } } } });
		assert.equal(shown.edge(0, 0, 'bottom'), null);
	});
	it('a pattern without weight is half a point, without ink the text’s', () => {
		const shown = new Shown(table(['body'], 1), { ground: { text: { ink: 'teal' }, lines: { top: line('solid') } } });
		assert.equal(shown.edge(0, 0, 'top'), 'solid 0.5pt teal@ground');
	});
});

describe('merged cells and touches', () => {
	it('claim segment by segment, and have no edge inside', () => {
		const merged = table(['header:1', 'body', 'total'], 2, { spans: [{ r: 0, c: 0, rows: 2, cols: 1 }] });
		const shown = new Shown(merged, {
			ground: { lines: { betweenRows: line('solid', '1pt', 'grey'), betweenColumns: line('solid', '1pt', 'grey') } },
			header: { lines: { end: line('solid', '2pt', 'red'), betweenColumns: line('dotted', '1pt', 'black') } }
		});
		assert.equal(shown.edge(0, 0, 'bottom'), undefined);
		assert.equal(
			shown.edge(0, 0, 'end'),
			'dotted 1pt black@header',
			'beside another header cell it is inside the block'
		);
		assert.equal(shown.edge(1, 0, 'end'), 'solid 2pt red@header', 'beside a body cell it is outside');
	});
	it('an edge’s touch is claimed from both sides, and can be one segment', () => {
		const wide = table(['body', 'body'], 2, {
			spans: [{ r: 0, c: 0, rows: 1, cols: 2 }],
			touches: [{ r: 0, c: 1, set: { lines: { bottom: line('solid', '3pt', 'red') } } }]
		});
		const shown = new Shown(wide, { ground: { lines: { betweenRows: line('dotted', '1pt', 'grey') } } });
		assert.equal(shown.edge(0, 0, 'bottom'), 'dotted 1pt grey@ground');
		assert.equal(shown.edge(0, 1, 'bottom'), 'solid 3pt red@touch');
	});
	it('a touch from the other side is the same edge', () => {
		const one = table(['body', 'body'], 1, { touches: [{ r: 1, c: 0, set: { lines: { top: line('none') } } }] });
		assert.equal(
			new Shown(one, { ground: { lines: { betweenRows: line('solid', '1pt') } } }).edge(0, 0, 'bottom'),
			'none@touch'
		);
	});
	it('a touched ink keeps the style’s pattern', () => {
		const one = table(['body', 'body'], 1, { touches: [{ r: 0, c: 0, set: { lines: { bottom: { ink: 'red' } } } }] });
		assert.equal(
			new Shown(one, { ground: { lines: { betweenRows: line('dashed', '1pt', 'grey') } } }).edge(0, 0, 'bottom'),
			'dashed 1pt red@touch'
		);
	});
});

describe('laws of the edges', () => {
	it('the regular way and the slow way agree, whatever is merged', () => {
		fc.assert(
			fc.property(anyGrid, anyStyle, ({ texts, spans }, any) => {
				const file = tableFromFile({ format: 'heptarch-table', version: 1, cells: texts, spans });
				const quick = resolve(file, flatten(any));
				// A touch that says nothing makes a cell irregular, so that all its edges go the slow way.
				const touches = file.cells.map(({ r, c }) => ({ r, c, set: { keep: { together: true } } }));
				const slow = resolve({ ...file, touches }, flatten(any));
				for (let r = 0; r < file.rows; r++)
					for (let c = 0; c < file.columns; c++)
						for (const side of ['top', 'bottom', 'start', 'end'] as Side[]) {
							const a = edgeAt(quick.structure, r, c, side);
							const b = edgeAt(slow.structure, r, c, side);
							assert.deepEqual(a < 0 ? null : quick.edges[a], b < 0 ? null : slow.edges[b]);
						}
			}),
			{ numRuns: 60 }
		);
	});
	it('every unit segment has one answer, seen from either cell', () => {
		fc.assert(
			fc.property(anyGrid, anyStyle, ({ texts, spans }, any) => {
				const { structure } = resolve(
					tableFromFile({ format: 'heptarch-table', version: 1, cells: texts, spans }),
					flatten(any)
				);
				const { rows, columns } = structure.table;
				for (let r = 0; r + 1 < rows; r++)
					for (let c = 0; c < columns; c++)
						assert.equal(edgeAt(structure, r, c, 'bottom'), edgeAt(structure, r + 1, c, 'top'));
				for (let r = 0; r < rows; r++)
					for (let c = 0; c + 1 < columns; c++)
						assert.equal(edgeAt(structure, r, c, 'end'), edgeAt(structure, r, c + 1, 'start'));
			})
		);
	});
	it('the trace of an edge names its winner among the claims', () => {
		const resolved = resolve(
			table(['header:1', 'body'], 1),
			flatten(
				style({
					ground: { lines: { betweenRows: line('solid', '1pt') } },
					header: { lines: { bottom: line('double', '2pt') } }
				})
			)
		);
		const { result, claims } = traceEdge(resolved, 0, 0, 'bottom')!;
		assert.equal(result.part, 'header');
		assert.deepEqual(
			claims.map((claim) => claim.get('pattern')!.map(({ part }) => part)),
			[['header', 'ground'], ['ground']]
		);
	});
});
