import { plainDigits } from '../../values/parse.ts';
import { weekAt } from './cells.ts';
import { NOT, type Clues, type Verdict } from './purpose.ts';

/** The day that a cell begins or ends with; undefined where it is no day of a month. */
export function dayIn(text: string): number | undefined {
	const plain = plainDigits(text.trim());
	const [, first] = /^(\d{1,2})(?![\d:]|[.,]\d|\s*[%€£$]|\s*\p{L}{1,2}(?!\p{L})(?<![日일]))/u.exec(plain) ?? [];
	const [, last] = first ? [] : (/(?:^|\s)(\d{1,2})\.?$/.exec(plain) ?? []);
	const day = Number(first ?? last);
	return day >= 1 && day <= 31 ? day : undefined;
}

/** Where the weekdays of a calendar stand: a row whose columns they name, or a column whose rows they name. */
export interface Week {
	readonly isAcross: boolean;
	/** The row, or column, of the names. */
	readonly line: number;
	/** The first of the seven columns, or rows. */
	readonly from: number;
}

/** Weekdays are looked for in the first lines only. */
const MOST_LINES = 4;

export function weekOf({ grid, facts }: Clues): Week | undefined {
	for (let r = 0; grid.columns >= 7 && r < Math.min(MOST_LINES, grid.rows - 1); r++) {
		const from = weekAt(facts[r]!.texts);
		if (from >= 0) return { isAcross: true, line: r, from };
	}
	for (let c = 0; grid.rows >= 7 && c < Math.min(2, grid.columns - 1); c++) {
		const from = weekAt(facts.slice(0, 40).map(({ texts }) => texts[c]!));
		if (from >= 0) return { isAcross: false, line: c, from };
	}
	return undefined;
}

/** Weekdays with day numbers that run on, week after week; weekdays alone are a timetable. */
export function calendar(clues: Clues): Verdict {
	const week = weekOf(clues);
	if (!week) return NOT;
	const { grid, facts } = clues;
	const at = (line: number, day: number) =>
		week.isAcross ? facts[line]!.texts[week.from + day]! : facts[week.from + day]!.texts[line]!;
	const lines = week.isAcross ? grid.rows : grid.columns;
	const days: number[] = [];
	for (let line = week.line + 1; line < lines; line++) {
		const found = Array.from({ length: 7 }, (_, day) => dayIn(at(line, day)));
		// A line below the numbers can hold what happens on the days.
		if (found.filter((day) => day !== undefined).length < 2 && days.length) continue;
		days.push(...found.filter((day) => day !== undefined));
	}
	let goesOn = 0;
	for (let i = 1; i < days.length; i++) {
		const [before, now] = [days[i - 1]!, days[i]!];
		if (now === before + 1 || (now === 1 && before >= 28)) goesOn++;
	}
	if (days.length < 14 || goesOn < 0.9 * (days.length - 1)) return NOT;
	const names = week.isAcross ? 'columns' : 'rows';
	return { sure: 0.95, why: [`seven ${names} are named by weekdays, and ${days.length} day numbers run on`] };
}
