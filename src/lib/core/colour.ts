import { formatHex, interpolate, parse, wcagContrast, wcagLuminance } from 'culori';

/** sRGB as `#RRGGBB`, upper case. */
export type Hex = `#${string}`;

export const PAPER: Hex = '#FFFFFF';
export const BLACK: Hex = '#000000';

/** `#rgb`, `#rrggbb` or any CSS colour → `#RRGGBB`; undefined where it is no colour. */
export function toHex(text: string): Hex | undefined {
	try {
		const colour = parse(text);
		return colour ? (formatHex(colour).toUpperCase() as Hex) : undefined;
	} catch {
		// The library stumbles over texts such as “/0A”, which are no colours.
		return undefined;
	}
}

/** `share` of `ink` and the rest of `base`, mixed in sRGB as a printed tint or an opacity would be. */
export function mix(ink: Hex, base: Hex, share: number): Hex {
	if (share >= 1) return ink;
	if (share <= 0) return base;
	return formatHex(interpolate([base, ink], 'rgb')(share)).toUpperCase() as Hex;
}

/** WCAG 2.2 relative luminance, 0 (black) to 1 (white). */
export const luminance = (colour: Hex): number => wcagLuminance(colour);

/** WCAG 2.2 contrast ratio, 1 to 21. */
export const contrast = (a: Hex, b: Hex): number => wcagContrast(a, b);
