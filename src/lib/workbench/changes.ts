import { changedCells as cellsChanged } from '../core/cascade/changed.ts';
import type { Appearance, LookField } from '../core/cascade/look.ts';
import { LOOK_FIELDS } from '../core/cascade/look.ts';
import { fieldDefinition } from '../core/properties/index.ts';
import { sameShown, shadowWords } from '../core/properties/shadow.ts';
import { plural } from '../core/words.ts';
import { lineWords, sameLine } from '../core/properties/line.ts';
import type { Table } from '../core/table/grid.ts';
import { roleFamily } from '../core/roles/index.ts';
import { LEAF_WORDS, type SeenLeaf } from '../formats/read-back.ts';

/** One kind of change between two appearances of a table, in words, with how many cells or edges it touches. */
export interface LookChange {
	readonly leaf: SeenLeaf;
	/** Rows of which role; for lines, which edges. */
	readonly where: string;
	readonly from: string;
	readonly to: string;
	readonly count: number;
}

function words(field: LookField, value: unknown): string {
	const { unsaid, blank = unsaid, say } = fieldDefinition(field);
	const shown = value ?? blank;
	return shown === undefined ? 'as the page has it' : say(shown);
}

/** What shows differently, gathered by leaf, role and value; what touches most comes first. */
export function changesBetween(table: Table, before: Appearance, after: Appearance): LookChange[] {
	const found = new Map<string, LookChange & { count: number }>();
	const add = (leaf: SeenLeaf, where: string, from: string, to: string) => {
		if (from === to) return;
		const key = [leaf, where, from, to].join('\0');
		const known = found.get(key);
		if (known) known.count++;
		else found.set(key, { leaf, where, from, to, count: 1 });
	};
	const compared = new Map<string, [LookField, string, string][]>();
	table.cells.forEach(({ r }, i) => {
		const [a, b] = [before.cellLook[i]!, after.cellLook[i]!];
		let differences = compared.get(`${a} ${b}`);
		if (!differences) {
			const [old, now] = [before.looks[a]!, after.looks[b]!];
			differences = LOOK_FIELDS.flatMap((field): [LookField, string, string][] => {
				const [from, to] = [words(field, old[field]), words(field, now[field])];
				return from === to ? [] : [[field, from, to]];
			});
			compared.set(`${a} ${b}`, differences);
		}
		const where = `${roleFamily(table.roles[r]!)} rows`;
		for (const [field, from, to] of differences) add(field, where, from, to);
	});
	const edges = (which: 'across' | 'down', where: (i: number) => string) =>
		before[which].forEach((edge, i) => {
			const other = after[which][i]!;
			if (edge < 0 || other < 0) return;
			const [old, now] = [before.lines[edge], after.lines[other]];
			if (!sameLine(old, now)) add('lines', where(i), lineWords(old), lineWords(now));
		});
	edges('across', (i) => {
		const at = Math.floor(i / table.columns);
		if (at === 0 || at === table.rows) return 'rim';
		const [above, below] = [roleFamily(table.roles[at - 1]!), roleFamily(table.roles[at]!)];
		return above === below ? `between ${above} rows` : `between ${above} and ${below}`;
	});
	edges('down', (i) => {
		const at = i % (table.columns + 1);
		return at === 0 || at === table.columns ? 'rim' : 'between columns';
	});
	if (!sameShown(before.shadow, after.shadow))
		add('tableShadow', 'the table', shadowWords(before.shadow ?? null), shadowWords(after.shadow ?? null));
	return [...found.values()].sort((a, b) => b.count - a.count);
}

/** A change as a line of text: "fill of header rows: none → #2F5D50 (4 cells)". */
export const changeWords = ({ leaf, where, from, to, count }: LookChange): string =>
	`${LEAF_WORDS[leaf]}${leaf === 'lines' ? `, ${where}` : ` of ${where}`}: ${from} → ${to} (${touched({ leaf, count })})`;

/** How much a change touches: "4 cells", "1 edge". */
export const touched = ({ leaf, count }: Pick<LookChange, 'leaf' | 'count'>): string =>
	plural(count, leaf === 'lines' ? 'edge' : leaf === 'tableShadow' ? 'table' : 'cell');

/** The cells whose own look, or one of whose edges, shows differently. */
export const changedCells = (table: Table, before: Appearance, after: Appearance): ReadonlySet<number> =>
	cellsChanged(table, before, after, {
		value: (field, a, b) => words(field, a) === words(field, b),
		line: (a, b) => lineWords(a) === lineWords(b)
	});
