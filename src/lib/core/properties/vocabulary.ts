/** The sides of a style that can be carried over, or left as they were, one by one. */
export const ASPECTS = ['text', 'fill', 'linework', 'alignment', 'margins', 'formats'] as const;
export type Aspect = (typeof ASPECTS)[number];

/** Thickest look first: the order in which two equally strong, equally thick lines are decided (engine §5.2). */
export const LINE_PATTERNS = ['double', 'triple', 'solid', 'dashed', 'dash-dot', 'dotted', 'wavy', 'none'] as const;
export type LinePattern = (typeof LINE_PATTERNS)[number];

/** Where a line of a part runs: at its outside, inside it, or across each of its cells. */
export const LINE_PLACES = [
	'top',
	'bottom',
	'start',
	'end',
	'betweenRows',
	'betweenColumns',
	'diagonalDown',
	'diagonalUp'
] as const;
export type LinePlace = (typeof LINE_PLACES)[number];

/** A settings value as it stands in a style file. */
export type LeafValue = string | number | boolean;
