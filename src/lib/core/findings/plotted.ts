import { plural } from '../words.ts';
import { findingKind } from './finding.ts';

/** Text that comes out too small on paper; heights in millimetres. */
export const small = findingKind({
	code: 'small',
	called: 'type too small when plotted',
	of: ['sheet'],
	words: ({ plots, least }: { readonly plots: number; readonly least: number }) =>
		`Text plots at ${plots} mm; less than ${least} mm is hard to read on paper.`,
	weight: () => 0.7
});

/** A table that leaves its sheet. */
export const outside = findingKind({
	code: 'outside',
	called: 'table off its sheet',
	of: ['sheet'],
	words: () => 'It leaves the sheet.',
	weight: () => 0.6
});

/** A table that lies over objects of its drawing. */
export const covers = findingKind({
	code: 'covers',
	called: 'table over the drawing',
	of: ['sheet'],
	words: ({ objects }: { readonly objects: number }) => `It covers ${plural(objects, 'object')} of the drawing.`,
	weight: () => 0.4
});

/** A schedule whose drawing says something else by now. */
export const behind = findingKind({
	code: 'behind',
	called: 'schedule behind its drawing',
	of: ['sheet'],
	words: ({ changes }: { readonly changes: number }) => `It is ${plural(changes, 'change')} behind its drawing.`,
	weight: () => 0.8
});
