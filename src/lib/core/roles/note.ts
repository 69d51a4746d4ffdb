import { PLAIN_ROLE, role } from './role.ts';

export const note = role({
	...PLAIN_ROLE,
	family: 'note',
	words: 'note',
	all: 'note',
	part: { words: 'note', level: '', rules: 'rows below the table that say something about it' },
	subject: 'notes are',
	strength: 1,
	inColumns: false,
	keeps: 'with previous',
	isAcross: true,
	fixed: 'foot',
	begets: 'itself'
});
