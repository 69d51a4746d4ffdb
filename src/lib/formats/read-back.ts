import type { Appearance, Line, Look, LookField } from '../core/cascade/look.ts';
import { FIELDS, fieldDefinition } from '../core/properties/index.ts';
import { lineWords, sameLine } from '../core/properties/line.ts';
import { sameShown, shadowWords, type Shadow } from '../core/properties/shadow.ts';
import { lengthWords } from '../core/properties/property.ts';
import type { Table } from '../core/table/grid.ts';
import { plural } from '../core/words.ts';
import type { DocumentTable, OpenDocument } from './document.ts';
import { heldWords } from './held.ts';

export interface Difference {
	readonly r: number;
	readonly c: number;
	readonly leaf: SeenLeaf;
	readonly what: string;
	readonly wanted: string;
	readonly got: string;
}

/** A leaf as it is seen on a written table: a field of its cells, the lines of its edges, a number format, its shadow. */
export type SeenLeaf = LookField | 'lines' | 'formats' | 'tableShadow' | 'kept';

/** What people call them. */
export const LEAF_WORDS: Readonly<Record<SeenLeaf, string>> = {
	...(Object.fromEntries(FIELDS.map(({ name, words }) => [name, words])) as Record<LookField, string>),
	lines: 'lines',
	formats: 'number formats',
	tableShadow: 'table shadow',
	kept: 'all else'
};

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
	/** A cell without any text of its own, which reads as no type at all, shows nothing of how text would look. */
	const isUnseen = (look: Look, field: LookField) =>
		look.size === undefined && look[field] === undefined && fieldDefinition(field).aspect !== 'fill';
	table.cells.forEach(({ r, c, text }, i) => {
		if (isLeftOut(r, c)) return;
		const [want, have] = [wanted.cellLook[i]!, got.cellLook[i]!];
		for (const field of differing(want, have)) {
			if (text === '' && isUnseen(got.looks[have]!, field)) continue;
			differences.push({
				r,
				c,
				leaf: field,
				what: LEAF_WORDS[field],
				wanted: fieldWords(field, looks[want]![field]),
				got: fieldWords(field, got.looks[have]![field])
			});
		}
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

/** A table with the document that it stands in, for what it holds. */
interface Kept {
	readonly document: Pick<OpenDocument, 'tables' | 'held'>;
	readonly index: number;
}

/** What no style has a say in, before and after: what differs was not meant to. `widths`: the columns were to get others. */
export function compareKept(before: Kept, after: Kept, { widths }: { readonly widths: boolean }): Difference[] {
	const [was, is] = [before.document.tables[before.index]!, after.document.tables[after.index]];
	const differences: Difference[] = [];
	const tell = (what: string, wanted: string, got: string, r = 0, c = 0) =>
		differences.push({ r, c, leaf: 'kept', what, wanted, got });
	if (!is) return [{ r: 0, c: 0, leaf: 'kept', what: 'the table', wanted: 'to be there', got: 'nothing' }];
	const size = ({ table }: DocumentTable) =>
		`${plural(table.rows, 'row')} by ${plural(table.columns, 'column')} of ${plural(table.cells.length, 'cell')}`;
	if (size(was) !== size(is)) {
		tell('size', size(was), size(is));
		return differences;
	}
	const runs = ({ table }: DocumentTable) => (table.dir === 'rtl' ? 'from right to left' : 'from left to right');
	if (runs(was) !== runs(is)) tell('direction', runs(was), runs(is));
	if (!widths && was.widths.length === is.widths.length)
		was.widths.forEach((width, c) => {
			if (Math.abs(width - is.widths[c]!) > HAIR)
				tell('width of the column', lengthWords(width), lengthWords(is.widths[c]!), 0, c);
		});
	const locked = new Set(is.locked);
	const lock = (isLocked: boolean) => (isLocked ? 'locked' : 'open');
	const wasLocked = new Set(was.locked);
	was.table.cells.forEach(({ r, c, text }, i) => {
		const now = is.table.cells[i]!;
		if (now.text !== text || now.r !== r || now.c !== c) tell('text', `“${text}”`, `“${now.text}”`, r, c);
		if (locked.has(i) !== wasLocked.has(i)) tell('lock', lock(wasLocked.has(i)), lock(locked.has(i)), r, c);
	});
	const [had, has] = [before, after].map(({ document, index }) => document.held?.([index]));
	for (const [kind, count] of had ?? []) {
		const now = has?.get(kind) ?? 0;
		// A background behind letters is a look, and compared as one; behind some of them it is counted roughly.
		if (kind === 'mark') continue;
		if (now < count) tell('what it holds', heldWords(kind, count), heldWords(kind, now));
	}
	return differences;
}
/** Widths this near are the same: a twentieth of a point. */
const HAIR = 640;
