import type { DateOrder } from './dates.ts';
import { NoAnswer } from './no-answer.ts';
import { parseValue, type DecimalMark, type Value } from './parse.ts';
import { Rational } from './rational.ts';
import type { Summary } from './summary.ts';
import { DURATIONS, isTemperature, unitName, unitOf } from './units.ts';

/** What an amount is of (figures.md §1). */
export type Measure =
	| { readonly kind: 'plain' | 'percent' | 'permille' | 'date' | 'time' }
	| { readonly kind: 'money'; readonly currency: string }
	/** One unit, or units multiplied and divided: `m²`, `€/kg`, `kg·m`. */
	| { readonly kind: 'unit' | 'duration'; readonly unit: string };

/**
 * An exact amount with its measure. A percentage and a permillage are the shares they are; a date counts days from
 * 1970-01-01, a time of day seconds from midnight.
 */
export interface Figure {
	readonly amount: Rational;
	readonly measure: Measure;
}

const PLAIN: Measure = { kind: 'plain' };
/** How a share is shown: 19 % is 0.19. */
export const SHARES: Readonly<Record<'percent' | 'permille', Rational>> = {
	percent: Rational.of(100n),
	permille: Rational.of(1000n)
};
type Share = { readonly kind: 'percent' | 'permille' };
export const isShare = (measure: Measure): measure is Measure & Share =>
	measure.kind === 'percent' || measure.kind === 'permille';
const DAY = 86_400_000;
const SECONDS_A_DAY = Rational.of(86_400n);

export const plainFigure = (amount: Rational): Figure => ({ amount, measure: PLAIN });
export const isoDay = (amount: Rational): string =>
	new Date(Number(amount.n / amount.d) * DAY).toISOString().slice(0, 10);

/** A time of day as ISO 8601 writes it; parts of a second are cut. */
export function isoTime(amount: Rational): string {
	const seconds = Number(amount.n / amount.d);
	return [seconds / 3600, (seconds / 60) % 60, seconds % 60]
		.map((part) => String(Math.floor(part)).padStart(2, '0'))
		.join(':');
}

/** The measure of an amount of a unit, by the unit's own name. */
export const unitMeasure = (unit: string): Measure =>
	DURATIONS.has(unit) ? { kind: 'duration', unit } : { kind: 'unit', unit };

/** The figure of a value; undefined for text, what is empty, and months, which have no length. */
export function figureOf(value: Value): Figure | undefined {
	if (value.type === 'date')
		return value.iso.length === 10
			? { amount: Rational.of(BigInt(Date.parse(`${value.iso}T00:00:00Z`) / DAY)), measure: { kind: 'date' } }
			: undefined;
	if (value.type === 'time') {
		const [hours, minutes, seconds] = value.iso.split(':').map(Number) as [number, number, number];
		return { amount: Rational.of(hours * 3600 + minutes * 60 + seconds), measure: { kind: 'time' } };
	}
	if (!('amount' in value)) return undefined;
	const amount = Rational.parse(value.amount.toFixed());
	if (value.type === 'percent') {
		const kind = value.isPermille ? 'permille' : 'percent';
		return { amount: amount.over(SHARES[kind]), measure: { kind } };
	}
	if (value.type === 'money') return { amount, measure: { kind: 'money', currency: value.currency ?? '¤' } };
	return { amount, measure: value.unit ? unitMeasure(unitName(value.unit)) : PLAIN };
}
/** The figure that a text says; undefined where it says none. */
export const readFigure = (text: string, mark: DecimalMark, order?: DateOrder): Figure | undefined =>
	figureOf(parseValue(text, mark, order));

/** What figures are measured in, in words. */
export function measureWords(measure: Measure): string {
	switch (measure.kind) {
		case 'plain':
			return 'plain numbers';
		case 'percent':
			return 'percentages';
		case 'permille':
			return 'permillages';
		case 'time':
			return 'times of day';
		case 'date':
			return 'dates';
		case 'money':
			return measure.currency;
		default:
			return measure.unit;
	}
}

/** What stands on a line rather than being an amount; undefined for amounts. */
export const momentOf = ({ kind }: Measure) => (kind === 'date' || kind === 'time' ? kind : undefined);

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
	const barred = [a.measure, b.measure].find((one) => momentOf(one) || ('unit' in one && isTemperature(one.unit)));
	if (barred)
		throw new NoAnswer(
			`${momentOf(barred) ? measureWords(barred) : 'temperatures'} cannot be ${sign > 0 ? 'multiplied' : 'divided'}`
		);
	if (kinds[0] === 'money' && kinds[1] === 'money' && sign > 0) throw new NoAnswer('money times money has no meaning');
	let amount = sign > 0 ? a.amount.times(b.amount) : a.amount.over(b.amount);
	const [left, right] = [isShare(a.measure), isShare(b.measure)];
	if ((left || kinds[0] === 'plain') && (right || kinds[1] === 'plain')) {
		const share = left ? a.measure : right && sign > 0 ? b.measure : undefined;
		return { amount, measure: share && (sign > 0 || !right) ? share : PLAIN };
	}
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
	if (a === undefined || b === undefined) return a === b && momentOf(from) === momentOf(to) ? Rational.ONE : undefined;
	if (a === b) return isTemperature(a) ? undefined : Rational.ONE;
	const [own, other] = [unitOf(a), unitOf(b)];
	return own && other && own.dimension === other.dimension ? own.factor.over(other.factor) : undefined;
}
/** An amount in the measure of another; undefined where the two do not go together. */
export function converted(figure: Figure, to: Measure): Rational | undefined {
	const by = rate(figure.measure, to);
	return by && figure.amount.times(by);
}

/** An amount in another measure, a plain one taken as it is; undefined where the two do not go together. */
export const amountIn = (figure: Figure, measure: Measure): Rational | undefined =>
	figure.measure.kind === 'plain' ? figure.amount : converted(figure, measure);

const DAYS: Measure = { kind: 'duration', unit: 'd' };
const MINUTES: Measure = { kind: 'unit', unit: 'min' };
const SECONDS: Measure = { kind: 'unit', unit: 's' };

/** Times of day: one taken from another is minutes; one with a duration is a time of the same day. */
function addedTimes(a: Figure, b: Figure, sign: 1 | -1): Figure {
	if (a.measure.kind === 'time' && b.measure.kind === 'time') {
		if (sign > 0) throw new NoAnswer('times of day cannot be added');
		return { amount: a.amount.minus(b.amount).over(Rational.of(60n)), measure: MINUTES };
	}
	const [time, other] = a.measure.kind === 'time' ? [a, b] : [b, a];
	if (a.measure.kind !== 'time' && sign < 0) throw new NoAnswer('a time of day cannot be taken from that');
	const seconds = 'unit' in other.measure ? converted(other, SECONDS) : undefined;
	if (!seconds) throw new NoAnswer(`${measureWords(other.measure)} cannot be added to a time of day`);
	const amount = sign > 0 ? time.amount.plus(seconds) : time.amount.minus(seconds);
	if (amount.isNegative || amount.compare(SECONDS_A_DAY) >= 0) throw new NoAnswer('it is on another day');
	return { amount, measure: time.measure };
}

/** Adds or takes away: days and dates, shares with plain numbers, else one dimension or currency only. */
function added(a: Figure, b: Figure, sign: 1 | -1): Figure {
	const join = (x: Rational, y: Rational) => (sign > 0 ? x.plus(y) : x.minus(y));
	const [left, right] = [a.measure, b.measure];
	if (left.kind === 'time' || right.kind === 'time') return addedTimes(a, b, sign);
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
	if ((isShare(left) || left.kind === 'plain') && (isShare(right) || right.kind === 'plain'))
		return { amount: join(a.amount, b.amount), measure: isShare(left) && isShare(right) ? left : PLAIN };
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
			const other = measure.kind === 'plain' || isShare(one.measure) ? one.measure : measure;
			if (!amount || isShare(one.measure) !== isShare(measure))
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

/** An amount as programs read it: a plain decimal, a date or a time as ISO 8601. */
export const amountText = ({ amount, measure }: Figure): string =>
	measure.kind === 'date' ? isoDay(amount) : measure.kind === 'time' ? isoTime(amount) : amount.toPlain();

export function negated({ amount, measure }: Figure): Figure {
	if (momentOf(measure)) throw new NoAnswer(`${measureWords(measure)} have no minus`);
	return { amount: amount.negated(), measure };
}
/** A figure with so many decimals, as it is shown: a percentage in hundredths. Half away from zero. */
export function rounded({ amount, measure }: Figure, decimals: number): Figure {
	if (momentOf(measure)) return { amount, measure };
	const by = isShare(measure) ? SHARES[measure.kind] : Rational.ONE;
	return { amount: Rational.parse(amount.times(by).toFixed(decimals)).over(by), measure };
}

/** What figures come to; undefined where there are none, but how many is then 0. Throws NoAnswer where they do not go together. */
export function together(how: Summary, figures: readonly Figure[]): Figure | undefined {
	if (how === 'count') return plainFigure(Rational.of(figures.length));
	if (!figures.length) return undefined;
	const isAdded = how === 'sum' || how === 'mean';
	const moment = isAdded ? figures.find((one) => momentOf(one.measure)) : undefined;
	if (moment) throw new NoAnswer(`${measureWords(moment.measure)} cannot be added`);
	const { amounts, measure } = alike(figures);
	if (isAdded) {
		const amount = amounts.reduce((total, one) => total.plus(one), Rational.ZERO);
		return { amount: how === 'sum' ? amount : amount.over(Rational.of(amounts.length)), measure };
	}
	const sign = how === 'least' ? -1 : 1;
	return figures[amounts.reduce((best, one, i) => (one.compare(amounts[best]!) * sign > 0 ? i : best), 0)];
}
