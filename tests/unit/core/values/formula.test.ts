import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { amountText, readFigure, rounded, together } from '../../../../src/lib/core/values/figure.ts';
import {
	columnsIn,
	compute,
	FORMULA_DOCUMENT,
	formulaFault,
	isFactor,
	literalFigure,
	OPERATORS,
	reachesOut,
	withColumnNamed,
	type Formula,
	type Operand
} from '../../../../src/lib/core/values/formula.ts';
import { formulaText, parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import { SUMMARIES } from '../../../../src/lib/core/values/summary.ts';

const name = fc.constantFrom(
	'Price',
	'Net / tax',
	'Pre-paid',
	'sum of parts',
	'2031',
	'above',
	'a; b',
	'Cost (net)',
	'round (2)'
);
const leaf: fc.Arbitrary<Operand> = fc.oneof(
	fc.record({ number: fc.constantFrom('1.5', '19 %', '30 d', '€ 3.10', '1,200') }),
	fc.record({ column: name }),
	fc.record({ total: name }),
	fc.record({ above: fc.constant(true as const) }),
	fc.record({ summary: fc.constantFrom(...SUMMARIES), column: name })
);
const formulaOf = (depth: number): fc.Arbitrary<Formula> => {
	const inner = depth > 0 ? formulaOf(depth - 1) : undefined;
	const operand: fc.Arbitrary<Operand> = inner
		? fc.oneof(
				{ weight: 3, arbitrary: leaf },
				{ weight: 1, arbitrary: fc.record({ group: inner }) },
				{ weight: 1, arbitrary: fc.record({ minus: leaf }) },
				{
					weight: 1,
					arbitrary: fc.record({
						summary: fc.constantFrom(...SUMMARIES),
						list: fc.array(inner, { minLength: 1, maxLength: 3 })
					})
				},
				{ weight: 1, arbitrary: fc.record({ round: inner, to: fc.nat({ max: 9 }) }) }
			)
		: leaf;
	return fc
		.tuple(operand, fc.array(fc.tuple(fc.constantFrom(...OPERATORS), operand), { maxLength: 3 }))
		.map(([first, rest]) => [first, ...rest.flat()]);
};

test('a formula is read back from its text as it was, and its schema takes it', () => {
	const isFormula = new Ajv2020({ allowUnionTypes: true }).compile(FORMULA_DOCUMENT);
	fc.assert(
		fc.property(formulaOf(2), (given) => {
			const formula = JSON.parse(JSON.stringify(given)) as Formula;
			assert.deepEqual(parseFormula(formulaText(formula)), formula, formulaText(formula));
			assert.ok(isFormula(formula), JSON.stringify(isFormula.errors?.[0]));
			assert.equal(formulaFault(formula, columnsIn(formula)), undefined);
		})
	);
	assert.equal(isFormula([{ column: 'A' }, '^', { column: 'B' }]), false);
	assert.equal(isFormula([{ summary: 'median', column: 'A' }]), false);
	let deep: Formula = [{ number: '1' }];
	for (let i = 0; i < 9; i++) deep = [{ group: deep }];
	assert.equal(isFormula(deep), false, 'brackets nine deep');
});

test('what cannot be read is refused with what is wrong', () => {
	const why = (text: string) => {
		try {
			parseFormula(text);
		} catch (error) {
			assert.ok(error instanceof InputError);
			return error.message;
		}
		return assert.fail(`${text} was read`);
	};
	assert.match(why(''), /names columns and numbers/);
	assert.match(why('(A + B'), /bracket is not closed/);
	assert.match(why('A + B)'), /nothing that it closes/);
	assert.match(why('A; B'), /nothing that it closes or parts/);
	assert.match(why('“A + B'), /quotation mark is not closed/);
	assert.match(why('round (A)'), /how many decimals/);
	assert.match(why('round (A; 99)'), /how many decimals/);
	assert.match(why('sum of'), /column or a list/);
	assert.match(why('total of'), /column comes after/);
	assert.match(why(`${'('.repeat(20)}A${')'.repeat(20)}`), /8 deep/);
	assert.equal(formulaFault(parseFormula('A B'), ['A']), 'There is no column “A B”.');
	assert.equal(formulaFault(parseFormula('A +'), ['A']), 'The last operator has nothing after it.');
	assert.equal(formulaFault(parseFormula('× A'), ['A']), 'Operands and operators are to take turns.');
	assert.equal(formulaFault(parseFormula('A + total of B'), ['A']), 'There is no column “B”.');
});

test('columns of a tier are named with the tier above', () => {
	const names = ['Plan / Labour', 'Actual / Labour'];
	assert.deepEqual(parseFormula('Actual / Labour − Plan / Labour', names), [
		{ column: 'Actual / Labour' },
		'−',
		{ column: 'Plan / Labour' }
	]);
	assert.deepEqual(parseFormula('Plan / Labours', names), [{ column: 'Plan' }, '÷', { column: 'Labours' }]);
});

test('formulas say what they rest on', () => {
	const formula = parseFormula('Price × (Count + total of Cost) − least of (Rate; −Count)');
	assert.deepEqual(columnsIn(formula), ['Price', 'Count', 'Cost', 'Rate']);
	assert.deepEqual(columnsIn(withColumnNamed(formula, 'Count', 'Number')), ['Price', 'Number', 'Cost', 'Rate']);
	assert.equal(reachesOut(formula), true);
	assert.equal(reachesOut(parseFormula('A + least of (B; C)')), false);
	for (const text of ['above + A', 'sum of A', 'round (total of A; 1)'])
		assert.equal(reachesOut(parseFormula(text)), true);
	assert.deepEqual(
		['Price', 'Count', 'Rate'].map((one) => isFactor(formula, one)),
		[true, false, false]
	);
});

/** What a formula of literals comes to. */
const comesTo = (text: string): string => {
	const none = () => undefined;
	const literal = (one: string) => literalFigure(one, '.');
	const figure = compute(parseFormula(text), { literal, column: none, summary: none, total: none, above: none });
	if (!figure) return 'nothing';
	const { measure } = figure;
	return `${amountText(figure)} ${'unit' in measure ? measure.unit : 'currency' in measure ? measure.currency : measure.kind}`;
};

test('measures are carried through (figures.md, arithmetic)', () => {
	for (const [text, answer] of [
		['10 ÷ 3 × 3', '10 plain'],
		['€ 100.00 × 19 %', '19 EUR'],
		['€ 7.50 × 3 ‰', '0.0225 EUR'],
		['19 % + 1 %', '0.2 percent'],
		['19 % + 3 ‰', '0.193 percent'],
		['19 % × 2', '0.38 percent'],
		['50 % × 50 %', '0.25 percent'],
		['1 + 19 %', '1.19 plain'],
		['19 % ÷ 19 %', '1 plain'],
		['2 m × 300 mm', '0.6 m²'],
		['1 km + 2 m', '1.002 km'],
		['€ 10 ÷ 4 kg', '2.5 €/kg'],
		['10 CHF ÷ 4 kg', '2.5 CHF/kg'],
		['2.5 €/kg × 4 kg', '10 EUR'],
		['230 V × 2 A', '460 W'],
		['2 kW × 3 h', '6 kWh'],
		['3 kg × 2 m', '6 kg·m'],
		['2031-04-05 − 2031-03-05', '31 d'],
		['2031-03-05 + 2 weeks', '2031-03-19 date'],
		['2031-03-05 + 3', '2031-03-08 date'],
		['15:45 − 14:30', '75 min'],
		['14:30 + 90 min', '16:00:00 time'],
		['14:30 − 1 h', '13:30:00 time'],
		['−(2 − 5)', '3 plain'],
		['round (10 ÷ 3; 2)', '3.33 plain'],
		['round (19.456 %; 1)', '0.195 percent'],
		['sum of (1; 2; 3.5)', '6.5 plain'],
		['mean of (1 m; 300 cm)', '2 m'],
		['least of (2 m; 300 mm)', '300 mm'],
		['greatest of (2 m; 300 mm)', '2 m'],
		['how many of (1; 2)', '2 plain'],
		['sum of (€ 3; A)', '3 EUR'],
		['5 + A', 'nothing']
	] as const)
		assert.equal(comesTo(text), answer, text);
});

test('what has no meaning says why', () => {
	for (const [text, why] of [
		['€ 3 × € 2', /money times money/],
		['€ 3 + 5', /cannot be added/],
		['€ 3 + 5 kg', /EUR and kg cannot be added/],
		['2031-04-05 + 2031-04-05', /dates cannot be added/],
		['2031-04-05 × 2', /dates cannot be multiplied/],
		['20 °C + 3 °C', /cannot be added/],
		['20 °C × 2', /temperatures cannot be multiplied/],
		['14:30 + 15:00', /times of day cannot be added/],
		['23:30 + 1 h', /another day/],
		['14:30 + 2 kg', /cannot be added to a time/],
		['−2031-04-05', /no minus/],
		['4 ÷ (2 − 2)', /divides by nothing/],
		['sum of (1 kg; 1 m)', /cannot be added/],
		['mean of (2031-04-05; 2031-04-07)', /dates cannot be added/]
	] as const)
		assert.throws(() => comesTo(text), { message: why }, text);
});

test('a sum does not depend on order, and rounding goes half away from zero', () => {
	const amount = fc.tuple(fc.integer({ min: -99_999, max: 99_999 }), fc.constantFrom(' m', ' mm', ' km'));
	fc.assert(
		fc.property(fc.array(amount, { minLength: 1, maxLength: 9 }), fc.nat(), (given, turn) => {
			const figures = given.map(([n, unit]) => readFigure(`${n / 100}${unit}`, '.')!);
			const turned = figures.map((_, i) => figures[(i + turn) % figures.length]!);
			const metres = (all: typeof figures) => comesToIn(together('sum', all)!);
			assert.equal(metres(figures), metres(turned));
		})
	);
	assert.equal(amountText(rounded(readFigure('2.345', '.')!, 2)), '2.35');
	assert.equal(amountText(rounded(readFigure('−2.345', '.')!, 2)), '-2.35');
});
const comesToIn = (figure: { amount: { toPlain(): string }; measure: object }): string => {
	const { unit } = figure.measure as { unit: string };
	const factor = { m: 1n, mm: -1000n, km: 1000n }[unit]!;
	const { n, d } = figure.amount as unknown as { n: bigint; d: bigint };
	return factor > 0n ? `${(n * factor * 1_000_000n) / d}` : `${(n * 1_000_000n) / (d * -factor)}`;
};
