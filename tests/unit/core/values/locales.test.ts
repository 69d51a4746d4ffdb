import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { amountText, readFigure, type Figure } from '../../../../src/lib/core/values/figure.ts';
import { localMeasure } from '../../../../src/lib/core/values/local.ts';
import { usualMark } from '../../../../src/lib/core/values/parse.ts';
import { Rational } from '../../../../src/lib/core/values/rational.ts';
import { writtenFigure } from '../../../../src/lib/core/values/written.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import { workOf } from '../../../../src/lib/core/work/convert.ts';
import { workedOut } from '../../../../src/lib/core/work/working.ts';
import { typedSums } from '../../../../src/lib/core/work/sums.ts';
import { isCovered } from '../../../../src/lib/core/work/table.ts';
import { LOCALES } from '../../../../src/lib/workbench/house.ts';

const measured = (locale: string) => {
	const format = (options: Intl.NumberFormatOptions) => new Intl.NumberFormat(locale, options);
	return fc
		.record({
			n: fc.integer({ min: -99_999_999, max: 99_999_999 }),
			how: fc.constantFrom('plain', 'money', 'percent', 'unit'),
			grouped: fc.boolean()
		})
		.map(({ n, how, grouped }) => {
			const useGrouping = grouped;
			const decimals = { minimumFractionDigits: 2, maximumFractionDigits: 2, useGrouping };
			if (how === 'money')
				return { text: format({ ...decimals, style: 'currency', currency: 'EUR' }).format(n / 100), amount: [n, 100] };
			if (how === 'percent')
				return { text: format({ ...decimals, style: 'percent' }).format(n / 10_000), amount: [n, 10_000] };
			if (how === 'unit') return { text: `${format(decimals).format(n / 100)} m`, amount: [n, 100] };
			return { text: format(decimals).format(n / 100), amount: [n, 100] };
		});
};

for (const locale of LOCALES)
	test(`figures as ${locale} writes them are read, and written again as they were`, () => {
		const mark = usualMark(locale);
		fc.assert(
			fc.property(measured(locale), ({ text, amount: [n, d] }) => {
				const figure = readFigure(text, mark);
				assert.ok(figure, `“${text}” is a figure`);
				assert.ok(figure.amount.equals(Rational.of(n!, d!)), `“${text}” is ${amountText(figure)}`);
				const again = writtenFigure(figure, { mark, decimals: 2, samples: [text] });
				const back = readFigure(again, mark) as Figure;
				assert.deepEqual(
					[amountText(back), back.measure],
					[amountText(figure), figure.measure],
					`“${text}” → “${again}”`
				);
			}),
			{ numRuns: 120 }
		);
	});

/** One bill as it is written in six countries; what it comes to is written in the manner of each. */
const BILLS = {
	'en-GB': [
		['Item', 'Count', 'Price', 'Cost'],
		['Ferns', '1,200', '€ 0.85'],
		['Moss', '3', '€ 12.50'],
		'€ 1,020.00',
		'€ 37.50',
		'€ 1,057.50'
	],
	'de-DE': [
		['Posten', 'Anzahl', 'Preis', 'Kosten'],
		['Farne', '1.200', '0,85 €'],
		['Moos', '3', '12,50 €'],
		'1.020,00 €',
		'37,50 €',
		'1.057,50 €'
	],
	'fr-FR': [
		['Poste', 'Nombre', 'Prix', 'Coût'],
		['Fougères', '1\u202F200', '0,85 €'],
		['Mousse', '3', '12,50 €'],
		'1\u202F020,00 €',
		'37,50 €',
		'1\u202F057,50 €'
	],
	'de-CH': [
		['Posten', 'Anzahl', 'Preis', 'Kosten'],
		['Farne', '1’200', 'CHF 0.85'],
		['Moos', '3', 'CHF 12.50'],
		'CHF 1’020.00',
		'CHF 37.50',
		'CHF 1’057.50'
	],
	'en-IN': [
		['Item', 'Count', 'Price', 'Cost'],
		['Ferns', '1,20,000', '₹ 10.85'],
		['Moss', '3', '₹ 12.50'],
		'₹ 13,02,000.00',
		'₹ 37.50',
		'₹ 13,02,037.50'
	],
	'sv-SE': [
		['Post', 'Antal', 'Pris', 'Kostnad'],
		['Ormbunkar', '1\u00A0200', '0,85 EUR'],
		['Mossa', '3', '12,50 EUR'],
		'1\u00A0020,00 EUR',
		'37,50 EUR',
		'1\u00A0057,50 EUR'
	]
} as const;

for (const [locale, [head, first, second, one, two, sum]] of Object.entries(BILLS))
	test(`a bill as ${locale} writes it is worked out in its manner, and its typed total is right`, () => {
		const texts = [[...head], [...first, ''], [...second, ''], ['Total', '', '', '']];
		const { table } = recognisedTable(createGrid(texts));
		const work = workOf({ ...table, roles: ['header:1', 'body', 'body', 'total'] });
		const computed = {
			...work,
			columns: work.columns.map((column, c) =>
				c === 3 ? { ...column, kind: 'money' as const, formula: parseFormula(`${head[2]} × ${head[1]}`) } : column
			),
			rows: work.rows.map((row, r) =>
				r < 3
					? row
					: { ...row, cells: row.cells.map((slot, c) => (c === 3 ? { ...slot, total: 'sum' as const } : slot)) }
			)
		};
		const { work: done } = workedOut(computed);
		assert.deepEqual(
			done.rows.slice(1).map(({ cells }) => (isCovered(cells[3]!) ? '' : cells[3]!.text)),
			[one, two, sum]
		);
		const typed = recognisedTable(
			createGrid([[...head], [...first, one], [...second, two], ['Total', '', '', sum]])
		).table;
		const sums = typedSums(workOf({ ...typed, roles: ['header:1', 'body', 'body', 'total'] }));
		assert.deepEqual(
			sums.map(({ c, isRight }) => [c, isRight]),
			[[3, true]]
		);
	});

test('a sign of several currencies is that of the locale, or of none where nothing tells', () => {
	const of = (currency: string, locale: string | undefined, ...texts: string[]) => {
		const measure = localMeasure({ kind: 'money', currency }, locale, texts);
		return measure && 'currency' in measure ? measure.currency : undefined;
	};
	assert.equal(of('USD', undefined, '$5'), 'USD');
	assert.equal(of('USD', 'en-CA', '$5'), 'CAD');
	assert.equal(of('USD', 'en-CA', '$5', '5 USD'), 'USD');
	assert.equal(of('JPY', 'zh-CN', '¥5'), 'CNY');
	assert.equal(of('¤', 'sv-SE', '5 kr'), 'SEK');
	assert.equal(of('¤', undefined, '5 kr'), undefined);
	assert.equal(of('EUR', 'sv-SE', '€ 5'), 'EUR');
});
