import { once } from '../../once.ts';
import type { Clues } from './purpose.ts';

/** A box to tick, as text has it; ticks alone are marks in a table like others. */
const BOX = /[☐☑☒□◻▢❏❑⬜]|\[[ xX_\u00A0]?\]|\([ \u00A0]{1,3}\)/u;
/** A line to write on; one that leads to a number is that of a table of contents. */
const LEADER = /(?:_{3,}|\.{5,}|…{2,}|‥{3,}|-{6,})(?!\s*\p{Nd}+\s*$)/u;
const MOST_LABEL = 80;

/** What a cell is for whoever fills a table in. */
export interface FilledCell {
	readonly index: number;
	readonly r: number;
	readonly c: number;
	readonly cols: number;
	readonly rows: number;
	readonly text: string;
	readonly isEmpty: boolean;
	readonly hasBox: boolean;
	/** A line, or a field, to write on. */
	readonly hasLine: boolean;
	/** Short, and no figure. */
	readonly isLabel: boolean;
	/** It ends with a colon, or a question mark. */
	readonly asks: boolean;
	/** What somebody has to write on cannot be a figure. */
	readonly isFigure: boolean;
}

/** The cells of a table by rows, seen as those of a form. */
export function filledCells({ grid, facts, things }: Clues): FilledCell[][] {
	const rows: FilledCell[][] = Array.from({ length: grid.rows }, () => []);
	grid.cells.forEach(({ r, c, rows: height, cols, text }, index) => {
		const said = text.trim();
		const { boxes = 0, fields = 0 } = things(index);
		const beside = facts[r]!.amounts[c + cols];
		const hasBox = boxes > 0 || BOX.test(said);
		const hasLine = fields > 0 || (LEADER.test(said) && !beside);
		const bare = said.replace(LEADER, '').trim();
		const isFigure = facts[r]!.amounts[c] !== undefined;
		rows[r]!.push({
			index,
			r,
			c,
			cols,
			rows: height,
			text: bare,
			isEmpty: !said && !hasBox && !hasLine,
			hasBox,
			hasLine,
			isLabel: !!bare && !isFigure && bare.length <= MOST_LABEL,
			asks: /[:：?？]\s*$/u.test(bare),
			isFigure
		});
	});
	return rows;
}

/** A line of a text that stands for a paragraph of some length. */
const LONG = 120;
export const isProse = (text: string): boolean =>
	text.length >= LONG || (text.length >= 60 && text.split(/\n/).filter((line) => line.trim()).length >= 3);

const LANGUAGES =
	'en de fr es it nl pt sv da nb pl cs hu ro fi tr ru uk el he ar zh ja ko hr sk sl bg sr lt lv et fa hi vi id th'.split(
		' '
	);
/** Sunday 4 January 2032, and the days after it. */
const SUNDAY = Date.UTC(2032, 0, 4);
const DAY = 86_400_000;
export const bareName = (text: string): string =>
	text
		.trim()
		.toLocaleLowerCase()
		.replace(/[.\s\u200e\u200f]+$/u, '');

const namesOf = (options: Intl.DateTimeFormatOptions, count: number, at: (i: number) => number): string[][] =>
	LANGUAGES.map((language) => {
		const format = new Intl.DateTimeFormat(language, { ...options, timeZone: 'UTC' });
		return Array.from({ length: count }, (_, i) => bareName(format.format(at(i))));
	});

/** The names of the seven weekdays, from Sunday: long, short and by one letter, in each language (CLDR). */
export const weekdayNames = once(() => {
	const [long, short, narrow] = (['long', 'short', 'narrow'] as const).map((weekday) =>
		namesOf({ weekday }, 7, (i) => SUNDAY + i * DAY)
	);
	// Calendars also have the first two or three letters, which CLDR does not have for every language.
	const begun = [2, 3].flatMap((letters) => long!.map((week) => week.map((name) => name.slice(0, letters))));
	return [...long!, ...short!, ...narrow!, ...begun.filter((week) => new Set(week).size === 7)];
});
const fullNames = once(
	() =>
		new Set(
			weekdayNames()
				.slice(0, 2 * LANGUAGES.length)
				.flat()
		)
);
/** Whether a text is the name of a weekday by itself, or begins with one that a number follows. */
export const isWeekday = (text: string): boolean => {
	const name = bareName(text);
	return fullNames().has(name) || fullNames().has(name.replace(/[\s.,]*\p{Nd}.*$/u, ''));
};
const months = once(
	() =>
		new Set(
			(['long', 'short'] as const)
				.flatMap((month) => namesOf({ month }, 12, (i) => Date.UTC(2032, i, 15)))
				.flat()
				.filter((name) => name.length > 1)
		)
);
/** Whether a text is a month, with its year or without. */
export const isMonth = (text: string): boolean =>
	months().has(bareName(text)) || months().has(bareName(text).replace(/[\s./-]*\d{2,4}$/, ''));

/** Where seven texts that follow each other are the weekdays of one language in their order, whichever comes first; −1 nowhere. */
export function weekAt(texts: readonly string[]): number {
	const names = texts.map(bareName);
	for (let at = 0; at + 7 <= names.length; at++) {
		const seven = names.slice(at, at + 7);
		if (seven.some((name) => !name)) continue;
		for (const week of weekdayNames())
			for (let first = 0; first < 7; first++) if (seven.every((name, i) => name === week[(first + i) % 7])) return at;
	}
	return -1;
}
