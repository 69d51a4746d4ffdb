import type { Block } from '../core/table/content.ts';
import type { DocumentTable } from '../formats/document.ts';

/** Which part of a long document is shown: tables by index, in document order. */
export interface Stretch {
	readonly first: number;
	readonly last: number;
	/** Tables of the stretches before and after; null where there is none. */
	readonly before: number | null;
	readonly after: number | null;
	/** How many tables the whole document has. */
	readonly of: number;
}

/** What a page carries of a document, at most, in the unit of {@link weightOf}. */
const MOST = 220_000;
/** About what a table adds to a page that was compressed, in bytes: every cell, and its text. */
const weightOf = ({ table }: DocumentTable): number => {
	let letters = 0;
	for (const { text } of table.cells) letters += text.length;
	return 400 + 40 * table.columns + 9 * table.cells.length + letters / 3;
};

interface Part {
	readonly blocks: Block[];
	readonly tables: DocumentTable[];
	weight: number;
}

/** Parts of a document, each as long as a page may be; one table is never parted, and what stands in a cell goes with it. */
function partsOf(blocks: readonly Block[], tables: readonly DocumentTable[], most: number): Part[] {
	const inside = new Map<number, DocumentTable[]>();
	for (const entry of tables) {
		const outer = entry.place.where === 'nested' ? entry.place.inside : undefined;
		if (outer !== undefined) inside.set(outer, [...(inside.get(outer) ?? []), entry]);
	}
	const withInner = (entry: DocumentTable): DocumentTable[] => [
		entry,
		...(inside.get(entry.index) ?? []).flatMap(withInner)
	];
	const parts: Part[] = [{ blocks: [], tables: [], weight: 0 }];
	/** Text that leads to the next table. */
	let lead: Block[] = [];
	for (const block of blocks) {
		if (block.kind !== 'table') {
			lead.push(block);
			continue;
		}
		const own = withInner(tables[block.index]!);
		const weight = own.reduce((sum, entry) => sum + weightOf(entry), 0);
		let part = parts.at(-1)!;
		if (part.tables.length && part.weight + weight > most) parts.push((part = { blocks: [], tables: [], weight: 0 }));
		part.blocks.push(...lead, block);
		part.tables.push(...own);
		part.weight += weight;
		lead = [];
	}
	parts.at(-1)!.blocks.push(...lead);
	// Tables that stand beside the text are seen with its beginning.
	const placed = new Set(parts.flatMap((part) => part.tables.map(({ index }) => index)));
	parts[0]!.tables.push(...tables.filter(({ index }) => !placed.has(index)));
	return parts;
}

/**
 * The part of a document in which a table stands; all of it where it is short. Its tables stand at their own indices, with
 * nothing at those of the others.
 */
export function stretchAt(
	{ blocks, tables }: { readonly blocks: readonly Block[]; readonly tables: readonly DocumentTable[] },
	at: number,
	most = MOST
): { readonly blocks: readonly Block[]; readonly tables: DocumentTable[]; readonly stretch: Stretch } {
	const parts = partsOf(blocks, tables, most);
	const number = Math.max(
		0,
		parts.findIndex((part) => part.tables.some(({ index }) => index === at))
	);
	const part = parts[number]!;
	const shown: DocumentTable[] = [];
	for (const entry of part.tables) shown[entry.index] = entry;
	shown.length = tables.length;
	const indices = part.tables.map(({ index }) => index);
	const firstOf = (other: Part | undefined) => other?.tables[0]?.index ?? null;
	return {
		blocks: part.blocks,
		tables: shown,
		stretch: {
			first: Math.min(...indices),
			last: Math.max(...indices),
			before: firstOf(parts[number - 1]),
			after: firstOf(parts[number + 1]),
			of: tables.length
		}
	};
}
