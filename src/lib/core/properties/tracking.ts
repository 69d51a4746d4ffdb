import type { Emu } from '../units.ts';
import { cssLength, leaf, lengthField, lengthSchema, property } from './property.ts';

const own = leaf({
	path: 'text.tracking',
	aspect: 'text',
	schema: lengthSchema,
	words: 'tracking',
	label: 'Tracking',
	editor: 'length',
	css: (tracking) => [`letter-spacing: ${cssLength(tracking)}`]
});

export const tracking = property({
	section: 'Text',
	leaves: [own],
	fields: [lengthField(own, { name: 'tracking', words: 'tracking', visible: 0, unsaid: 0 as Emu })]
});
