import { choiceSchema, leaf, plainField, property } from './property.ts';

const own = leaf({
	path: 'align.v',
	aspect: 'alignment',
	schema: choiceSchema('top', 'middle', 'bottom'),
	words: 'alignment down',
	label: 'Down',
	editor: 'choice',
	css: (v) => [`vertical-align: ${v}`]
});

export const alignDown = property({
	section: 'Alignment',
	leaves: [own],
	fields: [
		plainField(own, {
			name: 'v',
			words: 'alignment down',
			visible: 0.5,
			unsaid: undefined,
			blank: 'top' as const,
			say: (v) => (v === 'middle' ? 'in the middle' : `at the ${v}`)
		})
	]
});
