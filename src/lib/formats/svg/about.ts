import type { About } from '../about.ts';

export const svg = {
	kind: 'svg',
	endings: ['svg', 'svgz'],
	mediaType: 'image/svg+xml',
	words: 'drawing',
	out: 'SVG, the drawing',
	opens: true,
	isDrawing: true
} as const satisfies About;
