import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { canonicalStyle, styleText } from '../../../../src/lib/core/style/canonical.ts';
import { selfContained } from '../../../../src/lib/core/style/export.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { leavesOf, settingsOf, withLeaf } from '../../../../src/lib/core/style/leaves.ts';
import { comparePartNames, isPartOff, parsePart } from '../../../../src/lib/core/style/parts.ts';
import { describeStyle } from '../../../../src/lib/core/style/sentence.ts';
import type { PartSettings } from '../../../../src/lib/core/style/types.ts';
import { checkStyle } from '../../../../src/lib/core/style/validate.ts';
import { style } from '../../support.ts';
import { anySettings, anyStyle } from '../any.ts';

const byName = (name: string) => DEMO_STYLES.find((other) => other.name === name);

describe('the style file', () => {
	it('is valid for the demo styles, which stand alone when exported', () => {
		for (const demo of DEMO_STYLES) {
			const file = selfContained(demo, FIRST_HOUSE, byName);
			assert.doesNotThrow(() => checkStyle(JSON.parse(styleText(file))));
			assert.deepEqual([...flatten(file).parts.keys()], [...flatten(demo, byName).parts.keys()]);
		}
	});
	it('is written as the same canonical JSON it was read from', () => {
		fc.assert(
			fc.property(anyStyle, (any) => {
				const once = styleText(any);
				assert.equal(styleText(checkStyle(JSON.parse(once))), once);
			})
		);
	});
	it('takes null as not set', () => {
		const read = checkStyle({
			format: 'heptarch-style',
			version: 1,
			name: 'N',
			basedOn: null,
			parts: { ground: { fill: { ink: null, tint: 0.5 }, rotate: null } }
		});
		assert.deepEqual(canonicalStyle(read).parts, { ground: { fill: { tint: 0.5 } } });
	});
	it('says where it is wrong', () => {
		const read = (rest: object) => () =>
			checkStyle({ format: 'heptarch-style', version: 1, name: 'N', parts: {}, ...rest });
		assert.throws(read({ colour: 1 }), /“colour” is not a property/);
		assert.throws(read({ parts: { ground: { fill: { shade: 1 } } } }), /\/parts\/ground\/fill: “shade”/);
		assert.throws(read({ parts: { header2: {} } }), /“header2” is not a name/);
		assert.throws(read({ parts: { ground: { align: { h: 'left' } } } }), /"left" is not one of start/);
		assert.throws(read({ parts: { ground: { text: { size: '12' } } } }), /\/parts\/ground\/text\/size/);
		assert.throws(read({ bands: { rows: { sizes: [1, 0] } } }), /\/bands\/rows\/sizes\/1/);
		assert.throws(read({ version: 2 }), /must be 1/);
		assert.throws(read({ inks: { none: '#FFFFFF' } }), /“none” is not a name/);
		assert.throws(
			read({ rules: [1, 2].map(() => ({ name: 'x', where: { is: 'empty' as const }, set: {} })) }),
			/two rules are named “x”/
		);
		assert.throws(() => checkStyle('text'), /not a valid style/);
	});
	it('sets and unsets one leaf at a time', () => {
		const set = withLeaf({}, 'lines.top.weight', '1pt');
		assert.deepEqual(set, { lines: { top: { weight: '1pt' } } });
		assert.deepEqual(withLeaf(set, 'lines.top.weight', undefined), {});
		assert.deepEqual(set, { lines: { top: { weight: '1pt' } } }, 'what it was made from is as it was');
	});
	it('keeps leaves through settings and back', () => {
		fc.assert(fc.property(anySettings, (settings) => assert.deepEqual(settingsOf(leavesOf(settings)), settings)));
	});
});

describe('inheritance', () => {
	const base = style(
		{ ground: { fill: { ink: 'mist', tint: 0.5 } }, total: { text: { weight: 700 } } },
		{ name: 'Base', inks: { mist: '#E8EFEC' } }
	);
	it('is leaf by leaf, and keeps who said it', () => {
		const flat = flatten(style({ ground: { fill: { ink: 'none' } } }, { basedOn: 'Base', bases: [base] }));
		assert.deepEqual(flat.parts.get('ground')!.get('fill.ink'), { value: 'none', style: 'Test' });
		assert.deepEqual(flat.parts.get('ground')!.get('fill.tint'), { value: 0.5, style: 'Base' });
		assert.deepEqual(flat.parts.get('total')!.get('text.weight'), { value: 700, style: 'Base' });
		assert.equal(flat.inks.get('mist'), '#E8EFEC');
	});
	it('replaces a rule of the same name in its place, base rules first', () => {
		const rule = (name: string, ink: string) => ({ name, where: { is: 'empty' as const }, set: { fill: { ink } } });
		const under = style({}, { name: 'Base', rules: [rule('a', 'mist'), rule('b', 'mist')] });
		const flat = flatten(style({}, { basedOn: 'Base', bases: [under], rules: [rule('c', 'fern'), rule('a', 'fern')] }));
		assert.deepEqual(
			flat.rules.map(({ name, style }) => `${name} ${style}`),
			['a Test', 'b Base', 'c Test']
		);
	});
	it('names the chain of a cycle, and a base that is missing', () => {
		const a = style({}, { name: 'A', basedOn: 'B' });
		const b = style({}, { name: 'B', basedOn: 'A' });
		assert.throws(() => flatten({ ...a, bases: [b, a] }), /A → B → A/);
		assert.throws(() => flatten(style({}, { name: 'A', basedOn: 'A' })), /A → A/);
		assert.throws(() => flatten(style({}, { basedOn: 'Gone' })), /“Gone”, which is not here/);
	});
	it('equals a style that has everything written out', () => {
		fc.assert(
			fc.property(anyStyle, anyStyle, (under, over) => {
				const flat = flatten({ ...over, basedOn: 'Base', bases: [{ ...under, name: 'Base' }] });
				const parts: Record<string, PartSettings> = {};
				for (const name of new Set([...Object.keys(under.parts), ...Object.keys(over.parts)]))
					parts[name] = settingsOf(
						new Map([...leavesOf(under.parts[name] ?? {}), ...leavesOf(over.parts[name] ?? {})])
					);
				const plain = flatten({ ...over, basedOn: null, parts });
				const values = (style: typeof flat) =>
					[...style.parts].map(([name, leaves]) => [
						name,
						new Map([...leaves].sort().map(([path, { value }]) => [path, value]))
					]);
				assert.deepEqual(values(flat), values(plain));
			})
		);
	});
});

describe('parts', () => {
	it('have the order of the ranks table', () => {
		const shuffled = [
			'title',
			'header:9',
			'header:2',
			'header',
			'total',
			'subtotal:2',
			'subtotal',
			'group',
			'note',
			'lastColumn',
			'firstColumn',
			'columns:"A"',
			'columns:money',
			'rowBand:2',
			'rowBand:1',
			'columnBand:3',
			'ground',
			'corner:total-last',
			'corner:header-first'
		];
		assert.deepEqual([...shuffled].sort(comparePartNames), [
			'ground',
			'columnBand:3',
			'rowBand:1',
			'rowBand:2',
			'columns:money',
			'columns:"A"',
			'firstColumn',
			'lastColumn',
			'note',
			'group',
			'subtotal',
			'subtotal:2',
			'total',
			'header',
			'header:2',
			'header:9',
			'title',
			'corner:header-first',
			'corner:total-last'
		]);
	});
	it('refuse names that are none', () => {
		for (const name of [
			'row',
			'rowBand',
			'rowBand:0',
			'columns:colour',
			'corner:title-first',
			'total:1',
			'header:',
			''
		])
			assert.equal(parsePart(name), undefined, name);
	});
	it('are off with their family; a corner with its row or column', () => {
		const off = (name: string, ...list: string[]) => isPartOff(name, new Set(list));
		assert.ok(
			off('header:2', 'header') &&
				off('rowBand:1', 'rowBand') &&
				off('columns:"A"', 'columns') &&
				off('rule:x', 'rules')
		);
		assert.ok(
			off('corner:header-first', 'header') &&
				off('corner:header-first', 'firstColumn') &&
				off('corner:total-last', 'corner')
		);
		assert.ok(
			!off('header:1', 'header:2') &&
				!off('header', 'header:2') &&
				!off('corner:header-first', 'lastColumn') &&
				!off('total', 'subtotal')
		);
	});
});

describe('the sentence', () => {
	it('says what a style does, and that a blank one does nothing', () => {
		const ledger = describeStyle(flatten(byName('Season Ledger')!, byName));
		assert.match(ledger, /every second row is fern at 8 %/i);
		assert.match(ledger, /the total is bold between a double line and a line/);
		assert.match(ledger, /money and quantity line up on the decimal mark/);
		assert.equal(describeStyle(flatten(style({}))), 'Says nothing yet.');
		const silent = style({ ground: { margin: { top: '2pt', start: '3pt' }, text: { tracking: '1pt' } } });
		assert.match(describeStyle(flatten(silent)), /^Sets .*margin above.*\.$/);
		const pale = style({ header: { fill: { ink: 'fern', tint: 0.5, opacity: 0.2 } } });
		assert.match(describeStyle(flatten(pale)), /on fern at 10 %/);
	});
});
