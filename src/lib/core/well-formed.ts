import { InputError } from './errors.ts';

/** The largest whole number that PostgreSQL keeps as an `integer` (8.1.1). */
export const MOST_INTEGER = 2_147_483_647;

/** Nothing of ours stands so deep in anything; walking deeper ones would exhaust the stack. */
const MOST_DEPTH = 200;

const isWellFormed = (text: string): boolean => text.isWellFormed() && !text.includes('\0');

/** Text with what cannot be kept taken out of it, or replaced (U+FFFD). */
export const wellFormed = (text: string): string => text.toWellFormed().replaceAll('\0', '');

/**
 * Looks through a value from JSON. Throws InputError for a text that cannot be kept, as it holds NUL or half of a surrogate
 * pair, and for values too deep in each other; both say where, as a JSON Pointer (RFC 6901).
 */
export function checkWellFormed(value: unknown): void {
	const open: { readonly value: unknown; readonly at: string; readonly depth: number }[] = [
		{ value, at: '', depth: 0 }
	];
	for (let next; (next = open.pop());) {
		const { value: one, at, depth } = next;
		const check = (text: string) => {
			if (!isWellFormed(text))
				throw new InputError(
					'text',
					`A text at ${at || 'the top'} holds half of a character or an empty one (U+0000), which cannot be kept.`,
					at || '/'
				);
		};
		if (typeof one === 'string') check(one);
		if (typeof one !== 'object' || one === null) continue;
		if (depth > MOST_DEPTH)
			throw new InputError('depth', `Values stand more than ${MOST_DEPTH} deep in each other at ${at.slice(0, 60)}….`);
		for (const [key, inner] of Object.entries(one)) {
			check(key);
			open.push({ value: inner, at: `${at}/${key}`, depth: depth + 1 });
		}
	}
}

/** A value from JSON that can be kept. Throws SyntaxError for what is no JSON, and as {@link checkWellFormed}. */
export function parseJson(text: string): unknown {
	const value: unknown = JSON.parse(text);
	checkWellFormed(value);
	return value;
}
