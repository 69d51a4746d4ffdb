import type { Line } from '../../../core/properties/line.ts';
import type { Side } from '../../../core/table/grid.ts';
import { pt, type HtmlField, type HtmlFields } from './property.ts';

const CSS_SIDE = { top: 'top', end: 'right', bottom: 'bottom', start: 'left' } as const;
/** The same in a table that starts at the right. */
const RIGHT_SIDE = { ...CSS_SIDE, end: 'left', start: 'right' } as const;

/**
 * A border: `hidden` beats what a neighbour, row or table says, `none` leaves the side to them (CSS 2.2 §17.6.2.1),
 * which undefined stands for.
 */
export function declareLine(side: Side, line: Line | null | undefined, isRight: boolean): string {
	const none = line === undefined ? 'none' : 'hidden';
	return `border-${(isRight ? RIGHT_SIDE : CSS_SIDE)[side]}: ${line && line.pattern !== 'none' ? `${pt(line.weight)} ${line.pattern} ${line.ink.toLowerCase()}` : none}`;
}

const diagonal: HtmlField<Line | null> = {
	nearest: () => undefined,
	cannot: 'diagonals',
	read: () => undefined,
	declare: () => []
};

export const DIAGONALS: HtmlFields<'diagonalDown' | 'diagonalUp'> = { diagonalDown: diagonal, diagonalUp: diagonal };
