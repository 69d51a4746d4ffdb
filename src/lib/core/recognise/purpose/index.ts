import { isHeader, type RowRole } from '../../roles/index.ts';
import { once } from '../../once.ts';
import type { Guess } from '../columns.ts';
import { role } from '../facts.ts';
import type { Judged } from '../recognition.ts';
import { calendar, weekOf } from './calendar.ts';
import { form } from './form.ts';
import { frame, layout } from './layout.ts';
import { list } from './list.ts';
import { matrix } from './matrix.ts';
import type { Purpose } from './kinds.ts';
import type { Clues, Verdict } from './purpose.ts';

export type { Clues } from './purpose.ts';

/** What is asked in turn; the first that is more likely than not is it. */
const ASKED: readonly (readonly [Purpose, (clues: Clues) => Verdict])[] = [
	['layout', frame],
	['calendar', calendar],
	['form', form],
	['layout', layout],
	['list', list],
	['matrix', matrix]
];

/** What kind of table it is (data, list, matrix, calendar, form, layout), how surely and why. */
export function purposeOf(clues: Clues): Guess<Purpose> {
	let nearest = 0;
	for (const [is, judge] of ASKED) {
		const { sure, why } = judge(clues);
		if (sure >= 0.5) return { is, confidence: Number(sure.toFixed(2)), reasons: why };
		nearest = Math.max(nearest, sure);
	}
	const { rows, columns } = clues.asData;
	const reasons = [
		...(rows.some(({ is }) => isHeader(is)) ? [`a header names its ${columns.length} columns`] : []),
		...(rows.some((_, r) => clues.isCalledSum(r)) ? ['rows are called sums'] : [])
	];
	return {
		is: 'data',
		confidence: Number(Math.min(0.95, 0.95 - nearest / 2).toFixed(2)),
		reasons: reasons.length ? reasons : ['nothing speaks for anything else']
	};
}

/** Parts of a style that a table of a purpose does without, until somebody puts them in use. */
export const partsOffFor = (purpose: Purpose): readonly string[] =>
	purpose === 'form' || purpose === 'layout' || purpose === 'matrix' ? ['rowBand', 'columnBand'] : [];

const edge = (is: number, reason: string): Guess<number> => ({ is, confidence: 0.8, reasons: [reason] });

/** What rows and columns of a table are, once it is known what it is for. The same object where that changes nothing. */
export function forPurpose(asData: Judged, purpose: Purpose, clues: Clues): Judged {
	const body = once(() => role('body', 0.9, `a row of a ${purpose}`));
	const keep = (isKept: (is: RowRole, r: number) => boolean) =>
		asData.rows.map((guess, r) => (isKept(guess.is, r) ? guess : body()));
	const asText = asData.columns.map((column) =>
		column.is === 'text' ? column : { ...column, is: 'text' as const, reasons: [`a column of a ${purpose}`] }
	);
	switch (purpose) {
		case 'form':
		case 'layout': {
			const none = edge(0, `a ${purpose} has none`);
			const rows = keep((is) => is === 'title' || is === 'note');
			return {
				rows,
				columns: asText.map((column) => ({ ...column, name: '' })),
				firstColumns: none,
				lastColumns: none
			};
		}
		case 'list': {
			// Numbers before the items are no figures.
			const columns = asData.columns.map((column, c) =>
				column.is === 'code' ? column : column.is === 'count' ? { ...asText[c]!, is: 'code' as const } : asText[c]!
			);
			return { ...asData, rows: keep((is) => is === 'title' || is === 'note' || isHeader(is)), columns };
		}
		case 'matrix': {
			const isSum = (is: RowRole) => is.startsWith('subtotal') || is === 'total';
			return {
				...asData,
				rows: keep((is, r) => !isSum(is) || clues.isCalledSum(r)),
				firstColumns: edge(Math.max(1, asData.firstColumns.is), 'its first column is the other axis')
			};
		}
		case 'calendar': {
			const week = weekOf(clues);
			if (!week) return asData;
			const header = (r: number) =>
				role('header:1', 0.95, r === week.line ? 'it names the weekdays' : 'it stands over them');
			const rows = asData.rows.map((guess, r) => {
				if (!week.isAcross) return isHeader(guess.is) || guess.is === 'title' ? guess : body();
				if (r > week.line) return guess.is === 'note' ? guess : body();
				return r < week.line && guess.is === 'title' ? guess : header(r);
			});
			const names = asText.map((column, c) => ({
				...column,
				name: week.isAcross ? clues.facts[week.line]!.texts[c]!.trim() : column.name
			}));
			const first = week.isAcross ? Math.min(1, week.from) : week.line + 1;
			return {
				rows,
				columns: names,
				firstColumns: edge(first, first ? 'it names weeks or weekdays' : 'its first column is a weekday'),
				lastColumns: edge(0, 'its last column is a weekday like the others')
			};
		}
		case 'data':
			return asData;
	}
}
