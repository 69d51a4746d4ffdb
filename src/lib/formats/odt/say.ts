import type { LostLeaf } from '../account.ts';
import type { Line, Look } from '../../core/cascade/look.ts';
import type { Aspect, LinePattern } from '../../core/style/types.ts';
import type { Emu } from '../../core/units.ts';
import type { Sayable } from '../account.ts';
import type { CellSides } from '../sides.ts';

export type Attributes = Readonly<Record<string, string>>;

const EMU_PER_PT = 12_700;
const pt = (length: Emu): string => `${Number((length / EMU_PER_PT).toFixed(6))}pt`;
/** ODF has no triple, wavy or dash-dot border: the nearest it has. */
const PATTERN: Partial<Record<LinePattern, LinePattern>> = { triple: 'double', wavy: 'dotted', 'dash-dot': 'dashed' };
const H = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;
const CASE = { none: 'none', upper: 'uppercase', lower: 'lowercase', title: 'capitalize', 'small-caps': 'none' };
const percent = (factor: number): number => Number((factor * 100).toFixed(2));

const sayableLine = (line: Line | null): Line | null => {
	if (!line || line.pattern === 'none') return null;
	const pattern = PATTERN[line.pattern];
	return pattern ? { ...line, pattern } : line;
};

/** What ODF can say of a look and of a line. */
export const SAYABLE: Sayable = {
	look: ({ diagonalDown, diagonalUp, ...look }) => ({
		...look,
		...(look.h === 'decimal' && { h: 'end' as const }),
		...(look.weight !== undefined && { weight: Math.min(900, Math.max(100, Math.round(look.weight / 100) * 100)) }),
		...(look.lineHeight !== undefined && { lineHeight: percent(look.lineHeight) / 100 }),
		...(sayableLine(diagonalDown ?? null) && { diagonalDown: sayableLine(diagonalDown!) }),
		...(sayableLine(diagonalUp ?? null) && { diagonalUp: sayableLine(diagonalUp!) })
	}),
	line: sayableLine
};

export const lostLeaves = (look: Look): LostLeaf[] =>
	look.h === 'decimal' ? [{ leaf: 'h', what: 'decimal alignment' }] : [];

const border = (line: Line | null): string => {
	const said = sayableLine(line);
	return said ? `${pt(said.weight)} ${said.pattern} ${said.ink.toLowerCase()}` : 'none';
};

/** The lines on the four sides of a cell; undefined leaves a side to the neighbour. */
export interface Sides {
	readonly top?: Line | null;
	readonly right?: Line | null;
	readonly bottom?: Line | null;
	readonly left?: Line | null;
}

/** Each edge is said once, by the cell below and after it where that can; the rim by the cells at it. */
export function sidesOf(sides: CellSides, cell: number): Sides {
	const said = (side: 'top' | 'start') => sides.line(cell, side) ?? null;
	const left = (side: 'bottom' | 'end', opposite: 'top' | 'start') => {
		const beyond = sides.beyond(cell, side);
		const isLeft = !beyond.length || beyond.some((other) => sides.line(other, opposite) === undefined);
		return isLeft ? (sides.line(cell, side) ?? null) : null;
	};
	return { top: said('top'), left: said('start'), bottom: left('bottom', 'top'), right: left('end', 'start') };
}

/** `style:table-cell-properties` (ODF 1.3 Part 3 §17.18). */
export function cellProperties(look: Look, sides: Sides | undefined): Attributes {
	const out: Record<string, string> = {};
	if (look.fill !== undefined)
		out['fo:background-color'] = look.fill === 'none' ? 'transparent' : look.fill.toLowerCase();
	for (const [side, field] of [
		['top', 'marginTop'],
		['right', 'marginEnd'],
		['bottom', 'marginBottom'],
		['left', 'marginStart']
	] as const)
		if (look[field] !== undefined) out[`fo:padding-${side}`] = pt(look[field]!);
	if (sides)
		for (const side of ['top', 'right', 'bottom', 'left'] as const) {
			const line = sayableLine(sides[side] ?? null);
			out[`fo:border-${side}`] = border(line);
			// The three strokes of a double line: line, gap, line.
			if (line?.pattern === 'double')
				out[`style:border-line-width-${side}`] = Array(3)
					.fill(pt(Math.round(line.weight / 3) as Emu))
					.join(' ');
		}
	if (look.v !== undefined) out['style:vertical-align'] = look.v;
	if (look.rotate !== undefined)
		out['style:rotation-angle'] = look.rotate === 90 ? '270' : look.rotate === 270 ? '90' : '0';
	if (look.diagonalDown) out['style:diagonal-tl-br'] = border(look.diagonalDown);
	if (look.diagonalUp) out['style:diagonal-bl-tr'] = border(look.diagonalUp);
	return out;
}

/** `style:text-properties` (§17.23); `font` gives the name that a family is declared by. */
export function textProperties(look: Look, font: (family: string) => string): Attributes {
	const said = SAYABLE.look(look);
	const out: Record<string, string> = {};
	if (look.family !== undefined) out['style:font-name'] = font(look.family);
	if (look.size !== undefined) out['fo:font-size'] = pt(look.size);
	if (said.weight !== undefined)
		out['fo:font-weight'] = said.weight === 400 ? 'normal' : said.weight === 700 ? 'bold' : String(said.weight);
	if (look.italic !== undefined) out['fo:font-style'] = look.italic ? 'italic' : 'normal';
	if (look.underline !== undefined) {
		out['style:text-underline-style'] = look.underline === 'none' ? 'none' : 'solid';
		if (look.underline !== 'none') {
			out['style:text-underline-type'] = look.underline;
			out['style:text-underline-width'] = 'auto';
			out['style:text-underline-color'] = 'font-color';
		}
	}
	if (look.case !== undefined) {
		out['fo:text-transform'] = CASE[look.case];
		out['fo:font-variant'] = look.case === 'small-caps' ? 'small-caps' : 'normal';
	}
	if (look.tracking !== undefined) out['fo:letter-spacing'] = look.tracking === 0 ? 'normal' : pt(look.tracking);
	if (look.ink !== undefined) {
		out['fo:color'] = look.ink.toLowerCase();
		out['style:use-window-font-color'] = 'false';
	}
	return out;
}

/** `style:paragraph-properties` (§17.6). */
export function paragraphProperties(look: Look): Attributes {
	return {
		...(look.h !== undefined && { 'fo:text-align': H[look.h] }),
		...(look.lineHeight !== undefined && { 'fo:line-height': `${percent(look.lineHeight)}%` })
	};
}

/** Which aspect of a look a property belongs to, in property elements of this kind; undefined for all others. */
export function aspectOf(element: string, name: string): Aspect | undefined {
	if (
		element === 'style:table-cell-properties' ||
		element === 'style:table-row-properties' ||
		element === 'style:table-properties'
	) {
		if (name === 'fo:background-color') return 'fill';
		if (/^(fo:border|style:border-line-width|style:diagonal)/.test(name)) return 'linework';
		if (name.startsWith('fo:padding')) return 'margins';
		if (/^style:(vertical-align|rotation-angle|writing-mode)$/.test(name)) return 'alignment';
	}
	if (name === 'fo:text-align' || name === 'style:justify-single-word') return 'alignment';
	if (name === 'fo:line-height' || name === 'style:line-height-at-least') return 'text';
	if (
		/^(fo:(font-|color$|text-transform$|letter-spacing$)|style:(font-|text-underline-|use-window-font-color$))/.test(
			name
		) &&
		!/-(asian|complex)$/.test(name)
	)
		return 'text';
	return undefined;
}
