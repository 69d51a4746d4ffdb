import type { Shadow } from '../properties/shadow.ts';

/** One layer of a soft shadow: how far it reaches beyond the shape (negative: stays inside it), and how much it covers. */
export interface ShadowLayer {
	readonly spread: number;
	readonly opacity: number;
}

const LAYERS = 8;

/**
 * A soft shadow as layers to draw one over the other, widest first, for whoever cannot blur: together they fade from
 * nothing at half the blur outside the shape to the full ink at half the blur inside it (CSS Backgrounds 3 §6.2 in steps).
 * A shadow without blur is one full layer. Lengths are EMU.
 */
export function shadowLayers({ blur }: Shadow): ShadowLayer[] {
	if (blur <= 0) return [{ spread: 0, opacity: 1 }];
	// Each layer covers the same share of what is not covered yet in the end.
	return Array.from({ length: LAYERS }, (_, i) => ({
		spread: blur / 2 - (blur * i) / (LAYERS - 1),
		opacity: 1 / (LAYERS - i)
	}));
}

export interface Box {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** The layers of a box's shadow as boxes, widest first. */
export function shadowBoxes({ x, y, width, height }: Box, shadow: Shadow): (Box & { readonly opacity: number })[] {
	return shadowLayers(shadow).map(({ spread, opacity }) => ({
		x: x + shadow.x - spread,
		y: y + shadow.y - spread,
		width: Math.max(0, width + 2 * spread),
		height: Math.max(0, height + 2 * spread),
		opacity
	}));
}

/**
 * All around a box, as far as its shadow reaches, without the box itself: a shadow never shows inside what throws it
 * (CSS Backgrounds 3 §6.1.1). Two closed outlines for the even-odd rule, as SVG path data in units of `unit` EMU.
 */
export function aroundPath({ x, y, width, height }: Box, shadow: Shadow, unit: number): string {
	const reach = Math.abs(shadow.x) + Math.abs(shadow.y) + shadow.blur + 12_700;
	const outline = (left: number, top: number, right: number, bottom: number) => {
		const [l, t, r, b] = [left, top, right, bottom].map((length) => Number((length / unit).toFixed(3)));
		return `M${l} ${t}H${r}V${b}H${l}Z`;
	};
	return outline(x - reach, y - reach, x + width + reach, y + height + reach) + outline(x, y, x + width, y + height);
}
