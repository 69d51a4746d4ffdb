import { InputError } from '../core/errors.ts';
import { appearanceOf, type Appearance, type Line, type Look, type LookField } from '../core/cascade/look.ts';
import { changedCells } from '../core/cascade/changed.ts';
import { resolve, type House, type Resolved } from '../core/cascade/resolve.ts';
import { flatten, type FindBase, type FlatStyle } from '../core/style/inherit.ts';
import { aspectOfLeaf, FIELDS, fieldDefinition } from '../core/properties/index.ts';
import { lineWords, sameLine } from '../core/properties/line.ts';
import { sameShown, shadowWords, type Shadow } from '../core/properties/shadow.ts';
import { leavesOf } from '../core/style/leaves.ts';
import { ASPECTS, type Aspect, type Style } from '../core/style/types.ts';
import { ONLY_TEXT, OWN_LOOK } from '../core/style/bare.ts';
import type { Table, Touch } from '../core/table/grid.ts';
import type { Emu } from '../core/units.ts';
import type { OpenDocument } from './document.ts';

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

export interface Difference {
	readonly r: number;
	readonly c: number;
	readonly leaf: SeenLeaf;
	readonly what: string;
	readonly wanted: string;
	readonly got: string;
}

/** A leaf as it is seen on a written table: a field of its cells, the lines of its edges, a number format, its shadow. */
export type SeenLeaf = LookField | 'lines' | 'formats' | 'tableShadow';

/** What people call them. */
export const LEAF_WORDS: Readonly<Record<SeenLeaf, string>> = {
	...(Object.fromEntries(FIELDS.map(({ name, words }) => [name, words])) as Record<LookField, string>),
	lines: 'lines',
	formats: 'number formats',
	tableShadow: 'table shadow'
};

/** What became of one leaf of a table, in settings: fields of cells and sides of cells. */
export interface LeafAccount {
	readonly leaf: SeenLeaf;
	/** Said by the living style. */
	readonly living: number;
	/** Carried as direct formatting. */
	readonly direct: number;
	/** Not sayable in the format. */
	readonly lost: number;
	/** Read back otherwise than intended. */
	readonly differs: number;
}

/** What became of one table; sums of its leaves. */
export interface TableAccount {
	readonly index: number;
	readonly style: string;
	readonly living: number;
	readonly direct: number;
	readonly lost: number;
	/** What the format cannot say, in words, with the number of cells. */
	readonly lostWhat: Readonly<Record<string, number>>;
	readonly leaves: readonly LeafAccount[];
	/** What the written file, read again, shows differently from what was intended. */
	readonly differences: readonly Difference[];
}

type Way = 'living' | 'direct' | 'lost';

/** Counts what becomes of a table's settings while it is written. */
export class Tally {
	private readonly counts = new Map<SeenLeaf, Record<Way, number>>();
	private readonly reasons = new Map<string, number>();

	add(leaf: SeenLeaf, way: Exclude<Way, 'lost'>, count: number): void {
		this.bump(leaf, way, count);
	}
	/** `what` says it in words. */
	lose(leaf: SeenLeaf, what: string, count: number): void {
		this.bump(leaf, 'lost', count);
		if (count) this.reasons.set(what, (this.reasons.get(what) ?? 0) + count);
	}
	private bump(leaf: SeenLeaf, way: Way, count: number): void {
		if (count === 0) return;
		let own = this.counts.get(leaf);
		if (!own) this.counts.set(leaf, (own = { living: 0, direct: 0, lost: 0 }));
		own[way] += count;
	}

	/** The account of a job whose table was written; `differences` are what its read-back found. */
	account({ job }: Pick<Prepared, 'job'>, differences: readonly Difference[]): TableAccount {
		const found = new Map<SeenLeaf, number>();
		for (const { leaf } of differences) found.set(leaf, (found.get(leaf) ?? 0) + 1);
		const leaves = [...new Set([...this.counts.keys(), ...found.keys()])].map((leaf): LeafAccount => {
			const own = this.counts.get(leaf) ?? { living: 0, direct: 0, lost: 0 };
			return { leaf, ...own, differs: found.get(leaf) ?? 0 };
		});
		const sum = (way: Way) => leaves.reduce((total, leaf) => total + leaf[way], 0);
		return {
			index: job.index,
			style: job.style.name,
			living: sum('living'),
			direct: sum('direct'),
			lost: sum('lost'),
			lostWhat: Object.fromEntries(this.reasons),
			leaves,
			differences
		};
	}
}

export interface Account {
	readonly tables: readonly TableAccount[];
	readonly remarks: readonly string[];
}

export interface WriteOptions {
	readonly house: House;
	readonly find?: FindBase | undefined;
	readonly as?: Travel;
	readonly readBack?: boolean;
}

export interface Written {
	readonly bytes: Uint8Array<ArrayBuffer>;
	readonly account: Account;
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

/** Something that a look says and a format cannot. */
export interface LostLeaf {
	readonly leaf: SeenLeaf;
	readonly what: string;
}

/**
 * Counts what a table's style speaks of: as lost what the format cannot say, as direct formatting what `direct` tells
 * (by default all that is left), as living style the rest.
 */
export function tallyOf(
	one: Prepared,
	lostLeaves: (look: Look) => readonly LostLeaf[],
	direct?: ReadonlyMap<SeenLeaf, number>
): Tally {
	const { wanted, job, changes } = one;
	const tally = new Tally();
	const spoken = new Map<SeenLeaf, number>([['lines', changes ? 0 : wanted.across.length + wanted.down.length]]);
	const cellsOf = new Int32Array(wanted.looks.length);
	if (changes) for (const cell of changes) cellsOf[wanted.cellLook[cell]!]!++;
	else for (const look of wanted.cellLook) cellsOf[look]!++;
	if (changes && writtenAspects(job).has('linework')) spoken.set('lines', changes.size);
	wanted.looks.forEach((look, i) => {
		const cells = cellsOf[i]!;
		if (cells === 0) return;
		for (const field of Object.keys(look) as LookField[]) spoken.set(field, (spoken.get(field) ?? 0) + cells);
		for (const { leaf, what } of lostLeaves(look)) {
			tally.lose(leaf, what, cells);
			spoken.set(leaf, (spoken.get(leaf) ?? 0) - cells);
		}
	});
	if (job.table.carry.includes('formats')) tally.lose('formats', 'number formats', formatsLost(one));
	for (const [leaf, count] of spoken) {
		const said = Math.min(count, direct ? (direct.get(leaf) ?? 0) : count);
		tally.add(leaf, 'direct', said);
		tally.add(leaf, 'living', Math.max(0, count - said));
	}
	return tally;
}

/** What a format can say of number formats: nothing, where tables hold text. How many settings the style has. */
export function formatsLost({ resolved, job }: Prepared): number {
	if (!job.table.carry.includes('formats')) return 0;
	let count = 0;
	for (const leaves of resolved.style.parts.values())
		for (const path of leaves.keys()) if (aspectOfLeaf(path) === 'formats') count++;
	return count;
}

const fieldWords = (field: LookField, value: Look[LookField]): string =>
	value === undefined ? 'nothing' : fieldDefinition(field).say(value);

/** How a format says what it can say. */
export interface Sayable {
	readonly look: (look: Look) => Look;
	readonly line: (line: Line | null) => Line | null;
	/** A table's own shadow; absent where the format has none. */
	readonly shadow?: (shadow: Shadow | null) => Shadow | null;
}

/** Read-back: leaf by leaf, what the written table shows against what was wanted, as far as the format can say it. */
export function compare(table: Table, wanted: Appearance, got: Appearance, sayable: Sayable): Difference[] {
	const differences: Difference[] = [];
	const looks = wanted.looks.map(sayable.look);
	const lines = wanted.lines.map(sayable.line);
	const says = got.looks.map((look) => Object.keys(look).length > 0);
	/** Slots that the file leaves out (w:gridBefore, short rows) are empty cells to us, and nowhere in the file. */
	const isLeftOut = (r: number, c: number) =>
		r < 0 ||
		c < 0 ||
		r >= table.rows ||
		c >= table.columns ||
		!says[got.cellLook[table.slots[r * table.columns + c]!]!]!;
	/** The fields in which two looks differ, by their numbers; there are few looks, and many cells. */
	const known = new Map<number, readonly LookField[]>();
	const differing = (want: number, have: number): readonly LookField[] => {
		const key = want * got.looks.length + have;
		let fields = known.get(key);
		if (!fields) {
			const [a, b] = [looks[want]!, got.looks[have]!];
			fields = FIELDS.flatMap(({ name, needsParagraphs }) =>
				a[name] === undefined || (needsParagraphs && b[name] === undefined) || sameShown(a[name], b[name]) ? [] : [name]
			);
			known.set(key, fields);
		}
		return fields;
	};
	table.cells.forEach(({ r, c }, i) => {
		if (isLeftOut(r, c)) return;
		const [want, have] = [wanted.cellLook[i]!, got.cellLook[i]!];
		for (const field of differing(want, have))
			differences.push({
				r,
				c,
				leaf: field,
				what: LEAF_WORDS[field],
				wanted: fieldWords(field, looks[want]![field]),
				got: fieldWords(field, got.looks[have]![field])
			});
	});
	const edges = (which: 'across' | 'down', width: number) => {
		wanted[which].forEach((edge, i) => {
			const other = got[which][i]!;
			if (edge < 0 || other < 0) return;
			const [want, have] = [lines[edge]!, got.lines[other]!];
			if (sameLine(want, have)) return;
			const [r, c] = [Math.floor(i / width), i % width];
			if (isLeftOut(r, c) && isLeftOut(which === 'across' ? r - 1 : r, which === 'across' ? c : c - 1)) return;
			differences.push({
				r,
				c,
				leaf: 'lines',
				what: which === 'across' ? 'line above' : 'line before',
				wanted: lineWords(want),
				got: lineWords(have)
			});
		});
	};
	edges('across', table.columns);
	edges('down', table.columns + 1);
	const shadow = sayable.shadow ? sayable.shadow(wanted.shadow ?? null) : null;
	if (!sameShown(shadow, got.shadow))
		differences.push({
			r: 0,
			c: 0,
			leaf: 'tableShadow',
			what: LEAF_WORDS.tableShadow,
			wanted: shadowWords(shadow),
			got: shadowWords(got.shadow ?? null)
		});
	return differences;
}
