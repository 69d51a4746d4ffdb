import { LEADING } from './defaults.ts';
import { leaf, plainField, property, type SchemaOf } from './property.ts';

const schema: SchemaOf<number> = { type: 'number', exclusiveMinimum: 0, maximum: 10 };

const own = leaf({
	path: 'text.lineHeight',
	aspect: 'text',
	schema,
	words: 'line height',
	label: 'Line height',
	editor: 'number',
	bounds: 'A line height is a factor above 0, up to 10.',
	css: (factor) => [`line-height: ${(factor * LEADING).toFixed(3)}`]
});

export const lineHeight = property({
	section: 'Text',
	leaves: [own],
	fields: [
		{
			...plainField(own, { name: 'lineHeight', words: 'line height', visible: 0, unsaid: undefined, blank: 1 }),
			lift: (factor: number) => [['text.lineHeight', Number(factor.toFixed(4))] as const]
		}
	]
});
