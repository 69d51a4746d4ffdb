import type { Emu } from '../../../core/units.ts';
import { lengthOf, pt, type HtmlField, type HtmlFields } from './property.ts';

const margin = (side: 'top' | 'right' | 'bottom' | 'left'): HtmlField<Emu> => ({
	read: (cell) => lengthOf(cell, `padding-${side}`),
	declare: (length) => [`padding-${side}: ${pt(length)}`]
});

export const MARGINS: HtmlFields<'marginTop' | 'marginEnd' | 'marginBottom' | 'marginStart'> = {
	marginTop: margin('top'),
	marginEnd: margin('right'),
	marginBottom: margin('bottom'),
	marginStart: margin('left')
};
