import type { Appearance, Look } from '../core/cascade/look.ts';
import { once } from '../core/once.ts';
import type { Hints } from '../core/recognise/facts.ts';
import { recognisedTable } from '../core/recognise/table.ts';
import { cellsInRow, type Direction, type Grid } from '../core/table/grid.ts';
import type { Block } from '../core/table/content.ts';
import { bareAppearance, plainContentWhenSeen } from './bare.ts';
import { tableOf, workOf } from '../core/work/convert.ts';
import { findCarried, findFigures, withCarried, withCarriedFigures, type Carried } from './carried.ts';
import type { DocumentTable } from './document.ts';

/** What a reader found of a table, and how the rest can be found. */
export interface FoundTable extends Pick<DocumentTable, 'index' | 'place' | 'widths' | 'wornName'> {
	readonly grid: Grid;
	readonly dir?: Direction;
	/** Cells that the file protects against typing, by index. */
	readonly locked: readonly number[];
	/** What the file carries of all its tables. */
	readonly carried: Carried;
	readonly hints: (appearance: () => Appearance) => Hints;
	readonly appearance: () => Appearance;
	readonly content: (appearance: Appearance) => DocumentTable['content'];
}

/** What a table shows of its rows by the looks of their cells. */
export function shownHints(grid: Grid, lookOf: (cell: number) => Look): Required<Pick<Hints, 'bold' | 'fill'>> {
	return {
		bold: (r) => {
			const filled = cellsInRow(grid, r).filter((cell) => grid.cells[cell]!.text.trim());
			return filled.length > 0 && filled.every((cell) => (lookOf(cell).weight ?? 400) >= 600);
		},
		fill: (r) => {
			const fills = cellsInRow(grid, r).map((cell) => lookOf(cell).fill);
			const [first] = fills;
			return first !== 'none' && fills.filter((other) => other === first).length * 2 > fills.length ? first : undefined;
		}
	};
}

/** Nothing is drawn of a table but its text. */
const isPlain = ({ looks, lines }: Appearance): boolean =>
	looks.every(({ fill }) => !fill || fill === 'none') && lines.every((line) => !line);

/** A table of a document. What it takes work to know is worked out when it is first asked for: few ask for all of it. */
export function foundTable({ index, place, widths, wornName, grid, dir, locked, ...found }: FoundTable): DocumentTable {
	const appearance = once(found.appearance);
	const content = once(() => found.content(appearance()));
	const recognised = once(() => {
		const hints = found.hints(appearance);
		const known = recognisedTable(grid, hints.things ? { ...hints, isPlain: () => isPlain(appearance()) } : hints);
		return dir === 'rtl' ? { ...known, table: { ...known.table, dir } } : known;
	});
	const carried = once(() => findCarried(found.carried, index, grid, wornName));
	const table = once(() => {
		const wears = carried();
		return wears ? withCarried(recognised().table, wears) : recognised().table;
	});
	const work = once(() => {
		const figures = findFigures(found.carried, index, grid);
		return figures && withCarriedFigures(workOf(table(), content(), widths, locked), figures);
	});
	const entry: DocumentTable = {
		index,
		place,
		widths,
		wornName,
		...(locked.length && { locked }),
		get table() {
			const own = work();
			return own ? { ...tableOf(own), partsOff: table().partsOff, carry: table().carry } : table();
		},
		get recognition() {
			return recognised().recognition;
		},
		get appearance() {
			return appearance();
		},
		get content() {
			return content();
		},
		get carried() {
			return carried();
		}
	};
	// A table without carried figures has no work at all, rather than one that is nothing.
	return found.carried.tables.some(({ figures }) => figures)
		? Object.defineProperty(entry, 'work', { get: work, enumerable: true })
		: entry;
}

/** A table with other content in its cells; all else of it is worked out when it is asked for, as before. */
export const withContent = (entry: DocumentTable, content: () => DocumentTable['content']): DocumentTable =>
	Object.defineProperties({} as DocumentTable, {
		...Object.getOwnPropertyDescriptors(entry),
		content: { get: once(content), enumerable: true }
	});

/** A table of which nothing but its text is known, with its rows and columns recognised. */
export function bareTable(grid: Grid, index: number, place: DocumentTable['place']): DocumentTable {
	return foundTable({
		index,
		place,
		grid,
		widths: [],
		wornName: null,
		locked: [],
		carried: NOTHING_CARRIED,
		hints: () => ({}),
		appearance: () => bareAppearance(grid),
		content: () => plainContentWhenSeen(grid.cells)
	});
}
const NOTHING_CARRIED: Carried = { styles: [], tables: [] };

/** A document of sections, each with a heading, a line of text and a table of which nothing but its text is known. */
export function bareDocument(
	sections: readonly { readonly heading: string; readonly text: string; readonly grid: Grid }[]
): { blocks: Block[]; tables: DocumentTable[] } {
	return {
		blocks: sections.flatMap(({ heading, text }, index): Block[] => [
			{ kind: 'heading', level: 1, text: heading },
			...(text ? [{ kind: 'paragraph' as const, text }] : []),
			{ kind: 'table', index }
		]),
		tables: sections.map(({ grid, heading }, index) => bareTable(grid, index, { where: 'body', part: 'new', heading }))
	};
}
