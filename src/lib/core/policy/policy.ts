import { isLeftOut, type Purpose } from '../recognise/purpose/kinds.ts';
import type { Fault, Level, Measure, Mending, PolicyRule, Subject } from './rule.ts';
import { caption } from './rules/caption.ts';
import { contrast } from './rules/contrast.ts';
import { figuresAligned } from './rules/figures-aligned.ts';
import { header } from './rules/header.ts';
import { noTouches } from './rules/no-touches.ts';
import { totalsRight } from './rules/totals-right.ts';
import { typeSize } from './rules/type-size.ts';
import { wearsStyle } from './rules/wears-style.ts';

export { LEVELS, type Fault, type Level, type Measure, type Mending, type PolicyRule, type Subject } from './rule.ts';

/** Everything that a house can want of its tables. */
export const POLICY_RULES: readonly PolicyRule[] = [
	wearsStyle,
	header,
	totalsRight,
	contrast,
	typeSize,
	figuresAligned,
	noTouches,
	caption
];
const byName = new Map(POLICY_RULES.map((rule) => [rule.name, rule]));

/** One rule of a policy: what is wanted, how much, and what was set of it. */
export type WantedRule = { readonly rule: string; readonly level: Level } & Readonly<Record<string, unknown>>;

/** What a house wants of its tables, as its file says it. */
export interface Policy {
	readonly format: 'heptarch-policy';
	readonly version: 1;
	readonly name?: string;
	readonly rules: readonly WantedRule[];
	/** What kinds of tables it does not speak of; forms and layout tables where it says nothing. */
	readonly leavesOut?: readonly Purpose[];
}

/** Something that a policy does not let pass. */
export interface PolicyFault extends Fault {
	readonly rule: string;
	readonly level: Level;
	/** What is wanted, as a sentence. */
	readonly wanted: string;
}

const definitionOf = ({ rule }: WantedRule): PolicyRule => byName.get(rule)!;
export const policyRuleNamed = (name: string): PolicyRule | undefined => byName.get(name);

export const wantedWords = (wanted: WantedRule): string => definitionOf(wanted).words(wanted as never);

/** A rule as it is taken up before anybody set anything of it. */
export const usualRule = ({ name, usual }: PolicyRule, level: Level): WantedRule => ({ rule: name, level, ...usual });

/** Whether a policy does not speak of tables of a purpose. */
export const leavesOut = ({ leavesOut: said }: Policy, purpose: Purpose): boolean =>
	said ? said.includes(purpose) : isLeftOut(purpose);

/** A policy with styles called otherwise, by their names in its file, by their ids in a house; or without some. */
export const withStylesCalled = (policy: Policy, call: (style: string) => string | undefined): Policy => ({
	...policy,
	rules: policy.rules.map((wanted) => ({ ...wanted, ...definitionOf(wanted).renamed?.(wanted as never, call) }))
});

/** What is kept of a table to count what any policy would have against it, by rule. */
export type Measures = Readonly<Record<string, Measure>>;
export const measuresOf = (subject: Subject): Measures =>
	Object.fromEntries(POLICY_RULES.map(({ name, measure }) => [name, measure(subject)]));

/** Whether a table of such measures is not as a rule wants it: then {@link judge} says why. */
export const isFlagged = (wanted: WantedRule, measures: Measures): boolean =>
	definitionOf(wanted).fails(measures[wanted.rule] ?? null, wanted as never);

/** What puts a table right by one rule; undefined where only a person can. */
export const mendingOf = (wanted: WantedRule, subject: Subject): Mending | undefined =>
	definitionOf(wanted).mend?.of(subject, wanted as never);

/** What a policy has against a table, in the order of its rules; nothing for kinds of tables that it leaves out. */
export function judge(policy: Policy, subject: Subject): PolicyFault[] {
	if (leavesOut(policy, subject.purpose)) return [];
	return policy.rules.flatMap((wanted) =>
		definitionOf(wanted)
			.judge(subject, wanted as never)
			.map(({ words, r, c }) => ({
				rule: wanted.rule,
				level: wanted.level,
				wanted: wantedWords(wanted),
				words,
				...(r !== undefined && { r }),
				...(c !== undefined && { c })
			}))
	);
}
