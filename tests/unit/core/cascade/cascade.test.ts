import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { lowContrast } from '../../../../src/lib/core/cascade/contrast.ts';
import { explainEdge, explainLeaf, explainTrace } from '../../../../src/lib/core/cascade/explain.ts';
import { resolve, restyle, traceCell, traceEdge } from '../../../../src/lib/core/cascade/resolve.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { line, Shown, style, table } from '../../support.ts';
import { anyStyle } from '../any.ts';

const ink = (ink: string) => ({ fill: { ink } });

describe('ranks', () => {
	const ledger = table(['title', 'header:1', 'header:2', 'group:1', 'body', 'body', 'subtotal:1', 'total', 'note'], 4, {
		firstColumns: 1,
		lastColumns: 1,
		columns: [
			{ kind: 'text', name: 'Item' },
			{ kind: 'money', name: 'Cost' },
			{ kind: 'count', name: 'Number' },
			{ kind: 'percent', name: 'Share' }
		]
	});
	const all = new Shown(ledger, {
		ground: ink('g'),
		'columnBand:1': ink('c1'),
		'columnBand:2': ink('c2'),
		'rowBand:2': ink('r2'),
		'columns:money': { text: { ink: 'money' } },
		'columns:"Cost"': { text: { italic: true } },
		firstColumn: { text: { ink: 'first' } },
		lastColumn: { text: { ink: 'last' } },
		header: { text: { weight: 700, ink: 'head' } },
		'header:2': { text: { weight: 600 } },
		'group:1': { text: { ink: 'group' } },
		total: { text: { ink: 'total' } },
		'corner:header-first': { text: { ink: 'corner' } },
		'corner:total-last': { text: { ink: 'last corner' } }
	});
	const cases: [r: number, c: number, path: string, expected: string | undefined, why: string][] = [
		[4, 1, 'fill.ink', 'c1@columnBand:1', 'the first column that is neither first nor last begins the column bands'],
		[4, 2, 'fill.ink', 'c2@columnBand:2', 'the next is the second stripe'],
		[4, 0, 'fill.ink', 'g@ground', 'first columns have no column band'],
		[4, 3, 'fill.ink', 'g@ground', 'nor have last columns'],
		[5, 1, 'fill.ink', 'r2@rowBand:2', 'row bands are later than column bands'],
		[6, 1, 'fill.ink', 'c1@columnBand:1', 'column bands run through subtotals'],
		[3, 1, 'fill.ink', 'c1@columnBand:1', 'and groups'],
		[7, 1, 'fill.ink', 'g@ground', 'but not totals'],
		[1, 1, 'fill.ink', 'g@ground', 'nor headers'],
		[4, 1, 'text.ink', 'money@columns:money', 'a kind rules its whole column'],
		[4, 1, 'text.italic', 'true@columns:"Cost"', 'and so does a named column'],
		[0, 1, 'text.ink', undefined, 'but not title rows'],
		[8, 1, 'text.ink', undefined, 'nor note rows'],
		[4, 0, 'text.ink', 'first@firstColumn', 'first column'],
		[4, 3, 'text.ink', 'last@lastColumn', 'last column'],
		[1, 1, 'text.ink', 'head@header', 'rows beat columns'],
		[1, 1, 'text.weight', '700@header', 'header alone applies to every tier'],
		[2, 1, 'text.weight', '600@header:2', 'a tier refines it'],
		[2, 1, 'text.ink', 'head@header', 'leaf by leaf'],
		[3, 0, 'text.ink', 'group@group:1', 'rows beat the first column'],
		[7, 1, 'text.ink', 'total@total', 'total'],
		[1, 0, 'text.ink', 'corner@corner:header-first', 'corners beat rows'],
		[2, 0, 'text.ink', 'corner@corner:header-first', 'on every tier'],
		[7, 3, 'text.ink', 'last corner@corner:total-last', 'total and last column'],
		[7, 0, 'text.ink', 'total@total', 'a corner that says nothing leaves the row to win']
	];
	for (const [r, c, path, expected, why] of cases)
		it(`${why} (${r},${c} ${path})`, () => assert.equal(all.leaf(r, c, path), expected));

	it('a column that is both first and last takes both, last wins', () => {
		const narrow = new Shown(table(['body'], 1, { firstColumns: 1, lastColumns: 1 }), {
			firstColumn: { fill: { ink: 'a', tint: 0.5 } },
			lastColumn: ink('b')
		});
		assert.equal(narrow.leaf(0, 0, 'fill.ink'), 'b@lastColumn');
		assert.equal(narrow.leaf(0, 0, 'fill.tint'), '0.5@firstColumn');
	});
	it('file order never counts', () => {
		const two = table(['header:1'], 1);
		assert.equal(new Shown(two, { 'header:1': ink('a'), header: ink('b') }).leaf(0, 0, 'fill.ink'), 'a@header:1');
	});
	it('an explicit none is a statement, an unset leaf is not', () => {
		const two = table(['body', 'total'], 1);
		const shown = new Shown(two, { ground: { fill: { ink: 'mist', opacity: 0.5 } }, total: { fill: { ink: 'none' } } });
		assert.equal(shown.leaf(1, 0, 'fill.ink'), 'none@total');
		assert.equal(shown.leaf(1, 0, 'fill.opacity'), '0.5@ground');
	});
	it('a type role opens where it is named', () => {
		const roles = { typeRoles: { big: { family: 'Crimson Pro', size: '12pt' }, small: { size: '8pt' } } };
		const two = table(['body', 'total'], 1);
		const shown = new Shown(
			two,
			{ ground: { text: { role: 'small', size: '9pt' } }, total: { text: { role: 'big' } } },
			roles
		);
		assert.equal(shown.leaf(0, 0, 'text.size'), '9pt@ground', 'in one part the direct leaf wins');
		assert.equal(
			shown.leaf(1, 0, 'text.size'),
			'12pt@total',
			'a role of a higher part beats a lower part’s direct leaf'
		);
		const direct = new Shown(two, { ground: { text: { role: 'big' } }, total: { text: { size: '7pt' } } }, roles);
		assert.equal(direct.leaf(1, 0, 'text.size'), '7pt@total', 'a direct leaf of a higher part beats the role’s');
		assert.equal(direct.leaf(1, 0, 'text.family'), 'Crimson Pro@ground');
	});
	it('merged cells take the row and column of their top-start slot', () => {
		const merged = table(['header:1', 'body', 'body'], 3, {
			firstColumns: 1,
			spans: [
				{ r: 0, c: 1, rows: 2, cols: 1 },
				{ r: 1, c: 0, rows: 2, cols: 1 }
			]
		});
		const shown = new Shown(merged, {
			header: ink('h'),
			'rowBand:1': ink('b1'),
			'rowBand:2': ink('b2'),
			firstColumn: { text: { weight: 700 } }
		});
		assert.equal(shown.leaf(0, 1, 'fill.ink'), 'h@header');
		assert.equal(shown.leaf(1, 0, 'text.weight'), '700@firstColumn');
		assert.equal(
			shown.leaf(2, 1, 'fill.ink'),
			'b1@rowBand:1',
			'a label over two body rows makes them one row of the cycle'
		);
	});
	it('a cell that starts before the last column is no last-column cell', () => {
		const wide = table(['body'], 3, { lastColumns: 1, spans: [{ r: 0, c: 1, rows: 1, cols: 2 }] });
		assert.equal(new Shown(wide, { lastColumn: ink('l') }).leaf(0, 1, 'fill.ink'), undefined);
	});
});

describe('bands', () => {
	const bands = (roles: Parameters<typeof table>[0], rest = {}, more: Parameters<typeof table>[2] = {}) => {
		const shown = new Shown(
			table(roles, 1, more),
			{ 'rowBand:1': ink('s1'), 'rowBand:2': ink('s2'), 'rowBand:3': ink('s3') },
			rest
		);
		return roles.map((_, r) => shown.leaf(r, 0, 'fill.ink')?.[1] ?? '-').join('');
	};
	it('count body rows only', () => assert.equal(bands(['header:1', 'body', 'body', 'body', 'total']), '-121-'));
	it('begin anew at each group heading, unless told not to', () => {
		const roles = ['body', 'group:1', 'body', 'body', 'group:1', 'body'] as const;
		assert.equal(bands([...roles]), '1-12-1');
		assert.equal(bands([...roles], { bands: { rows: { restartAtGroups: false } } }), '1-21-2');
	});
	it('go on over subtotals', () => assert.equal(bands(['body', 'subtotal:1', 'body', 'body']), '1-21'));
	it('begin anew after a header row in the middle', () =>
		assert.equal(
			bands(['body', 'body', 'body', 'header:1', 'body'], { bands: { rows: { restartAtGroups: false } } }),
			'121-1'
		));
	it('take any number of stripes of any sizes', () =>
		assert.equal(bands(Array(8).fill('body'), { bands: { rows: { sizes: [2, 1, 1] } } }), '11231123'));
	it('count from the header upwards where the style reads up', () =>
		assert.equal(bands(['body', 'body', 'body', 'header:1'], { reading: 'up' }), '121-'));
	it('do not count what no part says', () =>
		assert.equal(bands(['body', 'body'], {}, { partsOff: ['rowBand:2'] }), '1-'));
});

describe('parts in use and carry', () => {
	const two = (rest: Parameters<typeof table>[2]) => table(['header:1', 'body'], 2, { firstColumns: 1, ...rest });
	const parts = { ground: { ...ink('g'), text: { weight: 400 } }, header: ink('h'), 'corner:header-first': ink('c') };
	it('a part that is off says nothing', () => {
		assert.equal(new Shown(two({ partsOff: ['header'] }), parts).leaf(0, 1, 'fill.ink'), 'g@ground');
		assert.equal(
			new Shown(two({ partsOff: ['header'] }), parts).leaf(0, 0, 'fill.ink'),
			'g@ground',
			'and takes its corner with it'
		);
		assert.equal(new Shown(two({ partsOff: ['corner'] }), parts).leaf(0, 0, 'fill.ink'), 'h@header');
	});
	it('a header whose part is off is still no body row', () => {
		assert.equal(
			new Shown(two({ partsOff: ['header'] }), { 'rowBand:1': ink('s1') }).leaf(0, 0, 'fill.ink'),
			undefined
		);
	});
	it('an aspect that is not carried is left as it was', () => {
		const shown = new Shown(two({ carry: ['text'] }), parts);
		assert.equal(shown.leaf(1, 0, 'fill.ink'), undefined);
		assert.equal(shown.leaf(1, 0, 'text.weight'), '400@ground');
	});
	it('what was there before shows in the appearance', () => {
		const before = appearanceOf(resolve(two({}), flatten(style({ ground: { fill: { ink: '#112233' } } }))));
		const kept = appearanceOf(
			resolve(
				two({ carry: ['text'] }),
				flatten(style({ ground: { fill: { ink: '#445566' }, text: { ink: '#000000' } } }))
			),
			before
		);
		assert.equal(kept.looks[kept.cellLook[0]!]!.fill, '#112233');
	});
	it('touches are always the table’s own', () => {
		const shown = new Shown(
			two({
				carry: [],
				touches: [
					{ r: 1, c: 1, set: ink('t') },
					{ r: 1, c: 1, set: ink('u') }
				]
			}),
			parts
		);
		assert.equal(shown.leaf(1, 1, 'fill.ink'), 'u@touch', 'the later of two wins');
	});
});

describe('cell rules', () => {
	const money = table(['header:1', 'body', 'body', 'body', 'total'], 2, {
		cells: [
			['Item', 'Cost'],
			['a', '12.00'],
			['b', '(3.50)'],
			['c', 'n/a'],
			['Sum', '8.50']
		],
		columns: [
			{ kind: 'text', name: 'Item' },
			{ kind: 'money', name: 'Cost' }
		]
	});
	const hit = (where: object, reach?: 'row' | 'column') => {
		const shown = new Shown(
			money,
			{},
			{ rules: [{ name: 'r', where: where as never, ...(reach && { extends: reach }), set: ink('x') }] }
		);
		return money.cells
			.filter(({ r, c }) => shown.leaf(r, c, 'fill.ink'))
			.map(({ r, c }) => `${r}${c}`)
			.join(' ');
	};
	it('hit body cells whose condition holds', () => assert.equal(hit({ column: 'Cost', is: '<', value: 0 }), '21'));
	it('hit other rows where they say so', () =>
		assert.equal(hit({ column: 'Cost', rows: ['body', 'total'], is: '>', value: 8 }), '11 41'));
	it('reach the row', () => assert.equal(hit({ column: 'Cost', is: '<', value: 0 }, 'row'), '20 21'));
	it('reach the column', () => assert.equal(hit({ column: 'Cost', is: '<', value: 0 }, 'column'), '11 21 31'));
	it('combine', () => {
		assert.equal(
			hit({ all: [{ kind: 'money', is: '>', value: 0 }, { not: { kind: 'money', is: 'between', value: [20, 30] } }] }),
			'11'
		);
		assert.equal(
			hit({
				any: [
					{ column: 'Item', is: 'oneOf', value: ['a', 'c'] },
					{ column: 'Cost', is: 'empty' }
				]
			}),
			'10 30 31'
		);
	});
	it('win over rows and columns, and lose to touches', () => {
		const touched = { ...money, touches: [{ r: 2, c: 1, set: { text: { ink: 'mine' } } }] };
		const shown = new Shown(
			touched,
			{ 'columns:money': ink('m') },
			{
				rules: [
					{ name: 'r', where: { column: 'Cost', is: '<', value: 0 }, set: { ...ink('x'), text: { ink: 'rule' } } }
				]
			}
		);
		assert.equal(shown.leaf(2, 1, 'fill.ink'), 'x@rule:r');
		assert.equal(shown.leaf(2, 1, 'text.ink'), 'mine@touch');
	});
});

describe('trace and looks', () => {
	const roles = ['header:1', 'group:1', 'body', 'body', 'subtotal:1', 'total'] as const;
	it('lists everybody who spoke, winner first, and the winner is what is resolved', () => {
		fc.assert(
			fc.property(anyStyle, (any) => {
				const resolved = resolve(
					table([...roles], 3, {
						firstColumns: 1,
						columns: [
							{ kind: 'text', name: 'A' },
							{ kind: 'money', name: 'Cost' },
							{ kind: 'count', name: 'B' }
						]
					}),
					flatten(any)
				);
				const { structure, leaves } = resolved;
				for (const { r, c } of structure.table.cells) {
					const trace = traceCell(resolved, r, c);
					const winners = new Map([...trace].map(([path, said]) => [path, said[0]]));
					assert.deepEqual(winners, new Map(leaves[structure.cellSignature[r * 3 + c]!]!));
					for (const said of trace.values())
						for (let i = 1; i < said.length; i++) assert.ok(said[i - 1]!.rank >= said[i]!.rank);
				}
			})
		);
	});
	it('restyling comes to the same as resolving anew', () => {
		fc.assert(
			fc.property(anyStyle, anyStyle, (before, after) => {
				const one = table([...roles], 3, { firstColumns: 1 });
				const anew = resolve(one, flatten(after));
				const again = restyle(resolve(one, flatten(before)), flatten(after));
				assert.deepEqual(appearanceOf(again), appearanceOf(anew));
			})
		);
	});
	it('composes a fill over what the parts below paint', () => {
		const look = (parts: Parameters<typeof style>[0], r = 0) => {
			const { looks, cellLook } = appearanceOf(resolve(table(['body', 'total'], 1), flatten(style(parts))));
			return looks[cellLook[r]!]!.fill;
		};
		assert.equal(look({ ground: { fill: { ink: '#000000', tint: 0.5 } } }), '#808080');
		assert.equal(
			look({ ground: { fill: { ink: '#000000' } }, total: { fill: { ink: '#FFFFFF', opacity: 0.5 } } }, 1),
			'#808080'
		);
		assert.equal(look({ ground: { fill: { ink: 'none' } } }), 'none');
		assert.equal(look({}), undefined);
	});
	it('finds text that cannot be read', () => {
		const one = table(['body'], 1);
		const dark = appearanceOf(
			resolve(one, flatten(style({ ground: { fill: { ink: '#222222' }, text: { ink: '#000000' } } })))
		);
		assert.equal(lowContrast(one.cells, dark).length, 1);
		const fine = appearanceOf(
			resolve(one, flatten(style({ ground: { fill: { ink: '#222222' }, text: { ink: '#FFFFFF' } } })))
		);
		assert.deepEqual(lowContrast(one.cells, fine), []);
	});
	it('explains itself in words', () => {
		const resolved = resolve(
			table(['body', 'total'], 1),
			flatten(style({ ground: ink('mist'), total: { ...ink('fern'), text: { weight: 700 } } }))
		);
		assert.equal(explainTrace(traceCell(resolved, 1, 0)), 'Fill and weight come from IV total.');
		assert.equal(
			explainLeaf('fill.ink', traceCell(resolved, 1, 0).get('fill.ink')!),
			'fern, from total in Test, overruling ground'
		);
	});
	it('explains an edge: what it shows, who claimed it and whom that overrules', () => {
		const sides = (...all: [side: 'top' | 'bottom' | 'start', line: ReturnType<typeof line>][]) => ({
			lines: Object.fromEntries(all)
		});
		const resolved = resolve(
			table(['header:1', 'body', 'total'], 1),
			flatten(
				style({
					ground: sides(['top', line('solid', '1pt', 'fern')], ['bottom', line('solid', '0.5pt')]),
					header: sides(['bottom', line('double', '2pt', 'loam')]),
					total: sides(['top', { pattern: 'none' }], ['bottom', line('solid', '3pt', 'ink')])
				})
			)
		);
		const said = (r: number, side: 'top' | 'bottom' | 'start') => explainEdge(traceEdge(resolved, r, 0, side)!);
		assert.equal(said(0, 'bottom'), 'Double 2pt loam, from IV header.');
		assert.equal(said(0, 'top'), 'Solid 1pt fern, from I ground.');
		assert.equal(said(2, 'bottom'), 'Solid 3pt ink, from IV total; it overrules I ground (solid).');
		assert.equal(said(2, 'top'), 'No line, said on purpose, from IV total.');
		assert.equal(said(1, 'start'), 'Nobody claims this edge, so there is no line; on screen a guide may stand there.');
	});
	it('says where nothing is said, and sums up many properties of one part', () => {
		const bare = resolve(table(['body'], 1), flatten(style({ ground: {} })));
		assert.equal(explainTrace(traceCell(bare, 0, 0)), 'Nothing is said about this cell.');
		const full = resolve(
			table(['body'], 1),
			flatten(
				style({
					ground: {
						...ink('mist'),
						text: { weight: 400, italic: false, size: '9pt', ink: 'loam', family: 'Source Sans 3' }
					}
				})
			)
		);
		assert.equal(explainTrace(traceCell(full, 0, 0)), 'Everything comes from I ground.');
	});
});
