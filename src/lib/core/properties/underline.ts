import { choiceSchema, leaf, plainField, property } from './property.ts';

const CSS = { none: 'none', single: 'underline', double: 'underline double' } as const;

const own = leaf({
	path: 'text.underline',
	aspect: 'text',
	schema: choiceSchema('none', 'single', 'double'),
	words: 'underline',
	label: 'Underline',
	editor: 'choice',
	css: (underline) => [`text-decoration: ${CSS[underline]}`]
});

export const underline = property({
	section: 'Text',
	leaves: [own],
	fields: [plainField(own, { name: 'underline', words: 'underline', visible: 1, unsaid: 'none' as const })],
	sentence: {
		place: 4,
		words: (value) => ((value('text.underline') ?? 'none') === 'none' ? undefined : 'underlined')
	}
});
