import { InputError } from '../core/errors.ts';
import { behaviour, isBody } from '../core/roles/index.ts';
import { amountText, type Figure, type Measure } from '../core/values/figure.ts';
import { localMeasure } from '../core/values/local.ts';
import { dateDoubtWords } from '../core/values/dates.ts';
import { doubtWords, type DecimalMark } from '../core/values/parse.ts';
import { groupingIn } from '../core/values/written.ts';
import { typedFigures } from '../core/work/figures.ts';
import { workedOut } from '../core/work/working.ts';
import { typedSums } from '../core/work/sums.ts';
import { dateDoubt, dateOrder, inLocale, markDoubt, markOf, markReason } from '../core/work/marks.ts';
import { isCovered } from '../core/work/table.ts';
import { workOf } from '../core/work/convert.ts';
import type { DocumentTable } from '../formats/document.ts';

/** What the cells of a table amount to, and whether its typed sums are right; rows and columns from 0. */
export interface TableFigures {
	readonly index: number;
	readonly numbers: { decimal: DecimalMark; grouping: string | null; why: string; doubt: string | null };
	readonly figures: { r: number; c: number; text: string; amount: string; measure: Measure }[];
	readonly worked: {
		r: number;
		c: number;
		text: string;
		amount: string | null;
		measure: Measure | null;
		without: readonly number[];
		problem: string | null;
	}[];
	readonly sums: {
		r: number;
		c: number;
		covers: readonly number[];
		should: string | null;
		measure: Measure | null;
		says: string;
		right: boolean | null;
		without: readonly number[];
		problem: string | null;
	}[];
}

/** Throws InputError for what is no locale. */
export function checkLocale(locale: string): void {
	try {
		new Intl.Locale(locale);
	} catch {
		throw new InputError('locale', `“${locale}” is no locale, such as en-GB or de-DE.`, locale);
	}
}

/** Why money with a sign of several currencies is no figure where no locale tells which. */
const WHOSE = 'kr is the money of several countries; say which with a locale, such as sv-SE';

/** What the cells of a document's table amount to; money of a sign that several countries have is told apart by a locale. */
export function figuresOf({ index, table, work: own }: DocumentTable, locale?: string): TableFigures {
	const texts = table.cells.map(({ text }) => text);
	const local = (figure: Figure | undefined) => {
		const measure = figure && localMeasure(figure.measure, locale, texts);
		return figure && measure && { ...figure, measure };
	};
	const { work, worked } = workedOut(inLocale(own ?? workOf(table), locale ?? 'en-GB'));
	const mark = markOf(work);
	const typed = typedFigures(work);
	const isWorked = new Set(worked.map(({ r, c }) => `${r} ${c}`));
	const doubt = markDoubt(work);
	const date = dateDoubt(work);
	const doubts = [
		...(doubt === undefined ? [] : [doubtWords(doubt, mark)]),
		...(date === undefined ? [] : [dateDoubtWords(date, dateOrder(work))])
	];
	const cells = work.rows.flatMap(({ role, cells: slots }, r) =>
		slots.flatMap((slot, c) => {
			const holds = isBody(role) || !!behaviour(role).sums;
			const figure = isCovered(slot) || !holds || isWorked.has(`${r} ${c}`) ? undefined : local(typed(c, slot));
			return figure && !isCovered(slot) ? [{ r, c, text: slot.text, figure }] : [];
		})
	);
	return {
		index,
		numbers: {
			decimal: mark,
			grouping: groupingIn(
				cells.map(({ text }) => text),
				mark
			),
			why: markReason(work),
			doubt: doubts.length ? doubts.join(' ') : null
		},
		figures: cells.map(({ r, c, text, figure }) => ({
			r,
			c,
			text,
			amount: amountText(figure),
			measure: figure.measure
		})),
		worked: worked.map(({ r, c, text, figure: said, without, problem }) => {
			const figure = local(said);
			return {
				r,
				c,
				text,
				amount: figure ? amountText(figure) : null,
				measure: figure?.measure ?? null,
				without,
				problem: problem ?? (said && !figure ? WHOSE : null)
			};
		}),
		sums: typedSums(work).map(({ r, c, covers, should: said, isRight, without, problem }) => {
			const slot = work.rows[r]!.cells[c]!;
			const should = local(said);
			const isOpen = !!said && !should;
			return {
				r,
				c,
				covers,
				should: should ? amountText(should) : null,
				measure: should?.measure ?? null,
				says: isCovered(slot) ? '' : slot.text,
				right: isOpen ? null : (isRight ?? null),
				without,
				problem: problem ?? (isOpen ? WHOSE : null)
			};
		})
	};
}
