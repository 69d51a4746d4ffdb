import { cellAt, type Table } from '../table/grid.ts';
import { isHeader } from '../roles/index.ts';

/** A table to be paired, and what stands around it. */
export interface Pairable {
	readonly table: Table;
	readonly place: { readonly where: string; readonly heading?: string; readonly caption?: string };
}

/** A text as it counts: spacing and paragraph breaks say nothing. */
export const plainText = (text: string): string =>
	text
		.normalize('NFC')
		.replace(/[\s\u00a0\u200b]+/g, ' ')
		.trim();

/** How often each of some texts stands there. */
export type Bag = ReadonlyMap<string, number>;
export function bagOf(texts: Iterable<string>): Bag {
	const bag = new Map<string, number>();
	for (const text of texts) if (text) bag.set(text, (bag.get(text) ?? 0) + 1);
	return bag;
}
const sizeOf = (bag: Bag): number => {
	let size = 0;
	for (const count of bag.values()) size += count;
	return size;
};
/** How much two bags share, from 0 to 1 (Sørensen–Dice); undefined where both are empty. */
function shared(a: Bag, b: Bag, sizes: number): number | undefined {
	if (sizes === 0) return undefined;
	const [few, many] = a.size <= b.size ? [a, b] : [b, a];
	let both = 0;
	for (const [text, count] of few) both += Math.min(count, many.get(text) ?? 0);
	return (2 * both) / sizes;
}

/** What a table is known by. */
export interface Portrait {
	readonly rows: number;
	readonly columns: number;
	readonly cells: Bag;
	readonly lines: Bag;
	/** What its rows are called. */
	readonly labels: Bag;
	/** What its columns are called. */
	readonly names: Bag;
	readonly caption: Bag;
	readonly heading: Bag;
	readonly where: string;
	/** Equal for twins: tables that say the same, with the same around them. */
	readonly signature: string;
	readonly sizes: Readonly<Record<'cells' | 'lines' | 'labels' | 'names' | 'caption' | 'heading', number>>;
}

const BAGS = ['cells', 'lines', 'labels', 'names', 'caption', 'heading'] as const;
const words = (text = ''): string[] =>
	plainText(text)
		.toLowerCase()
		.split(/[^\p{L}\p{N}]+/u);
const isNumber = (text: string): boolean => /\p{Nd}/u.test(text) && !/\p{L}{2}/u.test(text);

export function portraitOf({ table, place }: Pairable): Portrait {
	const texts = table.cells.map(({ text }) => plainText(text));
	const rows: string[][] = Array.from({ length: table.rows }, () => []);
	table.cells.forEach(({ r }, i) => rows[r]!.push(texts[i]!));
	const labels = rows.map((row, r) =>
		isHeader(table.roles[r]!) ? '' : (row.find((text) => text && !isNumber(text)) ?? '')
	);
	const names = rows.flatMap((row, r) => (isHeader(table.roles[r]!) ? row : []));
	const bags = {
		cells: bagOf(texts),
		lines: bagOf(rows.map((row) => (row.some(Boolean) ? row.join('\u0000') : ''))),
		labels: bagOf(labels),
		names: bagOf(names),
		// A caption counts without its number.
		caption: bagOf(words(place.caption?.replace(/^\s*\p{L}+\s+[\d.]+\s*[:.–-]?/u, ''))),
		heading: bagOf(words(place.heading))
	};
	const sizes = Object.fromEntries(BAGS.map((bag) => [bag, sizeOf(bags[bag])])) as Portrait['sizes'];
	const signature = JSON.stringify([[...bags.lines].sort(), [...bags.caption], [...bags.heading], place.where]);
	return { rows: table.rows, columns: table.columns, where: place.where, signature, ...bags, sizes };
}

/** How far two tables are one, from 0 to 1, and by what. */
export interface Likeness {
	readonly sure: number;
	readonly why: readonly string[];
}

const closeness = (a: number, b: number): number => 1 - Math.abs(a - b) / Math.max(a, b, 1);

/**
 * How surely two tables are the same one in two versions of a document. What they say decides; where all of it is new, what
 * their columns and rows are called and their shape do; what stands around them tells twins apart.
 */
export function likenessOf(a: Portrait, b: Portrait): Likeness {
	const of = (bag: (typeof BAGS)[number]) => shared(a[bag], b[bag], a.sizes[bag] + b.sizes[bag]);
	const cells = of('cells');
	const lines = of('lines');
	const shape = closeness(a.rows, b.rows) * closeness(a.columns, b.columns);
	const content = cells === undefined ? shape : 0.6 * cells + 0.4 * (lines ?? cells);
	const names = of('names');
	const labels = of('labels');
	const known: [number, number | undefined][] = [
		[0.4, labels],
		[0.4, names],
		[0.2, shape]
	];
	const weight = known.reduce((sum, [share, value]) => sum + (value === undefined ? 0 : share), 0);
	// Shape alone says little of a table without names and labels.
	const frame =
		(known.reduce((sum, [share, value]) => sum + share * (value ?? 0), 0) / weight) * (weight < 0.4 ? 0.4 : 1);
	const caption = of('caption');
	const heading = of('heading');
	const around = [caption, heading, a.where === b.where ? 1 : 0].filter((value) => value !== undefined);
	const surroundings = around.reduce((sum, value) => sum + value, 0) / around.length;
	const said = Math.max(content, 0.15 * content + 0.8 * frame);
	const why = [
		content === 1 ? 'they say the same' : content >= 0.3 && `${percent(cells ?? 1)} of their cells say the same`,
		names !== undefined && names >= 0.6 && 'their columns are called alike',
		labels !== undefined && labels >= 0.6 && 'their rows are called alike',
		caption !== undefined && caption >= 0.8 && 'they have the same caption',
		heading !== undefined && heading >= 0.8 && 'they stand under the same heading',
		shape === 1 && 'they are of one size'
	].filter((reason) => reason !== false);
	return { sure: 0.92 * said + 0.08 * surroundings, why };
}
const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** The text of a slot as it counts; of a merged cell in its first slot only. */
export function slotText(table: Table, r: number, c: number): string {
	const cell = cellAt(table, r, c);
	return cell.r === r && cell.c === c ? plainText(cell.text) : '';
}
