import { PLAIN_ROLE, role } from './role.ts';

export const title = role({
	...PLAIN_ROLE,
	family: 'title',
	words: 'title',
	all: 'title',
	part: { words: 'title', level: '', rules: 'rows that name the table, above all others' },
	subject: 'the title is',
	strength: 6,
	inColumns: false,
	inHead: true,
	keeps: 'with next',
	isAcross: true,
	fixed: 'top'
});
