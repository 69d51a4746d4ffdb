import { leaf, property, wordsSchema } from './property.ts';

/** Opened where a part names it, so it computes nothing itself (engine §11, *Leaf types*). */
export const typeRole = property({
	section: 'Text',
	leaves: [
		leaf({
			path: 'text.role',
			aspect: 'text',
			schema: wordsSchema(1, 200),
			words: 'type role',
			label: 'Type role',
			editor: 'type role'
		})
	],
	fields: []
});
