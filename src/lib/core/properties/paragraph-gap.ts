import type { Emu } from '../units.ts';
import { cssLength, leaf, lengthField, positiveLengthSchema, property } from './property.ts';

const own = leaf({
	path: 'text.paragraphGap',
	aspect: 'text',
	schema: positiveLengthSchema,
	words: 'space between paragraphs',
	label: 'Paragraph gap',
	editor: 'length',
	bounds: 'The space between paragraphs cannot be less than nothing.',
	cssParagraphs: (gap) => ({ all: ['margin-block: 0'], following: [`margin-block-start: ${cssLength(gap)}`] })
});

/** Space between the paragraphs of a cell; none above the first and below the last. */
export const paragraphGap = property({
	section: 'Text',
	leaves: [own],
	fields: [
		lengthField(own, {
			name: 'paragraphGap',
			words: 'space between paragraphs',
			visible: 0,
			unsaid: undefined,
			blank: 0 as Emu,
			needsParagraphs: true
		})
	]
});
