import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { contrast, mix, toHex } from '../../../src/lib/core/colour.ts';
import { InputError } from '../../../src/lib/core/errors.ts';
import { standIn } from '../../../src/lib/core/layout/fonts.ts';
import { emu, formatLength, fromTwips, parseLength, toTwips, type LengthUnit } from '../../../src/lib/core/units.ts';
import { parseDate } from '../../../src/lib/core/values/dates.ts';
import { amountOf, decimalMarkOf, parseNumber, parseValue } from '../../../src/lib/core/values/parse.ts';

describe('lengths', () => {
	it('are exact in millimetres, points and inches', () => {
		assert.equal(parseLength('1.5pt'), 19_050);
		assert.equal(parseLength('2 mm'), 72_000);
		assert.equal(parseLength('0.1in'), 91_440);
		assert.equal(parseLength('1cm'), 360_000);
	});
	it('refuse what is no length, saying so', () => {
		for (const text of ['', 'mm', '2', '2px', '1,5pt', 'NaNpt', '1e3pt'])
			assert.throws(
				() => parseLength(text),
				(error) => error instanceof InputError && error.message.includes('not a length')
			);
	});
	it('read back what they write', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: -1_000_000, max: 100_000_000 }),
				fc.constantFrom<LengthUnit>('mm', 'pt', 'in', 'cm'),
				(value, unit) => {
					assert.equal(parseLength(formatLength(emu(value), unit, 9)), value);
				}
			)
		);
	});
	it('keep twips', () => {
		fc.assert(
			fc.property(fc.integer({ min: -31_680, max: 31_680 }), (twips) => assert.equal(toTwips(fromTwips(twips)), twips))
		);
	});
});

describe('colours', () => {
	it('mix as a tint on paper', () => {
		assert.equal(mix('#000000', '#FFFFFF', 0.5), '#808080');
		assert.equal(mix('#2F5D50', '#FFFFFF', 1), '#2F5D50');
		assert.equal(mix('#2F5D50', '#FFFFFF', 0), '#FFFFFF');
	});
	it('know WCAG contrast and are written one way', () => {
		assert.equal(contrast('#000000', '#FFFFFF'), 21);
		assert.equal(toHex('#abc'), '#AABBCC');
		assert.equal(toHex('no colour'), undefined);
	});
});

describe('values', () => {
	const cases: [text: string, type: string, amount?: string][] = [
		['1,234.50', 'number', '1234.5'],
		['1 234,50', 'number', '1234.5'],
		['(12.00)', 'number', '-12'],
		['−12', 'number', '-12'],
		['-12', 'number', '-12'],
		['€ 3.10', 'money', '3.1'],
		['3.10 €', 'money', '3.1'],
		['(€ 1,200.00)', 'money', '-1200'],
		['CHF 12', 'money', '12'],
		['12 %', 'percent', '12'],
		['+4.1 %', 'percent', '4.1'],
		['0.52 m', 'number', '0.52'],
		["1'234.5", 'number', '1234.5'],
		['1 234 567', 'number', '1234567'],
		['12,34,567', 'number', '1234567'],
		['₹1,00,000.50', 'money', '100000.5'],
		['1,000,00', 'text'],
		['١٬٢٣٤٫٥', 'number', '1234.5'],
		['۴۲٪', 'percent', '42'],
		['१२', 'number', '12'],
		['１，２３４', 'number', '1234'],
		['２０３１年４月１２日', 'date'],
		['12 34', 'text'],
		['020 7946 0018', 'text'],
		['+44 20 7946 0018', 'text'],
		['₺24,118.50', 'money', '24118.5'],
		['932,000円', 'money', '932000'],
		['2 411 850 Ft', 'money', '2411850'],
		['1st', 'text'],
		['22nd', 'text'],
		['3 e', 'number', '3'],
		['2031-04-05', 'date'],
		['5 Apr 2031', 'date'],
		['5. April 2031', 'date'],
		['', 'empty'],
		['–', 'empty'],
		['Lily court', 'text'],
		['T-014', 'text'],
		['1.2.3', 'text'],
		['2031-13-05', 'text']
	];
	for (const [text, type, amount] of cases)
		it(`“${text}” is ${type}`, () => {
			const value = parseValue(text);
			assert.equal(value.type, type);
			assert.equal(amountOf(value)?.toString(), amount);
		});
	it('tell grouping from decimals by the mark in use', () => {
		assert.equal(parseNumber('1.234')?.toString(), '1.234');
		assert.equal(parseNumber('1.234', ',')?.toString(), '1234');
		assert.equal(decimalMarkOf(['1.234,50', '12,5']), ',');
		assert.equal(decimalMarkOf(['1,234.50', '12']), '.');
	});
	it('add up exactly', () => {
		const sum = ['0.1', '0.2'].map((text) => parseNumber(text)!).reduce((a, b) => a.plus(b));
		assert.equal(sum.toString(), '0.3');
	});
	it('never throw on any text, and read plain numbers back', () => {
		fc.assert(fc.property(fc.string(), (text) => void parseValue(text)));
		fc.assert(
			fc.property(fc.integer(), (number) => assert.equal(parseNumber(String(number))?.toString(), String(number)))
		);
	});
	it('know dates of several languages', () => {
		assert.equal(parseDate('5 avril 2031'), '2031-04-05');
		assert.equal(parseDate('12. Mai 2031'), '2031-05-12');
		assert.equal(parseDate('April 2031'), '2031-04');
		assert.equal(parseDate('marzo de 2031'), '2031-03');
		assert.equal(parseDate('5 марта 2031'), '2031-03-05');
		assert.equal(parseDate('2031年4月12日'), '2031-04-12');
		assert.equal(parseDate('2031年4月'), '2031-04');
		assert.equal(parseDate('2031年14月1日'), undefined);
		assert.equal(parseDate('31 Feb 2031'), undefined);
	});
});

describe('stand-in families', () => {
	it('ship, and are like what they stand for', () => {
		assert.equal(standIn('source sans 3'), 'Source Sans 3');
		assert.equal(standIn('Some Courier'), 'IBM Plex Mono');
		assert.equal(standIn('Old Roman'), 'Source Serif 4');
		assert.equal(standIn('Whatever'), 'Source Sans 3');
	});
});
