import { PLAIN_ROLE, role } from './role.ts';

/** Header tier 1 is the outermost header row. */
export const header = role({
	...PLAIN_ROLE,
	family: 'header',
	levels: true,
	words: 'header',
	all: 'header',
	part: { words: 'header', level: 'tier', rules: 'rows that name the columns' },
	subject: 'the header is',
	strength: 5,
	corners: 'header',
	banding: 'restarts',
	isHeader: true,
	inHead: true,
	keeps: 'with next',
	begets: 'itself',
	tone: 'picked'
});
