import type { Direction } from '../table/grid.ts';

/** Letters of scripts that run from right to left, and the characters that ask for it. */
const RIGHT_TO_LEFT =
	/[\u0590-\u08FF\u200F\u202B\u202E\u2067\uFB1D-\uFDFF\uFE70-\uFEFC\u{10800}-\u{10FFF}\u{1E800}-\u{1EFFF}]/u;
/** Letters, which have a direction of their own. */
export const STRONG = /\p{L}/u;

/** Whether some text has to be put in order before it is drawn. */
export const runsBothWays = (text: string, base: Direction): boolean => base === 'rtl' || RIGHT_TO_LEFT.test(text);

/** The direction of a paragraph: that of its first letter (UAX 9, P2 and P3), of its table where it has none. */
export function baseOf(text: string, table: Direction): Direction {
	const first = STRONG.exec(text)?.[0];
	return first === undefined ? table : RIGHT_TO_LEFT.test(first) ? 'rtl' : 'ltr';
}
