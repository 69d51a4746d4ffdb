import { parseLength, typedLength } from '../units.ts';
import type { Leaf } from './property.ts';
import type { LeafValue } from './vocabulary.ts';

interface Bounds {
	readonly enum?: readonly unknown[];
	readonly type?: string;
	readonly pattern?: string;
	readonly minimum?: number;
	readonly exclusiveMinimum?: number;
	readonly maximum?: number;
	readonly minLength?: number;
	readonly maxLength?: number;
}

/** What is wrong with a leaf's value by its schema, as a sentence; undefined where nothing is. */
export function valueFault({ schema, bounds }: Pick<Leaf, 'schema' | 'bounds'>, value: LeafValue): string | undefined {
	const is = schema as Bounds;
	const isRight = is.enum
		? is.enum.includes(value)
		: is.type === 'boolean'
			? typeof value === 'boolean'
			: is.type === 'string'
				? typeof value === 'string' &&
					(is.pattern === undefined || new RegExp(is.pattern, 'u').test(value)) &&
					value.length >= (is.minLength ?? 0) &&
					value.length <= (is.maxLength ?? Infinity)
				: typeof value === 'number' &&
					Number.isFinite(value) &&
					(is.type !== 'integer' || Number.isInteger(value)) &&
					value >= (is.minimum ?? -Infinity) &&
					value > (is.exclusiveMinimum ?? -Infinity) &&
					value <= (is.maximum ?? Infinity);
	return isRight ? undefined : (bounds ?? `“${value}” cannot stand here.`);
}

const number = (text: string): number | undefined => {
	const plain = text.trim().replace(',', '.').replace('\u2212', '-');
	return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : undefined;
};

/** Longer than anything in a table is. */
const MOST = '200mm';
function lengthFault({ typed: { least, most = MOST } = {} }: Pick<Leaf, 'typed'>, length: number): string | undefined {
	if (least !== undefined && length < parseLength(least)) return `It is ${least} at least.`;
	return Math.abs(length) > parseLength(most) ? `It is ${most} at most.` : undefined;
}

/** What typed text means for a leaf, and what is wrong with it: one of the two. Both decimal marks are taken. */
export function typedValue(leaf: Leaf, text: string): { readonly value: LeafValue } | { readonly fault: string } {
	const said = text.trim();
	let value: LeafValue = said;
	if (leaf.editor === 'length') {
		const length = typedLength(said, 'pt');
		value = length;
		try {
			const fault = lengthFault(leaf, parseLength(length));
			if (fault) return { fault };
		} catch {
			return { fault: `“${said}” is not a length: write a number and mm, cm, pt or in, such as 1.5pt.` };
		}
	} else if (leaf.editor === 'share' || leaf.editor === 'number') {
		const found = number(said.replace(/\s*%$/, ''));
		if (found === undefined) return { fault: `“${said}” is not a number.` };
		value = leaf.editor === 'share' ? found / 100 : found;
	} else if (leaf.editor === 'currency') value = said.toUpperCase();
	const fault = valueFault(leaf, value);
	return fault === undefined ? { value } : { fault };
}
