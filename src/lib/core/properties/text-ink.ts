import type { Hex } from '../colour.ts';
import { field, inkSchema, leaf, property } from './property.ts';

export const textInk = property({
	section: 'Text',
	leaves: [
		leaf({
			path: 'text.ink',
			aspect: 'text',
			schema: inkSchema,
			words: 'ink',
			label: 'Ink',
			editor: 'ink',
			css: (ink, colour) => (ink === 'none' ? [] : [`color: ${colour(ink)}`])
		})
	],
	fields: [
		field<'ink', Hex>({
			name: 'ink',
			aspect: 'text',
			words: 'text ink',
			leaves: ['text.ink'],
			visible: 3,
			unsaid: undefined,
			compute: (leaves, { ink }) => ink(leaves.get('text.ink')?.value as string | undefined),
			say: String,
			lift: (ink, name) => [['text.ink', name(ink)]]
		})
	],
	sentence: {
		place: 5,
		words(value) {
			const ink = value('text.ink');
			return ink === undefined || ink === 'none' ? undefined : `in ${ink}`;
		}
	}
});
