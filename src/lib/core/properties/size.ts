import { cssLength, leaf, lengthField, positiveLengthSchema, property } from './property.ts';

const own = leaf({
	path: 'text.size',
	aspect: 'text',
	schema: positiveLengthSchema,
	words: 'size',
	label: 'Size',
	editor: 'length',
	typed: { least: '1pt', most: '500pt' },
	bounds: 'A size cannot be less than nothing.',
	css: (size) => [`font-size: ${cssLength(size)}`]
});

export const size = property({
	section: 'Text',
	leaves: [own],
	fields: [lengthField(own, { name: 'size', words: 'type size', visible: 2, unsaid: undefined })],
	sentence: {
		place: 6,
		words: (value) => (value('text.size') === undefined ? undefined : `at ${value('text.size')}`)
	}
});
