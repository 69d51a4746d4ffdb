import { PLAIN_ROLE, role } from './role.ts';

export const group = role({
	...PLAIN_ROLE,
	family: 'group',
	levels: true,
	words: 'group',
	all: 'groups',
	part: { words: 'group heading', level: '', rules: 'rows that name the rows below them' },
	subject: 'group headings are',
	strength: 2,
	inColumnBands: true,
	banding: 'restarts at groups',
	keeps: 'with next',
	isAcross: true
});
