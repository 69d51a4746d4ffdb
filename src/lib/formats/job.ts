import type { House } from '../core/house.ts';
import { InputError } from '../core/errors.ts';
import { appearanceOf, type Appearance, type Line, type LookField } from '../core/cascade/look.ts';
import { changedCells } from '../core/cascade/changed.ts';
import { resolve, type Resolved } from '../core/cascade/resolve.ts';
import { aspectOfLeaf } from '../core/properties/index.ts';
import { sameLine } from '../core/properties/line.ts';
import { flatten, type FindBase, type FlatStyle } from '../core/style/inherit.ts';
import { leavesOf } from '../core/style/leaves.ts';
import { ASPECTS, type Aspect, type Style } from '../core/style/types.ts';
import { ONLY_TEXT, OWN_LOOK } from '../core/style/bare.ts';
import type { Table, Touch } from '../core/table/grid.ts';
import type { Emu } from '../core/units.ts';
import type { OpenDocument } from './document.ts';
import { compare, compareKept, type Difference, type Sayable } from './read-back.ts';

/** How a look may travel (formats.md, promise 3). */
export const TRAVELS = ['living', 'living-only', 'direct'] as const;
export type Travel = (typeof TRAVELS)[number];

/** One table to give a style to. `table` has its roles, parts in use, carry and touches; its grid is the document's. */
export interface StyleJob {
	readonly index: number;
	readonly table: Table;
	/** {@link ONLY_TEXT} clears the table; {@link OWN_LOOK} leaves it as it is, with its touches over that. */
	readonly style: Style;
	/** The emphasis inside the text goes, too. */
	readonly dropsEmphasis?: boolean | undefined;
	/** Widths that the columns take; as they are where absent or empty. */
	readonly widths?: readonly Emu[] | undefined;
}

/** Whether a job leaves a table nothing but its text. */
export const isCleared = ({ style }: Pick<StyleJob, 'style'>): boolean => style === ONLY_TEXT;
/** Whether a job leaves a table the look that it came with, under its touches. */
export const keepsOwnLook = ({ style }: Pick<StyleJob, 'style'>): boolean => style === OWN_LOOK;
/** Whether a job gives a table a style that can travel. */
export const givesStyle = (job: Pick<StyleJob, 'style'>): boolean => !isCleared(job) && !keepsOwnLook(job);

const aspectsOf = ({ set }: Touch): Aspect[] => [...leavesOf(set).keys()].flatMap((path) => aspectOfLeaf(path) ?? []);

/**
 * The aspects of a table's look that a job writes on all its cells: those that the table carries, and its lines where
 * one is touched. With the look that it came with, whatever its touches speak of.
 */
export const writtenAspects = (job: Pick<StyleJob, 'style' | 'table'>): ReadonlySet<Aspect> => {
	const touched = job.table.touches.flatMap(aspectsOf);
	return new Set(
		keepsOwnLook(job) ? touched : [...job.table.carry, ...touched.filter((aspect) => aspect === 'linework')]
	);
};

/** Touches are always carried: the aspects that they speak of, by cell. */
export function touchedAspects({ touches, slots, rows, columns }: Table): ReadonlyMap<number, readonly Aspect[]> {
	const touched = new Map<number, Aspect[]>();
	for (const touch of touches) {
		if (touch.r >= rows || touch.c >= columns) continue;
		const cell = slots[touch.r * columns + touch.c]!;
		touched.set(cell, [...(touched.get(cell) ?? []), ...aspectsOf(touch)]);
	}
	return touched;
}

export interface WriteOptions {
	readonly house: House;
	readonly find?: FindBase | undefined;
	readonly as?: Travel;
	readonly readBack?: boolean;
}

/** A job with its table resolved. */
export interface Prepared {
	readonly job: StyleJob;
	readonly resolved: Resolved;
	readonly wanted: Appearance;
	/** The cells that are to look otherwise than they do, where the others keep all that they came with; else undefined. */
	readonly changes: ReadonlySet<number> | undefined;
}

/** Resolves the tables of some jobs. Throws InputError where a table is not there or a style not usable. */
export function prepare(
	document: OpenDocument,
	jobs: readonly StyleJob[],
	{ house, find }: Pick<WriteOptions, 'house' | 'find'>
): Prepared[] {
	const flats = new Map<Style, FlatStyle>();
	return jobs.map((job): Prepared => {
		const original = document.tables[job.index];
		if (!original)
			throw new InputError('table', `There is no table ${job.index + 1}: the document has ${document.tables.length}.`);
		let flat = flats.get(job.style);
		if (!flat) flats.set(job.style, (flat = flatten(job.style, find)));
		const resolved = resolve(job.table, flat, house);
		const isWhole = ASPECTS.every((aspect) => job.table.carry.includes(aspect));
		const wanted = appearanceOf(resolved, isWhole ? undefined : original.appearance);
		const changes = keepsOwnLook(job) ? changedCells(job.table, original.appearance, wanted, EXACTLY) : undefined;
		return { job, resolved, wanted, changes };
	});
}

const EXACTLY = {
	value: (_: LookField, a: unknown, b: unknown) => a === b,
	line: (a: Line | null | undefined, b: Line | null | undefined) => sameLine(a, b)
};

/** All in which a written table, read again, is other than intended: its look, and what was to stay as it was. */
export const differencesOf = (
	before: OpenDocument,
	after: OpenDocument,
	{ job: { index, table, widths }, wanted }: Prepared,
	sayable: Sayable
): Difference[] => [
	...compareKept({ document: before, index }, { document: after, index }, { widths: !!widths?.length }),
	...(after.tables[index] ? compare(table, wanted, after.tables[index].appearance, sayable) : [])
];
