import { type Appearance, type Line, type Look } from '../cascade/look.ts';
import type { Grid, Side } from '../table/grid.ts';
import { isCovered, type WorkCell, type WorkTable } from './table.ts';
import { tableOf } from './convert.ts';

/** How a table looks in its file, with the grid that it has there. */
export interface FileLook {
	readonly grid: Pick<Grid, 'rows' | 'columns' | 'cells'>;
	readonly appearance: Appearance;
}

/**
 * What a table keeps of its file's look while it is worked on: each cell that of the cell it comes from, each edge that of
 * the sides of those cells. Cells that come from none have no look.
 */
export function fileLook(work: WorkTable, { grid, appearance }: FileLook): Appearance {
	const table = tableOf(work);
	const looks: Look[] = [...appearance.looks, {}];
	const bare = looks.length - 1;
	const lines: (Line | null)[] = [...appearance.lines, null];
	const none = lines.length - 1;
	const origin = table.cells.map(({ r, c }) => {
		const slot = work.rows[r]!.cells[c]!;
		const from = isCovered(slot) ? undefined : (slot as WorkCell).from;
		return from === undefined ? undefined : grid.cells[from];
	});
	const cellLook = Int32Array.from(table.cells, (_, i) => {
		const { r, c } = table.cells[i]!;
		const from = (work.rows[r]!.cells[c] as WorkCell).from;
		return from === undefined || !grid.cells[from] ? bare : appearance.cellLook[from]!;
	});
	const { rows, columns, slots } = table;
	const side = (cell: number | undefined, which: Side): number => {
		const from = cell === undefined ? undefined : origin[cell];
		if (!from) return none;
		const edge =
			which === 'top'
				? appearance.across[from.r * grid.columns + from.c]!
				: which === 'bottom'
					? appearance.across[(from.r + from.rows) * grid.columns + from.c]!
					: which === 'start'
						? appearance.down[from.r * (grid.columns + 1) + from.c]!
						: appearance.down[from.r * (grid.columns + 1) + from.c + from.cols]!;
		return edge < 0 ? none : edge;
	};
	/** The line that either of two cells has there; the first one's where both have one. */
	const between = (before: number | undefined, after: number | undefined, isAcross: boolean): number => {
		if (before !== undefined && before === after) return -1;
		const first = side(before, isAcross ? 'bottom' : 'end');
		return first !== none && lines[first] ? first : side(after, isAcross ? 'top' : 'start');
	};
	const across = new Int32Array((rows + 1) * columns);
	const down = new Int32Array(rows * (columns + 1));
	for (let r = 0; r <= rows; r++)
		for (let c = 0; c < columns; c++) {
			const place = r * columns + c;
			across[place] = between(r > 0 ? slots[place - columns] : undefined, r < rows ? slots[place] : undefined, true);
		}
	for (let r = 0; r < rows; r++)
		for (let c = 0; c <= columns; c++)
			down[r * (columns + 1) + c] = between(
				c > 0 ? slots[r * columns + c - 1] : undefined,
				c < columns ? slots[r * columns + c] : undefined,
				false
			);
	const { shadow } = appearance;
	return { cellLook, looks, across, down, lines, ...(shadow !== undefined && { shadow }) };
}
