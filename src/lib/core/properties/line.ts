import { BLACK, type Hex } from '../colour.ts';
import { exactLength, parseLength, type Emu } from '../units.ts';
import { DEFAULT_LINE_WEIGHT } from './defaults.ts';
import type { LinePattern } from './vocabulary.ts';

/** A line as it shows. Its weight is the whole thickness; `none` has none. */
export interface Line {
	readonly pattern: LinePattern;
	readonly weight: Emu;
	readonly ink: Hex;
}

/** CSS, and ODF with it, has no triple, wavy or dash-dot border: the nearest that it has. */
export const BORDER_STYLE = {
	solid: 'solid',
	double: 'double',
	triple: 'double',
	dashed: 'dashed',
	'dash-dot': 'dashed',
	dotted: 'dotted',
	wavy: 'dotted',
	none: 'none'
} as const satisfies Record<LinePattern, LinePattern>;

/** A line with the nearest pattern that a border has; null for none. */
export function nearestBorder(line: Line | null): Line | null {
	if (!line || line.pattern === 'none') return null;
	const pattern = BORDER_STYLE[line.pattern];
	return pattern === line.pattern ? line : { ...line, pattern };
}

/** A line from what was said of it; an ink that nobody says or knows is black. */
export function computedLine(
	line: { readonly pattern: LinePattern; readonly weight?: string; readonly ink?: string } | null,
	ink: (name: string | undefined) => Hex | undefined
): Line | null {
	if (!line) return null;
	return {
		pattern: line.pattern,
		weight: line.pattern === 'none' ? (0 as Emu) : parseLength(line.weight ?? DEFAULT_LINE_WEIGHT),
		ink: ink(line.ink) ?? BLACK
	};
}

/** A line as people read it: "double 1.5pt #2F5D50", "no line". */
export const lineWords = (line: Line | null | undefined): string =>
	!line || line.pattern === 'none' ? 'no line' : `${line.pattern} ${exactLength(line.weight)} ${line.ink}`;

/** Whether two lines show the same; none is like nothing. */
export function sameLine(a: Line | null | undefined, b: Line | null | undefined): boolean {
	if (a === b) return true;
	if (!a || !b) return !a && !b;
	return a.pattern === b.pattern && a.weight === b.weight && a.ink === b.ink;
}
