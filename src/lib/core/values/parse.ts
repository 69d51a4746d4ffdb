import { Decimal } from 'decimal.js';
import { parseDate, type DateOrder } from './dates.ts';

// Sums of amounts as long as a cell can hold are exact; nothing divides these.
Decimal.set({ precision: 500, toExpNeg: -500, toExpPos: 500 });

/** What a cell's text means (engine §1). Numbers are exact decimals; percent holds the number as shown. */
export type Value =
	| { readonly type: 'empty' }
	| { readonly type: 'text'; readonly text: string }
	| { readonly type: 'number'; readonly amount: Decimal; readonly unit?: string }
	| { readonly type: 'money'; readonly amount: Decimal; readonly currency: string | null }
	| { readonly type: 'percent'; readonly amount: Decimal; readonly isPermille?: true }
	/** ISO 8601, a day or a month. */
	| { readonly type: 'date'; readonly iso: string }
	/** ISO 8601, `14:30:00`. */
	| { readonly type: 'time'; readonly iso: string };

export type DecimalMark = '.' | ',';
/** What parts the thousands of figures: points, commas, apostrophes, spaces of several widths. */
export const GROUPINGS = ['.', ',', "'", '’', ' ', '\u00A0', '\u2009', '\u202F'] as const;

/** A longer text is no figure. */
const LONGEST = 400;

const EMPTY: Value = { type: 'empty' };
const SPACES = /[\s\u00A0\u2007\u2009\u202F]+/g;
/** Digits grouped by two above the thousand: 12,34,567. */
const INDIAN = /^[1-9]\d?(?:,\d\d)+,\d{3}$/;
/** Spaces in a number that do not group its digits by three, as in a telephone number. */
const LOOSE = /\d{4}[\s\u00A0\u2007\u2009\u202F]+\d|\d[\s\u00A0\u2007\u2009\u202F]+(?!\d{3}(?!\d))\d/;
/** A number: optional sign, digits with marks between them. Tested on text without spaces. */
const NUMBER = /^[+\-\u2212\u2013]?(\d[\d.,'’]*|[.,]\d+)$/;
/** Texts that people write where there is nothing to say. */
const BLANK = /^[\s\u00A0]*([-–—−.·…]|n\/?a)?[\s\u00A0]*$/i;

/** Digits of other scripts, by their zero: Arabic, Persian, Devanagari, Bengali, fullwidth. */
const ZEROS = [0x660, 0x6f0, 0x966, 0x9e6, 0xff10];
const OTHER_DIGIT = /[٠-٩۰-۹०-९০-৯０-９]/g;

/** The same text with European digits and marks. */
export function plainDigits(text: string): string {
	if (text.search(OTHER_DIGIT) < 0) return text;
	const plain = text.replace(OTHER_DIGIT, (digit) => {
		const code = digit.charCodeAt(0);
		return String(code - ZEROS.find((zero) => code >= zero && code < zero + 10)!);
	});
	return plain.replace(/[٫．]/g, '.').replace(/[٬，]/g, ',').replace(/٪|％/g, '%');
}

const SYMBOLS: Record<string, string> = {
	'€': 'EUR',
	'£': 'GBP',
	$: 'USD',
	'¥': 'JPY',
	'₹': 'INR',
	'₣': 'CHF',
	'₺': 'TRY',
	'₽': 'RUB',
	'₴': 'UAH',
	'₪': 'ILS',
	'₩': 'KRW',
	zł: 'PLN',
	Kč: 'CZK',
	Ft: 'HUF',
	lei: 'RON',
	円: 'JPY',
	元: 'CNY'
};
const TIME = /^([01]?\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/;
const QUANTITY = /^(.*\d)[\s\u00A0\u202F]*((?:US |imp )?[\p{L}\p{Sc}µ°²³/·]{1,12})$/u;
/** Credit and debit are words about an amount, no unit. */
const LEDGER = /^(CR|DR)$/i;
const ORDINAL = /^\d+(?:st|nd|rd|th|er|ère|ème|e|º|ª)$/u;
const CODES = new Set(Intl.supportedValuesOf('currency'));
const SYMBOL = '\\p{Sc}|zł|Kč|Ft|lei|円|元|[A-Z]{3}|kr\\.?|Fr\\.';
const MONEY_BEFORE = new RegExp(`^([+\\-\u2212]?)(${SYMBOL})([+\\-\u2212]?.*\\d)$`, 'u');
const MONEY_AFTER = new RegExp(`^(.*\\d)(${SYMBOL})$`, 'u');

function currencyOf(mark: string): string | null | undefined {
	if (SYMBOLS[mark]) return SYMBOLS[mark];
	if (mark.startsWith('kr') || mark === 'Fr.' || /^\p{Sc}$/u.test(mark)) return null;
	return CODES.has(mark) ? mark : undefined;
}

/**
 * The exact number in `text` (no currency, unit or percent sign), or undefined. A single mark before exactly three
 * digits groups thousands where it is not the `decimal` mark, as spaces do; parentheses and − make it negative.
 */
export function parseNumber(text: string, decimal: DecimalMark = '.'): Decimal | undefined {
	// Most numbers are short and whole.
	if (/^\d{1,7}$/.test(text)) return new Decimal(Number(text));
	if (LOOSE.test(text)) return undefined;
	let digits = text.replace(SPACES, '');
	let negative = false;
	if (digits.startsWith('(') && digits.endsWith(')')) {
		negative = true;
		digits = digits.slice(1, -1);
	}
	if (!NUMBER.test(digits)) return undefined;
	if (/^[-\u2212\u2013]/.test(digits)) negative = !negative;
	digits = digits.replace(/^[+\-\u2212\u2013]/, '').replace(/['’]/g, '');
	const lastDot = digits.lastIndexOf('.');
	const lastComma = digits.lastIndexOf(',');
	let mark: DecimalMark | null = null;
	if (lastDot >= 0 && lastComma >= 0) mark = lastDot > lastComma ? '.' : ',';
	else if (lastDot >= 0 || lastComma >= 0) {
		const only: DecimalMark = lastDot >= 0 ? '.' : ',';
		const pieces = digits.split(only);
		const groups =
			(pieces.slice(1).every((piece) => piece.length === 3) && /^[1-9]\d{0,2}$/.test(pieces[0]!)) ||
			INDIAN.test(digits);
		if (pieces.length > 2) {
			if (!groups) return undefined;
		} else mark = groups && only !== decimal ? null : only;
	}
	const [whole, fraction = '', ...more] = mark ? digits.split(mark) : [digits];
	if (more.length) return undefined;
	const plain = whole!.replace(/[.,]/g, '') || '0';
	if (/[.,]/.test(fraction)) return undefined;
	const amount = new Decimal(fraction ? `${plain}.${fraction}` : plain);
	return negative ? amount.negated() : amount;
}

/** Reads what a cell's text means. Never throws; what is nothing else is text. */
export function parseValue(text: string, decimal: DecimalMark = '.', first: DateOrder = 'day'): Value {
	const trimmed = plainDigits(text.trim());
	if (trimmed === '') return EMPTY;
	const asText: Value = { type: 'text', text: text.trim() };
	if (!/\d/.test(trimmed)) return BLANK.test(text) ? EMPTY : asText;
	if (trimmed.length > LONGEST) return asText;
	const number = parseNumber(trimmed, decimal);
	if (number) return { type: 'number', amount: number };
	const iso = parseDate(trimmed, first);
	if (iso) return { type: 'date', iso };

	const bracketed = trimmed.startsWith('(') && trimmed.endsWith(')');
	const packed = (bracketed ? trimmed.slice(1, -1) : trimmed).replace(SPACES, '');
	const signed = (amount: Decimal) => (bracketed ? amount.negated() : amount);
	const share = /^(.*\d\)?)([%‰])$/.exec(packed);
	if (share) {
		const amount = parseNumber(share[1]!, decimal);
		if (!amount) return asText;
		return { type: 'percent', amount: signed(amount), ...(share[2] === '‰' && { isPermille: true }) };
	}
	const time = TIME.exec(trimmed);
	if (time) return { type: 'time', iso: `${time[1]!.padStart(2, '0')}:${time[2]}:${time[3] ?? '00'}` };
	const before = MONEY_BEFORE.exec(packed);
	const after = before ? null : MONEY_AFTER.exec(packed);
	const mark = before?.[2] ?? after?.[2];
	const currency = mark === undefined ? undefined : currencyOf(mark);
	if (currency !== undefined) {
		const amount = parseNumber(before ? before[1]! + before[3]! : after![1]!, decimal);
		return amount ? { type: 'money', amount: signed(amount), currency } : asText;
	}
	if (ORDINAL.test(trimmed)) return asText;
	const quantity = QUANTITY.exec(trimmed);
	if (quantity && !LEDGER.test(quantity[2]!)) {
		const amount = parseNumber(quantity[1]!, decimal);
		if (amount) return { type: 'number', amount, unit: quantity[2]! };
	}
	return asText;
}

/** The amount of a number, money or percent; undefined for other values. */
export const amountOf = (value: Value): Decimal | undefined => ('amount' in value ? value.amount : undefined);

/** A number in a text: what stands before it, its digits and marks, what stands after it. */
const MARKED = /^([^\d]*)(\d[\d.,'’\s\u00A0\u2009\u202F]*\d)([^\d]*)$/;
const other = (mark: string): DecimalMark => (mark === '.' ? ',' : '.');

/** What one number says of its decimal mark; `doubtful` where it could group as well, which its unit or currency may tell. */
function markIn(text: string): { mark: DecimalMark; by: 'form' | 'currency' | 'unit' | 'doubt' } | undefined {
	const [, before, digits, after] = MARKED.exec(text) ?? [];
	if (digits === undefined || !/[.,]/.test(digits)) return undefined;
	const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
	const mark = digits[last] as DecimalMark;
	const whole = digits.slice(0, last);
	const fraction = digits.slice(last + 1);
	if (/\D/.test(fraction)) return undefined;
	// 1.234.567: the mark groups, so the other one is the decimal mark.
	if (whole.includes(mark))
		return /^\d{1,3}([.,]\d{2,3})+$/.test(digits) ? { mark: other(mark), by: 'form' } : undefined;
	if (/\D/.test(whole) || fraction.length !== 3 || /^0|^\d{4}/.test(whole)) return { mark, by: 'form' };
	const currency = [before!.trim(), after!.trim()]
		.map((sign) => (sign ? currencyOf(sign) : undefined))
		.find((one) => one !== undefined);
	// No currency in use has three decimals but a few (ISO 4217), so three digits are a group.
	if (currency !== undefined) return { mark: other(mark), by: 'currency' };
	return { mark, by: /^[\s\u00A0\u202F]*[\p{L}µ°]/u.test(after!) ? 'unit' : 'doubt' };
}

/** What numbers say of their decimal mark: above 0 for the point, below for the comma, the strongest evidence first. */
export interface MarkVotes {
	readonly form: number;
	readonly currency: number;
	readonly unit: number;
	/** A number that could be read either way, where one is. */
	readonly doubtful: string | undefined;
}
const NO_VOTES: MarkVotes = { form: 0, currency: 0, unit: 0, doubtful: undefined };

export function markVotes(texts: Iterable<string>): MarkVotes {
	const votes = { form: 0, currency: 0, unit: 0 };
	let doubtful: string | undefined;
	for (const one of texts) {
		if (!/\d[.,]\d|[٫٬]/.test(one)) continue;
		const said = markIn(plainDigits(one.trim()));
		if (!said) continue;
		if (said.by === 'doubt') doubtful ??= one.trim();
		else votes[said.by] += said.mark === '.' ? 1 : -1;
	}
	return votes.form || votes.currency || votes.unit || doubtful ? { ...votes, doubtful } : NO_VOTES;
}
export const joinedVotes = (a: MarkVotes, b: MarkVotes): MarkVotes =>
	b === NO_VOTES
		? a
		: {
				form: a.form + b.form,
				currency: a.currency + b.currency,
				unit: a.unit + b.unit,
				doubtful: a.doubtful ?? b.doubtful
			};

/** The mark that votes are for; `usual` where they say nothing. `doubt` is a number that only that decided. */
export function markBy(
	votes: MarkVotes,
	usual: DecimalMark
): {
	readonly mark: DecimalMark;
	readonly doubt: string | undefined;
	readonly by: 'form' | 'currency' | 'unit' | 'usual';
} {
	for (const by of ['form', 'currency', 'unit'] as const)
		if (votes[by]) return { mark: votes[by] > 0 ? '.' : ',', doubt: undefined, by };
	return { mark: usual, doubt: votes.doubtful, by: 'usual' };
}

const readWith = (text: string, mark: DecimalMark): string => {
	const value = parseValue(text, mark);
	return 'amount' in value ? value.amount.toFixed() : 'nothing';
};
/** A doubt as a question, for a text that is read with one mark. */
export const doubtWords = (text: string, mark: DecimalMark): string =>
	`“${text}” is read as ${readWith(text, mark)}; or is it ${readWith(text, other(mark))}?`;

/** The decimal mark of a locale's figures; one whose own marks are neither is read with the point. */
export const usualMark = (locale: string): DecimalMark =>
	new Intl.NumberFormat(locale, { numberingSystem: 'latn' }).formatToParts(1.5).find(({ type }) => type === 'decimal')
		?.value === ','
		? ','
		: '.';

/** The decimal mark of a table's figures: what was said, else what they tell, else `usual`. */
export const markOfTable = (
	{ mark, cells }: { readonly mark?: DecimalMark; readonly cells: readonly { readonly text: string }[] },
	usual: DecimalMark = '.'
): DecimalMark =>
	mark ??
	decimalMarkOf(
		cells.map(({ text }) => text),
		usual
	);

/**
 * The decimal mark that the numbers among these texts use (figures.md §2): what their forms say, most of them deciding; else
 * currencies and units; else `usual`, the mark of the house.
 */
export const decimalMarkOf = (texts: Iterable<string>, usual: DecimalMark = '.'): DecimalMark =>
	markBy(markVotes(texts), usual).mark;
