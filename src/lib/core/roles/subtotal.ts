import { PLAIN_ROLE, role } from './role.ts';

export const subtotal = role({
	...PLAIN_ROLE,
	family: 'subtotal',
	levels: true,
	words: 'subtotal',
	all: 'subtotals',
	part: { words: 'subtotal', level: '', rules: 'rows that add up a block' },
	subject: 'subtotals are',
	strength: 3,
	inColumnBands: true,
	holdsFigures: true,
	sums: 'block',
	keeps: 'with previous',
	tone: 'warning'
});
