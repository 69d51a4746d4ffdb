import { emu, toPixels } from '$lib/core/units.ts';
import { moveLines, type Axis } from '$lib/core/work/lines.ts';
import type { TableBench } from './bench.svelte.ts';

/** A pointer has to go so many pixels before rows or columns are dragged along. */
const DRAG = 6;
/** No row or column is dragged smaller than this, in pixels. */
const LEAST = 12;
const EMU_PER_PIXEL = 9_525;

interface Sizing {
	readonly axis: Axis;
	readonly line: number;
	/** Where the pointer was, and how large the line was there. */
	readonly at: number;
	readonly from: number;
	readonly size: number;
}
interface Dragging {
	readonly axis: Axis;
	readonly from: number;
	readonly count: number;
	/** The place between lines where they would be put. */
	readonly to: number;
	readonly isMoving: boolean;
	readonly at: number;
}

/** Rows and columns by their heads: selected whole, dragged to another place, and dragged to another size. */
export class LineHandles {
	sizing: Sizing | undefined = $state.raw();
	dragging: Dragging | undefined = $state.raw();

	/** `box` is the element that the heads stand in; `focus` gives the keys back to the table. */
	constructor(
		private readonly bench: TableBench,
		private readonly box: () => HTMLElement,
		private readonly focus: () => void
	) {}

	/** The size that a line is dragged to now, in pixels. */
	sizeOf(axis: Axis, line: number): number | undefined {
		return this.sizing?.axis === axis && this.sizing.line === line ? this.sizing.size : undefined;
	}
	/** The least height of a row in pixels, as it is set or dragged now. */
	readonly leastHeight = (r: number): number | undefined => {
		const height = this.bench.work.rows[r]?.height;
		return this.sizeOf('rows', r) ?? (height && toPixels(height) * this.bench.zoom);
	};

	/** The lines that a change is for: all selected ones, where this one is among them and they are selected whole. */
	alongWith(axis: Axis, line: number): Set<number> {
		const { rows, columns } = this.bench.work;
		const lines = new Set<number>();
		for (const { top, bottom, start, end } of this.bench.selection.ranges) {
			const isWhole =
				axis === 'rows' ? start === 0 && end === columns.length - 1 : top === 0 && bottom === rows.length - 1;
			if (isWhole) for (let i = axis === 'rows' ? top : start; i <= (axis === 'rows' ? bottom : end); i++) lines.add(i);
		}
		return lines.has(line) ? lines : new Set([line]);
	}
	select(axis: Axis, from: number, to: number, how: 'new' | 'more' = 'new'): void {
		if (axis === 'rows') this.bench.selectRows(from, to, how);
		else this.bench.selectColumns(from, to, how);
	}

	/* ---- sizes ---- */

	startSizing(event: PointerEvent, axis: Axis, line: number): void {
		event.preventDefault();
		event.stopPropagation();
		const handle = event.currentTarget as HTMLElement;
		handle.setPointerCapture(event.pointerId);
		const head = handle.parentElement!.getBoundingClientRect();
		const from = axis === 'columns' ? head.width : (this.heightOf(line) ?? head.height);
		this.sizing = { axis, line, at: axis === 'columns' ? event.clientX : event.clientY, from, size: from };
	}
	/** The table starts at the right. */
	private get isRight(): boolean {
		return this.bench.work.dir === 'rtl';
	}
	private heightOf(row: number): number | undefined {
		const { slots, columns } = this.bench.table;
		return this.box()
			.querySelector(`[data-cell="${slots[row * columns]}"]`)
			?.getBoundingClientRect().height;
	}
	moveSizing(event: PointerEvent): void {
		const { sizing } = this;
		if (!sizing) return;
		const by = (sizing.axis === 'columns' ? event.clientX : event.clientY) - sizing.at;
		const wider = sizing.axis === 'columns' && this.isRight ? -by : by;
		this.sizing = { ...sizing, size: Math.max(LEAST, sizing.from + wider) };
	}
	endSizing(): void {
		const { sizing } = this;
		this.sizing = undefined;
		if (!sizing || Math.abs(sizing.size - sizing.from) < 1) return;
		const { axis, line } = sizing;
		const length = emu((sizing.size / this.bench.zoom) * EMU_PER_PIXEL);
		const some = this.alongWith(axis, line);
		if (axis === 'columns')
			this.bench.setColumns(`width of column ${line + 1}`, some, (column) => ({ ...column, width: length }));
		else
			this.bench.edit(`height of row ${line + 1}`, (work) => ({
				...work,
				rows: work.rows.map((row, r) => (some.has(r) ? { ...row, height: length } : row))
			}));
	}

	/* ---- places ---- */

	grab(event: PointerEvent, axis: Axis, line: number): void {
		if (event.button !== 0) return;
		const { anchor } = this.bench.selection;
		const some = this.alongWith(axis, line);
		if (event.shiftKey) this.select(axis, axis === 'rows' ? anchor.r : anchor.c, line);
		else if (event.ctrlKey || event.metaKey) this.select(axis, line, line, 'more');
		else if (some.size === 1) this.select(axis, line, line);
		const from = Math.min(...some);
		const isOne = Math.max(...some) - from + 1 === some.size;
		(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
		this.dragging = {
			axis,
			from: isOne ? from : line,
			count: isOne ? some.size : 1,
			to: line,
			isMoving: false,
			at: axis === 'rows' ? event.clientY : event.clientX
		};
		this.focus();
	}
	drag({ clientX, clientY }: PointerEvent): void {
		const { dragging } = this;
		if (!dragging) return;
		const { axis, isMoving } = dragging;
		if (!isMoving && Math.abs((axis === 'rows' ? clientY : clientX) - dragging.at) < DRAG) return;
		this.dragging = { ...dragging, isMoving: true, to: this.boundaryAt(axis, clientX, clientY) };
	}
	/** The place between two lines that is nearest to a point. */
	private boundaryAt(axis: Axis, x: number, y: number): number {
		for (const head of this.box().querySelectorAll<HTMLElement>(`[data-head="${axis}"]`)) {
			const { top, bottom, left, right } = head.getBoundingClientRect();
			const isBefore = axis === 'rows' ? y < (top + bottom) / 2 : x < (left + right) / 2 !== this.isRight;
			if (isBefore) return Number(head.dataset.line);
		}
		return this.bench.work[axis].length;
	}
	drop(): void {
		const { dragging } = this;
		this.dragging = undefined;
		if (dragging?.isMoving) this.moveTo(dragging.axis, dragging.from, dragging.count, dragging.to);
	}
	/** Moves `count` lines to the place before line `to`. */
	moveTo(axis: Axis, from: number, count: number, to: number): void {
		if (to >= from && to <= from + count) return;
		const words = `${count === 1 ? (axis === 'rows' ? 'row' : 'column') : `${count} ${axis}`} moved`;
		if (!this.bench.edit(words, (work) => moveLines(work, axis, from, count, to))) return;
		const now = to > from ? to - count : to;
		this.select(axis, now, now + count - 1);
	}
}
