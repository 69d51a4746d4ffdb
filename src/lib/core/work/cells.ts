import { InputError } from '../errors.ts';
import { readFigure, type Figure } from '../values/figure.ts';
import { parseDate, writtenDate, type DateOrder } from '../values/dates.ts';
import type { DecimalMark } from '../values/parse.ts';
import { Rational } from '../values/rational.ts';
import { decimalsIn, writtenFigure } from '../values/written.ts';
import type { CellContent, RunView } from '../table/content.ts';
import { insertColumns, insertRows } from './lines.ts';
import { guard } from './locks.ts';
import { dateOrder } from './marks.ts';
import { cellsIn, type Range } from './selection.ts';
import {
	anchorOf,
	asTyped,
	cellOf,
	checkSize,
	isCovered,
	tidy,
	withCells,
	withContent,
	withText,
	type Position,
	type WorkCell,
	type WorkColumn,
	type WorkTable
} from './table.ts';
import { joinCells, partAll } from './join.ts';

/** Whether a cell is worked out by its column, so that nothing can be typed into it. */
const isWorkedOut = ({ rows, columns }: WorkTable, { r, c }: Position): boolean =>
	rows[r]!.role === 'body' && !!(columns[c]!.formula || columns[c]!.across);

/** Columns, from 0, that work some cells out. */
export const workedColumns = (work: WorkTable, places: readonly Position[]): number[] => [
	...new Set(places.filter((place) => isWorkedOut(work, place)).map(({ c }) => c))
];
/** A table in which the columns that work some cells out are typed; what they show stays. */
function typedFromNow(work: WorkTable, places: readonly Position[]): WorkTable {
	const columns = new Set(workedColumns(work, places));
	const typedColumn = ({ formula: _, across: _a, ...column }: WorkColumn): WorkColumn => column;
	return columns.size
		? { ...work, columns: work.columns.map((one, c) => (columns.has(c) ? typedColumn(one) : one)) }
		: work;
}

/** Throws InputError where one of some cells is worked out by its column. */
function guardTyped(work: WorkTable, places: readonly Position[]): void {
	const place = places.find((one) => isWorkedOut(work, one));
	if (place)
		throw new InputError(
			'worked-out',
			`Column ${place.c + 1} is worked out, so nothing can be typed there. Take its formula off first; what it shows stays.`,
			`row ${place.r + 1}, column ${place.c + 1}`
		);
}

/** Types into a cell. Throws InputError where it is locked, or worked out by its column. */
export function typed(work: WorkTable, r: number, c: number, said: string | readonly CellContent[]): WorkTable {
	const { r: y, c: x } = anchorOf(work, r, c);
	const before = cellOf(work, y, x);
	const next = typeof said === 'string' ? withText(before, said) : withContent(before, said);
	const isSame = next.text === before.text && !next.content && !before.content && asTyped(before) === before;
	if (next === before || isSame) return work;
	guard(work, [{ r: y, c: x }], 'content');
	guardTyped(work, [{ r: y, c: x }]);
	return withCells(work, [{ r: y, c: x }], () => next);
}

/** Empties cells: their words and pictures go, their looks stay. */
export function emptied(work: WorkTable, places: readonly Position[]): WorkTable {
	const filled = places.filter(({ r, c }) => {
		const cell = cellOf(work, r, c);
		return cell.text || cell.picture || cell.content;
	});
	guard(work, filled, 'content');
	return withCells(work, filled, (cell) => {
		const { content: _, picture: _p, ...rest } = asTyped(cell);
		return { ...rest, text: '' };
	});
}

/* ---- filling ---- */

/** What comes after some texts, as a series goes on. */
type Series = (n: number) => string;

const LABELLED = /^(.*?)(\d+)(\D*)$/s;

/** The rule that a few texts follow: numbers and dates in equal steps, numbered labels; undefined for anything else. */
export function seriesOf(texts: readonly string[], mark: DecimalMark, order?: DateOrder): Series | undefined {
	if (!texts.length || texts.some((text) => !text.trim())) return undefined;
	const figures = texts.map((text) => readFigure(text, mark));
	if (figures.every((one): one is Figure => !!one && one.measure.kind !== 'date')) {
		if (/^0\d/.test(texts[0]!.trim())) return labelled(texts);
		const go = figureSeries(texts, figures, mark);
		if (go) return go;
		if (figures.length > 1 || figures.every(({ measure }) => measure.kind === 'plain')) return undefined;
	}
	const dates = texts.map((text) => parseDate(text, order));
	if (dates.every((one): one is string => one !== undefined)) return dateSeries(texts, dates, order);
	return labelled(texts);
}

/** Amounts go on by their difference, with unit, currency and decimals as the last one has them. */
function figureSeries(texts: readonly string[], figures: readonly Figure[], mark: DecimalMark): Series | undefined {
	const { measure } = figures[0]!;
	if (figures.some((one) => JSON.stringify(one.measure) !== JSON.stringify(measure))) return undefined;
	// One alone goes on by one: of what it shows, a percentage by one hundredth.
	const unit = measure.kind === 'percent' ? Rational.of(1n, 100n) : Rational.ONE;
	const step = figures.length > 1 ? figures[1]!.amount.minus(figures[0]!.amount) : unit;
	const isEven = figures.every(({ amount }, i) => amount.equals(figures[0]!.amount.plus(step.times(Rational.of(i)))));
	if (!isEven) return undefined;
	const decimals = Math.max(...texts.map((text) => decimalsIn(text, mark)));
	const last = figures.at(-1)!.amount;
	return (n) =>
		writtenFigure(
			{ amount: last.plus(step.times(Rational.of(n + 1))), measure },
			{ mark, decimals, samples: [texts.at(-1)!, ...texts] }
		);
}

function labelled(texts: readonly string[]): Series | undefined {
	const parts = texts.map((text) => LABELLED.exec(text));
	if (!parts.every((one): one is RegExpExecArray => !!one)) return undefined;
	const [first] = parts;
	if (parts.some((one) => one[1] !== first![1] || one[3] !== first![3])) return undefined;
	const numbers = parts.map((one) => Number(one[2]));
	const step = numbers.length > 1 ? numbers[1]! - numbers[0]! : 1;
	if (!Number.isSafeInteger(numbers.at(-1)) || numbers.some((one, i) => one !== numbers[0]! + step * i))
		return undefined;
	const width = first![2]!.startsWith('0') ? first![2]!.length : 0;
	return (n) => {
		const value = numbers.at(-1)! + step * (n + 1);
		return `${first![1]}${value < 0 ? '−' : ''}${String(Math.abs(value)).padStart(width, '0')}${first![3]}`;
	};
}

const DAY = 86_400_000;
/** Dates go on by their step: days, or months where the day of the month stays; written as the last one is. */
function dateSeries(texts: readonly string[], dates: readonly string[], order?: DateOrder): Series | undefined {
	const isMonth = dates.every((date) => date.length === 7);
	if (!isMonth && dates.some((date) => date.length === 7)) return undefined;
	const parts = dates.map((date) => date.split('-').map(Number) as [number, number, number]);
	const months = parts.map(([year, month]) => year * 12 + month - 1);
	const sameDay = isMonth || parts.every(([, , day]) => day === parts[0]![2]);
	const byMonth = isMonth || (sameDay && dates.length > 1 && months[1] !== months[0]);
	const counts = byMonth ? months : parts.map(([year, month, day]) => Date.UTC(year, month - 1, day) / DAY);
	const step = counts.length > 1 ? counts[1]! - counts[0]! : 1;
	if (counts.some((one, i) => one !== counts[0]! + step * i)) return undefined;
	const written = writtenDate(texts.at(-1)!, dates.at(-1)!, order);
	if (!written) return undefined;
	return (n) => {
		const count = counts.at(-1)! + step * (n + 1);
		if (!byMonth) return written(new Date(count * DAY));
		const year = Math.floor(count / 12);
		const days = new Date(Date.UTC(year, (count % 12) + 1, 0)).getUTCDate();
		return written(new Date(Date.UTC(year, count % 12, Math.min(parts.at(-1)![2] ?? 1, days))));
	};
}

/**
 * Fills a range from its first rows (`down`) or first columns (`across`): as many as begin a series go on as one where
 * `asSeries`, else what is there is copied again and again. `given` is how many of them are given. Columns that are worked out
 * are typed from then on where it goes `over` them; else throws InputError, as for a cell that is locked.
 */
export function filled(
	work: WorkTable,
	range: Range,
	direction: 'down' | 'across',
	given: number,
	asSeries: boolean,
	{ over = false } = {}
): WorkTable {
	const isDown = direction === 'down';
	const [from, to] = isDown ? [range.top, range.bottom] : [range.start, range.end];
	if (given < 1 || from + given > to) return work;
	const changes = new Map<string, string>();
	const targets: Position[] = [];
	for (let line = isDown ? range.start : range.top; line <= (isDown ? range.end : range.bottom); line++) {
		const at = (i: number): Position => (isDown ? { r: i, c: line } : { r: line, c: i });
		const isOpen = ({ r, c }: Position) => !isCovered(work.rows[r]!.cells[c]!);
		const texts = Array.from({ length: given }, (_, i) => at(from + i)).map(({ r, c }) => {
			const slot = work.rows[r]!.cells[c]!;
			return isCovered(slot) ? '' : slot.text;
		});
		const series = asSeries ? seriesOf(texts, work.mark, dateOrder(work)) : undefined;
		let n = 0;
		for (let i = from + given; i <= to; i++) {
			const place = at(i);
			if (!isOpen(place)) continue;
			targets.push(place);
			changes.set(`${place.r},${place.c}`, series ? series(n) : texts[n % given]!);
			n++;
		}
	}
	guard(work, targets, 'content');
	const open = over ? typedFromNow(work, targets) : work;
	guardTyped(open, targets);
	return withCells(open, targets, (cell, r, c) => withText(cell, changes.get(`${r},${c}`)!));
}

/* ---- find and replace ---- */

export interface Search {
	readonly text: string;
	readonly isCaseKept?: boolean;
	readonly isWhole?: boolean;
}

const searchPattern = ({ text, isCaseKept, isWhole }: Search): RegExp => {
	const escaped = text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
	return new RegExp(isWhole ? `^${escaped}$` : escaped, isCaseKept ? 'gu' : 'giu');
};

/** The cells of a range in which a text stands, in reading order. */
export function found(work: WorkTable, range: Range, search: Search): Position[] {
	if (!search.text) return [];
	const pattern = searchPattern(search);
	return cellsIn(work, [range]).filter(({ r, c }) => {
		pattern.lastIndex = 0;
		return pattern.test((work.rows[r]!.cells[c] as WorkCell).text);
	});
}

/** Puts another text in the place of one that is found; emphasis around it stays. Cells that are worked out stay. */
export function replaced(work: WorkTable, places: readonly Position[], search: Search, by: string): WorkTable {
	const pattern = searchPattern(search);
	const put = (text: string) => text.replace(pattern, () => by);
	const open = places.filter(({ r, c }) => {
		const cell = cellOf(work, r, c);
		return asTyped(cell) === cell;
	});
	guard(work, open, 'content');
	return withCells(work, open, (cell) => {
		if (!cell.content) return withText(cell, put(cell.text));
		const content = cell.content.map((piece) =>
			'runs' in piece ? { ...piece, runs: replacedIn(piece.runs, pattern, by) } : piece
		);
		return withContent(cell, content);
	});
}

/** Runs of text in which a pattern is replaced whatever the emphasis; what comes instead looks as the first letter did. */
function replacedIn(runs: readonly RunView[], pattern: RegExp, by: string): RunView[] {
	const text = runs.map((run) => run.text).join('');
	const out: { run: RunView; text: string }[] = [];
	const add = (run: RunView, more: string) => {
		if (!more) return;
		const last = out.at(-1);
		if (last?.run === run) last.text += more;
		else out.push({ run, text: more });
	};
	/** The runs between two places in the text, as they are. */
	const keep = (from: number, to: number) => {
		let start = 0;
		for (const run of runs) {
			add(run, run.text.slice(Math.max(0, from - start), Math.max(0, to - start)));
			start += run.text.length;
		}
	};
	const runAt = (at: number) => {
		let start = 0;
		return runs.find((run) => at < (start += run.text.length)) ?? runs[0]!;
	};
	let at = 0;
	for (const match of text.matchAll(pattern)) {
		keep(at, match.index);
		add(runAt(match.index), by);
		at = match.index + match[0].length;
	}
	keep(at, text.length);
	return out.map(({ run, text: own }) => ({ ...run, text: own }));
}

/* ---- pasting ---- */

/** Cells that come from elsewhere: a grid of contents and the spans among them. */
export interface Clip {
	/** By slot; null where a span covers it. */
	readonly cells: readonly (readonly (WorkCell | null)[])[];
}

/**
 * Puts cells in at a place; where they reach over the end, rows and columns are added. Joined cells that they land on
 * are split first, spans among them are joined. Columns that are worked out stay so, and `kept` has those, from 0, for which
 * something was pasted; where it goes `over` them, they are typed from then on. Throws InputError where a cell is locked.
 */
export function pasted(
	work: WorkTable,
	r: number,
	c: number,
	{ cells }: Clip,
	{ over = false } = {}
): { work: WorkTable; range: Range; kept: number[] } {
	const height = cells.length;
	const width = Math.max(0, ...cells.map((row) => row.length));
	if (!height || !width) throw new InputError('paste', 'There is nothing to paste: the clipboard holds no cells.');
	checkSize(Math.max(work.rows.length, r + height), Math.max(work.columns.length, c + width));
	let next = work;
	const range: Range = { top: r, bottom: r + height - 1, start: c, end: c + width - 1 };
	if (range.bottom >= next.rows.length) {
		const missing = range.bottom - next.rows.length + 1;
		const last = next.rows.length - 1;
		const body = next.rows.findLastIndex(({ role }) => role === 'body');
		next = insertRows(next, next.rows.length, missing, r <= last && body >= 0 ? body : last);
	}
	if (range.end >= next.columns.length)
		next = insertColumns(next, next.columns.length, range.end - next.columns.length + 1);
	next = partAll(next, [range]);
	const given = cellsIn(next, [range]).filter((place) => cells[place.r - r]?.[place.c - c] !== undefined);
	if (over) next = typedFromNow(next, given);
	const kept = workedColumns(next, given);
	const places = given.filter((place) => !isWorkedOut(next, place));
	guard(next, places, 'content');
	next = withCells(next, places, (cell, y, x) => {
		const given = cells[y - r]![x - c];
		const { content: _, picture: _p, ...rest } = asTyped(cell);
		if (!given) return { ...rest, text: '' };
		return tidy({
			...rest,
			text: given.text,
			content: given.content,
			picture: given.picture,
			touch: given.touch ?? rest.touch
		});
	});
	cells.forEach((row, y) =>
		row.forEach((cell, x) => {
			const [rows, cols] = [cell?.rows ?? 1, cell?.cols ?? 1];
			if (rows * cols === 1) return;
			const span = { top: r + y, bottom: r + y + rows - 1, start: c + x, end: c + x + cols - 1 };
			next = joinCells(next, span, 'one');
		})
	);
	return { work: next, range, kept };
}

/** The cells of a range, to be pasted elsewhere. */
export function clipOf(work: WorkTable, { top, bottom, start, end }: Range): Clip {
	return {
		cells: work.rows.slice(top, bottom + 1).map(({ cells }) =>
			cells.slice(start, end + 1).map((slot) => {
				if (isCovered(slot)) return null;
				const { lines: _, lock: _l, from: _f, ...cell } = asTyped(slot);
				return cell;
			})
		)
	};
}

/** The text of a range as rows of texts; covered slots are empty. */
export const textsOf = (clip: Clip): string[][] => clip.cells.map((row) => row.map((cell) => cell?.text ?? ''));
