import { findingKind } from './finding.ts';

export const totalOff = findingKind({
	code: 'total-off',
	called: 'total that does not add up',
	of: ['table'],
	/** `off` is empty where it is in another measure than what it sums up. */
	words: ({ role, off, should }: { readonly role: string; readonly off: string; readonly should: string }) =>
		off ? `${role} is off by ${off}` : `${role} should be ${should}`,
	weight: () => 0.9
});
