import { dateOrderOf, usualOrder, type DateOrder } from '../values/dates.ts';
import { joinedVotes, markBy, markVotes, usualMark, type DecimalMark, type MarkVotes } from '../values/parse.ts';
import { isCovered, type WorkColumn, type WorkRow, type WorkTable } from './table.ts';

/** Rows and columns that an edit leaves alone are the same objects. */
const known = new WeakMap<readonly WorkColumn[], WeakMap<WorkRow, MarkVotes>>();

/** What the typed cells of a table say of its decimal mark; cells that are worked out only repeat it. */
function votesOf({ rows, columns }: WorkTable): MarkVotes {
	let byRow = known.get(columns);
	if (!byRow) known.set(columns, (byRow = new WeakMap()));
	let sum = markVotes([]);
	for (const row of rows) {
		let votes = byRow.get(row);
		if (!votes) {
			const typed = row.cells.flatMap((slot, c) => {
				const isWorkedOut = row.role === 'body' && (columns[c]!.formula || columns[c]!.across);
				return isCovered(slot) || slot.total || isWorkedOut || slot.text.length > 60 ? [] : [slot.text];
			});
			byRow.set(row, (votes = markVotes(typed)));
		}
		sum = joinedVotes(sum, votes);
	}
	return sum;
}

/** The decimal mark that a table is read and written with: the one that was said, else the one that is typed. */
export const markOf = (work: WorkTable): DecimalMark =>
	work.isMarkSaid ? work.mark : markBy(votesOf(work), work.mark).mark;

const WHY = {
	form: 'most of the figures can be read in one way only',
	currency: 'three digits after the mark are no decimals of a currency',
	unit: 'figures with a unit have decimals',
	usual: 'nothing in the table tells, so it is the usual one'
} as const;
/** Why a table has its decimal mark, in words. */
export const markReason = (work: WorkTable): string =>
	work.isMarkSaid ? 'somebody said so' : WHY[markBy(votesOf(work), work.mark).by];

/** A figure that could be read two ways where nothing but the usual mark decides; undefined where there is no doubt. */
export const markDoubt = (work: WorkTable): string | undefined =>
	work.isMarkSaid ? undefined : markBy(votesOf(work), work.mark).doubt;

const datesIn = new WeakMap<WorkRow, readonly string[]>();
function datesOf({ rows, dates }: WorkTable) {
	const texts = rows.flatMap((row) => {
		let found = datesIn.get(row);
		if (!found) {
			found = row.cells.flatMap((slot) => (!isCovered(slot) && slot.text.includes('/') ? [slot.text] : []));
			datesIn.set(row, found);
		}
		return found;
	});
	return dateOrderOf(texts, dates);
}

/** Which of day and month comes first in a table's dates: what they tell, else what is usual in the house. */
export const dateOrder = (work: WorkTable): DateOrder => datesOf(work).order;

/** A date that could be read two ways where nothing but the house's locale decides; undefined where there is no doubt. */
export const dateDoubt = (work: WorkTable): string | undefined => datesOf(work).doubt;

/** A table as a locale reads it, where its own figures and dates do not tell. Throws RangeError for what is no locale. */
export function inLocale(work: WorkTable, locale: string): WorkTable {
	const order = usualOrder(locale);
	if (work.isMarkSaid) return order === 'day' ? work : { ...work, dates: order };
	const { mark } = markBy(votesOf(work), usualMark(locale));
	return mark === work.mark && order === 'day' ? work : { ...work, mark, ...(order !== 'day' && { dates: order }) };
}

/** A table whose decimal mark somebody says. */
export const withMark = (work: WorkTable, mark: DecimalMark): WorkTable => ({ ...work, mark, isMarkSaid: true });
