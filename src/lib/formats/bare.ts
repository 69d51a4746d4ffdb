import type { Appearance } from '../core/cascade/look.ts';
import { recognisedTable } from '../core/recognise/table.ts';
import type { CellContent } from '../core/table/content.ts';
import type { Cell, Grid } from '../core/table/grid.ts';
import type { Block } from '../core/table/content.ts';
import type { DocumentTable } from './document.ts';

/** How a table shows where nobody says anything: one empty look, no line. */
export function bareAppearance(grid: Grid): Appearance {
	const across = new Int32Array((grid.rows + 1) * grid.columns);
	const down = new Int32Array(grid.rows * (grid.columns + 1));
	for (const index of grid.merged) {
		const { r, c, rows, cols } = grid.cells[index]!;
		for (let y = r + 1; y < r + rows; y++) for (let x = c; x < c + cols; x++) across[y * grid.columns + x] = -1;
		for (let y = r; y < r + rows; y++) for (let x = c + 1; x < c + cols; x++) down[y * (grid.columns + 1) + x] = -1;
	}
	return { cellLook: new Int32Array(grid.cells.length), looks: [{}], across, down, lines: [null] };
}

/** Cells of plain text as content; cells that say the same share it. */
export function plainContent(cells: readonly Cell[]): (readonly CellContent[])[] {
	const known = new Map<string, readonly CellContent[]>();
	return cells.map(({ text }) => {
		let content = known.get(text);
		if (!content) known.set(text, (content = text.split('\n').map((line) => ({ runs: line ? [{ text: line }] : [] }))));
		return content;
	});
}

/** A table of which nothing but its text is known, with its rows and columns recognised. */
export function bareTable(grid: Grid, index: number, place: DocumentTable['place']): DocumentTable {
	const { table, recognition } = recognisedTable(grid);
	return {
		index,
		place,
		table,
		recognition,
		appearance: bareAppearance(grid),
		widths: [],
		content: plainContent(grid.cells),
		wornName: null,
		carried: null
	};
}

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
