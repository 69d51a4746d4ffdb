import type { About } from '../about.ts';

export const pdf = {
	kind: 'pdf',
	endings: ['pdf'],
	mediaType: 'application/pdf',
	words: 'report',
	out: 'PDF, report',
	opens: false
} as const satisfies About;
