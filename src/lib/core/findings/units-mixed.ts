import { findingKind } from './finding.ts';

export const unitsMixed = findingKind({
	code: 'units-mixed',
	called: 'units mixed in a sum',
	of: ['table'],
	words: ({ role, why }: { readonly role: string; readonly why: string }) => `${role} has no meaning: ${why}`,
	weight: () => 0.8
});
