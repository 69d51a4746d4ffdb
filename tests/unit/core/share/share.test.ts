import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { colourAt, mainColours } from '../../../../src/lib/core/picture.ts';
import { cssName, styleCss } from '../../../../src/lib/core/share/css.ts';
import { readTokens, tokensOf } from '../../../../src/lib/core/share/tokens.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { style } from '../../support.ts';

describe('Design Tokens', () => {
	it('of a house come back as they went out', () => {
		const { inks, typeRoles, left } = readTokens(JSON.parse(JSON.stringify(tokensOf(FIRST_HOUSE))));
		assert.deepEqual([inks, typeRoles, left], [FIRST_HOUSE.inks, FIRST_HOUSE.typeRoles, 0]);
	});
	it('are taken from groups, aliases, older and newer spellings', () => {
		const file = {
			brand: {
				$type: 'color',
				leaf: { $value: '#2f5d50' },
				sky: { $value: { colorSpace: 'srgb', components: [0, 0.5, 1] } },
				deep: { earth: { $value: { colorSpace: 'oklch', components: [0.5, 0.1, 50] } } },
				accent: { $value: '{brand.leaf}' }
			},
			other: { leaf: { $type: 'color', $value: '#000000' } },
			text: {
				$type: 'typography',
				body: {
					$value: { fontFamily: ['Garden Sans', 'serif'], fontSize: { value: 16, unit: 'px' }, fontWeight: 'bold' }
				},
				small: { $value: { fontFamily: 'Garden Sans', fontSize: '0.75rem', fontWeight: 400, letterSpacing: '0px' } }
			},
			space: { $type: 'dimension', gap: { $value: { value: 4, unit: 'px' } } }
		};
		const { inks, typeRoles, left } = readTokens(file);
		assert.equal(inks.leaf, '#2F5D50');
		assert.equal(inks.sky, '#0080FF');
		assert.equal(inks.accent, '#2F5D50');
		assert.match(inks.earth!, /^#[0-9A-F]{6}$/);
		assert.equal(inks['other leaf'], '#000000');
		assert.deepEqual(typeRoles, {
			body: { family: 'Garden Sans', size: '12pt', weight: 700 },
			small: { family: 'Garden Sans', size: '9pt', weight: 400 }
		});
		assert.equal(left, 1);
	});
	it('that cannot be read say where', () => {
		assert.throws(() => readTokens([]), /no JSON object/);
		assert.throws(() => readTokens({ a: { b: 1 } }), /no design token/);
		assert.throws(() => readTokens({ a: { $type: 'color', $value: 'greenish' } }), /at a is not a colour/);
		assert.throws(
			() => readTokens({ a: { $type: 'color', $value: '{b}' } }),
			/stands for “b”, which is not in the file/
		);
		assert.throws(
			() => readTokens({ a: { $type: 'color', $value: '{b}' }, b: { $value: '{a}' } }),
			/in a circle: a → b → a/
		);
	});
});

describe('CSS of a style', () => {
	const by = (name: string) => DEMO_STYLES.find((other) => other.name === name);
	it('has every rule at the same specificity, in the order of the ranks', () => {
		for (const demo of DEMO_STYLES) {
			const css = styleCss(flatten(demo, by), FIRST_HOUSE);
			const selectors = [...css.matchAll(/^([^\s@/}][^{]*) \{/gm)].map(([, selector]) => selector!);
			for (const selector of selectors.slice(1)) assert.match(selector, /^:where\(\.[\w-]+\) :where\(.+\)$/);
			assert.equal(css.split('{').length, css.split('}').length);
			assert.ok(!css.includes('undefined'), demo.name);
		}
	});
	it('names inks as custom properties and keeps tints of their own', () => {
		const css = styleCss(flatten(by('Season Ledger')!, by), FIRST_HOUSE);
		assert.match(css, /--ink-fern: #2f5d50;/);
		assert.match(css, /:where\(\.band-2 > \*\) \{[^}]*--tint: 8%;/);
		assert.ok(css.indexOf('.band-2 >') < css.indexOf('.first)') && css.indexOf('.first)') < css.indexOf('.header > *'));
	});
	it('lets nothing out of its strings and comments', () => {
		const css = styleCss(
			flatten(style({ ground: { text: { family: 'a"}</style>' } } }, { name: 'x */ y' })),
			FIRST_HOUSE
		);
		assert.ok(!css.includes('</style>') && !css.includes('"}') && !/\*\/ y/.test(css.slice(0, css.indexOf('*/'))));
		assert.equal(cssName('Übersicht: Kosten!'), 'u-bersicht-kosten');
	});
});

describe('colours of a picture', () => {
	/** A picture of one row of blocks, each 20 pixels wide. */
	const picture = (...blocks: [number, number, number, number][]) => {
		const data = Array.from({ length: 10 }, () =>
			blocks.flatMap((rgba) => Array(20).fill(rgba).flat())
		).flat() as number[];
		return { data, width: blocks.length * 20, height: 10 };
	};
	it('at a point, the mean around it; nothing where the picture is clear', () => {
		const two = picture([255, 0, 0, 255], [0, 0, 255, 255], [0, 0, 0, 0]);
		assert.equal(colourAt(two, 5, 5), '#FF0000');
		assert.equal(colourAt(two, 25, 5), '#0000FF');
		assert.equal(colourAt(two, 50, 5), undefined);
		assert.equal(colourAt(two, 19, 5), '#AA0055');
	});
	it('the main ones, most frequent first', () => {
		const flag = picture([255, 0, 0, 255], [0, 0, 255, 255], [255, 0, 0, 255], [9, 9, 9, 0]);
		assert.deepEqual(mainColours(flag, 8), ['#FF0000', '#0000FF']);
		assert.deepEqual(mainColours(picture([0, 0, 0, 0]), 8), []);
		const many = {
			data: Array.from({ length: 400 }, (_, i) => [i % 256, (i * 7) % 256, 128, 255]).flat(),
			width: 20,
			height: 20
		};
		const found = mainColours(many, 5);
		assert.ok(found.length >= 2 && found.length <= 5);
		for (const hex of found) assert.match(hex, /^#[0-9A-F]{6}$/);
	});
});
