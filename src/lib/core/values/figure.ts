import { NoAnswer } from './no-answer.ts';
import { parseValue, type DecimalMark, type Value } from './parse.ts';
import { Rational } from './rational.ts';
import { DURATIONS, isTemperature, unitName, unitOf } from './units.ts';

/** What an amount is of (figures.md §1). */
export type Measure =
	| { readonly kind: 'plain' | 'percent' | 'date' }
	| { readonly kind: 'money'; readonly currency: string }
	/** One unit, or units multiplied and divided: `m²`, `€/kg`, `kg·m`. */
	| { readonly kind: 'unit' | 'duration'; readonly unit: string };

/** An exact amount with its measure. A percentage is the share it is; a date counts days from 1970-01-01. */
export interface Figure {
	readonly amount: Rational;
	readonly measure: Measure;
}

const PLAIN: Measure = { kind: 'plain' };
const PERCENT: Measure = { kind: 'percent' };
const HUNDRED = Rational.of(100n);
const DAY = 86_400_000;

export const plainFigure = (amount: Rational): Figure => ({ amount, measure: PLAIN });
export const isoDay = (amount: Rational): string =>
	new Date(Number(amount.n / amount.d) * DAY).toISOString().slice(0, 10);

const unitMeasure = (unit: string): Measure =>
	DURATIONS.has(unit) ? { kind: 'duration', unit } : { kind: 'unit', unit };

/** The figure of a value; undefined for text, what is empty, and months, which have no length. */
export function figureOf(value: Value): Figure | undefined {
	if (value.type === 'date')
		return value.iso.length === 10
			? { amount: Rational.of(BigInt(Date.parse(`${value.iso}T00:00:00Z`) / DAY)), measure: { kind: 'date' } }
			: undefined;
	if (!('amount' in value)) return undefined;
	const amount = Rational.parse(value.amount.toFixed());
	if (value.type === 'percent') return { amount: amount.over(HUNDRED), measure: PERCENT };
	if (value.type === 'money') return { amount, measure: { kind: 'money', currency: value.currency ?? '¤' } };
	return { amount, measure: value.unit ? unitMeasure(unitName(value.unit)) : PLAIN };
}
/** The figure that a text says; undefined where it says none. */
export const readFigure = (text: string, mark: DecimalMark): Figure | undefined => figureOf(parseValue(text, mark));

/** What figures are measured in, in words. */
export function measureWords(measure: Measure): string {
	switch (measure.kind) {
		case 'plain':
			return 'plain numbers';
		case 'percent':
			return 'percentages';
		case 'date':
			return 'dates';
		case 'money':
			return measure.currency;
		default:
			return measure.unit;
	}
}

/* ---- measures multiplied and divided ---- */

/** Symbols with their powers; a currency is its code after ¤. */
type Powers = ReadonlyMap<string, number>;
const SUPER = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const SIGNS: Readonly<Record<string, string>> = { EUR: '€', GBP: '£', USD: '$', JPY: '¥' };
const codeOf = (sign: string) => Object.entries(SIGNS).find(([, one]) => one === sign)?.[0];

function powersOf(measure: Measure): Powers {
	if (measure.kind === 'money') return new Map([[`¤${measure.currency}`, 1]]);
	if (measure.kind !== 'unit' && measure.kind !== 'duration') return new Map();
	const powers = new Map<string, number>();
	const [over, ...under] = measure.unit.split('/');
	for (const [part, sign] of [[over!, 1] as const, ...under.map((one) => [one, -1] as const)])
		for (const symbol of part.split('·')) {
			if (!symbol || symbol === '1') continue;
			const code = codeOf(symbol) ?? (/^[A-Z]{3}$/.test(symbol) && !unitOf(symbol) ? symbol : undefined);
			const match = /^(.*?)([²³⁴-⁹])?$/u.exec(symbol)!;
			const name = code ? `¤${code}` : match[1]!;
			powers.set(name, (powers.get(name) ?? 0) + sign * (match[2] ? SUPER.indexOf(match[2]) : 1));
		}
	return powers;
}
/** Products that have a unit of their own. */
const NAMED: readonly (readonly [parts: readonly string[], name: string])[] = [
	[['V', 'A'], 'W'],
	[['kW', 'h'], 'kWh'],
	[['W', 'h'], 'Wh'],
	[['MW', 'h'], 'MWh']
];

function measureOf(powers: Map<string, number>): Measure {
	for (const [parts, name] of NAMED)
		while (parts.every((part) => (powers.get(part) ?? 0) >= 1)) {
			for (const part of parts) powers.set(part, powers.get(part)! - 1);
			powers.set(name, (powers.get(name) ?? 0) + 1);
		}
	const left = [...powers].filter(([, power]) => power !== 0);
	if (left.length === 0) return PLAIN;
	if (left.length === 1 && left[0]![1] === 1) {
		const [name] = left[0]!;
		return name.startsWith('¤') ? { kind: 'money', currency: name.slice(1) } : unitMeasure(name);
	}
	const written = ([name, power]: [string, number]) =>
		(name.startsWith('¤') ? (SIGNS[name.slice(1)] ?? name.slice(1)) : name) +
		(Math.abs(power) > 1 ? SUPER[Math.abs(power)]! : '');
	const over = left.filter(([, power]) => power > 0).map(written);
	const under = left.filter(([, power]) => power < 0).map(written);
	return { kind: 'unit', unit: [over.join('·') || '1', ...under].join('/') };
}

function combined(a: Figure, b: Figure, sign: 1 | -1): Figure {
	const kinds = [a.measure.kind, b.measure.kind];
	if (kinds.includes('date')) throw new NoAnswer(`dates cannot be ${sign > 0 ? 'multiplied' : 'divided'}`);
	if (kinds[0] === 'money' && kinds[1] === 'money' && sign > 0) throw new NoAnswer('money times money has no meaning');
	let amount = sign > 0 ? a.amount.times(b.amount) : a.amount.over(b.amount);
	const isShare = (kind: string | undefined) => kind === 'percent';
	if (kinds.every((kind) => kind === 'plain' || isShare(kind)))
		return {
			amount,
			measure:
				sign > 0 ? (kinds.some(isShare) ? PERCENT : PLAIN) : isShare(kinds[0]) && !isShare(kinds[1]) ? PERCENT : PLAIN
		};
	const powers = new Map(powersOf(a.measure));
	for (const [name, power] of powersOf(b.measure)) {
		// A unit of the same dimension is taken in the one on the left.
		const own = unitOf(name);
		const same = own && [...powers.keys()].find((other) => unitOf(other)?.dimension === own.dimension);
		const into = same ?? name;
		if (same && same !== name) {
			const factor = own.factor.over(unitOf(same)!.factor);
			for (let k = 0; k < Math.abs(power); k++) amount = sign * power > 0 ? amount.times(factor) : amount.over(factor);
		}
		powers.set(into, (powers.get(into) ?? 0) + sign * power);
	}
	return { amount, measure: measureOf(powers) };
}
export const times = (a: Figure, b: Figure): Figure => combined(a, b, 1);
export function over(a: Figure, b: Figure): Figure {
	if (b.amount.isZero) throw new NoAnswer('it divides by nothing');
	return combined(a, b, -1);
}

/* ---- measures added, compared and converted ---- */

/** How many of the unit of `to` one of the unit of `from` is; undefined where the two do not go together. */
function rate(from: Measure, to: Measure): Rational | undefined {
	if (from.kind === 'money' || to.kind === 'money')
		return from.kind === to.kind && (from as { currency: string }).currency === (to as { currency: string }).currency
			? Rational.ONE
			: undefined;
	const [a, b] = [from, to].map((one) => ('unit' in one ? one.unit : undefined));
	if (a === undefined || b === undefined)
		return a === b && (from.kind === 'date') === (to.kind === 'date') ? Rational.ONE : undefined;
	if (a === b) return isTemperature(a) ? undefined : Rational.ONE;
	const [own, other] = [unitOf(a), unitOf(b)];
	return own && other && own.dimension === other.dimension ? own.factor.over(other.factor) : undefined;
}
/** An amount in the measure of another; undefined where the two do not go together. */
export function converted(figure: Figure, to: Measure): Rational | undefined {
	const by = rate(figure.measure, to);
	return by && figure.amount.times(by);
}

const DAYS: Measure = { kind: 'duration', unit: 'd' };

/** Adds or takes away: days and dates, percentages with plain numbers as shares, else one dimension or currency only. */
function added(a: Figure, b: Figure, sign: 1 | -1): Figure {
	const join = (x: Rational, y: Rational) => (sign > 0 ? x.plus(y) : x.minus(y));
	const [left, right] = [a.measure, b.measure];
	if (left.kind === 'date' || right.kind === 'date') {
		if (left.kind === 'date' && right.kind === 'date') {
			if (sign > 0) throw new NoAnswer('dates cannot be added');
			return { amount: a.amount.minus(b.amount), measure: DAYS };
		}
		const [date, other] = left.kind === 'date' ? [a, b] : [b, a];
		if (left.kind !== 'date' && sign < 0) throw new NoAnswer('a date cannot be taken from that');
		const days = other.measure.kind === 'plain' ? other.amount : converted(other, DAYS);
		if (!days) throw new NoAnswer(`${measureWords(other.measure)} cannot be added to a date`);
		if (days.d !== 1n) throw new NoAnswer('a date goes on by whole days');
		return { amount: join(date.amount, days), measure: date.measure };
	}
	const shares = left.kind === 'percent' || left.kind === 'plain';
	if (shares && (right.kind === 'percent' || right.kind === 'plain'))
		return { amount: join(a.amount, b.amount), measure: left.kind === right.kind ? left : PLAIN };
	const amount = converted(b, left);
	if (!amount) throw new NoAnswer(`${measureWords(left)} and ${measureWords(right)} cannot be added`);
	return { amount: join(a.amount, amount), measure: left };
}
export const plus = (a: Figure, b: Figure): Figure => added(a, b, 1);
export const minus = (a: Figure, b: Figure): Figure => added(a, b, -1);

/** The unit or currency that most of some figures have; the first seen where several are as many. */
function mostSeen(figures: readonly Figure[]): Measure {
	const counts = new Map<string, { measure: Measure; count: number }>();
	for (const { measure } of figures) {
		const key = JSON.stringify(measure);
		const known = counts.get(key);
		if (known) known.count++;
		else counts.set(key, { measure, count: 1 });
	}
	return [...counts.values()].reduce((best, one) => (one.count > best.count ? one : best)).measure;
}
/** Figures in the unit that most of them have. Throws NoAnswer where they do not go together. */
export function alike(figures: readonly Figure[]): {
	readonly amounts: readonly Rational[];
	readonly measure: Measure;
} {
	const measure = mostSeen(figures);
	return {
		measure,
		amounts: figures.map((one) => {
			const amount = converted(one, measure);
			const other = measure.kind === 'plain' || one.measure.kind === 'percent' ? one.measure : measure;
			if (!amount || (one.measure.kind === 'percent') !== (measure.kind === 'percent'))
				throw new NoAnswer(
					isTemperature('unit' in other ? other.unit : '')
						? 'temperatures cannot be added'
						: `${measureWords(measure)} and ${measureWords(one.measure)} cannot be added`
				);
			return amount;
		})
	};
}

/** Compares what figures are worth: units of one dimension by their size; undefined where that means nothing. */
export function compareFigures(a: Figure, b: Figure): number | undefined {
	const amount = converted(b, a.measure);
	return amount && a.amount.compare(amount);
}

/** An amount as programs read it: a plain decimal, a date as ISO 8601. */
export const amountText = ({ amount, measure }: Figure): string =>
	measure.kind === 'date' ? isoDay(amount) : amount.toPlain();
