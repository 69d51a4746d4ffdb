import type { Look } from '../../core/cascade/look.ts';
import { nearestBorder, type Line } from '../../core/properties/line.ts';
import type { Emu } from '../../core/units.ts';
import type { CellSides } from '../sides.ts';
import { attributesOf } from './properties/index.ts';
import { border } from './properties/lines.ts';
import { pt, type Attributes } from './properties/property.ts';

/** The lines on the four sides of a cell; undefined leaves a side to the neighbour. */
export interface SaidLines {
	readonly top?: Line | null;
	readonly right?: Line | null;
	readonly bottom?: Line | null;
	readonly left?: Line | null;
}

/** Each edge is said once, by the cell below and after it where that can; the rim by the cells at it. */
export function sidesOf(sides: CellSides, cell: number, isRight: boolean): SaidLines {
	const said = (side: 'top' | 'start') => sides.line(cell, side) ?? null;
	const left = (side: 'bottom' | 'end', opposite: 'top' | 'start') => {
		const beyond = sides.beyond(cell, side);
		const isLeft = !beyond.length || beyond.some((other) => sides.line(other, opposite) === undefined);
		return isLeft ? (sides.line(cell, side) ?? null) : null;
	};
	const [start, end] = [said('start'), left('end', 'start')];
	const [first, last] = isRight ? [end, start] : [start, end];
	return { top: said('top'), left: first, bottom: left('bottom', 'top'), right: last };
}

/** `style:table-cell-properties` (ODF 1.3 Part 3 §17.18). */
export function cellProperties(look: Look, sides: SaidLines | undefined): Attributes {
	const out: Record<string, string> = { ...attributesOf('table-cell', look) };
	if (sides)
		for (const side of ['top', 'right', 'bottom', 'left'] as const) {
			const line = nearestBorder(sides[side] ?? null);
			out[`fo:border-${side}`] = border(line);
			// The three strokes of a double line: line, gap, line.
			if (line?.pattern === 'double')
				out[`style:border-line-width-${side}`] = Array(3)
					.fill(pt(Math.round(line.weight / 3) as Emu))
					.join(' ');
		}
	return out;
}
