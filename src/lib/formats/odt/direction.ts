import type { Properties } from './styles.ts';

/** Which way something runs (`style:writing-mode`, ODF 1.3 Part 3 §20.404): undefined where it is what it stands in says. */
const runsLeft = (mode: string | undefined): boolean | undefined =>
	mode === 'rl-tb' || mode === 'rl' ? true : mode === 'lr-tb' || mode === 'lr' ? false : undefined;

/** Whether a table's columns run from right to left, by the properties of its style. */
export const tableIsRight = (table: Properties): boolean => runsLeft(table.get('style:writing-mode')) ?? false;

/** Whether a paragraph starts at the other side than the table that it stands in. */
export const startsElsewhere = (paragraph: Properties, isRight: boolean): boolean =>
	(runsLeft(paragraph.get('style:writing-mode')) ?? isRight) !== isRight;

/** What makes a table, or a paragraph, run from right to left. */
export const RIGHT_TO_LEFT = { 'style:writing-mode': 'rl-tb' } as const;
