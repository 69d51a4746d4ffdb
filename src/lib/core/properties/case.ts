import { choiceSchema, leaf, plainField, property } from './property.ts';

export const CASE_SCHEMA = choiceSchema('none', 'upper', 'lower', 'title', 'small-caps');

const TRANSFORM = { none: 'none', upper: 'uppercase', lower: 'lowercase', title: 'capitalize', 'small-caps': 'none' };
const SENTENCE: Record<string, string> = {
	upper: 'in capitals',
	'small-caps': 'in small capitals',
	lower: 'in small letters'
};

const own = leaf({
	path: 'text.case',
	aspect: 'text',
	schema: CASE_SCHEMA,
	words: 'case',
	label: 'Case',
	editor: 'choice',
	css: (letters) => [
		`text-transform: ${TRANSFORM[letters]}`,
		`font-variant-caps: ${letters === 'small-caps' ? 'small-caps' : 'normal'}`
	]
});

export const letterCase = property({
	section: 'Text',
	leaves: [own],
	fields: [
		plainField(own, {
			name: 'case',
			words: 'case',
			visible: 1,
			unsaid: 'none' as const,
			say: (letters) => SENTENCE[letters] ?? (letters === 'title' ? 'first letters in capitals' : 'as typed')
		})
	],
	sentence: { place: 3, words: (value) => SENTENCE[String(value('text.case'))] }
});
