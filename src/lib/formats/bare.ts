import type { Appearance } from '../core/cascade/look.ts';
import type { Grid } from '../core/table/grid.ts';

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
