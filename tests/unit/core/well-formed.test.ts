import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../src/lib/core/errors.ts';
import { checkWellFormed, parseJson, wellFormed } from '../../../src/lib/core/well-formed.ts';

const faultOf = (value: unknown): InputError | undefined => {
	try {
		checkWellFormed(value);
	} catch (error) {
		assert.ok(error instanceof InputError);
		return error;
	}
};
/** What a JSON Pointer (RFC 6901, without escapes) leads to. */
const at = (value: unknown, pointer: string): unknown =>
	pointer
		.split('/')
		.slice(1)
		.reduce((one, key) => (one as Record<string, unknown>)[key], value);

describe('text that cannot be kept', () => {
	const plainKey = fc.stringMatching(/^[a-z]{1,6}$/);
	it('is refused wherever it stands, by its place; everything else is taken', () => {
		const text = fc.string({ unit: 'binary' });
		fc.assert(
			fc.property(fc.array(plainKey, { maxLength: 8 }), text, fc.json(), (keys, text, other) => {
				const value = keys.reduceRight<unknown>((inner, key) => ({ [key]: inner }), text);
				const isBad = !text.isWellFormed() || text.includes('\0');
				const fault = faultOf([value, 1, null, true]);
				assert.equal(!!fault, isBad);
				if (fault) assert.equal(at([value], fault.where!), text);
				assert.equal(isBad, !!faultOf(JSON.parse(JSON.stringify({ [`k${text}`]: 1 }))));
				assert.equal(faultOf(wellFormed(text)), undefined);
				if (!isBad) assert.equal(wellFormed(text), text);
				assert.doesNotThrow(() => wellFormed(other));
			})
		);
	});
	it('is found without going deep by oneself, and too deep is said', () => {
		const deep = `${'['.repeat(100_000)}1${']'.repeat(100_000)}`;
		assert.throws(() => parseJson(deep), InputError);
		assert.deepEqual(parseJson('{"a":[1,"ü😀"]}'), { a: [1, 'ü😀'] });
		assert.throws(() => parseJson('{'), SyntaxError);
		assert.throws(() => parseJson('"\\ud800"'), InputError);
	});
});
