import type { Grid } from '../table/grid.ts';
import { emu, type Emu } from '../units.ts';

/** What a cell needs across: between its longest unbreakable piece and its longest line, margins included. EMU. */
export interface Need {
	readonly min: number;
	readonly max: number;
}

/** How wide a column is to be: just so, a share of what the others leave, or as its content needs. */
export type ColumnWidth = { readonly fixed: Emu } | { readonly share: number } | 'fitted';

/** Spreads what a span needs beyond its columns over them, in proportion to what they have, or evenly. */
function widen(columns: number[], from: number, count: number, wanted: number, isOpen: (c: number) => boolean): void {
	const span = Array.from({ length: count }, (_, i) => from + i);
	const short = wanted - span.reduce((sum, c) => sum + columns[c]!, 0);
	const open = span.filter(isOpen);
	if (short <= 0 || open.length === 0) return;
	const held = open.reduce((sum, c) => sum + columns[c]!, 0);
	for (const c of open) columns[c]! += held > 0 ? (short * columns[c]!) / held : short / open.length;
}

/**
 * Widths of a table's columns, in EMU, whole, that together never exceed the `measure`; a table whose columns are
 * fitted is as wide as its content wants, and no wider. `needs` is per cell of the grid.
 */
export function columnWidths(grid: Grid, needs: readonly Need[], wanted: readonly ColumnWidth[], measure: Emu): Emu[] {
	const min = new Array<number>(grid.columns).fill(0);
	const max = new Array<number>(grid.columns).fill(0);
	const way = (c: number): ColumnWidth => wanted[c] ?? 'fitted';
	const isFixed = (c: number) => typeof way(c) === 'object' && 'fixed' in (way(c) as object);
	grid.cells.forEach(({ c, cols }, i) => {
		if (cols > 1) return;
		min[c] = Math.max(min[c]!, needs[i]!.min);
		max[c] = Math.max(max[c]!, needs[i]!.max);
	});
	for (let c = 0; c < grid.columns; c++) {
		const own = way(c);
		if (typeof own === 'object' && 'fixed' in own) min[c] = max[c] = own.fixed;
	}
	const spans = grid.merged
		.filter((i) => grid.cells[i]!.cols > 1)
		.sort((a, b) => grid.cells[a]!.cols - grid.cells[b]!.cols);
	for (const i of spans) {
		const { c, cols } = grid.cells[i]!;
		widen(min, c, cols, needs[i]!.min, (column) => !isFixed(column));
		widen(max, c, cols, needs[i]!.max, (column) => !isFixed(column));
	}
	for (let c = 0; c < grid.columns; c++) max[c] = Math.max(max[c]!, min[c]!);

	const sum = (list: readonly number[]) => list.reduce((total, one) => total + one, 0);
	let widths: number[];
	const shares = Array.from({ length: grid.columns }, (_, c) => {
		const own = way(c);
		return typeof own === 'object' && 'share' in own ? own.share : 0;
	});
	if (sum(min) >= measure) {
		// Not even the longest pieces fit: everything gives way in proportion.
		const factor = measure / sum(min);
		widths = min.map((width) => width * factor);
	} else if (sum(shares) > 0) {
		const rest = measure - sum(max.filter((_, c) => shares[c] === 0));
		const held = rest > 0 ? max : min;
		const left = measure - sum(held.filter((_, c) => shares[c] === 0));
		widths = held.map((width, c) => (shares[c]! > 0 ? Math.max(min[c]!, (left * shares[c]!) / sum(shares)) : width));
		const over = sum(widths) - measure;
		if (over > 0) {
			const room = widths.map((width, c) => width - min[c]!);
			widths = widths.map((width, c) => width - (over * room[c]!) / (sum(room) || 1));
		}
	} else if (sum(max) <= measure) widths = max;
	else {
		const share = (measure - sum(min)) / (sum(max) - sum(min));
		widths = min.map((width, c) => width + (max[c]! - width) * share);
	}
	// Whole EMU, rounded along the running sum so that nothing is gained or lost.
	let running = 0;
	let edge = 0;
	return widths.map((width) => {
		running += width;
		const next = Math.min(Math.round(running), measure);
		const whole = emu(next - edge);
		edge = next;
		return whole;
	});
}
