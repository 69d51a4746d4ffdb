import type { Appearance } from '../cascade/look.ts';
import type { Purpose } from '../recognise/purpose/kinds.ts';
import type { Table, Touch } from '../table/grid.ts';

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
	/** The name of the style that it wears; inside a house, its id. */
	readonly wears: string | undefined;
	/** Touches that it has over its style. */
	readonly touches: readonly Touch[];
}

/** Something that a rule does not let pass; a cell of the table from 0, where it is one. */
export interface Fault {
	readonly words: string;
	readonly r?: number;
	readonly c?: number;
}

/** What is kept of a table so that a rule can be counted without opening its document: one number or word, or nothing. */
export type Measure = number | string | null;

/** What puts a table right: touches over those it has, touches off, or a style on. */
export type Mending =
	{ readonly touches: readonly Touch[] } | { readonly untouched: true } | { readonly style: string };

/** One thing that a house can want of its tables. Each is a file of its own, listed in `index.ts`. */
export interface PolicyRule<Name extends string = string, Settings = never> {
	readonly name: Name;
	/** What is wanted, as a sentence, with what was set. */
	words(settings: Settings): string;
	/** JSON Schemas of what can be set, by name; all of it has to be. */
	readonly settings?: Readonly<Record<string, object>>;
	/** What is set of it before anybody chose. */
	readonly usual: object;
	/** The same settings with styles called otherwise, or left out, where it names styles. */
	renamed?(settings: Settings, call: (style: string) => string | undefined): object;
	measure(subject: Subject): Measure;
	/** Whether it does not let a table of such a measure pass: then {@link judge} says why, and only then. */
	fails(measure: Measure, settings: Settings): boolean;
	judge(subject: Subject, settings: Settings): readonly Fault[];
	/** What is done about it, as people read it, and how; none where only a person can know. */
	readonly mend?: {
		/** Undefined where its settings leave nothing to be done. */
		readonly words: (settings: Settings) => string | undefined;
		readonly of: (subject: Subject, settings: Settings) => Mending | undefined;
	};
}

/** Rules that only count how often something is so let pass what has none of it. */
export const someFail = (measure: Measure): boolean => measure !== null && measure !== 0;

export const policyRule = <const Name extends string, Settings = Record<never, never>>(
	rule: PolicyRule<Name, Settings>
): PolicyRule<Name, Settings> => rule;
