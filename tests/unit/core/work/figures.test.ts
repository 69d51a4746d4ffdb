import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { converted, readFigure } from '../../../../src/lib/core/values/figure.ts';
import { Rational } from '../../../../src/lib/core/values/rational.ts';
import { decimalsIn, writtenFigure } from '../../../../src/lib/core/values/written.ts';
import { formulaText, parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import type { Summary } from '../../../../src/lib/core/values/summary.ts';
import { filled, pasted, replaced, seriesOf, typed } from '../../../../src/lib/core/work/cells.ts';
import { withLock } from '../../../../src/lib/core/work/locks.ts';
import { dependents, workedOut } from '../../../../src/lib/core/work/working.ts';
import { wrongSums } from '../../../../src/lib/core/work/sums.ts';
import { sortRows } from '../../../../src/lib/core/work/sort.ts';
import { isCovered, type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { workOf } from '../../../../src/lib/core/work/convert.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';

function workWith(texts: string[][], roles?: RowRole[]): WorkTable {
	const { table } = recognisedTable(createGrid(texts));
	const work = workOf(roles ? { ...table, roles } : table);
	return work;
}
const textAt = (work: WorkTable, r: number, c: number) => {
	const slot = work.rows[r]!.cells[c]!;
	return isCovered(slot) ? null : slot.text;
};
const column = (work: WorkTable, c: number) => work.rows.map((_, r) => textAt(work, r, c));
const withFormula = (work: WorkTable, c: number, formula: string): WorkTable => ({
	...work,
	columns: work.columns.map((one, i) => (i === c ? { ...one, formula: parseFormula(formula) } : one))
});
const withTotal = (work: WorkTable, r: number, c: number, total: Summary): WorkTable => ({
	...work,
	rows: work.rows.map((row, y) =>
		y === r ? { ...row, cells: row.cells.map((slot, x) => (x === c ? { ...slot, total } : slot)) } : row
	)
});

const PLANTS = [
	['Plant', 'Count', 'Price', 'Cost', 'Share'],
	['Osmunda regalis', '12', '€ 3.10', '', ''],
	['Dryopteris', '1,200', '€ 0.85', '', ''],
	['Asplenium', '', '€ 2.00', '', ''],
	['Total', '', '', '', '']
];
const ROLES: RowRole[] = ['header:1', 'body', 'body', 'body', 'total'];

test('row formulas name columns, come in the order of what they need, and are written as their figures are', () => {
	let work = workWith(PLANTS, ROLES);
	work = withFormula(withFormula(work, 4, 'Cost ÷ 10'), 3, 'Price × Count');
	work = withTotal(work, 4, 3, 'sum');
	const { work: done, problems } = workedOut(work);
	assert.deepEqual(column(done, 3), ['Cost', '€ 37.20', '€ 1,020.00', '', '€ 1,057.20']);
	assert.deepEqual(column(done, 4), ['Share', '€ 3.72', '€ 102.00', '', '']);
	assert.deepEqual(problems, [], 'an empty operand makes an empty answer, which is no problem');
	assert.deepEqual([...dependents(work, 1)].sort(), [3, 4]);
	assert.equal(workedOut(done).work, done, 'worked out again, nothing changes');
});

test('circles, columns that are not there, words and division by nothing are said on the cell, and the others go on', () => {
	const work = workWith(PLANTS, ROLES);
	const why = (formula: string, other = 'Price × Count') => {
		const { work: done, problems } = workedOut(withFormula(withFormula(work, 3, formula), 4, other));
		return [problems.find(({ r, c }) => r === 1 && c === 3)?.why, textAt(done, 1, 4)];
	};
	assert.deepEqual(why('Share + 1', 'Cost + 1'), ['it goes round in a circle: “Cost” → “Share” → “Cost”', '']);
	assert.deepEqual(why('Cost × 2'), ['it goes round in a circle: “Cost” → “Cost”', '€ 37.20']);
	assert.deepEqual(why('Weight × 2'), ['There is no column “Weight”', '€ 37.20']);
	assert.deepEqual(why('Plant × 2'), ['“Plant” has no number', '€ 37.20']);
	assert.deepEqual(why('Price ÷ 0'), ['it divides by nothing', '€ 37.20']);
	assert.deepEqual(why('Price × 1234567890123456789012345678901234567890')[0], undefined);
});

test('typed formulas are read and written alike', () => {
	const again = (text: string) => formulaText(parseFormula(text));
	assert.equal(again('Price * Count'), 'Price × Count');
	assert.equal(again('(Price - 2)/Count + 1.5'), '(Price − 2) ÷ Count + 1.5');
	assert.equal(again('“Cost + freight” − Pre-paid'), '“Cost + freight” − Pre-paid');
	assert.equal(again('2031 × Count'), '2031 × Count');
	assert.equal(again('“2031” × Count'), '“2031” × Count');
	assert.equal(again('Price (net) × 2'), '“Price (net)” × 2');
	for (const [text, said] of [
		['', /names columns/],
		['(Price', /not closed/],
		['“Price', /quotation mark/],
		['(((((((((1)))))))))', /8 deep/]
	] as const)
		assert.throws(() => parseFormula(text), said);
});

test('sums, means, counts, least and greatest; currencies that do not go together are said', () => {
	const work = workWith(PLANTS, ROLES);
	const total = (c: number, how: Summary) => textAt(workedOut(withTotal(work, 4, c, how)).work, 4, c);
	assert.deepEqual(
		(['sum', 'mean', 'count', 'least', 'greatest'] as const).map((how) => total(2, how)),
		['€ 5.95', '€ 1.98', '3', '€ 0.85', '€ 3.10']
	);
	assert.equal(total(1, 'sum'), '1,212');
	const mixed = workWith(
		[
			['What', 'Cost'],
			['a', '€ 1.00'],
			['b', '$ 2.00'],
			['Total', '']
		],
		['header:1', 'body', 'body', 'total']
	);
	assert.equal(workedOut(withTotal(mixed, 3, 1, 'sum')).problems[0]!.why, 'EUR and USD cannot be added');
	const dates = workWith(
		[
			['What', 'When'],
			['a', '5 Apr 2031'],
			['b', '2 Mar 2031'],
			['Total', '']
		],
		['header:1', 'body', 'body', 'total']
	);
	assert.equal(textAt(workedOut(withTotal(dates, 3, 1, 'least')).work, 3, 1), '2 Mar 2031');
});

test('subtotals are about their block, totals about all body rows', () => {
	const work = workWith(
		[
			['Bed', 'Plants'],
			['North', ''],
			['a', '1'],
			['b', '2'],
			['Subtotal', ''],
			['South', ''],
			['c', '4'],
			['Subtotal', ''],
			['Total', '']
		],
		['header:1', 'group:1', 'body', 'body', 'subtotal:1', 'group:1', 'body', 'subtotal:1', 'total']
	);
	const done = workedOut(withTotal(withTotal(withTotal(work, 4, 1, 'sum'), 7, 1, 'sum'), 8, 1, 'sum')).work;
	assert.deepEqual(column(done, 1), ['Plants', '', '1', '2', '3', '', '4', '4', '7']);
});

test('a typed total that does not add up is told with the difference and the right figure', () => {
	const work = workWith(
		[
			['Item', 'Cost'],
			['a', '1,200.50'],
			['b', '34.25'],
			['Total', '1,234.45']
		],
		['header:1', 'body', 'body', 'total']
	);
	assert.deepEqual(wrongSums(work), [{ r: 3, c: 1, should: '1,234.75', off: '−0.30' }]);
	assert.deepEqual(
		wrongSums(
			workWith(
				[
					['Item', 'Cost'],
					['a', '1.00'],
					['Total', '1.00']
				],
				['header:1', 'body', 'total']
			)
		),
		[]
	);
});

test('figures are written with the decimal mark and the thousands of four locales', () => {
	const cases: [string[], string, '.' | ',', string][] = [
		[['1,234.50', '2.00'], '9876543.21', '.', '9,876,543.21'],
		[['1.234,50', '2,00'], '9876543.21', ',', '9.876.543,21'],
		[['1 234,50 €'], '9876.5', ',', '9 876,50 €'],
		[["CHF 1'234.50"], '-1234567', '.', "−CHF 1'234'567.00"],
		[['12.0 kg'], '3.5', '.', '3.5 kg'],
		[['12,34,567'], '1434567', '.', '14,34,567'],
		[['(12.00)'], '-3', '.', '(3.00)'],
		[['-8'], '-9', '.', '-9'],
		[['(12.00)'], '3', '.', '3.00']
	];
	for (const [samples, amount, mark, expected] of cases) {
		const { measure } = readFigure(samples[0]!, mark)!;
		const decimals = Math.max(...samples.map((text) => decimalsIn(text, mark)));
		assert.equal(writtenFigure({ amount: Rational.parse(amount), measure }, { mark, decimals, samples }), expected);
	}
});

test('series of numbers, dates and labels go on as they began', () => {
	const next = (texts: string[], mark: '.' | ',' = '.') => {
		const series = seriesOf(texts, mark);
		return series && [series(0), series(1)];
	};
	assert.deepEqual(next(['1']), ['2', '3']);
	assert.deepEqual(next(['10', '8']), ['6', '4']);
	assert.deepEqual(next(['1,5', '2,0'], ','), ['2,5', '3,0']);
	assert.deepEqual(next(['2', '0', '−2']), ['−4', '−6']);
	assert.deepEqual(next(['Bed 7']), ['Bed 8', 'Bed 9']);
	assert.deepEqual(next(['007', '009']), ['011', '013']);
	assert.deepEqual(next(['T-098a', 'T-099a']), ['T-100a', 'T-101a']);
	assert.deepEqual(next(['2031-02-27', '2031-02-28']), ['2031-03-01', '2031-03-02']);
	assert.deepEqual(next(['31 Jan 2031', '31 Mar 2031']), ['31 May 2031', '31 Jul 2031']);
	assert.deepEqual(next(['5. April 2031', '12. April 2031']), ['19. April 2031', '26. April 2031']);
	assert.deepEqual(next(['March 2031']), ['April 2031', 'May 2031']);
	assert.deepEqual(next(['01/01/2031', '01/02/2031']), ['01/03/2031', '01/04/2031']);
	assert.equal(next(['fern', 'moss']), undefined);
	assert.equal(next(['1', '2', '4']), undefined);
});

test('sorting is typed, stable and by the collation of the locale; headers, groups and totals stay; the empty come last', () => {
	const sorted = (texts: string[], locale: string, order: 'rising' | 'falling' = 'rising') => {
		const work = workWith(
			[['Name', 'n'], ...texts.map((text, i) => [text, String(i)]), ['Total', '']],
			['header:1', ...texts.map((): RowRole => 'body'), 'total']
		);
		return column(sortRows(work, [{ column: 0, order }], locale), 0).slice(1);
	};
	assert.deepEqual(sorted(['Öl', 'Zinn', 'Ofen', 'apfel', ''], 'de-DE'), ['apfel', 'Ofen', 'Öl', 'Zinn', '', 'Total']);
	assert.deepEqual(sorted(['Öl', 'Zinn', 'Ofen', 'apfel'], 'sv-SE'), ['apfel', 'Ofen', 'Zinn', 'Öl', 'Total']);
	assert.deepEqual(sorted(['côte', 'cote', 'coté', 'Côté'], 'fr-FR'), ['cote', 'coté', 'côte', 'Côté', 'Total']);
	assert.deepEqual(sorted(['llama', 'luz', 'ñu', 'nube'], 'es-ES'), ['llama', 'luz', 'nube', 'ñu', 'Total']);
	const numbers = workWith(
		[
			['What', 'Cost'],
			['a', '10.00'],
			['b', '9.00'],
			['c', '(1.00)'],
			['d', ''],
			['e', '9.00']
		],
		['header:1', 'body', 'body', 'body', 'body', 'body']
	);
	assert.deepEqual(column(sortRows(numbers, [{ column: 1, order: 'rising' }], 'en-GB'), 0), [
		'What',
		'c',
		'b',
		'e',
		'a',
		'd'
	]);
	assert.deepEqual(
		column(
			sortRows(
				numbers,
				[
					{ column: 1, order: 'falling' },
					{ column: 0, order: 'falling' }
				],
				'en-GB'
			),
			0
		),
		['What', 'a', 'e', 'b', 'c', 'd']
	);
	const dates = workWith(
		[['When'], ['5 Apr 2031'], ['2 Mar 2031'], ['2030-12-31']],
		['header:1', 'body', 'body', 'body']
	);
	assert.deepEqual(column(sortRows(dates, [{ column: 0, order: 'rising' }], 'en-GB'), 0), [
		'When',
		'2030-12-31',
		'2 Mar 2031',
		'5 Apr 2031'
	]);
	const groups = workWith(
		[['h'], ['g'], ['2'], ['1'], ['s'], ['4'], ['3']],
		['header:1', 'group:1', 'body', 'body', 'subtotal:1', 'body', 'body']
	);
	assert.deepEqual(column(sortRows(groups, [{ column: 0, order: 'rising' }], 'en-GB'), 0), [
		'h',
		'g',
		'1',
		'2',
		's',
		'3',
		'4'
	]);
});

/** A table of body rows under a header, with a total row of sums. */
const listed = (header: string[], rows: string[][], formulas: Record<number, string> = {}, sums: number[] = []) => {
	let work = workWith(
		[header, ...rows, header.map(() => '')],
		['header:1', ...rows.map((): RowRole => 'body'), 'total']
	);
	for (const [c, formula] of Object.entries(formulas)) work = withFormula(work, Number(c), formula);
	for (const c of sums) work = withTotal(work, rows.length + 1, c, 'sum');
	return workedOut(work);
};

test('measures are carried through: shares of money, areas, prices by weight, days between dates', () => {
	const { work } = listed(
		['Price', 'VAT', 'Tax', 'Gross', 'Share of a share'],
		[
			['€ 100.00', '19 %', '', '', ''],
			['€ 10.10', '10 %', '', '', '']
		],
		{ 2: 'Price × VAT', 3: 'Price + Tax', 4: 'VAT × VAT' },
		[2, 3]
	);
	assert.deepEqual(column(work, 2), ['Tax', '€ 19.00', '€ 1.01', '€ 20.01']);
	assert.deepEqual(column(work, 3), ['Gross', '€ 119.00', '€ 11.11', '€ 130.11']);
	const made = (header: string[], row: string[], formula: string) => {
		const { work, problems } = listed([...header, 'Made'], [[...row, '']], { [header.length]: formula });
		return problems[0]?.why ?? textAt(work, 1, header.length);
	};
	assert.equal(made(['a', 'b'], ['2.50 m', '40 cm'], 'a × b'), '1.00 m²');
	assert.equal(made(['a', 'b'], ['€ 12.00', '8 kg'], 'a ÷ b'), '1.50 €/kg');
	assert.equal(made(['a', 'b'], ['230 V', '2 A'], 'a × b'), '460 W');
	assert.equal(made(['a', 'b'], ['2 kW', '3 h'], 'a × b'), '6 kWh');
	assert.equal(made(['a', 'b'], ['1 m', '20 cm'], 'a + b'), '1.2 m');
	assert.equal(made(['a', 'b'], ['6 m', '3 m'], 'a ÷ b'), '2');
	assert.equal(made(['a', 'b'], ['2031-04-05', '2031-03-01'], 'a − b'), '35 d');
	assert.equal(made(['a', 'b'], ['2031-04-05', '30'], 'a + b'), '2031-05-05');
	assert.equal(made(['a', 'b'], ['€ 3.00', '5 kg'], 'a + b'), 'EUR and kg cannot be added');
	assert.equal(made(['a', 'b'], ['€ 3.00', '€ 2.00'], 'a × b'), 'money times money has no meaning');
	assert.equal(made(['a', 'b'], ['€ 3.00', '2'], 'a + b'), 'EUR and plain numbers cannot be added');
});

test('what depends on a worked-out cell takes its figure in full, never its rounded text', () => {
	const { work } = listed(
		['A', 'Third', 'Again'],
		[
			['10.00', '', ''],
			['20.00', '', '']
		],
		{ 1: 'A ÷ 3', 2: 'Third × 3' },
		[1, 2]
	);
	assert.deepEqual(column(work, 1), ['Third', '3.33', '6.67', '10.00']);
	assert.deepEqual(column(work, 2), ['Again', '10.00', '20.00', '30.00']);
	const long = '1234567890123456789012345678901234567890';
	const exact = listed(['A', 'B', 'C'], [[long, long, '']], { 2: 'A × B' });
	assert.equal(textAt(exact.work, 1, 2), String(BigInt(long) * BigInt(long)));
	const tiny = listed(['A', 'B', 'C'], [['0.0001', '0.0002', '']], { 2: 'A × B' });
	assert.deepEqual([textAt(tiny.work, 1, 2), tiny.problems.length], ['0.0000', 1], 'marked, as it shows as 0');
	const sums = listed(['A'], [['1234567890123456789012345.01'], ['0.02']], {}, [0]);
	assert.equal(textAt(sums.work, 3, 0), '1234567890123456789012345.03');
	const many = `1${'0'.repeat(80)}`;
	assert.equal(textAt(listed(['A'], [[many], ['1']], {}, [0]).work, 3, 0), `1${'0'.repeat(79)}1`);
});

test('sums: one dimension in the unit of most rows, no sum of what does not go together, text left out and said', () => {
	const sum = (texts: string[]) => {
		const { work, problems } = listed(
			['Item', 'What'],
			texts.map((text, i) => [`n${i}`, text]),
			{},
			[1]
		);
		return [textAt(work, texts.length + 1, 1), problems[0]?.why];
	};
	assert.deepEqual(sum(['1.50 m', '2.25 m', '500 mm']), ['4.25 m', undefined]);
	assert.deepEqual(sum(['€ 3.00', '5 kg', '10 %']), ['', 'EUR and kg cannot be added']);
	assert.deepEqual(sum(['€ 10.10', '€ 10.10']), ['€ 20.20', undefined]);
	assert.deepEqual(sum(['12,34,567', '1,00,000']), ['13,34,567', undefined]);
	assert.deepEqual(sum(['3', 'about 4', '', '5']), ['8', 'without row 3, which is text']);
	assert.deepEqual(sum(['20 °C', '22 °C']), ['', 'temperatures cannot be added']);
});

test('a subtotal covers the rows since the last break of its level or a higher one', () => {
	const roles: RowRole[] = [
		'header:1',
		'group:1',
		'group:2',
		'body',
		'group:2',
		'body',
		'subtotal:1',
		'group:1',
		'body',
		'subtotal:1',
		'total'
	];
	const texts = [
		['Bed', 'n'],
		['A', ''],
		['A1', ''],
		['a', '3'],
		['A2', ''],
		['b', '10'],
		['Sub', '13'],
		['B', ''],
		['c', '4'],
		['Sub', ''],
		['Total', '']
	];
	let work = workWith(texts, roles);
	assert.deepEqual(wrongSums(work), [], 'a right one is right');
	work = withTotal(withTotal(work, 9, 1, 'sum'), 10, 1, 'sum');
	work = withTotal(work, 6, 1, 'sum');
	const done = workedOut(work).work;
	assert.deepEqual(
		[6, 9, 10].map((r) => textAt(done, r, 1)),
		['13', '4', '17']
	);
});

test('sorting goes by what figures are worth', () => {
	const lengths = workWith(
		[['Length'], ['1 km'], ['2 m'], ['300 mm'], ['1.5 m']],
		['header:1', 'body', 'body', 'body', 'body']
	);
	assert.deepEqual(column(sortRows(lengths, [{ column: 0, order: 'rising' }], 'en-GB'), 0), [
		'Length',
		'300 mm',
		'1.5 m',
		'2 m',
		'1 km'
	]);
});

test('series keep unit, currency, decimals and sign', () => {
	const next = (...texts: string[]) => seriesOf(texts, '.')?.(0);
	assert.equal(next('0.8 kg', '0.9 kg'), '1.0 kg');
	assert.equal(next('€ 5.00'), '€ 6.00');
	assert.equal(next('−2 kg', '−1 kg'), '0 kg');
	assert.equal(next('99.9 %', '100.0 %'), '100.1 %');
	assert.equal(next('99 %'), '100 %');
	assert.equal(next('1,000', '2,000'), '3,000');
	assert.equal(next('A-09'), 'A-10');
});

test('laws: a sum is independent of the order of its rows, and the same in m as in mm', () => {
	const metres = fc.array(
		fc.integer({ min: -9_999, max: 9_999 }).map((mm) => (mm / 1000).toFixed(3)),
		{ minLength: 1, maxLength: 8 }
	);
	fc.assert(
		fc.property(metres, fc.nat(), (amounts, turn) => {
			const sum = (texts: string[]) => {
				const { work } = listed(
					['n', 'Length'],
					texts.map((text, i) => [`x${i}`, text]),
					{},
					[1]
				);
				return readFigure(textAt(work, texts.length + 1, 1)!, '.');
			};
			const inMetres = amounts.map((one) => `${one} m`);
			const turned = [...inMetres.slice(turn % inMetres.length), ...inMetres.slice(0, turn % inMetres.length)];
			const inMillimetres = amounts.map((one) => `${Math.round(Number(one) * 1000)} mm`);
			const expected = sum(inMetres)!;
			assert.ok(sum(turned)!.amount.equals(expected.amount));
			assert.ok(converted(sum(inMillimetres)!, expected.measure)!.equals(expected.amount));
		}),
		{ numRuns: 60 }
	);
});

test('nothing is typed over what is worked out, and pasting leaves it as it is and says so', () => {
	const { work } = listed(
		['A', 'B'],
		[
			['1', ''],
			['2', '']
		],
		{ 1: 'A × 2' }
	);
	assert.throws(() => typed(work, 1, 1, '7'), /Column 2 is worked out/);
	assert.throws(() => filled(work, { top: 1, bottom: 2, start: 1, end: 1 }, 'down', 1, false), /worked out/);
	const { work: next, kept } = pasted(work, 1, 0, { cells: [[{ text: '5' }, { text: '6' }]] });
	assert.deepEqual(kept, [1]);
	assert.deepEqual([textAt(workedOut(next).work, 1, 0), textAt(workedOut(next).work, 1, 1)], ['5', '10']);
});

test('a row with a locked cell keeps its place when the others are sorted', () => {
	const work = workWith([['n'], ['3'], ['1'], ['2']], ['header:1', 'body', 'body', 'body']);
	const held = withLock(work, [{ r: 2, c: 0 }], 'content');
	assert.deepEqual(column(sortRows(held, [{ column: 0, order: 'falling' }], 'en-GB'), 0), ['n', '3', '1', '2']);
	assert.deepEqual(column(sortRows(held, [{ column: 0, order: 'rising' }], 'en-GB'), 0), ['n', '2', '1', '3']);
});

test('words are found and replaced whatever their emphasis', () => {
	let work = workWith([['Item'], ['x']], ['header:1', 'body']);
	const runs = [{ text: 'a ' }, { text: 'Car', weight: 700 }, { text: 'pet and more' }];
	work = typed(work, 1, 0, [{ runs }]);
	const search = { text: 'carpet', isCaseKept: false, isWhole: false };
	const done = replaced(work, [{ r: 1, c: 0 }], search, 'rug');
	const slot = done.rows[1]!.cells[0]!;
	assert.ok(!isCovered(slot));
	assert.equal(slot.text, 'a rug and more');
	assert.deepEqual(slot.content, [{ runs: [{ text: 'a ' }, { text: 'rug', weight: 700 }, { text: ' and more' }] }]);
});
