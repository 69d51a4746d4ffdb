import type { Appearance, Look } from '../core/cascade/look.ts';
import type { Hints } from '../core/recognise/recognise.ts';
import { recognisedTable } from '../core/recognise/table.ts';
import type { CellContent } from '../core/table/content.ts';
import { cellsInRow, type Grid } from '../core/table/grid.ts';
import { findCarried, withCarried, type Carried } from './carried.ts';
import type { DocumentTable } from './document.ts';

/** What a reader found of a table, and how the rest can be found. */
export interface Found extends Pick<DocumentTable, 'index' | 'place' | 'widths' | 'wornName'> {
	readonly grid: Grid;
	/** Cells that the file protects against typing, by index. */
	readonly locked: readonly number[];
	/** What the file carries of all its tables. */
	readonly carried: Carried;
	readonly hints: (appearance: () => Appearance) => Hints;
	readonly appearance: () => Appearance;
	readonly content: (appearance: Appearance) => CellContent[][];
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

/** A value worked out when it is first asked for. */
function lazy<T>(make: () => T): () => T {
	let value: { readonly is: T } | undefined;
	return () => (value ??= { is: make() }).is;
}

/** A table of a document. What it takes work to know is worked out when it is first asked for: few ask for all of it. */
export function foundTable({ index, place, widths, wornName, grid, locked, ...found }: Found): DocumentTable {
	const appearance = lazy(found.appearance);
	const content = lazy(() => found.content(appearance()));
	const recognised = lazy(() => recognisedTable(grid, found.hints(appearance)));
	const carried = lazy(() => findCarried(found.carried, index, grid, wornName));
	const table = lazy(() => {
		const wears = carried();
		return wears ? withCarried(recognised().table, wears) : recognised().table;
	});
	return {
		index,
		place,
		widths,
		wornName,
		...(locked.length && { locked }),
		get table() {
			return table();
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
}
