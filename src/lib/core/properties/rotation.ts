import { choiceSchema, leaf, plainField, property } from './property.ts';

const CSS = { 0: 'horizontal-tb', 90: 'vertical-rl', 270: 'sideways-lr' } as const;

const own = leaf({
	path: 'rotate',
	aspect: 'alignment',
	schema: choiceSchema(0, 90, 270),
	words: 'rotation',
	label: 'Rotation',
	editor: 'choice',
	say: (rotate) => `${rotate}°`,
	css: (rotate) => [`writing-mode: ${CSS[rotate]}`]
});

export const rotation = property({
	section: 'Alignment',
	leaves: [own],
	fields: [plainField(own, { name: 'rotate', words: 'rotation', visible: 0, unsaid: 0 as const })]
});
