import type { Hex } from '../../../core/colour.ts';
import type { Shadow } from '../../../core/properties/shadow.ts';
import type { Emu } from '../../../core/units.ts';
import type { Computed } from '../cascade.ts';
import { over, toColour, toPx, words } from '../css.ts';
import { inkOf } from './fill.ts';
import { fromPx, pt, sizeOf, type HtmlFields } from './property.ts';

/** The first shadow of `text-shadow` or `box-shadow` (CSS Backgrounds 3 §6.1); null for none and for inner ones. */
export function readShadow(value: string | undefined, computed: Computed): Shadow | null {
	if (!value || /^none$/i.test(value.trim())) return null;
	const [first = ''] = value.split(/,(?![^(]*\))/);
	const lengths: Emu[] = [];
	let ink: Hex | undefined = inkOf(computed);
	for (const word of words(first)) {
		if (word.toLowerCase() === 'inset') return null;
		const px = toPx(word, sizeOf(computed));
		const colour = px === undefined ? toColour(word, inkOf(computed)) : undefined;
		if (px !== undefined) lengths.push(fromPx(px));
		else if (colour) ink = colour.opacity > 0 ? over(colour, undefined) : undefined;
	}
	const [x, y, blur = 0 as Emu] = lengths;
	return x === undefined || y === undefined || !ink ? null : { x, y, blur, ink };
}

export const shadowValue = (shadow: Shadow | null): string =>
	shadow ? `${pt(shadow.x)} ${pt(shadow.y)} ${pt(shadow.blur)} ${shadow.ink.toLowerCase()}` : 'none';

export const SHADOW: HtmlFields<'textShadow'> = {
	textShadow: {
		read: ({ computed }) => readShadow(computed.get('text-shadow'), computed),
		declare: (shadow) => [`text-shadow: ${shadowValue(shadow)}`]
	}
};
