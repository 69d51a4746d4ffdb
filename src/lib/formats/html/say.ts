import type { LostLeaf } from '../account.ts';
import type { Line, Look, LookField } from '../../core/cascade/look.ts';
import type { LinePattern } from '../../core/style/types.ts';
import type { Emu } from '../../core/units.ts';
import type { Sayable } from '../account.ts';
import type { Side } from '../../core/table/grid.ts';
import { LINE } from './looks.ts';

const EMU_PER_PT = 12_700;
const pt = (length: Emu): string => `${Number((length / EMU_PER_PT).toFixed(6))}pt`;
const H = { start: 'start', middle: 'center', end: 'end', justify: 'justify', decimal: 'end' } as const;
/** CSS has no triple, wavy or dash-dot border: the nearest it has. */
const PATTERN: Partial<Record<LinePattern, LinePattern>> = { triple: 'double', wavy: 'dotted', 'dash-dot': 'dashed' };
const CASE = { none: 'none', upper: 'uppercase', lower: 'lowercase', title: 'capitalize', 'small-caps': 'none' };
const quoted = (family: string) => `'${family.replace(/['\\\n]/g, '')}'`;

const lineHeight = (factor: number): number => Number((factor * LINE).toFixed(3));

/** What CSS can say of a look and of a line. */
export const SAYABLE: Sayable = {
	look: ({ diagonalDown: _down, diagonalUp: _up, ...look }) => ({
		...look,
		...(look.h === 'decimal' && { h: 'end' as const }),
		...(look.lineHeight !== undefined && { lineHeight: lineHeight(look.lineHeight) / LINE })
	}),
	line: (line) => {
		if (!line || line.pattern === 'none') return null;
		const pattern = PATTERN[line.pattern];
		return pattern ? { ...line, pattern } : line;
	}
};

/** The fields of a look that CSS cannot say as they are. */
export function lostLeaves(look: Look): LostLeaf[] {
	return [
		...(look.h === 'decimal' ? [{ leaf: 'h' as const, what: 'decimal alignment' }] : []),
		...(['diagonalDown', 'diagonalUp'] as const).flatMap((leaf) => (look[leaf] ? [{ leaf, what: 'diagonals' }] : []))
	];
}

/** The declarations of one field of a look. */
export function declare(field: LookField, look: Look): string[] {
	const value = look[field];
	if (value === undefined) return [];
	switch (field) {
		case 'fill':
			return [`background-color: ${value === 'none' ? 'transparent' : String(value).toLowerCase()}`];
		case 'family':
			return [`font-family: ${quoted(String(value))}`];
		case 'size':
			return [`font-size: ${pt(value as Emu)}`];
		case 'weight':
			return [`font-weight: ${String(value)}`];
		case 'italic':
			return [`font-style: ${value ? 'italic' : 'normal'}`];
		case 'underline':
			return [`text-decoration: ${value === 'none' ? 'none' : value === 'double' ? 'underline double' : 'underline'}`];
		case 'case':
			return [
				`text-transform: ${CASE[look.case!]}`,
				`font-variant-caps: ${value === 'small-caps' ? 'small-caps' : 'normal'}`
			];
		case 'tracking':
			return [`letter-spacing: ${pt(value as Emu)}`];
		case 'lineHeight':
			return [`line-height: ${lineHeight(look.lineHeight!)}`];
		case 'ink':
			return [`color: ${String(value).toLowerCase()}`];
		case 'h':
			return [`text-align: ${H[look.h!]}`];
		case 'v':
			return [`vertical-align: ${String(value)}`];
		case 'rotate':
			return [`writing-mode: ${value === 90 ? 'vertical-rl' : value === 270 ? 'sideways-lr' : 'horizontal-tb'}`];
		case 'marginTop':
			return [`padding-top: ${pt(value as Emu)}`];
		case 'marginEnd':
			return [`padding-right: ${pt(value as Emu)}`];
		case 'marginBottom':
			return [`padding-bottom: ${pt(value as Emu)}`];
		case 'marginStart':
			return [`padding-left: ${pt(value as Emu)}`];
		default:
			return [];
	}
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
