import { PLAIN_ROLE, role } from './role.ts';

export const total = role({
	...PLAIN_ROLE,
	family: 'total',
	words: 'total',
	all: 'total',
	part: { words: 'total', level: '', rules: 'rows that add up the whole table' },
	subject: 'the total is',
	strength: 4,
	corners: 'total',
	holdsFigures: true,
	sums: 'all',
	keeps: 'with previous',
	tone: 'warning'
});
