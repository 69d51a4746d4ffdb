import type { Line } from '../../../core/properties/line.ts';
import type { LinePattern } from '../../../core/style/types.ts';
import type { Side } from '../../../core/table/grid.ts';
import { pt, type HtmlField, type HtmlFields } from './property.ts';

/** CSS has no triple, wavy or dash-dot border: the nearest it has. */
const NEAREST: Partial<Record<LinePattern, LinePattern>> = { triple: 'double', wavy: 'dotted', 'dash-dot': 'dashed' };

/** A line as CSS can say it. */
export function nearestLine(line: Line | null): Line | null {
	if (!line || line.pattern === 'none') return null;
	const pattern = NEAREST[line.pattern];
	return pattern ? { ...line, pattern } : line;
}

const CSS_SIDE = { top: 'top', end: 'right', bottom: 'bottom', start: 'left' } as const;

/**
 * A border: `hidden` beats what a neighbour, row or table says, `none` leaves the side to them (CSS 2.2 §17.6.2.1),
 * which undefined stands for.
 */
export function declareLine(side: Side, line: Line | null | undefined): string {
	const none = line === undefined ? 'none' : 'hidden';
	return `border-${CSS_SIDE[side]}: ${line && line.pattern !== 'none' ? `${pt(line.weight)} ${line.pattern} ${line.ink.toLowerCase()}` : none}`;
}

const diagonal: HtmlField<Line | null> = {
	nearest: () => undefined,
	cannot: 'diagonals',
	read: () => undefined,
	declare: () => []
};

export const DIAGONALS: HtmlFields<'diagonalDown' | 'diagonalUp'> = { diagonalDown: diagonal, diagonalUp: diagonal };
