import type { Appearance, Line } from '../cascade/look.ts';

/** A stretch of edges that show the same line. Rows and columns are grid lines, from 0. */
export interface Stroke {
	readonly at: number;
	readonly from: number;
	readonly to: number;
	/** null: nobody claims it; a guide may stand there on screen. */
	readonly line: Line | null;
}

/** Joins the unit edges between rows (`across`) or between columns (`down`) that show the same line; by line, then along it. */
export function strokes(
	appearance: Pick<Appearance, 'across' | 'down' | 'lines'>,
	{ rows, columns }: { readonly rows: number; readonly columns: number },
	direction: 'across' | 'down'
): Stroke[] {
	const { [direction]: edges, lines } = appearance;
	const isAcross = direction === 'across';
	const [runs, length] = isAcross ? [rows + 1, columns] : [columns + 1, rows];
	const [toNextRun, toNextEdge] = isAcross ? [columns, 1] : [1, columns + 1];
	const lineOf = (edge: number) => (edge < 0 ? undefined : lines[edge]);
	const out: Stroke[] = [];
	for (let at = 0; at < runs; at++) {
		let place = at * toNextRun;
		let edge = edges[place]!;
		let line = lineOf(edge);
		let from = 0;
		for (let i = 1; i <= length; i++) {
			place += toNextEdge;
			if (i < length) {
				const next = edges[place]!;
				if (next === edge) continue;
				edge = next;
				if (lineOf(edge) === line) continue;
			}
			if (line !== undefined && line?.pattern !== 'none') out.push({ at, from, to: i, line });
			from = i;
			line = lineOf(edge);
		}
	}
	return out;
}
