import { Ajv2020 } from 'ajv/dist/2020.js';
import { once } from '../once.ts';
import { isLeftOut, PURPOSES, type Purpose } from '../recognise/purpose/kinds.ts';
import { check } from '../style/validate.ts';
import { LEVELS, type Fault, type Level, type PolicyRule, type Subject } from './rule.ts';
import { caption } from './rules/caption.ts';
import { contrast } from './rules/contrast.ts';
import { figuresAligned } from './rules/figures-aligned.ts';
import { header } from './rules/header.ts';
import { noTouches } from './rules/no-touches.ts';
import { totalsRight } from './rules/totals-right.ts';
import { typeSize } from './rules/type-size.ts';
import { wearsStyle } from './rules/wears-style.ts';

export { LEVELS, type Fault, type Level, type Subject } from './rule.ts';

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

const closed = (properties: object, required: readonly string[]) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
const ruleSchema = ({ name, settings = {} }: PolicyRule) =>
	closed({ rule: { const: name }, level: { enum: LEVELS }, ...settings }, ['rule', 'level', ...Object.keys(settings)]);

/** The JSON Schema (2020-12) of policy files. */
export const POLICY_SCHEMA = {
	$schema: 'https://json-schema.org/draft/2020-12/schema',
	title: 'A policy: what a house wants of its tables',
	...closed(
		{
			$schema: { type: 'string' },
			format: { const: 'heptarch-policy' },
			version: { const: 1 },
			name: { type: 'string', maxLength: 200 },
			leavesOut: { type: 'array', uniqueItems: true, items: { enum: PURPOSES } },
			rules: {
				type: 'array',
				maxItems: 100,
				items: {
					type: 'object',
					required: ['rule', 'level'],
					properties: { rule: { enum: POLICY_RULES.map(({ name }) => name) } },
					allOf: POLICY_RULES.map((rule) => ({
						if: { properties: { rule: { const: rule.name } }, required: ['rule'] },
						then: ruleSchema(rule)
					}))
				}
			}
		},
		['format', 'version', 'rules']
	)
};

const validate = once(() =>
	new Ajv2020({ allowUnionTypes: true, verbose: true, strict: false }).compile(POLICY_SCHEMA)
);

/** Returns `value` as a policy; throws InputError with the place and the reason where it is none. */
export function checkPolicy(value: unknown): Policy {
	check(validate(), 'policy', 'policy', value);
	return value as Policy;
}

/** Something that a policy does not let pass. */
export interface PolicyFault extends Fault {
	readonly rule: string;
	readonly level: Level;
	/** What is wanted, as a sentence. */
	readonly wanted: string;
}

export const wantedWords = (wanted: WantedRule): string => byName.get(wanted.rule)!.words(wanted as never);

/** What a policy has against a table, in the order of its rules; nothing for kinds of tables that it leaves out. */
export function judge(policy: Policy, subject: Subject): PolicyFault[] {
	const isOut = policy.leavesOut ? policy.leavesOut.includes(subject.purpose) : isLeftOut(subject.purpose);
	if (isOut) return [];
	return policy.rules.flatMap((wanted) =>
		byName
			.get(wanted.rule)!
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
