import type { Grid } from '$lib/core/table/grid.ts';

/** How many letters of a figure stand from its decimal mark on, its unit among them; 0 for what ends in no figure. */
export function fractionOf(text: string): number {
	const match = /\d([.,]\d+)?(\D*)$/.exec(text);
	return match ? (match[1]?.length ?? 0) + match[2]!.length : 0;
}

/** The most of them in each column, so that figures which line up on their decimal mark have room. */
export function fractionsOf({ columns, cells }: Grid): number[] {
	const most = Array<number>(columns).fill(0);
	for (const { c, cols, text } of cells) if (cols === 1) most[c] = Math.max(most[c]!, fractionOf(text));
	return most;
}
