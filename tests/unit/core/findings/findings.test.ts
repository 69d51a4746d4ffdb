import type { House } from '../../../../src/lib/core/house.ts';
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { findingsOf, withFix, type Finding, type Trial } from '../../../../src/lib/core/findings/index.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import type { Table } from '../../../../src/lib/core/table/grid.ts';
import { style, table } from '../../support.ts';

const HOUSE: House = {
	inks: { black: '#000000', paper: '#FFFFFF', fern: '#2F5D50', mist: '#E8EFEC', straw: '#E9D8A6' },
	typeRoles: { figures: { family: 'Source Sans 3', size: '9.5pt' }, odd: { family: 'Thornmere Hand' } }
};
const ledger = table(['header:1', 'body', 'body', 'body', 'total'], 2, {
	cells: [
		['Item', 'Cost'],
		['Pots', '12.00'],
		['Seed', '-3.50'],
		['Soil', '40.00'],
		['Total', '48.50']
	],
	columns: [
		{ kind: 'text', name: 'Item' },
		{ kind: 'money', name: 'Cost' }
	]
});
function trial(tried: Style, tables: Table[] = [ledger]): Trial {
	const flat = flatten(tried);
	return {
		style: tried,
		flat,
		house: HOUSE,
		tables: tables.map((one, i) => {
			const resolved = resolve(one, flat, HOUSE);
			return { key: String(i), title: `table ${i + 1}`, resolved, appearance: appearanceOf(resolved) };
		}),
		flatten: (next) => flatten(next)
	};
}
const of = (kind: string, tried: Style, tables?: Table[]): Finding[] =>
	findingsOf(trial(tried, tables)).filter((finding) => finding.kind === kind);
const fixed = (kind: string, tried: Style, finding: Finding) =>
	finding.fixes!.map((fix) => of(kind, withFix(tried, fix)).length);

describe('findings of a style', () => {
	it('nothing, where nothing is wrong', () => {
		const quiet = style({
			ground: { text: { role: 'figures', ink: 'black' } },
			'rowBand:2': { fill: { ink: 'mist' } }
		});
		assert.deepEqual(findingsOf(trial(quiet)), []);
	});
	it('a fill that a tint of a lower rank makes paler, and the full tint as what helps', () => {
		const tint = style({ ground: { fill: { tint: 0.1 } }, header: { fill: { ink: 'mist' } } });
		const [pale, ...others] = of('tinted', tint);
		assert.deepEqual([pale!.place, others], ['header', []]);
		assert.match(pale!.words, /header.*10 %/);
		assert.deepEqual(fixed('tinted', tint, pale!), [0]);
		const own = style({ ground: { fill: { tint: 0.1 } }, header: { fill: { ink: 'mist', tint: 0.5 } } });
		assert.deepEqual(of('tinted', own), []);
		const higher = style({ ground: { fill: { ink: 'mist' } }, header: { fill: { tint: 0.5 } } });
		assert.deepEqual(of('tinted', higher), [], 'who says so later meant it');
	});
	it('text that cannot be read: where, why, and fixes that really help', () => {
		const pale = style({
			ground: { fill: { ink: 'fern', tint: 0.1 }, text: { ink: 'black' } },
			header: { fill: { ink: 'fern' }, text: { ink: 'paper' } }
		});
		const [low, ...others] = of('contrast', pale);
		assert.equal(others.length, 0);
		assert.match(low!.words, /“Item” has a contrast of 1\.\d:1 in table 1, and so has one more cell/);
		assert.match(low!.why!, /4.5:1 is needed.*ink comes from header.*fill from header/);
		assert.deepEqual(low!.at, { key: '0', cell: 0 });
		assert.deepEqual(
			low!.fixes!.map(({ words }) => words),
			['Full tint in header', 'Text of header in black']
		);
		assert.deepEqual(fixed('contrast', pale, low!), [0, 0]);
	});
	it('stripes that are one in grey', () => {
		const faint = style({ 'rowBand:2': { fill: { ink: 'fern', tint: 0.03 } } });
		const [bands] = of('bands', faint);
		assert.match(bands!.words, /row band 1 and row band 2 differ by 1\.0\d:1/);
		assert.deepEqual(fixed('bands', faint, bands!), [0]);
		assert.deepEqual(of('bands', style({ 'rowBand:2': { fill: { ink: 'fern', tint: 0.2 } } })), []);
		assert.deepEqual(of('bands', style({ ground: { fill: { ink: 'fern' } } })), [], 'equal on purpose');
	});
	it('strokes too thin to print, a double line by its stroke', () => {
		const thin = style({
			ground: {
				lines: { betweenRows: { pattern: 'solid', weight: '0.1pt' }, top: { pattern: 'none', weight: '0.1pt' } }
			},
			total: { lines: { top: { pattern: 'double', weight: '0.6pt' }, bottom: { pattern: 'solid', weight: '0.25pt' } } }
		});
		const found = of('thin', thin);
		assert.deepEqual(
			found.map(({ place, fixes }) => [place, fixes![0]!.words]),
			[
				['ground', 'Make it 0.25pt'],
				['total', 'Make it 0.75pt']
			]
		);
		for (const finding of found) assert.deepEqual(fixed('thin', thin, finding), [1]);
	});
	it('families that do not ship, by themselves or in a type role', () => {
		const odd = style({ ground: { text: { role: 'odd' } }, header: { text: { family: 'Garden Serif' } } });
		const found = of('family', odd);
		assert.deepEqual(
			found.map(({ words }) => /“(.+?)”.*; (.+) stands in/.exec(words)!.slice(1)),
			[
				['Thornmere Hand', 'Source Sans 3'],
				['Garden Serif', 'Source Serif 4']
			]
		);
		assert.deepEqual(fixed('family', odd, found[0]!), [1]);
	});
	it('rules that hit nothing, that set nothing, that others hide', () => {
		const ruled = style(
			{ ground: { text: { ink: 'black' } } },
			{
				rules: [
					{ name: 'nowhere', where: { column: 'Price', is: '<', value: 0 }, set: { text: { ink: 'fern' } } },
					{ name: 'hidden', where: { column: 'Cost', is: '<', value: 0 }, set: { text: { ink: 'fern' } } },
					{ name: 'shown', where: { column: 'Cost', is: '<', value: 0 }, set: { text: { ink: 'black' } } },
					{ name: 'idle', where: { column: 'Cost', is: '>', value: 0 }, set: {} },
					{ name: 'asleep', where: { column: 'Price', is: 'empty' }, off: true, set: { text: { ink: 'fern' } } }
				]
			}
		);
		const found = of('rule', ruled);
		assert.deepEqual(
			found.map(({ words }) => words),
			['Rule “hidden” never shows', 'Rule “nowhere” hits no cell on the sheet', 'Rule “idle” sets nothing']
		);
		assert.match(found[0]!.why!, /“shown” says otherwise/);
		assert.equal(withFix(ruled, found[0]!.fixes![0]!).rules!.length, 4);
	});
	it('parts for stripes that the cycle lacks, and inks that nobody knows', () => {
		const lost = style({ 'rowBand:3': { fill: { ink: 'mist' } }, header: { text: { ink: 'azure' } } });
		assert.match(of('part', lost)[0]!.words, /row band 3 can never show/);
		assert.deepEqual(fixed('part', lost, of('part', lost)[0]!), [0]);
		assert.match(of('ink', lost)[0]!.words, /Nobody knows the ink “azure”/);
		assert.equal(of('ink', lost)[0]!.place, 'header');
		assert.deepEqual(
			of('part', style({ 'rowBand:3': { fill: { ink: 'mist' } } }, { bands: { rows: { sizes: [1, 1, 2] } } })),
			[]
		);
	});
	it('worst first', () => {
		const both = style({ ground: { text: { ink: 'straw' }, lines: { top: { pattern: 'solid', weight: '0.1pt' } } } });
		assert.deepEqual(
			findingsOf(trial(both)).map(({ kind }) => kind),
			['contrast', 'thin']
		);
	});
});
