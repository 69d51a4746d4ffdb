import type { Appearance } from '../cascade/look.ts';
import type { Purpose } from '../recognise/purpose/kinds.ts';
import type { Table } from '../table/grid.ts';

/** How much a house wants it. */
export const LEVELS = ['wish', 'warning', 'must'] as const;
export type Level = (typeof LEVELS)[number];

/** A table that is held against a policy. */
export interface Subject {
	readonly table: Table;
	readonly appearance: Appearance;
	readonly purpose: Purpose;
	readonly where: string;
	readonly caption: string | undefined;
	/** The name of the style that it wears. */
	readonly wears: string | undefined;
	/** Touches that it has over its style. */
	readonly touches: Table['touches'];
}

/** Something that a rule does not let pass; a cell of the table from 0, where it is one. */
export interface Fault {
	readonly words: string;
	readonly r?: number;
	readonly c?: number;
}

/** One thing that a house can want of its tables. Each is a file of its own, listed in `index.ts`. */
export interface PolicyRule<Name extends string = string, Settings = never> {
	readonly name: Name;
	/** What is wanted, as a sentence, with what was set. */
	words(settings: Settings): string;
	/** JSON Schemas of what can be set, by name; all of it has to be. */
	readonly settings?: Readonly<Record<string, object>>;
	judge(subject: Subject, settings: Settings): readonly Fault[];
}

export const policyRule = <const Name extends string, Settings = Record<never, never>>(
	rule: PolicyRule<Name, Settings>
): PolicyRule<Name, Settings> => rule;
