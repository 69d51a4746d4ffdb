import { leaf, plainField, property, wordsSchema } from './property.ts';

const quoted = (text: string) => `"${text.replace(/["\\\n\r<]/g, (char) => `\\${char.charCodeAt(0).toString(16)} `)}"`;

const own = leaf({
	path: 'text.family',
	aspect: 'text',
	schema: wordsSchema(1, 200),
	words: 'family',
	label: 'Family',
	editor: 'family',
	bounds: 'A family’s name has up to 200 characters.',
	css: (family) => [`font-family: ${quoted(family)}`]
});

export const family = property({
	section: 'Text',
	leaves: [own],
	fields: [plainField(own, { name: 'family', words: 'type family', visible: 2, unsaid: undefined })]
});
