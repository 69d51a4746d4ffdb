import { toHex } from '$lib/core/colour.ts';

/** What a text stands for, or why it stands for nothing. */
export type Parsed<Value> = { readonly value: Value } | { readonly fault: string };

/** A colour as CSS writes it, or six hex digits; given as `#RRGGBB`. */
export function parseColour(text: string): Parsed<string> {
	const hex = toHex(/^[0-9a-f]{6}$/i.test(text) ? `#${text}` : text);
	return hex
		? { value: hex }
		: { fault: 'Write a colour as #2F5D50, rgb(47 93 80), hsl(163 33% 27%) or oklch(0.44 0.06 170).' };
}

export interface NumberBounds {
	readonly least: number;
	readonly most: number;
	/** Whether only whole numbers are allowed. */
	readonly isWhole?: boolean;
	/** What may stand after the number. */
	readonly unit?: string | undefined;
}

/** A number within bounds, both of which are allowed, written with a point or a comma. */
export function parseNumber(text: string, { least, most, isWhole = false, unit }: NumberBounds): Parsed<number> {
	const bare = unit && text.endsWith(unit) ? text.slice(0, -unit.length) : text;
	const value = Number(bare.trim().replace(',', '.').replace('\u2212', '-'));
	if (bare.trim() === '' || !Number.isFinite(value)) return { fault: `“${text}” is not a number.` };
	if (isWhole && !Number.isInteger(value)) return { fault: `“${text}” is not a whole number.` };
	if (value < least || value > most)
		return {
			fault:
				most === Infinity
					? `It is ${least} or more.`
					: least === -Infinity
						? `It is ${most} or less.`
						: `It goes from ${least} to ${most}.`
		};
	return { value };
}
