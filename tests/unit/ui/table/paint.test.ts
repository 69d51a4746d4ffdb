import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { LINE_PATTERNS } from '../../../../src/lib/core/style/types.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';
import { strokes } from '../../../../src/lib/core/layout/strokes.ts';
import { cellStyle, lineStyle } from '../../../../src/lib/ui/table/paint.ts';
import { rolesToChoose, roleTone } from '../../../../src/lib/ui/documents/roles.ts';

describe('a look as inline style', () => {
	it('says everything that the look says', () => {
		const css = cellStyle(
			{
				fill: '#112233',
				ink: '#445566',
				family: 'Georgia',
				size: fromPoints(9),
				weight: 700,
				italic: true,
				underline: 'double',
				case: 'small-caps',
				tracking: fromPoints(1),
				lineHeight: 1.2,
				h: 'decimal',
				v: 'bottom',
				rotate: 270,
				marginTop: fromPoints(3),
				marginEnd: fromPoints(6)
			},
			1
		);
		for (const piece of [
			'background-color:#112233',
			'color:#445566',
			"font-family:'Source Serif 4'",
			'font-size:12px',
			'font-weight:700',
			'font-style:italic',
			'underline double',
			'small-caps',
			'letter-spacing:1.333px',
			'line-height:1.500',
			'text-align:end',
			'align-content:end',
			'padding:4px 8px 0px 0px',
			'writing-mode:vertical-rl',
			'rotate:180deg'
		])
			assert.ok(css.includes(piece), `${piece} in ${css}`);
	});
	it('has its margins the other way round in a table that starts at the right', () => {
		const css = cellStyle({ marginTop: fromPoints(3), marginEnd: fromPoints(6) }, 1, true);
		assert.ok(css.includes('padding:4px 0px 0px 8px'), css);
	});
	it('paints no fill for none, and scales lengths', () => {
		assert.ok(!cellStyle({ fill: 'none' }, 1).includes('background'));
		assert.ok(cellStyle({ size: fromPoints(12) }, 0.5).includes('font-size:8px'));
	});
});

describe('lines', () => {
	it('every pattern shows in both directions, none does not', () => {
		for (const pattern of LINE_PATTERNS)
			for (const along of ['across', 'down'] as const) {
				const css = lineStyle({ pattern, weight: fromPoints(1.5), ink: '#123456' }, along, 1);
				if (pattern === 'none') assert.equal(css, 'display:none;');
				else assert.ok(css.startsWith(along === 'across' ? 'height:' : 'width:') && css.includes('123456'), css);
			}
	});
	it('the finest can still be seen', () =>
		assert.ok(
			lineStyle({ pattern: 'solid', weight: fromPoints(0.1), ink: '#000000' }, 'across', 0.5).startsWith(
				'height:0.75px'
			)
		));
	it('unit edges that show the same line join to strokes that cover each of them once', () => {
		const line = (weight: number) => ({
			pattern: 'solid' as const,
			weight: fromPoints(weight),
			ink: '#000000' as const
		});
		const lines = [null, line(1), line(2), { ...line(0), pattern: 'none' as const }];
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 4 }),
				fc.integer({ min: 1, max: 7 }),
				fc.array(fc.integer({ min: -1, max: 3 }), { minLength: 28, maxLength: 28 }),
				fc.constantFrom('across' as const, 'down' as const),
				(runs, width, numbers, direction) => {
					const edges = Int32Array.from(numbers);
					const isAcross = direction === 'across';
					const index = (run: number, i: number) => (isAcross ? run * width + i : i * runs + run);
					const size = isAcross ? { rows: runs - 1, columns: width } : { rows: width, columns: runs - 1 };
					const drawn = strokes({ across: edges, down: edges, lines }, size, direction);
					for (let run = 0; run < runs; run++)
						for (let i = 0; i < width; i++) {
							const edge = edges[index(run, i)]!;
							const over = drawn.filter(({ at, from, to }) => at === run && from <= i && i < to);
							const shows = edge >= 0 && lines[edge]?.pattern !== 'none';
							assert.equal(over.length, shows ? 1 : 0);
							if (shows) assert.equal(over[0]!.line, lines[edge]);
						}
					for (const a of drawn)
						for (const b of drawn)
							assert.ok(
								!(a !== b && a.at === b.at && a.to === b.from && a.line === b.line),
								'neighbours are one stroke'
							);
				}
			)
		);
	});
});

describe('roles to choose', () => {
	it('go one deeper than the table has', () => {
		assert.deepEqual(rolesToChoose(['header:1', 'header:2', 'group:1', 'body']), [
			'title',
			'header:1',
			'header:2',
			'header:3',
			'group:1',
			'group:2',
			'body',
			'subtotal:1',
			'total',
			'note'
		]);
	});
	it('are told apart by more than their words', () => {
		assert.notEqual(roleTone('header:1'), roleTone('total'));
		assert.match(roleTone('body'), /opacity-0/);
	});
});
