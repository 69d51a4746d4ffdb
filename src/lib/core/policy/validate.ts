import { Ajv2020 } from 'ajv/dist/2020.js';
import { once } from '../once.ts';
import { PURPOSES } from '../recognise/purpose/kinds.ts';
import { check } from '../style/validate.ts';
import { LEVELS, POLICY_RULES, type Policy, type PolicyRule } from './policy.ts';

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
