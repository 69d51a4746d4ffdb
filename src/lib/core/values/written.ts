import { isoDay, isoTime, isShare, readFigure, SHARES, type Figure, type Measure } from './figure.ts';
import { parseDate, writtenDate, type DateOrder } from './dates.ts';
import type { DecimalMark } from './parse.ts';
import { Rational } from './rational.ts';

/** How a figure is written. */
interface Sample {
	/** What stands before and after its digits, signs and brackets left out. */
	readonly before: string;
	readonly after: string;
	readonly measure: Measure | undefined;
	readonly decimals: number;
	/** What parts its thousands, and whether it does so by two above the first three: 12,34,567. */
	readonly group: string | undefined;
	readonly isByTwo: boolean;
	/** How it says that it is negative. */
	readonly minus: 'brackets' | 'hyphen' | undefined;
}
const FIGURE = /\d[\d.,'’ \u00A0\u2009\u202F]*\d|\d/;
/** Signs and brackets round a figure say that it is negative. */
const SIGNS = /[()\-−–+]/g;
const GROUPED = /\d(['’., \u00A0\u2009\u202F])\d{3}(?!\d)/;
const BY_TWO = /(?:^|\D)\d{1,2}([,.])(?:\d\d\1)+\d{3}(?!\d)/;

const samplesSeen = { '.': new Map<string, Sample | undefined>(), ',': new Map<string, Sample | undefined>() };
const MOST_SEEN = 50_000;
/** How the figure in a text is written with a decimal mark; undefined where there is none. Asked again, the same. */
function sampleOf(text: string, mark: DecimalMark): Sample | undefined {
	const seen = samplesSeen[mark];
	if (seen.has(text)) return seen.get(text);
	if (seen.size > MOST_SEEN) seen.clear();
	const sample = readSample(text, mark);
	seen.set(text, sample);
	return sample;
}
function readSample(text: string, mark: DecimalMark): Sample | undefined {
	const match = FIGURE.exec(text);
	if (!match) return undefined;
	const [digits] = match;
	const at = digits.lastIndexOf(mark);
	const other = (group: string | undefined) => (group === mark ? undefined : group);
	const byTwo = other(BY_TWO.exec(text)?.[1]);
	return {
		before: text.slice(0, match.index).replace(SIGNS, ''),
		after: text.slice(match.index + digits.length).replace(SIGNS, ''),
		measure: readFigure(text, mark)?.measure,
		decimals: at < 0 ? 0 : digits.length - at - 1,
		group: byTwo ?? other(GROUPED.exec(digits)?.[1]),
		isByTwo: byTwo !== undefined,
		minus: /^\s*\(.*\)\s*$/.test(text) ? 'brackets' : /^\s*[^\d\s]{0,4}\s*-\s*\d/.test(text) ? 'hyphen' : undefined
	};
}

/** How many decimals a written figure has. */
export const decimalsIn = (text: string, mark: DecimalMark): number => sampleOf(text, mark)?.decimals ?? 0;

/** What parts the thousands of written figures, as first seen; null where nothing does. */
export function groupingIn(texts: readonly string[], mark: DecimalMark): string | null {
	for (const text of texts) {
		const group = sampleOf(text, mark)?.group;
		if (group) return group;
	}
	return null;
}

export interface Writing {
	readonly mark: DecimalMark;
	readonly decimals: number;
	/** Figures that it is to be written like: where the currency or unit stands, and how minus is written. */
	readonly samples: readonly string[];
	/** Figures that tell how thousands are parted; the samples where absent. */
	readonly beside?: readonly string[] | undefined;
	/** What comes first in dates that do not tell. */
	readonly order?: DateOrder | undefined;
}

const SIGN_OF: Readonly<Record<string, string>> = { EUR: '€', GBP: '£', USD: '$', JPY: '¥', INR: '₹', '¤': '¤' };

/** What stands round the digits where no sample shows it. */
function affixes(measure: Measure): Pick<Sample, 'before' | 'after'> {
	switch (measure.kind) {
		case 'percent':
			return { before: '', after: ' %' };
		case 'permille':
			return { before: '', after: ' ‰' };
		case 'money': {
			const sign = SIGN_OF[measure.currency];
			return sign ? { before: `${sign} `, after: '' } : { before: '', after: ` ${measure.currency}` };
		}
		case 'unit':
		case 'duration':
			return { before: '', after: ` ${measure.unit}` };
		default:
			return { before: '', after: '' };
	}
}
const isSame = (a: Measure, b: Measure): boolean =>
	a.kind === b.kind &&
	('unit' in a ? a.unit === (b as typeof a).unit : 'currency' in a ? a.currency === (b as typeof a).currency : true);

/** The amount as it is shown: a percentage in hundredths. */
const shownAmount = ({ amount, measure }: Figure): Rational =>
	isShare(measure) ? amount.times(SHARES[measure.kind]) : amount;
/** A time of day as it is written beside others: with seconds where it has any, or they have. */
function writtenTime(amount: Rational, samples: readonly string[]): string {
	const iso = isoTime(amount);
	return iso.endsWith(':00') && !samples.some((one) => /:\d\d:/.test(one)) ? iso.slice(0, 5) : iso;
}

/** A day as it is written beside others; as ISO 8601 where none shows how. */
function writtenDay(iso: string, samples: readonly string[], order?: DateOrder): string {
	for (const text of samples) {
		const like = parseDate(text, order);
		const written = like?.length === 10 && writtenDate(text, like, order);
		if (written) return written(new Date(iso));
	}
	return iso;
}

/** A figure as text, written as figures beside it are; rounded half away from zero, here only. */
export function writtenFigure(figure: Figure, { mark, decimals, samples, beside = samples, order }: Writing): string {
	const { measure } = figure;
	if (measure.kind === 'date') return writtenDay(isoDay(figure.amount), samples, order);
	if (measure.kind === 'time') return writtenTime(figure.amount, samples);
	const like = seenIn(samples, mark);
	const { before, after } = like.find((one) => one.measure && isSame(one.measure, measure)) ?? affixes(measure);
	const [digits, fraction] = shownAmount(figure).abs().toFixed(decimals).split('.') as [string, string?];
	const near = beside === samples ? like : seenIn(beside, mark);
	const grouped = near.find(({ isByTwo }) => isByTwo) ?? near.find(({ group }) => group);
	const whole = grouped?.group
		? digits.replace(grouped.isByTwo ? /\B(?=(\d\d)*\d{3}$)/g : /\B(?=(\d{3})+$)/g, grouped.group)
		: digits;
	const text = `${before}${fraction ? `${whole}${mark}${fraction}` : whole}${after}`;
	const isZero = !/[1-9]/.test(digits + (fraction ?? ''));
	if (!figure.amount.isNegative || isZero) return text;
	if (like.some(({ minus }) => minus === 'brackets')) return `(${text})`;
	return `${like.some(({ minus }) => minus === 'hyphen') ? '-' : '−'}${text}`;
}
const seenIn = (texts: readonly string[], mark: DecimalMark): Sample[] =>
	texts.map((text) => sampleOf(text, mark)).filter((one) => one !== undefined);

const decimalsByCurrency = new Map<string, number>();
/** Decimals that an amount of a currency is written with (ISO 4217); undefined for what is no currency. */
export function currencyDecimals(measure: Measure): number | undefined {
	if (measure.kind !== 'money') return undefined;
	const { currency } = measure;
	let decimals = decimalsByCurrency.get(currency);
	if (decimals === undefined) decimalsByCurrency.set(currency, (decimals = askedDecimals(currency)));
	return decimals;
}
function askedDecimals(currency: string): number {
	try {
		return new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits!;
	} catch {
		return 2;
	}
}
