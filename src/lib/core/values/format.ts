import { Decimal } from 'decimal.js';
import type { LeafValue, PartSettings } from '../style/types.ts';
import type { DateFormat } from '../properties/number-format.ts';
import type { Value } from './parse.ts';

/** How values of a cell are written: the `format` leaves that won, by name. */
export type Format = NonNullable<PartSettings['format']>;

const DATE_OPTIONS: Record<Exclude<DateFormat, 'iso'>, Intl.DateTimeFormatOptions> = {
	short: { dateStyle: 'short' },
	medium: { dateStyle: 'medium' },
	long: { dateStyle: 'long' },
	month: { month: 'long', year: 'numeric' },
	year: { year: 'numeric' }
};

const numberFormats = new Map<string, Intl.NumberFormat>();
function numberFormat(locale: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
	const key = locale + JSON.stringify(options);
	let format = numberFormats.get(key);
	if (!format) numberFormats.set(key, (format = new Intl.NumberFormat(locale, options)));
	return format;
}

/** An exact decimal by locale: a string goes through Intl without becoming a floating-point number. */
const write = (format: Intl.NumberFormat, amount: Decimal): string =>
	format.format(amount.toFixed() as unknown as number);

function formatAmount(amount: Decimal, format: Format, options: Intl.NumberFormatOptions, locale: string): string {
	if (amount.isZero() && format.zero) return format.zero;
	const shown = options.style === 'percent' ? amount.div(100) : amount;
	// Money has the decimals that its currency is written with, unless the format or the amount says more.
	const usual = options.currency ? numberFormat(locale, options).resolvedOptions().maximumFractionDigits! : 0;
	const digits = format.decimals ?? Math.max(usual, amount.decimalPlaces());
	const style = numberFormat(locale, {
		...options,
		useGrouping: format.grouping ?? true,
		minimumFractionDigits: digits,
		maximumFractionDigits: digits,
		roundingMode: 'halfExpand'
	} as Intl.NumberFormatOptions);
	const negative = shown.isNegative() && !shown.isZero();
	const text = write(style, shown.abs());
	const withUnit = format.unit ? `${text}\u202F${format.unit}` : text;
	if (!negative) return withUnit;
	return format.negative === 'parentheses' ? `(${withUnit})` : `\u2212${withUnit}`;
}

function formatDate(iso: string, format: string | null | undefined, locale: string): string | undefined {
	if (format === undefined || format === null || format === 'iso') return iso;
	const options = DATE_OPTIONS[format as keyof typeof DATE_OPTIONS];
	if (!options) return undefined;
	const isMonth = iso.length === 7;
	const date = new Date(`${iso}${isMonth ? '-01' : ''}T00:00:00Z`);
	const chosen = isMonth && 'dateStyle' in options ? DATE_OPTIONS.month : options;
	return new Intl.DateTimeFormat(locale, { ...chosen, timeZone: 'UTC' }).format(date);
}

/**
 * A value as text, by the format that won for its cell. Undefined where the format says nothing of such a value (text in
 * a money column, a kind of none): the text stays as it was typed. The value itself never changes (engine §7).
 */
export function formatValue(value: Value, format: Format, locale: string): string | undefined {
	const { kind } = format;
	if (!kind || kind === 'none' || kind === 'text' || kind === 'code' || kind === 'mixed') return undefined;
	if (kind === 'date') return value.type === 'date' ? formatDate(value.iso, format.date, locale) : undefined;
	if (value.type === 'empty' || value.type === 'text' || value.type === 'date' || value.type === 'time')
		return undefined;
	if (kind === 'percent')
		return value.type === 'money' ? undefined : formatAmount(value.amount, format, { style: 'percent' }, locale);
	if (value.type === 'percent') return undefined;
	if (kind === 'money') {
		if (value.type === 'number' && value.unit) return undefined;
		const currency = format.currency ?? (value.type === 'money' ? value.currency : undefined);
		// A table in one currency is never shown as another.
		if (value.type === 'money' && value.currency && currency !== value.currency) return undefined;
		return formatAmount(
			value.amount,
			format,
			currency ? { style: 'currency', currency, currencyDisplay: 'narrowSymbol' } : {},
			locale
		);
	}
	if (value.type === 'money') return undefined;
	const unit = format.unit ?? value.unit;
	return formatAmount(value.amount, { ...format, ...(unit && { unit }) }, {}, locale);
}

/** The `format` leaves among the winning leaves of a cell. */
export function formatOf(leaves: ReadonlyMap<string, { readonly value: LeafValue }>): Format {
	const format: Record<string, LeafValue> = {};
	for (const [path, { value }] of leaves) if (path.startsWith('format.')) format[path.slice(7)] = value;
	return format as Format;
}
