import { findingKind } from './finding.ts';

export const sumPartial = findingKind({
	code: 'sum-partial',
	called: 'sum of only some rows',
	of: ['table'],
	words: ({ role, without }: { readonly role: string; readonly without: string }) => `${role} is ${without}`,
	weight: () => 0.5
});
