import { isoDay, readFigure, type Figure, type Measure } from './figure.ts';
import type { DecimalMark } from './parse.ts';
import { Rational } from './rational.ts';

const HUNDRED = Rational.of(100n);

interface Sample {
	readonly before: string;
	readonly digits: string;
	readonly after: string;
}
const FIGURE = /\d[\d.,'’ \u00A0\u2009\u202F]*\d|\d/;
/** Signs and brackets round a figure say that it is negative. */
const SIGNS = /[()\-−–+]/g;

function sampleOf(text: string): Sample | undefined {
	const match = FIGURE.exec(text);
	if (!match) return undefined;
	return {
		before: text.slice(0, match.index).replace(SIGNS, ''),
		digits: match[0],
		after: text.slice(match.index + match[0].length).replace(SIGNS, '')
	};
}

/** How many decimals a written figure has. */
export function decimalsIn(text: string, mark: DecimalMark): number {
	const digits = sampleOf(text)?.digits ?? '';
	const at = digits.lastIndexOf(mark);
	return at < 0 ? 0 : digits.length - at - 1;
}

/** A group of three, and groups of two above it: 12,34,567. */
const GROUPED = /\d(['’., \u00A0\u2009\u202F])\d{3}(?!\d)/;
const BY_TWO = /(?:^|\D)\d{1,2}([,.])(?:\d\d\1)+\d{3}(?!\d)/;

/** What parts the thousands of written figures, as first seen; null where nothing does. */
export function groupingIn(texts: readonly string[], mark: DecimalMark): string | null {
	for (const text of texts) {
		const group = BY_TWO.exec(text)?.[1] ?? GROUPED.exec(sampleOf(text)?.digits ?? '')?.[1];
		if (group && group !== mark) return group;
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
}

const SIGN_OF: Readonly<Record<string, string>> = { EUR: '€', GBP: '£', USD: '$', JPY: '¥', INR: '₹', '¤': '¤' };

/** What stands round the digits where no sample shows it. */
function affixes(measure: Measure): Pick<Sample, 'before' | 'after'> {
	switch (measure.kind) {
		case 'percent':
			return { before: '', after: ' %' };
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
const isSame = (a: Measure, b: Measure): boolean => JSON.stringify(a) === JSON.stringify(b);

/** The amount as it is shown: a percentage in hundredths. */
const shownAmount = ({ amount, measure }: Figure): Rational =>
	measure.kind === 'percent' ? amount.times(HUNDRED) : amount;

/** A figure as text, written as figures beside it are; rounded half away from zero, here only. */
export function writtenFigure(figure: Figure, { mark, decimals, samples, beside = samples }: Writing): string {
	const { measure } = figure;
	if (measure.kind === 'date') return isoDay(figure.amount);
	const model = samples.find((text) => {
		const own = readFigure(text, mark);
		return own && isSame(own.measure, measure);
	});
	const sample = model === undefined ? undefined : sampleOf(model);
	const { before, after } = sample ?? affixes(measure);
	const [digits, fraction] = shownAmount(figure).abs().toFixed(decimals).split('.') as [string, string?];
	const byTwo = beside.map((text) => BY_TWO.exec(text)?.[1]).find((one) => one && one !== mark);
	const group =
		byTwo ?? beside.map((text) => GROUPED.exec(sampleOf(text)?.digits ?? '')?.[1]).find((one) => one && one !== mark);
	const whole = !group
		? digits
		: byTwo
			? digits.replace(/\B(?=(\d\d)*\d{3}$)/g, group)
			: digits.replace(/\B(?=(\d{3})+$)/g, group);
	const text = `${before}${fraction ? `${whole}${mark}${fraction}` : whole}${after}`;
	const isZero = !/[1-9]/.test(digits + (fraction ?? ''));
	if (!figure.amount.isNegative || isZero) return text;
	if (samples.some((one) => /^\s*\(.*\)\s*$/.test(one))) return `(${text})`;
	return `${samples.some((one) => /^\s*[^\d\s]{0,4}\s*-\s*\d/.test(one)) ? '-' : '−'}${text}`;
}

/** Decimals that an amount of a currency is written with (ISO 4217); undefined for what is no currency. */
export function currencyDecimals(measure: Measure): number | undefined {
	if (measure.kind !== 'money') return undefined;
	try {
		return new Intl.NumberFormat('en', { style: 'currency', currency: measure.currency }).resolvedOptions()
			.maximumFractionDigits;
	} catch {
		return 2;
	}
}
