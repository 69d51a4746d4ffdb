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
/** The same where a table that is worked on scrolls in a box of its own. */
const NEAR = 80;
/** So many columns more than are near may stay drawn. */
const SPARE = 3;
/** What stands beside the rows is so wide, in pixels. */
export const GUTTER = 84;

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

/** Index of the first cell of each row, and of those after it where none begins in it; last, how many cells there are. */
function firstCells({ rows, columns, cells, merged }: Grid): Int32Array {
	if (!merged.length) return Int32Array.from({ length: rows + 1 }, (_, r) => r * columns);
	const first = new Int32Array(rows + 1).fill(-1);
	cells.forEach(({ r }, i) => {
		if (first[r] === -1) first[r] = i;
	});
	first[rows] = cells.length;
	for (let r = rows - 1; r >= 0; r--) if (first[r] === -1) first[r] = first[r + 1]!;
	return first;
}

/** The rows that have the longest text of some column. */
function widestRows({ columns, cells }: Grid): number[] {
	const longest = Array.from({ length: columns }, () => ({ row: 0, length: -1 }));
	for (const { r, c, cols, text } of cells)
		if (cols === 1 && text.length > longest[c]!.length) longest[c] = { row: r, length: text.length };
	return [...new Set(longest.map(({ row }) => row))];
}

interface DrawnOptions {
	/** How a table was drawn of which this is the next state: what is known of its heights and of the window goes on. */
	readonly before?: DrawnRows | undefined;
	/** Least heights of rows, in pixels. */
	readonly leastHeight?: ((row: number) => number | undefined) | undefined;
	/** Where columns of a fixed width begin, and where the last one ends, in pixels. */
	readonly columnEdges?: readonly number[] | undefined;
}

/**
 * Which rows of a long table are drawn: those near the window, and in every column the row with the longest text, so that
 * the columns keep their widths. Each drawn row is a track of the CSS grid; the rows between two of them are one track
 * together, as high as they were or are guessed to be. So a table costs what is seen of it, however long it is.
 */
export class DrawnRows {
	private range: readonly [from: number, to: number] = $state.raw([0, FIRST]);
	private isPrinting = $state(false);
	private readonly leastHeight: DrawnOptions['leastHeight'];
	private readonly columnEdges: DrawnOptions['columnEdges'];
	/** The columns near the window, where their places are known. */
	private columnRange: readonly [from: number, to: number] = $state.raw([0, Number.MAX_SAFE_INTEGER]);
	private readonly isNext: boolean;
	private readonly widest: readonly number[];
	private readonly heights: RowHeights;
	/** Index of the first cell of each row, and of those that reach down into others. */
	private readonly firstCell: Int32Array;
	private readonly tall: readonly number[];

	constructor(
		readonly grid: Grid,
		{ before, leastHeight, columnEdges }: DrawnOptions = {}
	) {
		this.leastHeight = leastHeight;
		this.columnEdges = columnEdges;
		this.heights = before?.grid.rows === grid.rows ? before.heights : new RowHeights(grid.rows, before?.heights);
		this.isNext = before !== undefined;
		if (before) {
			const [from, to] = untrack(() => before.range);
			this.columnRange = untrack(() => before.columnRange);
			this.range = [Math.min(from, Math.max(0, grid.rows - FIRST)), Math.min(to, grid.rows)];
		}
		this.firstCell = firstCells(grid);
		this.tall = grid.merged.filter((i) => grid.cells[i]!.rows > 1);
		this.widest = columnEdges ? [] : widestRows(grid);
	}

	/** The columns that are drawn. */
	readonly columns: readonly number[] = $derived.by(() => {
		const [from, to] = this.columnRange;
		const all = Array.from({ length: this.grid.columns }, (_, c) => c);
		return this.columnEdges && this.isWindowed ? all.slice(from, to) : all;
	});
	get isWindowed(): boolean {
		return this.grid.rows > WHOLE && !this.isPrinting;
	}
	/** The rows that are drawn, ascending. */
	readonly rows: readonly number[] = $derived.by(() => {
		const [from, to] = this.isWindowed ? this.range : [0, this.grid.rows];
		const near = Array.from({ length: Math.min(to, this.grid.rows) - from }, (_, i) => from + i);
		const far = this.isWindowed && !this.columnEdges ? this.widest.filter((row) => row < from || row >= to) : [];
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
		const far = this.columnEdges ? [] : this.widest;
		const stretches = [[near, beyond] as const, ...far.map((row) => [row, row + 1] as const)];
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
		const isCut = this.columnEdges !== undefined && this.isWindowed;
		const [left, right] = this.columnRange;
		const byRow = new Map<number, number[]>();
		for (const row of this.rows) {
			const [from, to] = [this.firstCell[row]!, this.firstCell[row + 1]!];
			const own = Array.from({ length: to - from }, (_, i) => from + i);
			byRow.set(row, isCut ? own.filter((i) => cells[i]!.c + cells[i]!.cols > left && cells[i]!.c < right) : own);
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

	/** The columns near what is seen, from `from` to `to` pixels after where the first one begins. */
	private lookAcross(seenFrom: number, seenTo: number): void {
		const edges = this.columnEdges;
		if (!edges) return;
		const from = Math.max(0, firstWhere(edges, (edge) => edge > seenFrom - NEAR) - 1);
		const to = Math.min(
			firstWhere(edges, (edge) => edge > seenTo + NEAR),
			this.grid.columns
		);
		const [low, high] = this.columnRange;
		const isSeen = low <= from && high >= to;
		if (!isSeen || high - low > to - from + 2 * SPARE) this.columnRange = [Math.max(0, from - 1), to + 1];
	}

	/** Follows the window: attach to the element whose tracks these are; `before` tracks come before the first row. */
	follow(element: HTMLElement, before: number): () => void {
		if (this.grid.rows <= WHOLE) return () => undefined;
		let asked = 0;
		const look = () => {
			asked = 0;
			if (!this.isWindowed) return;
			const { top, left } = element.getBoundingClientRect();
			// Where it scrolls in a box of its own, only what shows there is near.
			const box = this.columnEdges ? element.closest('[data-scrolls]')?.getBoundingClientRect() : undefined;
			const ahead = box ? NEAR : AHEAD;
			const [seenTop, seenBottom] = box ? [box.top, box.bottom] : [0, innerHeight];
			const start = left + (before ? GUTTER : 0);
			this.lookAcross((box?.left ?? 0) - start, (box?.right ?? innerWidth) - start);
			const used = getComputedStyle(element).gridTemplateRows.split(' ').map(parseFloat);
			for (const row of this.rows) {
				const height = used[before + this.line(row)];
				if (height !== undefined) this.heights.set(row, height);
			}
			const first = top + used.slice(0, before).reduce((sum, height) => sum + height, 0);
			const from = Math.floor(this.heights.at(seenTop - ahead - first) / BLOCK) * BLOCK;
			const last = this.heights.at(seenBottom + ahead - first) + 1;
			const to = Math.min(Math.ceil(last / BLOCK) * BLOCK, this.grid.rows);
			const [low, high] = this.range;
			const isSeen = low <= from && high >= to;
			if (from < to && (!isSeen || high - low > to - from + BLOCK)) this.range = [from, to];
		};
		const ask = () => (asked ||= requestAnimationFrame(look));
		const print = ({ type }: Event) => (this.isPrinting = type === 'beforeprint');
		// The next state of a table is where it was until something scrolls.
		if (!this.isNext) ask();
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
