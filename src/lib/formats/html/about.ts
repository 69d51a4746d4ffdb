import type { About } from '../about.ts';

export const html = {
	kind: 'html',
	endings: ['html', 'htm', 'xhtml'],
	mediaType: 'text/html; charset=utf-8',
	words: 'web page',
	out: 'HTML, web page',
	opens: true,
	holdsText: true,
	travels: true
} as const satisfies About;
