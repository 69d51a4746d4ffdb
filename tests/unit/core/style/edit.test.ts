import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { listResolved } from '../../../../src/lib/core/cascade/answer.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { compareStyles, differenceWords } from '../../../../src/lib/core/style/compare.ts';
import { conditionFault, conditionWords } from '../../../../src/lib/core/style/conditions.ts';
import {
	detach,
	freeze,
	inkUses,
	mapInks,
	mapTypeRoles,
	pushUp,
	rebase,
	repeated,
	settingsAt,
	typeRoleUses,
	withLeafAt,
	withLeavesAt,
	withRules
} from '../../../../src/lib/core/style/edit.ts';
import { flatten, type FlatStyle } from '../../../../src/lib/core/style/inherit.ts';
import { RECIPES, withRecipe } from '../../../../src/lib/core/style/recipes.ts';
import type { Condition, Style } from '../../../../src/lib/core/style/types.ts';
import { checkStyle } from '../../../../src/lib/core/style/validate.ts';
import { Shown, style, table } from '../../support.ts';
import { anyStyle } from '../any.ts';

const byName = (name: string) => DEMO_STYLES.find((other) => other.name === name);
/** What a flattened style says, without who says it. */
const says = ({ parts, bands, reading, rules }: FlatStyle) => ({
	parts: Object.fromEntries(
		[...parts].map(([name, leaves]) => [
			name,
			Object.fromEntries([...leaves].map(([path, { value }]) => [path, value]))
		])
	),
	bands,
	reading,
	rules: rules.map(({ style: _s, leaves: _l, ...rule }) => rule)
});

describe('changes of a style', () => {
	const rule = { name: 'below zero', where: { any: true, is: '<', value: 0 } as Condition, set: {} };
	it('set and unset one leaf of a part or a rule; a part without settings goes', () => {
		const set = withLeafAt(style({}), 'total', 'text.weight', 700);
		assert.deepEqual(set.parts, { total: { text: { weight: 700 } } });
		assert.deepEqual(withLeafAt(set, 'total', 'text.weight', undefined).parts, {});
		const ruled = withLeafAt(style({}, { rules: [rule] }), 'rule:below zero', 'text.ink', 'rust');
		assert.deepEqual(settingsAt(ruled, 'rule:below zero'), { text: { ink: 'rust' } });
		assert.throws(() => withLeafAt(style({}), 'rule:nobody', 'text.ink', 'rust'), /no rule “nobody”/);
	});
	it('set several leaves at once', () => {
		const set = withLeavesAt(style({ ground: { margin: { top: '1mm' } } }), 'ground', [
			['margin.top', undefined],
			['margin.start', '2mm']
		]);
		assert.deepEqual(set.parts, { ground: { margin: { start: '2mm' } } });
	});
	it('leave no empty list of rules', () => {
		assert.ok(!('rules' in withRules(style({}, { rules: [rule] }), [])));
	});
	it('push a leaf up to the base, where all that build on it get it', () => {
		const base = style({}, { name: 'Base' });
		const own = style({ total: { text: { weight: 700, italic: true } } }, { basedOn: 'Base' });
		const pushed = pushUp(own, base, 'total', 'text.weight');
		assert.deepEqual(pushed.base.parts, { total: { text: { weight: 700 } } });
		assert.deepEqual(pushed.style.parts, { total: { text: { italic: true } } });
		const find = (before: Style) => () => before;
		assert.deepEqual(says(flatten(pushed.style, find(pushed.base))), says(flatten(own, find(base))));
	});
	it('freeze what comes from a base', () => {
		const ledger = byName('Season Ledger')!;
		const frozen = freeze(ledger, flatten(ledger, byName), 'ground', 'text.role');
		assert.equal(settingsAt(frozen, 'ground').text?.role, 'figures');
	});
	it('detach: resolves as before, and builds on nothing', () => {
		for (const demo of DEMO_STYLES) {
			const alone = checkStyle(detach(demo, byName));
			assert.equal(alone.basedOn, null);
			assert.deepEqual(says(flatten(alone)), says(flatten(demo, byName)));
		}
		fc.assert(
			fc.property(anyStyle, anyStyle, (a, b) => {
				const base = { ...a, name: 'Base' };
				const own = { ...b, name: 'Own', basedOn: 'Base' };
				const find = (name: string) => (name === 'Base' ? base : undefined);
				assert.deepEqual(says(flatten(detach(own, find))), says(flatten(own, find)));
			})
		);
	});
	it('rebase, but never in a circle', () => {
		const ledger = byName('Season Ledger')!;
		assert.equal(rebase(ledger, 'Beacon', byName).basedOn, 'Beacon');
		assert.equal(rebase(ledger, null, byName).basedOn, null);
		assert.throws(
			() => rebase(byName('House base')!, 'Season Ledger', byName),
			/House base → Season Ledger → House base/
		);
	});
	it('find what a base says already', () => {
		const find = () => style({ ground: { text: { ink: 'loam' } } }, { name: 'Base' });
		const own = style({ ground: { text: { ink: 'loam', weight: 600 } } }, { basedOn: 'Base' });
		assert.deepEqual(repeated(own, find), [{ place: 'ground', path: 'text.ink' }]);
		assert.deepEqual(repeated(style({}), find), []);
	});
	it('re-ink everything that names an ink, and nothing else', () => {
		const before = style(
			{ ground: { fill: { ink: 'none' }, text: { ink: 'fern' }, lines: { top: { pattern: 'solid', ink: 'fern' } } } },
			{ rules: [{ ...rule, set: { text: { ink: 'rust' } } }] }
		);
		assert.deepEqual(
			[...inkUses(before)],
			[
				['fern', 2],
				['rust', 1]
			]
		);
		const after = mapInks(before, (ink) => (ink === 'fern' ? 'dusk' : ink));
		assert.deepEqual(
			[...inkUses(after)],
			[
				['dusk', 2],
				['rust', 1]
			]
		);
		assert.equal(after.parts.ground!.fill!.ink, 'none');
		assert.deepEqual([...typeRoleUses(mapTypeRoles(byName('Quiet Lines')!, () => 'label'))], [['label', 1]]);
	});
});

describe('recipes of linework', () => {
	const ledger = table(['header:1', 'header:2', 'body', 'body', 'subtotal:1', 'total'], 2, { firstColumns: 1 });
	it('give the lines that they say, on any style, and are valid', () => {
		const expected: Record<
			string,
			[edge: [number, number, 'top' | 'bottom' | 'start' | 'end'], shown: RegExp | null][]
		> = {
			'Three rules': [
				[[0, 0, 'top'], /^solid 1.25pt red@ground/],
				[[1, 0, 'bottom'], /^solid 0.5pt red@header/],
				[[2, 0, 'bottom'], /^none/],
				[[5, 0, 'bottom'], /^solid 1.25pt red/],
				[[5, 0, 'start'], /^none/]
			],
			'Ledger lines': [
				[[2, 0, 'bottom'], /^solid 0.25pt red/],
				[[4, 0, 'bottom'], /^double 2.25pt red@total/],
				[[2, 0, 'end'], /^none/]
			],
			'Full lattice': [
				[[2, 0, 'end'], /^solid 0.5pt red/],
				[[0, 0, 'start'], /^solid 1pt red/]
			],
			Framed: [
				[[0, 0, 'start'], /^solid 1pt red/],
				[[2, 0, 'bottom'], /^none/]
			],
			'Columns apart': [
				[[2, 0, 'end'], /^solid 0.5pt red/],
				[[2, 0, 'bottom'], /^none/]
			],
			Floating: [[[2, 0, 'bottom'], /^solid 2pt paper/]],
			Bare: [
				[[0, 0, 'top'], /^none/],
				[[1, 0, 'bottom'], /^none/],
				[[2, 0, 'end'], /^none/]
			]
		};
		assert.deepEqual(
			Object.keys(expected),
			RECIPES.map(({ name }) => name)
		);
		for (const recipe of RECIPES)
			for (const demo of DEMO_STYLES) {
				const base = demo.basedOn ? byName(demo.basedOn) : undefined;
				const made = checkStyle(withRecipe(demo, base && flatten(base, byName), recipe, 'red'));
				const shown = new Shown(ledger, { ...made, ...(base && { bases: [base] }) });
				for (const [[r, c, side], pattern] of expected[recipe.name]!)
					assert.match(String(shown.edge(r, c, side)), pattern!, `${recipe.name} on ${demo.name}, ${r} ${c} ${side}`);
			}
	});
	it('silence what a base would still draw', () => {
		const base = style({ total: { lines: { top: { pattern: 'double', weight: '3pt' } } } }, { name: 'Base' });
		const own = style({}, { basedOn: 'Base' });
		const made = withRecipe(
			own,
			flatten(base),
			RECIPES.find(({ name }) => name === 'Bare')!,
			'red'
		);
		const shown = new Shown(ledger, { ...made, bases: [base] });
		assert.match(String(shown.edge(4, 0, 'bottom')), /^none/);
	});
	it('leave everything but lines as it was', () => {
		const strip = (flat: FlatStyle) =>
			[...flat.parts].flatMap(([part, leaves]) =>
				[...leaves].filter(([path]) => !path.startsWith('lines.')).map(([path, { value }]) => [part, path, value])
			);
		for (const demo of DEMO_STYLES) {
			const made = withRecipe(demo, undefined, RECIPES[0]!, 'fern');
			assert.deepEqual(strip(flatten(made, byName)), strip(flatten(demo, byName)));
		}
	});
});

describe('conditions', () => {
	it('read as sentences', () => {
		assert.equal(conditionWords({ column: 'Variance', is: '<', value: 0 }), 'in column “Variance” a cell is below 0');
		assert.equal(
			conditionWords({
				all: [
					{ kind: 'money', is: 'between', value: [1, 5] },
					{
						not: {
							any: [
								{ any: true, is: 'empty' },
								{ any: true, is: 'oneOf', value: ['a', 'b'] }
							] as Condition[]
						} as Condition
					}
				]
			}),
			'in money columns a cell lies between 1 and 5 and not: (a cell is empty or a cell is one of “a”, “b”)'
		);
		assert.equal(
			conditionWords({ any: true, is: 'greatest', value: 3, rows: ['body', 'total'] }),
			'a cell is among the 3 greatest (body, total rows)'
		);
	});
	it('say what is missing in them', () => {
		assert.equal(conditionFault({ any: true, is: '<', value: 0 }), undefined);
		assert.match(conditionFault({ any: true, is: '<', value: '' })!, /needs a value/);
		assert.match(conditionFault({ column: ' ', is: 'empty' })!, /which column/);
		assert.match(conditionFault({ any: true, is: 'between', value: [1] })!, /two values/);
		assert.match(conditionFault({ any: true, is: 'least', value: 0 })!, /whole number/);
		assert.match(conditionFault({ not: { any: true, is: 'matches', value: '(' } })!, /cannot be read/);
	});
	it('a rule that is off is kept and says nothing', () => {
		const off = style(
			{ ground: { text: { ink: 'black' } } },
			{
				rules: [
					{ name: 'all', where: { any: true, is: 'contains', value: 'r' }, off: true, set: { text: { ink: 'red' } } }
				]
			}
		);
		const where = table(['body'], 1);
		assert.equal(new Shown(where, off).leaf(0, 0, 'text.ink'), 'black@ground');
		const on = { ...off, rules: off.rules!.map(({ off: _, ...rule }) => rule) };
		assert.equal(new Shown(where, on).leaf(0, 0, 'text.ink'), 'red@rule:all');
	});
});

describe('comparing two styles', () => {
	it('names each setting that differs, and nothing else', () => {
		const before = style({ header: { fill: { ink: 'fern' }, text: { weight: 700 } } });
		const after = style(
			{ header: { fill: { ink: 'dusk' }, text: { weight: 700 } }, total: { text: { italic: true } } },
			{ bands: { rows: { sizes: [2, 1] } }, rules: [{ name: 'r', where: { any: true, is: 'empty' }, set: {} }] }
		);
		assert.deepEqual(compareStyles(flatten(before), flatten(after)).map(differenceWords), [
			'total: slant not set → italic',
			'header: fill fern → dusk',
			'bands: row stripes 1 + 1 → 2 + 1',
			'rule “r”: rule not set → there'
		]);
	});
	it('finds nothing between a style and itself, and something wherever a table looks different', () => {
		const where = table(['header:1', 'body', 'body', 'total'], 3, { firstColumns: 1 });
		fc.assert(
			fc.property(anyStyle, anyStyle, (a, b) => {
				assert.deepEqual(compareStyles(flatten(a), flatten(a)), []);
				const look = (one: Style) =>
					JSON.stringify(listResolved(resolve(where, flatten({ ...one, name: 'x' }), FIRST_HOUSE)));
				if (look(a) !== look(b)) assert.ok(compareStyles(flatten(a), flatten(b)).length > 0);
			})
		);
	});
});
