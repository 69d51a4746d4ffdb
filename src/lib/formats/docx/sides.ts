import { sameLine } from '../../core/properties/line.ts';
import { SIDES } from '../../core/table/grid.ts';
import { commonLine } from '../sides.ts';
import type { Appearance, Line } from '../../core/cascade/look.ts';
import type { CellGround, PropertyReader } from './looks.ts';
import type { SourceCell, SourceGrid } from './tables.ts';

const OPPOSITE = [1, 0, 3, 2] as const;

/** What is wanted on a side of a w:tc: the number of a line from 0, or one of these. */
const NO_LINE = -1;
/** No edge: the side runs inside a merged cell. */
export const INSIDE = -2;
/** Its segments show different lines, so that the finer cells on the other side have to say them. */
const UNEVEN = -3;

/**
 * What is wanted on the four sides of each w:tc of a table, and whether style and table say just that already. The
 * w:tc's are numbered in document order.
 */
export class WantedSides {
	/** The number of the w:tc that covers each slot in its row, −1 for none. */
	private readonly owner: Int32Array;
	/** For each w:tc top, bottom, start, end. */
	private readonly wanted: Int32Array;
	private readonly stated: Uint8Array;

	/** `grounds` by number; `own` reads the borders that the cells keep, undefined where they keep none. */
	constructor(
		private readonly source: SourceGrid,
		private readonly cells: readonly SourceCell[],
		grounds: readonly CellGround[],
		appearance: Appearance,
		private readonly lines: readonly (Line | null)[],
		own: PropertyReader | undefined
	) {
		const { columns, rows } = source.grid;
		this.owner = new Int32Array(rows * columns).fill(-1);
		this.wanted = new Int32Array(cells.length * 4);
		this.stated = new Uint8Array(cells.length * 4);
		cells.forEach((cell, number) => {
			const { r, c, cols } = cell;
			for (let slot = r * columns + c; slot < r * columns + c + cols; slot++) this.owner[slot] = number;
			this.wanted[number * 4] = this.along(appearance.across, r * columns + c, cols);
			this.wanted[number * 4 + 1] = this.along(appearance.across, (r + 1) * columns + c, cols);
			this.wanted[number * 4 + 2] = this.along(appearance.down, r * (columns + 1) + c, 1);
			this.wanted[number * 4 + 3] = this.along(appearance.down, r * (columns + 1) + c + cols, 1);
		});
		this.settle(appearance.across);
		cells.forEach((cell, number) => {
			const { around } = grounds[number]!;
			const borders = own?.cell(cell.node.child('w:tcPr')).borders;
			for (let side = 0; side < 4; side++) {
				const kept = borders?.[SIDES[side]!];
				const said = kept === undefined ? around[side] : kept;
				const want = this.wanted[number * 4 + side]!;
				this.stated[number * 4 + side] = want === INSIDE || (want !== UNEVEN && sameLine(said, lines[want])) ? 1 : 0;
			}
		});
	}

	/** What is wanted on these edges, one after the other. */
	private along(edges: Int32Array, from: number, count: number): number {
		let want = INSIDE;
		for (let i = from; i < from + count; i++) {
			const edge = edges[i]!;
			if (edge < 0 || want === UNEVEN) continue;
			const next = this.lines[edge] ? edge : NO_LINE;
			if (want === INSIDE) want = next;
			else if (!sameLine(this.lines[want], this.lines[next])) want = UNEVEN;
		}
		return want;
	}

	/** Where the cells beyond a merged cell cannot say its lines either, it says what most of that is to be. */
	private settle(across: Int32Array): void {
		const { columns, rows } = this.source.grid;
		const settled = new Map<number, number>();
		this.cells.forEach(({ r, c, cols }, number) => {
			for (const side of [0, 1] as const) {
				if (this.wanted[number * 4 + side] !== UNEVEN) continue;
				const row = side === 0 ? r - 1 : r + 1;
				// What an even cell beyond can say, it says.
				const left = Array.from({ length: cols }, (_, k) => c + k).filter((x) => {
					const other = row < 0 || row >= rows ? -1 : this.owner[row * columns + x]!;
					return other < 0 || this.wanted[other * 4 + OPPOSITE[side]] === UNEVEN;
				});
				if (!left.length) continue;
				const edges = left.map((x) => across[(side === 0 ? r : r + 1) * columns + x]!).filter((edge) => edge >= 0);
				const line = commonLine(edges.map((edge) => this.lines[edge] ?? null));
				settled.set(number * 4 + side, line ? this.lines.indexOf(line) : NO_LINE);
			}
		});
		for (const [at, want] of settled) this.wanted[at] = want;
	}

	/** The line wanted on a side, null for none; undefined where there is no edge. */
	line(number: number, side: number): Line | null | undefined {
		const want = this.wanted[number * 4 + side]!;
		return want === INSIDE ? undefined : (this.lines[want] ?? null);
	}
	isStated(number: number, side: number): boolean {
		return this.stated[number * 4 + side] === 1;
	}

	/** Whether the cells beyond some side state something else there than is wanted, so that both have to say it. */
	isContested(number: number): boolean {
		const { r, c, cols } = this.cells[number]!;
		const { columns } = this.source.grid;
		for (let side = 0; side < 4; side++) {
			if (this.wanted[number * 4 + side] === INSIDE) continue;
			if (side === 2 ? this.differsAt(r, c - 1, side) : side === 3 && this.differsAt(r, c + cols, side)) return true;
			if (side < 2)
				for (let x = c; x < c + cols && x < columns; x++)
					if (this.differsAt(side === 0 ? r - 1 : r + 1, x, side)) return true;
		}
		return false;
	}

	private differsAt(row: number, column: number, side: number): boolean {
		const { rows, columns } = this.source.grid;
		if (row < 0 || row >= rows || column < 0 || column >= columns) return false;
		const other = this.owner[row * columns + column]!;
		return other >= 0 && this.stated[other * 4 + OPPOSITE[side]!] === 0;
	}

	/** The same for cells on whose four sides the same lines are wanted and stated; `idOf` gives a line a number from 1. */
	key(number: number, isContested: boolean, idOf: (line: Line) => number): number | string {
		let key = isContested ? 1 : 0;
		let isSmall = true;
		for (let side = 0; side < 4; side++) {
			const want = this.wanted[number * 4 + side]!;
			const code = want < 0 ? want - UNEVEN : 2 + idOf(this.lines[want]!);
			isSmall &&= code < 1024;
			key = key * 2048 + code * 2 + this.stated[number * 4 + side]!;
		}
		return isSmall ? key : `${isContested} ${[0, 1, 2, 3].map((side) => this.sideKey(number, side, idOf)).join()}`;
	}
	private sideKey(number: number, side: number, idOf: (line: Line) => number): string {
		const want = this.wanted[number * 4 + side]!;
		return `${want < 0 ? want : idOf(this.lines[want]!)}${this.stated[number * 4 + side]}`;
	}
}
