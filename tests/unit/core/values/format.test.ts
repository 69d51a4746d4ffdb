import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { formatOf, formatValue, type Format } from '../../../../src/lib/core/values/format.ts';
import { parseValue } from '../../../../src/lib/core/values/parse.ts';

/** Spaces of every width as one, so that the cases can be read. */
const plain = (text: string | undefined) => text?.replace(/[\u00A0\u202F]/g, ' ');
const shown = (text: string, format: Format, locale = 'en-GB') => plain(formatValue(parseValue(text), format, locale));

describe('figures and dates by format', () => {
	const cases: [text: string, format: Format, locale: string, expected: string | undefined][] = [
		['1234.5', { kind: 'money', currency: 'EUR', decimals: 2 }, 'en-GB', '€1,234.50'],
		['1234.5', { kind: 'money', currency: 'EUR', decimals: 2 }, 'de-DE', '1.234,50 €'],
		['€ 1,234.50', { kind: 'money' }, 'fr-FR', '1 234,50 €'],
		['-86', { kind: 'money', currency: 'GBP', decimals: 2, negative: 'parentheses' }, 'en-GB', '(£86.00)'],
		['-86', { kind: 'count' }, 'en-GB', '−86'],
		['0', { kind: 'count', zero: '–' }, 'en-GB', '–'],
		['12345', { kind: 'count', grouping: false }, 'en-GB', '12345'],
		['12345', { kind: 'quantity', unit: 'kg', decimals: 1 }, 'de-DE', '12.345,0 kg'],
		['4.1%', { kind: 'percent' }, 'en-GB', '4.1%'],
		['-2.95%', { kind: 'percent', decimals: 1 }, 'de-DE', '−3,0 %'],
		['2031-04-05', { kind: 'date' }, 'en-GB', '2031-04-05'],
		['2031-04-05', { kind: 'date', date: 'long' }, 'en-GB', '5 April 2031'],
		['5 Apr 2031', { kind: 'date', date: 'long' }, 'de-DE', '5. April 2031'],
		['April 2031', { kind: 'date', date: 'medium' }, 'en-GB', 'April 2031'],
		['2031-04-05', { kind: 'date', date: 'year' }, 'en-GB', '2031'],
		// What does not fit stays as it was typed.
		['Lily court', { kind: 'money', currency: 'EUR' }, 'en-GB', undefined],
		['', { kind: 'count' }, 'en-GB', undefined],
		['007', { kind: 'code' }, 'en-GB', undefined],
		['12', { kind: 'none' }, 'en-GB', undefined],
		['£ 12', { kind: 'money', currency: 'EUR' }, 'en-GB', undefined],
		['12', { kind: 'date' }, 'en-GB', undefined],
		['2031-04-05', { kind: 'date', date: 'some day' as 'iso' }, 'en-GB', undefined],
		['12 %', { kind: 'count' }, 'en-GB', undefined],
		['€ 3', { kind: 'count' }, 'en-GB', undefined]
	];
	for (const [text, format, locale, expected] of cases)
		it(`“${text}” as ${JSON.stringify(format)} in ${locale}`, () =>
			assert.equal(shown(text, format, locale), expected));

	it('no digit is lost or made up, however many there are', () => {
		fc.assert(
			fc.property(fc.bigInt({ min: 0n, max: 10n ** 30n }), fc.integer({ min: 0, max: 9 }), (whole, last) => {
				const text = `${whole}.${last}7`;
				assert.equal(shown(text, { kind: 'count', grouping: false }), text);
			})
		);
	});
	it('are the leaves that won for a cell', () => {
		const leaves = new Map([
			['format.kind', { value: 'money' }],
			['text.ink', { value: 'fern' }],
			['format.decimals', { value: 2 }]
		]);
		assert.deepEqual(formatOf(leaves), { kind: 'money', decimals: 2 });
	});
});
