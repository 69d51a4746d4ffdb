import type { Emu } from '../units.ts';
import { cssLength, leaf, lengthField, positiveLengthSchema, property } from './property.ts';

const margin = <const Side extends string>(side: Side, where: string, css: string) =>
	leaf({
		path: `margin.${side}`,
		aspect: 'margins',
		schema: positiveLengthSchema,
		words: `margin ${where}`,
		label: `${where[0]!.toUpperCase()}${where.slice(1)}`,
		editor: 'length',
		typed: { most: '100mm' },
		bounds: 'A margin cannot be less than nothing.',
		css: (length: string) => [`${css}: ${cssLength(length)}`]
	});

const top = margin('top', 'above', 'padding-block-start');
const end = margin('end', 'after', 'padding-inline-end');
const bottom = margin('bottom', 'below', 'padding-block-end');
const start = margin('start', 'before', 'padding-inline-start');

export const margins = property({
	section: 'Margins',
	leaves: [top, end, bottom, start],
	fields: [
		lengthField(top, { name: 'marginTop', words: 'margin above', visible: 0.25, unsaid: undefined, blank: 0 as Emu }),
		lengthField(end, { name: 'marginEnd', words: 'margin after', visible: 0.25, unsaid: undefined, blank: 0 as Emu }),
		lengthField(bottom, {
			name: 'marginBottom',
			words: 'margin below',
			visible: 0.25,
			unsaid: undefined,
			blank: 0 as Emu
		}),
		lengthField(start, {
			name: 'marginStart',
			words: 'margin before',
			visible: 0.25,
			unsaid: undefined,
			blank: 0 as Emu
		})
	]
});
