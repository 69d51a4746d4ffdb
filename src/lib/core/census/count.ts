import { findingsIn } from '../findings/index.ts';
import { portrait, type Portrait } from '../lift/likeness.ts';
import { measuresOf, type Measures, type Subject } from '../policy/policy.ts';
import type { Purpose } from '../recognise/purpose/kinds.ts';
import { settingsIn } from './settings.ts';

/** What the census keeps of a table. */
export interface Counted {
	readonly purpose: Purpose;
	readonly portrait: Portrait;
	/** What it shows of each varying setting, by its code. */
	readonly settings: ReadonlyMap<string, unknown>;
	/** How many findings it has, by kind. */
	readonly findings: Readonly<Record<string, number>>;
	readonly measures: Measures;
}

/** Tables that only lay things out are no part of a census. */
export const isCounted = (purpose: Purpose): boolean => purpose !== 'layout';

export function countTable(subject: Subject): Counted {
	const findings: Record<string, number> = {};
	for (const { kind } of findingsIn(subject)) findings[kind] = (findings[kind] ?? 0) + 1;
	return {
		purpose: subject.purpose,
		portrait: portrait(subject.table, subject.appearance),
		settings: settingsIn(subject),
		findings,
		measures: measuresOf(subject)
	};
}
