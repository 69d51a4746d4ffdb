import { untrack } from 'svelte';
import type { Stroke } from '$lib/core/layout/strokes.ts';
import type { Grid } from '$lib/core/table/grid.ts';
import { RowHeights } from './heights.ts';

/** Tables up to this many rows are drawn whole. */
const WHOLE = 60;
/** So many rows of a longer one are drawn before the window is known. */
const FIRST = 40;
/** Rows come and go in blocks of this many. */
const BLOCK = 10;
/** How far outside the window rows are drawn ahead, in pixels. */
const AHEAD = 300;

/** The place of the first item of a sorted list that meets a condition which all after it meet, too; its length for none. */
function firstWhere<T>(list: readonly T[], isMet: (item: T) => boolean): number {
	let low = 0;
	let high = list.length;
	while (low < high) {
		const middle = (low + high) >> 1;
		if (isMet(list[middle]!)) high = middle;
		else low = middle + 1;
	}
	return low;
}

/**
 * Which rows of a long table are drawn: those near the window, and in every column the row with the longest text, so that
 * the columns keep their widths. Each drawn row is a track of the CSS grid; the rows between two of them are one track
 * together, as high as they were or are guessed to be. So a table costs what is seen of it, however long it is.
 */
export class DrawnRows {
	private range: readonly [from: number, to: number] = $state.raw([0, FIRST]);
	private isPrinting = $state(false);
	private readonly widest: readonly number[];
	private readonly heights: RowHeights;
	/** Index of the first cell of each row, and of those that reach down into others. */
	private readonly firstCell: Int32Array;
	private readonly tall: readonly number[];

	/**
	 * `before` is how a table was drawn of which `grid` is the next state: what is known of its heights and of the window
	 * goes on. `leastHeight` gives rows a least height, in pixels.
	 */
	constructor(
		readonly grid: Grid,
		before?: DrawnRows,
		private readonly leastHeight?: (row: number) => number | undefined
	) {
		this.heights = before?.grid.rows === grid.rows ? before.heights : new RowHeights(grid.rows, before?.heights);
		if (before) {
			const [from, to] = untrack(() => before.range);
			this.range = [Math.min(from, Math.max(0, grid.rows - FIRST)), Math.min(to, grid.rows)];
		}
		this.firstCell = new Int32Array(grid.rows + 1).fill(-1);
		const longest = Array.from({ length: grid.columns }, () => ({ row: 0, length: -1 }));
		grid.cells.forEach(({ r, c, cols, text }, i) => {
			if (this.firstCell[r] === -1) this.firstCell[r] = i;
			if (cols === 1 && text.length > longest[c]!.length) longest[c] = { row: r, length: text.length };
		});
		// A row in which no cell begins has none of its own.
		this.firstCell[grid.rows] = grid.cells.length;
		for (let r = grid.rows - 1; r >= 0; r--) if (this.firstCell[r] === -1) this.firstCell[r] = this.firstCell[r + 1]!;
		this.tall = grid.merged.filter((i) => grid.cells[i]!.rows > 1);
		this.widest = [...new Set(longest.map(({ row }) => row))];
	}

	get isWindowed(): boolean {
		return this.grid.rows > WHOLE && !this.isPrinting;
	}
	/** The rows that are drawn, ascending. */
	readonly rows: readonly number[] = $derived.by(() => {
		const [from, to] = this.isWindowed ? this.range : [0, this.grid.rows];
		const near = Array.from({ length: Math.min(to, this.grid.rows) - from }, (_, i) => from + i);
		const far = this.isWindowed ? this.widest.filter((row) => row < from || row >= to) : [];
		return far.length ? [...near, ...far].sort((a, b) => a - b) : near;
	});
	/** The tracks as CSS has them, and the track of each drawn row. */
	private readonly layout = $derived.by(() => {
		const tracks: string[] = [];
		const trackOf = new Map<number, number>();
		let next = 0;
		const skip = (to: number) => {
			if (to > next) tracks.push(`${this.heights.between(next, to).toFixed(1)}px`);
		};
		for (const row of this.rows) {
			skip(row);
			trackOf.set(row, tracks.length);
			const least = this.leastHeight?.(row);
			tracks.push(least ? `minmax(${least.toFixed(1)}px, auto)` : 'auto');
			next = row + 1;
		}
		skip(this.grid.rows);
		return { tracks, trackOf };
	});
	/** The rows of the grid, as CSS tracks. */
	get tracks(): string {
		return this.layout.tracks.join(' ');
	}
	isDrawn(row: number): boolean {
		return this.layout.trackOf.has(row);
	}
	/** Tracks from 0: where a row's begins, or that of the rows among which it is not drawn. */
	line(row: number): number {
		const { trackOf, tracks } = this.layout;
		if (row >= this.grid.rows) return tracks.length;
		const own = trackOf.get(row);
		if (own !== undefined) return own;
		const before = this.drawnBefore(row);
		return before < 0 ? 0 : trackOf.get(this.rows[before]!)! + 1;
	}
	/** How far a row's top is from that of the first one, in pixels, as far as heights are known. */
	top(row: number): number {
		return this.heights.between(0, row);
	}
	/** How many tracks the rows `from` to `to` (which is not one of them) take. */
	span(from: number, to: number): number {
		return Math.max(1, this.line(to - 1) + 1 - this.line(from));
	}
	/** The last of the drawn rows before a row, as its place among them; −1 for none. */
	private drawnBefore(row: number): number {
		return firstWhere(this.rows, (one) => one >= row) - 1;
	}
	/** Whether any of the rows `from` to `to` (which is not one of them) is drawn. */
	isAnyDrawn(from: number, to: number): boolean {
		const last = this.drawnBefore(to);
		return last >= 0 && this.rows[last]! >= from;
	}
	/** Of strokes between rows, sorted by row, those of the drawn rows. */
	across(strokes: readonly Stroke[]): Stroke[] {
		const last = this.grid.rows - 1;
		return this.rows.flatMap((row) => {
			const from = firstWhere(strokes, ({ at }) => at >= row);
			const to = firstWhere(strokes, ({ at }) => at > (row === last ? last + 1 : row));
			return strokes.slice(from, to);
		});
	}
	/** Of strokes between columns, sorted by column and then by row, those beside the drawn rows. */
	down(strokes: readonly Stroke[]): Stroke[] {
		if (!this.isWindowed) return [...strokes];
		const [near, beyond] = this.range;
		const stretches = [[near, beyond] as const, ...this.widest.map((row) => [row, row + 1] as const)];
		const found = new Set<Stroke>();
		for (let column = 0; column <= this.grid.columns; column++)
			for (const [start, end] of stretches) {
				let i = firstWhere(strokes, ({ at, to }) => at > column || (at === column && to > start));
				for (; strokes[i]?.at === column && strokes[i]!.from < end; i++) found.add(strokes[i]!);
			}
		return [...found];
	}
	/** Indices of the cells of each drawn row; cells that reach into one count, too. */
	readonly cells: readonly { readonly row: number; readonly cells: readonly number[] }[] = $derived.by(() => {
		const { cells } = this.grid;
		const byRow = new Map<number, number[]>();
		for (const row of this.rows) {
			const [from, to] = [this.firstCell[row]!, this.firstCell[row + 1]!];
			byRow.set(
				row,
				Array.from({ length: to - from }, (_, i) => from + i)
			);
		}
		for (const i of this.tall) {
			const { r, rows } = cells[i]!;
			if (this.isDrawn(r) || !this.isAnyDrawn(r, r + rows)) continue;
			byRow.set(r, [...(byRow.get(r) ?? []), i]);
		}
		return [...byRow]
			.filter(([, own]) => own.length)
			.sort(([a], [b]) => a - b)
			.map(([row, own]) => ({ row, cells: own }));
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
			for (const row of this.rows) {
				const height = used[before + this.line(row)];
				if (height !== undefined) this.heights.set(row, height);
			}
			const first = top + used.slice(0, before).reduce((sum, height) => sum + height, 0);
			const from = Math.floor(this.heights.at(-AHEAD - first) / BLOCK) * BLOCK;
			const last = this.heights.at(innerHeight + AHEAD - first) + 1;
			const to = Math.min(Math.ceil(last / BLOCK) * BLOCK, this.grid.rows);
			if (from < to && (from !== this.range[0] || to !== this.range[1])) this.range = [from, to];
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
