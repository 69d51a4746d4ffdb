import { BLACK, type Hex } from '../../../core/colour.ts';
import type { Line } from '../../../core/cascade/look.ts';
import type { LinePattern } from '../../../core/style/types.ts';
import { fromPoints, toPoints, type Emu } from '../../../core/units.ts';
import type { XmlNode } from '../../package/xml.ts';
import { readColour, type Theme } from '../theme.ts';

export type BorderPlace = 'top' | 'bottom' | 'start' | 'end' | 'insideH' | 'insideV' | 'diagonalDown' | 'diagonalUp';
/** null: the border is stated to be none (w:val nil or none). */
export type Borders = Partial<Record<BorderPlace, Line | null>>;

/** ST_Border (§17.18.2) → our patterns; those that only pictures or reliefs have count as solid. */
const FROM: Record<string, LinePattern> = {
	single: 'solid',
	thick: 'solid',
	double: 'double',
	triple: 'triple',
	dotted: 'dotted',
	dashed: 'dashed',
	dashSmallGap: 'dashed',
	dotDash: 'dash-dot',
	dotDotDash: 'dash-dot',
	dashDotStroked: 'dash-dot',
	wave: 'wavy',
	doubleWave: 'wavy',
	thinThickSmallGap: 'double',
	thickThinSmallGap: 'double',
	thinThickMediumGap: 'double',
	thickThinMediumGap: 'double',
	thinThickLargeGap: 'double',
	thickThinLargeGap: 'double',
	thinThickThinSmallGap: 'triple',
	thinThickThinMediumGap: 'triple',
	thinThickThinLargeGap: 'triple'
};
const TO: Record<LinePattern, string> = {
	solid: 'single',
	double: 'double',
	triple: 'triple',
	dotted: 'dotted',
	dashed: 'dashed',
	'dash-dot': 'dotDash',
	wavy: 'wave',
	none: 'nil'
};

/** Strokes and gaps of a pattern, each as thick as w:sz says: our weight is the whole, theirs is one stroke. */
const strokes = (pattern: LinePattern): number => (pattern === 'double' ? 3 : pattern === 'triple' ? 5 : 1);

const PLACES: Record<BorderPlace, readonly string[]> = {
	top: ['w:top'],
	start: ['w:start', 'w:left'],
	bottom: ['w:bottom'],
	end: ['w:end', 'w:right'],
	insideH: ['w:insideH'],
	insideV: ['w:insideV'],
	diagonalDown: ['w:tl2br'],
	diagonalUp: ['w:tr2bl']
};

function readBorder(node: XmlNode, theme: Theme): Line | null {
	const value = node.attribute('w:val') ?? 'nil';
	if (value === 'nil' || value === 'none') return null;
	const pattern = FROM[value] ?? 'solid';
	const colour = readColour(node, 'color', theme);
	const eighths = Number(node.attribute('w:sz') ?? 4) || 0;
	const weight = fromPoints((eighths / 8) * strokes(pattern));
	return { pattern, weight, ink: colour === undefined || colour === 'auto' ? BLACK : colour };
}

/** Reads w:tblBorders or w:tcBorders. */
export function readBorders(node: XmlNode | undefined, theme: Theme): Borders {
	const borders: Borders = {};
	if (!node) return borders;
	for (const [place, names] of Object.entries(PLACES) as [BorderPlace, string[]][]) {
		const found = names.map((name) => node.child(name)).find(Boolean);
		if (found) borders[place] = readBorder(found, theme);
	}
	return borders;
}

const eighthsOf = ({ pattern, weight }: Line) =>
	Math.min(96, Math.max(2, Math.round((toPoints(weight) / strokes(pattern)) * 8)));

/** A line as this format can say it: strokes in eighths of a point, from 0.25 pt to 12 pt. */
export function sayableLine(line: Line | null): Line | null {
	if (!line || line.pattern === 'none') return null;
	return { ...line, weight: fromPoints((eighthsOf(line) / 8) * strokes(line.pattern)) as Emu };
}

const writeBorder = (name: string, line: Line | null): string =>
	line && line.pattern !== 'none'
		? `<${name} w:val="${TO[line.pattern]}" w:sz="${eighthsOf(line)}" w:space="0" w:color="${line.ink.slice(1)}"/>`
		: `<${name} w:val="nil"/>`;

/** Markup of w:tblBorders or w:tcBorders; '' where nothing is stated. Strict documents say start and end. */
export function writeBorders(element: 'w:tblBorders' | 'w:tcBorders', borders: Borders, strict: boolean): string {
	const names: [BorderPlace, string][] = [
		['top', 'w:top'],
		['start', strict ? 'w:start' : 'w:left'],
		['bottom', 'w:bottom'],
		['end', strict ? 'w:end' : 'w:right'],
		['insideH', 'w:insideH'],
		['insideV', 'w:insideV'],
		['diagonalDown', 'w:tl2br'],
		['diagonalUp', 'w:tr2bl']
	];
	const inside = names
		.flatMap(([place, name]) => (borders[place] === undefined ? [] : [writeBorder(name, borders[place])]))
		.join('');
	return inside && `<${element}>${inside}</${element}>`;
}

/** Weight of a border in conflicts (§17.4.66): number of lines × its place in the list. */
const LINES: Record<LinePattern, [lines: number, number: number]> = {
	solid: [1, 1],
	double: [2, 3],
	dotted: [1, 4],
	dashed: [1, 5],
	'dash-dot': [1, 6],
	triple: [3, 8],
	wavy: [1, 20],
	none: [0, 0]
};

const brightness = (ink: Hex): number[] => {
	const [r, g, b] = [1, 3, 5].map((at) => parseInt(ink.slice(at, at + 2), 16)) as [number, number, number];
	return [r + b + 2 * g, b + 2 * g, g];
};

/** Which of two neighbouring cells' borders shows (§17.4.66): `first` stands above or before `second`. */
export function shownBorder(first: Line | null | undefined, second: Line | null | undefined): Line | null {
	if (!first || !second) return first ?? second ?? null;
	const weight = ({ pattern }: Line) => LINES[pattern][0] * LINES[pattern][1];
	const differences = [
		weight(first) - weight(second),
		LINES[second.pattern][1] - LINES[first.pattern][1],
		first.weight - second.weight,
		...brightness(second.ink).map((value, i) => value - brightness(first.ink)[i]!)
	];
	return (differences.find((difference) => difference !== 0) ?? 1) > 0 ? first : second;
}
