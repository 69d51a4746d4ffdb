import { findingKind } from './finding.ts';

export const totalOff = findingKind({
	code: 'total-off',
	of: ['table'],
	words: ({ role, off }: { readonly role: string; readonly off: string }) => `${role} is off by ${off}`,
	weight: () => 0.9
});
