import { InputError } from '../core/errors.ts';
import { appearanceOf, LOOK_FIELDS, type Appearance, type Line, type Look } from '../core/cascade/look.ts';
import { resolve, type House, type Resolved } from '../core/cascade/resolve.ts';
import { flatten, type FindBase, type FlatStyle } from '../core/style/inherit.ts';
import { ASPECTS, type Style } from '../core/style/types.ts';
import type { Table } from '../core/table/grid.ts';
import type { OpenDocument } from './document.ts';

/** How a look may travel (formats.md, promise 3). */
export type Travel = 'living' | 'living-only' | 'direct';

/** One table to give a style to. `table` has its roles, parts in use, carry and touches; its grid is the document's. */
export interface StyleJob {
	readonly index: number;
	readonly table: Table;
	readonly style: Style;
}

export interface Difference {
	readonly r: number;
	readonly c: number;
	readonly what: string;
	readonly wanted: string;
	readonly got: string;
}

/** What became of one table. Counts are settings: fields of cells and sides of cells. */
export interface TableAccount {
	readonly index: number;
	readonly style: string;
	readonly living: number;
	readonly direct: number;
	readonly lost: number;
	/** Fields that the format cannot say, with the number of cells. */
	readonly lostWhat: Readonly<Record<string, number>>;
	/** What the written file, read again, shows differently from what was intended. */
	readonly differences: readonly Difference[];
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
		return { job, resolved, wanted: appearanceOf(resolved, isWhole ? undefined : original.appearance) };
	});
}

/** What of a table the format cannot say, with the number of cells; `lostFields` names it for one look. */
export function lostOf(one: Prepared, lostFields: (look: Look) => readonly string[]) {
	const { wanted, job } = one;
	const lostWhat: Record<string, number> = {};
	for (const index of wanted.cellLook)
		for (const field of lostFields(wanted.looks[index]!)) lostWhat[field] = (lostWhat[field] ?? 0) + 1;
	const formats = formatsLost(one);
	if (formats) lostWhat['number formats'] = formats;
	/** Fields of cells and edges that the style speaks of. */
	const settings = job.table.cells.reduce(
		(sum, _, i) => sum + Object.keys(wanted.looks[wanted.cellLook[i]!]!).length,
		wanted.across.length + wanted.down.length
	);
	return { lostWhat, lost: Object.values(lostWhat).reduce((sum, count) => sum + count, 0), settings };
}

/** What a format can say of number formats: nothing, where tables hold text. How many settings the style has. */
export function formatsLost({ resolved, job }: Prepared): number {
	if (!job.table.carry.includes('formats')) return 0;
	let count = 0;
	for (const leaves of resolved.style.parts.values())
		for (const path of leaves.keys()) if (path.startsWith('format.')) count++;
	return count;
}

const lineWords = (line: Line | null) => (line ? `${line.pattern} ${line.weight / 12_700}pt ${line.ink}` : 'no line');

/** How a format says what it can say. */
export interface Sayable {
	readonly look: (look: Look) => Look;
	readonly line: (line: Line | null) => Line | null;
}

/** Whether two lines show the same. */
export function sameLine(a: Line | null | undefined, b: Line | null | undefined): boolean {
	if (a === b) return true;
	if (!a || !b) return !a && !b;
	return a.pattern === b.pattern && a.weight === b.weight && a.ink === b.ink;
}

/** Read-back: leaf by leaf, what the written table shows against what was wanted, as far as the format can say it. */
export function compare(table: Table, wanted: Appearance, got: Appearance, sayable: Sayable): Difference[] {
	const differences: Difference[] = [];
	const looks = wanted.looks.map(sayable.look);
	const lines = wanted.lines.map(sayable.line);
	const same = (a: Look[keyof Look], b: Look[keyof Look]) =>
		typeof a === 'object' || typeof b === 'object' ? sameLine(a as Line, b as Line) : a === b;
	/** Slots that the file leaves out (w:gridBefore, short rows) are empty cells to us, and nowhere in the file. */
	const isLeftOut = (r: number, c: number) =>
		r < 0 ||
		c < 0 ||
		r >= table.rows ||
		c >= table.columns ||
		Object.keys(got.looks[got.cellLook[table.slots[r * table.columns + c]!]!]!).length === 0;
	table.cells.forEach(({ r, c }, i) => {
		if (isLeftOut(r, c)) return;
		const want = looks[wanted.cellLook[i]!]!;
		const have = got.looks[got.cellLook[i]!] ?? {};
		for (const field of LOOK_FIELDS)
			if (want[field] !== undefined && !same(want[field], have[field]))
				differences.push({ r, c, what: field, wanted: String(want[field]), got: String(have[field] ?? 'nothing') });
	});
	const edges = (which: 'across' | 'down', width: number) => {
		wanted[which].forEach((edge, i) => {
			const other = got[which][i]!;
			const [r, c] = [Math.floor(i / width), i % width];
			if (
				edge < 0 ||
				other < 0 ||
				(isLeftOut(r, c) && isLeftOut(which === 'across' ? r - 1 : r, which === 'across' ? c : c - 1))
			)
				return;
			const want = lines[edge]!;
			const have = got.lines[other]!;
			if (!sameLine(want, have))
				differences.push({
					r,
					c,
					what: which === 'across' ? 'line above' : 'line before',
					wanted: lineWords(want),
					got: lineWords(have)
				});
		});
	};
	edges('across', table.columns);
	edges('down', table.columns + 1);
	return differences;
}
