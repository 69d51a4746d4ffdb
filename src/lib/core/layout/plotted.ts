import { emu, type Emu } from '../units.ts';
import type { Appearance, Line, Look } from '../cascade/look.ts';
import { faceName, type Faces } from './faces.ts';
import { DEFAULT_FAMILY, DEFAULT_WEIGHT } from '../properties/defaults.ts';
import { sizeOf } from './text.ts';

/** Heights of lettering in millimetres, of capitals (ISO 3098-1 §4.2). */
export const TEXT_HEIGHTS = [1.8, 2.5, 3.5, 5, 7, 10, 14, 20] as const;
/** Widths of lines in millimetres (ISO 128-2 §5.3). */
export const LINE_WIDTHS = [0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1, 1.4, 2] as const;
/** Lettering below this height, in millimetres, is not to be plotted. */
export const LEAST_HEIGHT = 1.8;

export const MM = 36_000;

/** How a table on a sheet is drawn beside what its style says. */
export interface Plotting {
	/** Height of capitals in body rows, in millimetres; all other text in proportion. As the style says where absent. */
	readonly textHeight?: number;
	/** Every line in the nearest width of the ISO series. */
	readonly seriesLines?: boolean;
}

/** Height of a look's capitals on paper, in millimetres. */
export function plottedHeight(look: Look, faces: Faces): number {
	const face = faces(faceName(look.family ?? DEFAULT_FAMILY, look.weight ?? DEFAULT_WEIGHT, look.italic ?? false));
	return (face.capHeight * sizeOf(look)) / MM;
}

export const nearestOf = (series: readonly number[], value: number): number =>
	series.reduce((best, one) => (Math.abs(one - value) < Math.abs(best - value) ? one : best));

/** A table's appearance as it is plotted: `body` is a look of its body rows. */
export function plotted(
	appearance: Appearance,
	body: Look | undefined,
	{ textHeight, seriesLines }: Plotting,
	faces: Faces
): Appearance {
	const factor = textHeight && body ? textHeight / plottedHeight(body, faces) : 1;
	const width = (line: Line): Line => ({ ...line, weight: emu(nearestOf(LINE_WIDTHS, line.weight / MM) * MM) });
	const drawn = <L extends Line | null | undefined>(line: L): L =>
		(line && seriesLines && line.pattern !== 'none' ? width(line) : line) as L;
	const looks = appearance.looks.map((look): Look => ({
		...look,
		size: emu(sizeOf(look) * factor),
		...(look.tracking !== undefined && { tracking: emu(look.tracking * factor) as Emu }),
		...(look.diagonalDown !== undefined && { diagonalDown: drawn(look.diagonalDown) }),
		...(look.diagonalUp !== undefined && { diagonalUp: drawn(look.diagonalUp) })
	}));
	return { ...appearance, looks, lines: appearance.lines.map(drawn) };
}
