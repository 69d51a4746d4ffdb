import type { About } from '../about.ts';

export const json = {
	kind: 'json',
	endings: ['json'],
	mediaType: 'application/json',
	words: 'table',
	out: 'JSON, table files',
	opens: true,
	nameEnding: '.table.json'
} as const satisfies About;
