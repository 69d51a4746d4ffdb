import type { Grid } from '$lib/core/table/grid.ts';

/** Tables up to this many rows are drawn whole. */
const WHOLE = 60;
/** Rows come and go in blocks of this many. */
const BLOCK = 10;
/** How far outside the window rows are drawn ahead, in pixels. */
const AHEAD = 300;
/** The height of a row that was never drawn, where no other was either, in pixels. */
const GUESS = 26;

/**
 * Which rows of a long table are drawn: those near the window, and in every column the row with the longest text, so that
 * the columns keep their widths. The rest keep the height that they had.
 */
export class DrawnRows {
	private range: readonly [from: number, to: number] = $state.raw([0, WHOLE]);
	private heights: readonly (number | undefined)[] = $state.raw([]);
	private isPrinting = $state(false);
	private readonly widest: ReadonlySet<number>;

	constructor(readonly grid: Grid) {
		const longest = Array.from({ length: grid.columns }, () => ({ row: 0, length: -1 }));
		if (this.isWindowed)
			for (const { r, c, cols, text } of grid.cells)
				if (cols === 1 && text.length > longest[c]!.length) longest[c] = { row: r, length: text.length };
		this.widest = new Set(longest.map(({ row }) => row));
	}

	get isWindowed(): boolean {
		return this.grid.rows > WHOLE && !this.isPrinting;
	}
	isDrawn(row: number): boolean {
		return !this.isWindowed || (row >= this.range[0] && row < this.range[1]) || this.widest.has(row);
	}
	/** Indices of the cells of each drawn row; cells that reach into one count, too. */
	readonly cells: readonly { readonly row: number; readonly cells: readonly number[] }[] = $derived.by(() => {
		const byRow: number[][] = Array.from({ length: this.grid.rows }, () => []);
		this.grid.cells.forEach(({ r, rows }, i) => {
			for (let reached = r; reached < r + rows; reached++)
				if (this.isDrawn(reached)) {
					byRow[r]!.push(i);
					return;
				}
		});
		return byRow.flatMap((cells, row) => (cells.length ? [{ row, cells }] : []));
	});
	/** The rows of the grid, as CSS tracks. */
	readonly tracks: string = $derived.by(() => {
		if (!this.isWindowed) return `repeat(${this.grid.rows}, auto)`;
		const known = this.heights.filter((height) => height !== undefined);
		const guess = known.length ? known.reduce((sum, height) => sum + height, 0) / known.length : GUESS;
		const tracks = Array.from({ length: this.grid.rows }, (_, row) =>
			this.isDrawn(row) ? 'auto' : `${(this.heights[row] ?? guess).toFixed(1)}px`
		);
		return tracks.join(' ');
	});

	/** Follows the window: attach to the element whose tracks these are; `before` tracks come before the first row. */
	follow(element: HTMLElement, before: number): () => void {
		if (this.grid.rows <= WHOLE) return () => undefined;
		let asked = 0;
		const look = () => {
			asked = 0;
			if (!this.isWindowed) return;
			const { top } = element.getBoundingClientRect();
			const used = getComputedStyle(element).gridTemplateRows.split(' ').map(parseFloat);
			let y = top + used.slice(0, before).reduce((sum, height) => sum + height, 0);
			let from = this.grid.rows;
			let to = 0;
			for (let row = 0; row < this.grid.rows; row++) {
				const height = used[before + row] ?? GUESS;
				if (y + height > -AHEAD && y < innerHeight + AHEAD) {
					from = Math.min(from, row);
					to = row + 1;
				}
				y += height;
			}
			from = Math.floor(from / BLOCK) * BLOCK;
			to = Math.ceil(to / BLOCK) * BLOCK;
			if (from === this.range[0] && to === this.range[1]) return;
			this.heights = Array.from({ length: this.grid.rows }, (_, row) =>
				this.isDrawn(row) ? used[before + row] : this.heights[row]
			);
			this.range = [from, to];
		};
		const ask = () => (asked ||= requestAnimationFrame(look));
		const print = ({ type }: Event) => (this.isPrinting = type === 'beforeprint');
		ask();
		addEventListener('scroll', ask, { capture: true, passive: true });
		addEventListener('resize', ask);
		addEventListener('beforeprint', print);
		addEventListener('afterprint', print);
		return () => {
			cancelAnimationFrame(asked);
			removeEventListener('scroll', ask, { capture: true });
			removeEventListener('resize', ask);
			removeEventListener('beforeprint', print);
			removeEventListener('afterprint', print);
		};
	}
}
