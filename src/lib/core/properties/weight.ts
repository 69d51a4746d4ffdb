import { DEFAULT_WEIGHT } from './defaults.ts';
import { leaf, plainField, property, type SchemaOf } from './property.ts';

export const WEIGHT_SCHEMA: SchemaOf<number> = { type: 'integer', minimum: 1, maximum: 1000 };

const own = leaf({
	path: 'text.weight',
	aspect: 'text',
	schema: WEIGHT_SCHEMA,
	words: 'weight',
	label: 'Weight',
	editor: 'number',
	bounds: 'Weights go from 1 to 1000; 400 is regular, 700 bold.',
	css: (weight) => [`font-weight: ${weight}`]
});

export const weight = property({
	section: 'Text',
	leaves: [own],
	fields: [
		plainField(own, {
			name: 'weight',
			words: 'weight',
			visible: 2,
			unsaid: undefined,
			blank: DEFAULT_WEIGHT,
			say: (weight) => (weight === 400 ? 'regular' : weight === 700 ? 'bold' : String(weight))
		})
	],
	sentence: {
		place: 1,
		words: (value) => (Number(value('text.weight') ?? 0) >= 600 ? 'bold' : undefined)
	}
});
