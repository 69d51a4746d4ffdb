import { choiceSchema, leaf, plainField, property } from './property.ts';

const CSS = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;

const WORDS = {
	start: 'at the start',
	middle: 'in the middle',
	end: 'at the end',
	justify: 'justified',
	decimal: 'on the decimal mark'
} as const;

const own = leaf({
	path: 'align.h',
	aspect: 'alignment',
	schema: choiceSchema('start', 'middle', 'end', 'justify', 'decimal'),
	words: 'alignment across',
	label: 'Across',
	editor: 'choice',
	css: (h) => [`text-align: ${CSS[h]}`, ...(h === 'decimal' ? ['font-variant-numeric: tabular-nums'] : [])]
});

export const alignAcross = property({
	section: 'Alignment',
	leaves: [own],
	fields: [
		plainField(own, {
			name: 'h',
			words: 'alignment across',
			visible: 1,
			unsaid: undefined,
			blank: 'start' as const,
			say: (h) => WORDS[h]
		})
	]
});
