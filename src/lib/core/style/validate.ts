import { Ajv2020, type ErrorObject, type ValidateFunction } from 'ajv/dist/2020.js';
import { InputError } from '../errors.ts';
import { once } from '../once.ts';
import { STYLE_SCHEMA, TABLE_SCHEMA } from './schema.ts';
import type { Style } from './types.ts';

/** Compiling a schema takes longer than most of what a program does with it. */
const ajv = once(() => new Ajv2020({ allErrors: false, allowUnionTypes: true, verbose: true, unicodeRegExp: true }));
const validators = {
	style: once(() => ajv().compile(STYLE_SCHEMA)),
	table: once(() => ajv().compile(TABLE_SCHEMA))
};

/** The deepest, most telling error: a `oneOf` says less than the branch that came closest. */
function sentence(error: ErrorObject): string {
	const place = error.instancePath ? `at ${error.instancePath}` : 'at the top';
	if (error.keyword === 'additionalProperties')
		return `${place}: “${error.params.additionalProperty}” is not a property that can stand here.`;
	if (error.keyword === 'required') return `${place}: “${error.params.missingProperty}” is missing.`;
	if (error.keyword === 'propertyNames')
		return `${place}: “${error.params.propertyName}” is not a name that can stand here.`;
	if (error.keyword === 'const') return `${place}: it must be ${JSON.stringify(error.params.allowedValue)}.`;
	if (error.keyword === 'enum')
		return `${place}: ${JSON.stringify(error.data)} is not one of ${(error.params.allowedValues as unknown[])
			.filter((value) => value !== null)
			.join(', ')}.`;
	if (error.keyword === 'not') return `${place}: it ${error.parentSchema?.description ?? 'cannot stand so'}.`;
	if (error.keyword === 'pattern') return `${place}: ${JSON.stringify(error.data)} is not written as it should be.`;
	return `${place}: it ${error.message}.`;
}

/** Throws InputError with the place and the reason where `value` is no such thing. */
export function check(validate: ValidateFunction, what: string, code: string, value: unknown): void {
	if (validate(value)) return;
	const errors = validate.errors ?? [];
	// Ajv lists `pattern` before the `propertyNames` that asked for it: the latter names the culprit.
	const error = errors.find(({ keyword }) => keyword === 'propertyNames') ?? errors[0]!;
	throw new InputError(code, `This is not a valid ${what}, ${sentence(error)}`, error.instancePath || '/');
}

/** Returns `value` as a style; throws InputError with the place and the reason where it is none. */
export function checkStyle(value: unknown): Style {
	check(validators.style(), 'style', 'style', value);
	const style = value as Style;
	const names = new Set<string>();
	for (const rule of style.rules ?? []) {
		if (names.has(rule.name))
			throw new InputError('style', `This is not a valid style: two rules are named “${rule.name}”.`, '/rules');
		names.add(rule.name);
	}
	return style;
}

/** Throws InputError where `value` is not a table file. */
export function checkTableFile(value: unknown): void {
	check(validators.table(), 'table', 'table', value);
}
