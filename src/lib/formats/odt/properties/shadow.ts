import type { Hex } from '../../../core/colour.ts';
import type { Shadow } from '../../../core/properties/shadow.ts';
import type { Emu } from '../../../core/units.ts';
import { colour } from './fill.ts';
import { pt, toEmu, type OdtTextFields } from './property.ts';

/** `fo:text-shadow` or `style:shadow` (ODF 1.3 Part 3 §20): a colour, two offsets and, where it is soft, a blur. */
export function readShadow(value: string | undefined): Shadow | null {
	if (!value || value.trim() === 'none') return null;
	const lengths: Emu[] = [];
	let ink: Hex = '#000000';
	for (const word of value.split(',')[0]!.trim().split(/\s+/)) {
		const length = toEmu(word);
		const said = length === undefined ? colour(word) : undefined;
		if (length !== undefined) lengths.push(length);
		else if (said && said !== 'none') ink = said;
	}
	const [x, y, blur = 0 as Emu] = lengths;
	return x === undefined || y === undefined ? null : { x, y, blur, ink };
}

export const shadowAttribute = (shadow: Shadow | null): string =>
	shadow
		? [shadow.ink.toLowerCase(), pt(shadow.x), pt(shadow.y), ...(shadow.blur ? [pt(shadow.blur)] : [])].join(' ')
		: 'none';

/** Of a table (`style:table-properties`). */
export const TABLE_SHADOW_ATTRIBUTE = 'style:shadow';

export const SHADOW: OdtTextFields<'textShadow'> = {
	textShadow: {
		element: 'text',
		owns: /^(fo:text-shadow|style:font-relief)$/,
		readText: ({ properties }) => readShadow(properties.get('fo:text-shadow')),
		attributes: (shadow) => ({ 'fo:text-shadow': shadowAttribute(shadow) })
	}
};
