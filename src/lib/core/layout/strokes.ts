import type { Line } from '../cascade/look.ts';

/** A stretch of edges that show the same line. Rows and columns are grid lines, from 0. */
export interface Stroke {
	readonly at: number;
	readonly from: number;
	readonly to: number;
	/** null: nobody claims it; a guide may stand there on screen. */
	readonly line: Line | null;
}

/** Joins unit edges that show the same line to strokes; `width` is the number of edges in each run of `edges`. */
export function strokes(
	edges: ArrayLike<number>,
	lines: readonly (Line | null)[],
	runs: number,
	width: number,
	index: (run: number, i: number) => number
): Stroke[] {
	const out: Stroke[] = [];
	for (let at = 0; at < runs; at++) {
		let from = 0;
		let current: Line | null | undefined;
		const flush = (to: number) => {
			if (current !== undefined && current?.pattern !== 'none') out.push({ at, from, to, line: current });
		};
		for (let i = 0; i < width; i++) {
			const edge = edges[index(at, i)]!;
			const line = edge < 0 ? undefined : lines[edge];
			if (i > 0 && line === current) continue;
			if (i > 0) flush(i);
			from = i;
			current = line;
		}
		flush(width);
	}
	return out;
}
