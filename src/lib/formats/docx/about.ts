import type { About } from '../about.ts';

export const docx = {
	kind: 'docx',
	endings: ['docx', 'docm', 'dotx'],
	mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	words: 'word-processed',
	out: 'DOCX, word-processed',
	opens: true,
	holdsText: true,
	travels: true
} as const satisfies About;
