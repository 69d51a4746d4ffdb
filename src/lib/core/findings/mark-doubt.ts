import { findingKind } from './finding.ts';

export const markInDoubt = findingKind({
	code: 'mark-doubt',
	called: 'decimal mark in doubt',
	of: ['table'],
	words: ({ question }: { readonly question: string }) => question,
	why: () => 'Nothing in the table tells which mark parts the decimals. Say so under What it is.',
	weight: () => 0.3
});
