import type { About } from '../about.ts';

export const css = {
	kind: 'css',
	endings: ['css'],
	mediaType: 'text/css; charset=utf-8',
	words: 'style sheet',
	out: 'CSS, its styles',
	opens: false
} as const satisfies About;
