import type { Style } from './types.ts';

/**
 * Nothing but text: what a table wears that is cleared of all formatting. It never travels as a living style and never
 * stands in a Stylebook; family, size and ink are left to the document.
 */
export const ONLY_TEXT: Style = {
	format: 'heptarch-style',
	version: 1,
	name: 'only text',
	parts: {
		ground: {
			fill: { ink: 'none' },
			text: { weight: 400, italic: false, underline: 'none', case: 'none' },
			align: { h: 'start', v: 'top' },
			rotate: 0
		}
	}
};

/**
 * No style at all: a table that was touched and given none looks as it came, with its touches over it. Such a table
 * carries no aspect, and this never travels as a living style.
 */
export const OWN_LOOK: Style = { format: 'heptarch-style', version: 1, name: 'its own look', parts: {} };
