import { flagSchema, leaf, property, yesOrNo } from './property.ts';

const common = { aspect: null, schema: flagSchema, editor: 'flag', say: yesOrNo } as const;

/** How rows behave at the foot of a page; about whole rows, and never of a look. */
export const keep = property({
	section: 'Pages',
	leaves: [
		leaf({
			...common,
			path: 'keep.together',
			words: 'keep together',
			label: 'Row whole',
			css: (together: boolean) => [`break-inside: ${together ? 'avoid' : 'auto'}`]
		}),
		leaf({
			...common,
			path: 'keep.withNext',
			words: 'keep with next',
			label: 'With next',
			css: (withNext: boolean) => [`break-after: ${withNext ? 'avoid' : 'auto'}`]
		}),
		leaf({ ...common, path: 'keep.repeat', words: 'repeat on each page', label: 'Repeats' })
	],
	fields: []
});
