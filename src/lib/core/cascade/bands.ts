import type { FlatStyle } from '../style/inherit.ts';
import { cellAt, type Table } from '../table/grid.ts';
import { behaviour } from '../roles/index.ts';

/** For each row (column): the number k of its stripe in the cycle, and which stripe on the table it is. 0 and −1: none. */
export interface Stripes {
	readonly number: Int32Array;
	readonly instance: Int32Array;
}

/** Hands out stripe numbers in a cycle of stripes of these sizes. */
class Cycle {
	private count = 0;
	private instances = 0;
	private readonly length: number;
	constructor(private readonly sizes: readonly number[]) {
		this.length = sizes.reduce((sum, size) => sum + size, 0);
	}
	restart(): void {
		if (this.count > 0) this.instances++;
		this.count = 0;
	}
	next(): { number: number; instance: number } {
		let rest = this.count % this.length;
		let index = 0;
		while (rest >= this.sizes[index]!) rest -= this.sizes[index++]!;
		if (rest === 0 && this.count > 0) this.instances++;
		this.count++;
		return { number: index + 1, instance: this.instances };
	}
}

/**
 * Row bands (engine §4 II, §11 *Bands*): body rows counted from the header on, in a cycle, anew after a header row and
 * (if the style says so) at each group heading; rows that one label cell covers count as one.
 */
export function countRowStripes(table: Table, style: FlatStyle): Stripes {
	const stripes = { number: new Int32Array(table.rows), instance: new Int32Array(table.rows).fill(-1) };
	const cycle = new Cycle(style.bands.rowSizes);
	let last: { number: number; instance: number } | undefined;
	let lastLabel: unknown;
	for (let step = 0; step < table.rows; step++) {
		const r = style.reading === 'up' ? table.rows - 1 - step : step;
		const { banding } = behaviour(table.roles[r]!);
		if (banding === 'restarts' || (banding === 'restarts at groups' && style.bands.restartAtGroups)) cycle.restart();
		if (banding !== 'counts') {
			last = undefined;
			continue;
		}
		const label = table.firstColumns > 0 && table.columns > 0 ? cellAt(table, r, 0) : undefined;
		if (!last || !label || label !== lastLabel) last = cycle.next();
		lastLabel = label;
		stripes.number[r] = last.number;
		stripes.instance[r] = last.instance;
	}
	return stripes;
}

/** Column bands: the columns that are neither first nor last, in a cycle. */
export function countColumnStripes(table: Table, style: FlatStyle): Stripes {
	const stripes = { number: new Int32Array(table.columns), instance: new Int32Array(table.columns).fill(-1) };
	const cycle = new Cycle(style.bands.columnSizes);
	for (let c = table.firstColumns; c < table.columns - table.lastColumns; c++) {
		const { number, instance } = cycle.next();
		stripes.number[c] = number;
		stripes.instance[c] = instance;
	}
	return stripes;
}
