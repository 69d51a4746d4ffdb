import { once } from '../once.ts';

/** Which comes first in a date that is written with strokes: 04/05/2031. */
export type DateOrder = 'day' | 'month';

const MONTHS = new Map<string, number>();
for (const locale of 'en de fr es it nl pt sv da nb pl cs hu ro fi tr ru uk el'.split(' '))
	for (const width of ['long', 'short'] as const)
		for (let month = 0; month < 12; month++) {
			// Some languages bend the name where a day stands before it.
			for (const day of [undefined, 'numeric'] as const) {
				const format = new Intl.DateTimeFormat(locale, { ...(day && { day }), month: width, timeZone: 'UTC' });
				const name = format.formatToParts(Date.UTC(2030, month, 1)).find(({ type }) => type === 'month')!.value;
				const plain = name.toLowerCase().replace(/\.$/, '');
				if (!MONTHS.has(plain) && /\p{L}/u.test(plain)) MONTHS.set(plain, month + 1);
			}
		}

function isoDay(year: number, month: number, day: number): string | undefined {
	const date = new Date(Date.UTC(year, month - 1, day));
	return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? date.toISOString().slice(0, 10) : undefined;
}

/** Day and month with strokes between them, in an order that the text does not tell. */
const STROKES = /^(\d{1,2})\/\s?(\d{1,2})\/\s?(\d{4})$/;

/** A date as ISO 8601, or undefined. `first` comes first where only the order could tell and strokes part it. */
export function parseDate(text: string, first: DateOrder = 'day'): string | undefined {
	const trimmed = text.trim();
	let match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(trimmed);
	if (match) return isoDay(+match[1]!, +match[2]!, +match[3]!);
	match = /^(\d{4})\s?[年년]\s?(\d{1,2})\s?[月월](?:\s?(\d{1,2})\s?[日일])?$/.exec(trimmed);
	if (match) return match[3] ? isoDay(+match[1]!, +match[2]!, +match[3]) : `${match[1]}-${match[2]!.padStart(2, '0')}`;
	match = /^(\d{1,2})([./])\s?(\d{1,2})\2\s?(\d{4})$/.exec(trimmed);
	if (match) {
		const [one, other, year] = [+match[1]!, +match[3]!, +match[4]!];
		const byDay = isoDay(year, other, one);
		const byMonth = isoDay(year, one, other);
		return match[2] === '/' && first === 'month' ? (byMonth ?? byDay) : (byDay ?? byMonth);
	}
	match = /^(\d{1,2})\.?\s+(?:de\s+)?(\p{L}+)\.?\s+(?:de\s+)?(\d{4})$/u.exec(trimmed);
	if (match) {
		const month = MONTHS.get(match[2]!.toLowerCase());
		return month ? isoDay(+match[3]!, month, +match[1]!) : undefined;
	}
	match = /^(\p{L}+)\.?\s+(?:(\d{1,2}),?\s+|de\s+)?(\d{4})$/u.exec(trimmed);
	if (match) {
		const month = MONTHS.get(match[1]!.toLowerCase());
		if (!month) return undefined;
		return match[2] ? isoDay(+match[3]!, month, +match[2]) : `${match[3]}-${String(month).padStart(2, '0')}`;
	}
	return undefined;
}

/** Which of day and month comes first in a locale's dates; one that writes the year first says nothing against the day. */
export function usualOrder(locale: string): DateOrder {
	const parts = new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).formatToParts(0).map(({ type }) => type);
	return parts.find((type) => ['day', 'month', 'year'].includes(type)) === 'month' ? 'month' : 'day';
}

/**
 * Which of day and month comes first in the dates among some texts: what most of those tell that can be read in one way
 * only, else `usual`. `doubt` is a date that only that decided.
 */
export function dateOrderOf(
	texts: Iterable<string>,
	usual: DateOrder = 'day'
): { readonly order: DateOrder; readonly doubt: string | undefined } {
	let votes = 0;
	let doubt: string | undefined;
	for (const text of texts) {
		const [, one, other] = (text.includes('/') && STROKES.exec(text.trim())) || [];
		if (one === undefined || +one === +other!) continue;
		const [byDay, byMonth] = [+other! <= 12, +one <= 12];
		if (byDay && byMonth) doubt ??= text.trim();
		else if (byDay || byMonth) votes += byDay ? 1 : -1;
	}
	return votes ? { order: votes > 0 ? 'day' : 'month', doubt: undefined } : { order: usual, doubt };
}

/** A doubt about a date as a question. */
export function dateDoubtWords(text: string, order: DateOrder): string {
	const said = (first: DateOrder) =>
		new Date(parseDate(text, first)!).toLocaleDateString('en-GB', { dateStyle: 'long', timeZone: 'UTC' });
	return `“${text}” is read as ${said(order)}; or is it ${said(order === 'day' ? 'month' : 'day')}?`;
}

/** Names of the months, a list for each language and width; made once, for formats take long to make. */
const monthNames = once(() =>
	['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'sv', 'da', 'nb', 'pl'].flatMap((locale) =>
		(['long', 'short'] as const).map((month) => {
			const format = new Intl.DateTimeFormat(locale, { month, timeZone: 'UTC' });
			return Array.from({ length: 12 }, (_, i) => format.format(Date.UTC(2030, i, 1)));
		})
	)
);

/** A way to write dates as a text has one; undefined where its words are not found again. */
export function writtenDate(text: string, iso: string, first: DateOrder = 'day'): ((date: Date) => string) | undefined {
	const [year, month, day] = iso.split('-') as [string, string, string | undefined];
	const pad = (n: number) => String(n).padStart(2, '0');
	const named = monthNames().find((list) => text.toLowerCase().includes(list[Number(month) - 1]!.toLowerCase()));
	const name = named?.[Number(month) - 1];
	const pattern = text.replace(/\d+|\p{L}+\.?/gu, (word) => {
		if (word === year) return '\uE001';
		if (name && word.toLowerCase().startsWith(name.toLowerCase())) return '\uE002';
		if (day !== undefined && word === day) return '\uE003';
		if (day !== undefined && word === String(Number(day))) return '\uE004';
		if (word === month) return '\uE005';
		if (word === String(Number(month))) return '\uE006';
		return word;
	});
	// Day and month that read alike stand in the order that dates are read in, or year, month, day.
	let marks = pattern;
	if (!named && day !== undefined && Number(day) === Number(month)) {
		const isIso = text.trim().startsWith(year);
		const isMonthFirst = first === 'month' && text.includes('/');
		let seen = 0;
		marks = pattern.replace(/[\uE003-\uE006]/g, (mark) => {
			seen++;
			const isDay = (isIso || isMonthFirst ? 2 : 1) === seen;
			const isPadded = mark === '\uE003' || mark === '\uE005';
			return isDay ? (isPadded ? '\uE003' : '\uE004') : isPadded ? '\uE005' : '\uE006';
		});
	}
	if (!marks.includes('\uE001')) return undefined;
	return (date) =>
		marks
			.replace('\uE001', String(date.getUTCFullYear()))
			.replace('\uE002', named?.[date.getUTCMonth()] ?? '')
			.replace('\uE003', pad(date.getUTCDate()))
			.replace('\uE004', String(date.getUTCDate()))
			.replace('\uE005', pad(date.getUTCMonth() + 1))
			.replace('\uE006', String(date.getUTCMonth() + 1));
}
