import type { Grid } from '../../table/grid.ts';
import type { Judged } from '../recognition.ts';
import type { RowFacts, Things } from '../facts.ts';

/** What is known of a table before its purpose is. */
export interface Clues {
	readonly grid: Grid;
	readonly facts: readonly RowFacts[];
	/** Its rows and columns as those of a data table. */
	readonly asData: Judged;
	/** What stands in a cell beside text; nothing where the source does not say. */
	readonly things: (cell: number) => Things;
	/** No cell has a fill and no edge a line; undefined where the source does not say. */
	readonly isPlain: () => boolean | undefined;
	/** Whether a row is called a total or subtotal by its words or looks, not by arithmetic alone. */
	readonly isCalledSum: (r: number) => boolean;
}

/** How surely a table is of a purpose, from 0 to 1, and why; below a half it is not. */
export interface Verdict {
	readonly sure: number;
	readonly why: readonly string[];
}
export const NOT: Verdict = { sure: 0, why: [] };

/** Something to be said for or against a purpose. */
export type Evidence = readonly [weight: number, reason: string];
/** Weighs evidence: what is for it is said, the strongest first. */
export function weigh(evidence: readonly (Evidence | false | undefined)[]): Verdict {
	const held = evidence.filter((one): one is Evidence => !!one && one[0] !== 0);
	const sure = held.reduce((sum, [weight]) => sum + weight, 0);
	const why = held.filter(([weight]) => weight > 0).toSorted(([a], [b]) => b - a);
	return { sure: Math.max(0, Math.min(0.97, sure)), why: why.map(([, reason]) => reason) };
}
