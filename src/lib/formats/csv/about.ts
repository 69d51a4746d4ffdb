import type { About } from '../about.ts';

export const csv = {
	kind: 'csv',
	endings: ['csv', 'tsv', 'tab', 'txt'],
	mediaType: 'text/csv; charset=utf-8',
	words: 'rows',
	out: 'CSV, rows without looks',
	opens: true,
	isRows: true
} as const satisfies About;
