import { InputError } from '../lib/core/errors.ts';
import { behaviour, isBody } from '../lib/core/roles/index.ts';
import { amountText, type Figure, type Measure } from '../lib/core/values/figure.ts';
import { localMeasure } from '../lib/core/values/local.ts';
import { dateDoubtWords } from '../lib/core/values/dates.ts';
import { doubtWords, type DecimalMark } from '../lib/core/values/parse.ts';
import { groupingIn } from '../lib/core/values/written.ts';
import { typedFigures, withoutWords } from '../lib/core/work/figures.ts';
import { workedOut } from '../lib/core/work/working.ts';
import { typedSums } from '../lib/core/work/sums.ts';
import { dateDoubt, dateOrder, inLocale, markDoubt, markOf, markReason } from '../lib/core/work/marks.ts';
import { isCovered } from '../lib/core/work/table.ts';
import { workOf } from '../lib/core/work/convert.ts';
import { plural } from '../lib/core/words.ts';
import type { DocumentTable } from '../lib/formats/document.ts';
import { openDocument } from '../lib/formats/index.ts';
import { onlyFile, readBytes } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

export const USAGE = 'heptarch figures FILE [--locale de-DE] [--json]';

interface TableFigures {
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
function checkLocale(locale: string): void {
	try {
		new Intl.Locale(locale);
	} catch {
		throw new InputError('locale', `“${locale}” is no locale, such as en-GB or de-DE.`, locale);
	}
}

/** Why money with a sign of several currencies is no figure where no locale tells which. */
const WHOSE = 'kr is the money of several countries; say which with --locale, such as sv-SE';

function figuresOf({ index, table, work: own }: DocumentTable, locale?: string): TableFigures {
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

/** Lists what the cells of a document's tables amount to, and checks its typed sums. */
export async function figuresCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const locale = typeof args.values.locale === 'string' ? args.values.locale : undefined;
	if (locale !== undefined) checkLocale(locale);
	const document = await openDocument(await readBytes(file), file);
	const tables = document.tables.map((entry) => figuresOf(entry, locale));
	if (args.values.json) console.log(JSON.stringify({ tables }, null, 2));
	else
		for (const { index, numbers, figures, worked, sums } of tables) {
			const mark = numbers.decimal === '.' ? 'point' : 'comma';
			console.log(`Table ${index + 1}: ${plural(figures.length, 'figure')}, decimal ${mark}: ${numbers.why}.`);
			if (numbers.doubt) console.log(`    ${numbers.doubt}`);
			for (const { r, c, text, without, problem } of worked) {
				const place = `row ${r + 1}, column ${c + 1}`;
				if (problem) console.log(`    ${place}: no figure, ${problem}.`);
				else console.log(`    ${place}: worked out, ${text || 'empty'}.`);
				if (without.length) console.log(`    ${place}: ${withoutWords({ without })}.`);
			}
			for (const { r, c, should, says, right, without, problem } of sums) {
				const place = `row ${r + 1}, column ${c + 1}, “${says}”`;
				if (problem) console.log(`    ${place}: no sum, ${problem}.`);
				else if (!right) console.log(`    ${place}: should be ${should}.`);
				if (without.length) console.log(`    ${place}: ${withoutWords({ without })}.`);
			}
		}
	const isWrong = ({ worked, sums }: TableFigures) =>
		worked.some(({ problem }) => problem !== null) ||
		sums.some(({ right, problem }) => problem !== null || right === false);
	return tables.some(isWrong) ? 1 : 0;
}
