import type { ListItem, ListMarker } from '../core/table/content.ts';

/** A list of paragraphs that follow each other, with the lists inside it. */
export interface List<T> {
	readonly marker: ListMarker;
	/** Of its first item. */
	readonly start: number;
	readonly items: ListEntry<T>[];
}
interface ListEntry<T> {
	/** Absent where there is nothing but a list deeper in. */
	readonly is?: T;
	readonly inside: List<T>[];
}

/**
 * Paragraphs and whatever stands between them, with those that are items of lists gathered into lists: items of one
 * level, one marker and successive numbers are one list, and deeper ones stand in the item before them.
 */
export function inLists<T>(all: readonly T[], itemOf: (one: T) => ListItem | undefined): (T | List<T>)[] {
	const out: (T | List<T>)[] = [];
	/** The lists that the last item stands in, outermost first. */
	let open: List<T>[] = [];
	for (const one of all) {
		const item = itemOf(one);
		if (!item) {
			open = [];
			out.push(one);
			continue;
		}
		open.length = Math.min(open.length, item.level + 1);
		const last = open[item.level];
		if (last && !continues(last, item)) open.length = item.level;
		while (open.length <= item.level) {
			const isOwn = open.length === item.level;
			const list: List<T> = { marker: item.marker, start: isOwn ? item.number : 1, items: [] };
			const around = open.at(-1);
			if (!around) out.push(list);
			else {
				if (!around.items.length) around.items.push({ inside: [] });
				around.items.at(-1)!.inside.push(list);
			}
			open.push(list);
		}
		open.at(-1)!.items.push({ is: one, inside: [] });
	}
	return out;
}

const continues = <T>(list: List<T>, { marker, number }: ListItem): boolean =>
	list.marker === marker && (marker === 'disc' || number === list.start + list.items.length);

export const isList = <T>(one: T | List<T>): one is List<T> =>
	typeof one === 'object' && one !== null && 'items' in one && 'marker' in one;

const digits = (number: number, from: string): string => {
	// a … z, then aa …: each place counts from 1 (CSS Counter Styles 3 §3.1.4).
	let out = '';
	for (let rest = number; rest > 0; rest = Math.floor((rest - 1) / 26)) out = from[(rest - 1) % 26]! + out;
	return out;
};
const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
const ROMAN = [
	[1000, 'm'],
	[900, 'cm'],
	[500, 'd'],
	[400, 'cd'],
	[100, 'c'],
	[90, 'xc'],
	[50, 'l'],
	[40, 'xl'],
	[10, 'x'],
	[9, 'ix'],
	[5, 'v'],
	[4, 'iv'],
	[1, 'i']
] as const;
function roman(number: number): string {
	if (number < 1 || number > 3_999) return String(number);
	let out = '';
	let rest = number;
	for (const [value, letters] of ROMAN) for (; rest >= value; rest -= value) out += letters;
	return out;
}

/** What stands before an item: a bullet, or its number with a full stop. */
export function markerText({ marker, number }: ListItem): string {
	switch (marker) {
		case 'disc':
			return '•';
		case 'decimal':
			return `${number}.`;
		case 'lower-alpha':
			return `${digits(number, LETTERS)}.`;
		case 'upper-alpha':
			return `${digits(number, LETTERS.toUpperCase())}.`;
		case 'lower-roman':
			return `${roman(number)}.`;
		case 'upper-roman':
			return `${roman(number).toUpperCase()}.`;
	}
}
