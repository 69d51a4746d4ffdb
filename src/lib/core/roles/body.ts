import { PLAIN_ROLE, role } from './role.ts';

export const body = role({
	...PLAIN_ROLE,
	family: 'body',
	words: 'body',
	all: 'body rows',
	part: null,
	subject: 'body rows are',
	strength: 0,
	inColumnBands: true,
	banding: 'counts',
	holdsFigures: true,
	begets: 'itself',
	tone: 'hidden'
});
