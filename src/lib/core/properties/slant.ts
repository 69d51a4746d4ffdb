import { flagSchema, leaf, plainField, property, yesOrNo } from './property.ts';

const own = leaf({
	path: 'text.italic',
	aspect: 'text',
	schema: flagSchema,
	words: 'slant',
	label: 'Slant',
	editor: 'flag',
	say: (italic) => (italic ? 'italic' : 'upright'),
	css: (italic) => [`font-style: ${italic ? 'italic' : 'normal'}`]
});

export const slant = property({
	section: 'Text',
	leaves: [own],
	fields: [plainField(own, { name: 'italic', words: 'italic', visible: 1, unsaid: false, say: yesOrNo })],
	sentence: { place: 2, words: (value) => (value('text.italic') === true ? 'italic' : undefined) }
});
