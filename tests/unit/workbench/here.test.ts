import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { resolve } from '../../../src/lib/core/cascade/resolve.ts';
import { contrast } from '../../../src/lib/core/colour.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { flatten } from '../../../src/lib/core/style/inherit.ts';
import { withLeavesAt } from '../../../src/lib/core/style/edit.ts';
import type { Style } from '../../../src/lib/core/style/types.ts';
import { fillPairs, hereAt, leavesOfPair } from '../../../src/lib/workbench/here.ts';
import { builtInSpecimen } from '../../../src/lib/workbench/specimen.ts';

const BLANK: Style = { format: 'heptarch-style', version: 1, name: 'Blank', parts: {} };
const house = { ...FIRST_HOUSE, locale: 'en-GB' };
const { table } = builtInSpecimen();
const flat = flatten(BLANK);
const at = (text: string, style = flat) => {
	const { r, c } = table.cells.find((cell) => cell.text === text)!;
	return hereAt(resolve(table, style, house), style, r, c);
};
const first = (voices: readonly { parts: readonly string[] }[]) => voices[0]!.parts;

describe('what can be set at a cell', () => {
	it('is said by the role of its row, then by its band', () => {
		assert.deepEqual(first(at('Place').fill), ['header']);
		assert.deepEqual(first(at('Total').fill), ['total']);
		assert.deepEqual(first(at('Fern grotto').fill), ['rowBand:2']);
		assert.ok(at('Fern grotto').fill.some(({ parts: [name] }) => name === 'firstColumn'));
	});
	it('alignment of figures is that of all columns of figures', () => {
		assert.deepEqual(first(at('8 872').alignment), [
			'columns:count',
			'columns:quantity',
			'columns:money',
			'columns:percent'
		]);
		assert.deepEqual(first(at('Place').alignment), ['header']);
	});
	it('a line is the row’s where it has a role, else every cell’s', () => {
		const { parts, place } = at('Total').lines.top[0]!;
		assert.deepEqual([parts, place], [['total'], 'top']);
		assert.deepEqual(first(at('Fern grotto').lines.top), ['ground']);
	});
	it('tiers are offered where the style speaks of them', () => {
		const tiered = flatten({ ...BLANK, parts: { 'header:2': { fill: { ink: 'fern' } } } });
		const names = (style = flat) => at('Place', style).fill.flatMap(({ parts }) => parts);
		assert.ok(!names().includes('header:2'));
		assert.ok(names(tiered).includes('header:2'));
	});
	it('whoever speaks is heard: what the first voice sets is what the cell has, in a style that says nothing else', () => {
		const cells = table.cells.filter(({ text }) => text);
		fc.assert(
			fc.property(fc.constantFrom(...cells), fc.constantFrom(...fillPairs(house.inks, undefined)), (cell, pair) => {
				const { r, c } = cell;
				const [part] = first(hereAt(resolve(table, flat, house), flat, r, c).fill);
				const styled = flatten(withLeavesAt(BLANK, part!, leavesOfPair(pair)));
				const { structure, leaves } = resolve(table, styled, house);
				const own = leaves[structure.cellSignature[r * table.columns + c]!]!;
				assert.equal(own.get('fill.ink')?.value, pair.ink);
			})
		);
	});
});

describe('fills with an ink that reads on them', () => {
	it('reach 4.5 : 1 wherever black or white does, whatever the inks', () => {
		const hex = fc
			.tuple(fc.nat(255), fc.nat(255), fc.nat(255))
			.map((all) => `#${all.map((one) => one.toString(16).padStart(2, '0')).join('')}`);
		fc.assert(
			fc.property(fc.dictionary(fc.stringMatching(/^[a-z]{1,6}$/), hex, { minKeys: 1, maxKeys: 8 }), (inks) => {
				for (const { fill, textColour } of fillPairs(inks, undefined)) assert.ok(contrast(fill, textColour) >= 4.5);
			})
		);
	});
	it('leave the ground’s ink where that reads', () => {
		for (const { tint, text } of fillPairs(house.inks, 'loam')) if (tint < 1) assert.equal(text, undefined);
	});
});
