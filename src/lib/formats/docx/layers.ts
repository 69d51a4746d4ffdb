import type { Line, Look } from '../../core/cascade/look.ts';
import { emu, fromPoints, fromTwips, toPoints, toTwips, type Emu } from '../../core/units.ts';
import { sayableLine } from './properties/borders.ts';
import type { CellLayer, Margins } from './properties/cell.ts';
import type { ParagraphLayer } from './properties/paragraph.ts';
import type { TextLayer } from './properties/text.ts';

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

/**
 * A look as WordprocessingML can say it: regular or bold, sizes in half points, margins in twentieths of a point.
 * `lost` names the fields that it cannot say at all or not exactly.
 */
export function sayableLook(look: Look): Sayable {
	let sayable = known.get(look);
	if (!sayable) known.set(look, (sayable = makeSayable(look)));
	return sayable;
}

interface Sayable {
	readonly look: Look;
	readonly lost: readonly (keyof Look)[];
}
const known = new WeakMap<Look, Sayable>();

function makeSayable(look: Look): Sayable {
	const out: Mutable<Look> = { ...look };
	const lost: (keyof Look)[] = [];
	if (look.weight !== undefined) {
		out.weight = look.weight >= 600 ? 700 : 400;
		if (out.weight !== look.weight) lost.push('weight');
	}
	if (look.size !== undefined) out.size = fromPoints(Math.max(1, Math.round(toPoints(look.size) * 2)) / 2);
	if (look.tracking !== undefined) out.tracking = fromTwips(toTwips(look.tracking));
	if (look.lineHeight !== undefined) out.lineHeight = Math.round(look.lineHeight * 240) / 240;
	if (look.case === 'lower' || look.case === 'title') {
		delete out.case;
		lost.push('case');
	}
	for (const field of ['marginTop', 'marginEnd', 'marginBottom', 'marginStart'] as const)
		if (look[field] !== undefined) out[field] = fromTwips(toTwips(look[field]!)) as Emu;
	for (const field of ['diagonalDown', 'diagonalUp'] as const)
		if (look[field] !== undefined) {
			const line = sayableLine(look[field]!);
			if (line) out[field] = line;
			else delete out[field];
		}
	for (const field of ['size', 'tracking', 'marginTop', 'marginEnd', 'marginBottom', 'marginStart'] as const)
		if (look[field] !== undefined && Math.abs(out[field]! - look[field]!) > emu(6_350)) lost.push(field);
	return { look: out, lost };
}

const knownLines = new WeakMap<Line, Line>();

/** A line as WordprocessingML can say it; the same object for the same line. */
export function sayableEdge(line: Line | null): Line | null {
	if (!line) return null;
	let sayable = knownLines.get(line);
	if (sayable === undefined) {
		const made = sayableLine(line);
		if (!made) return null;
		knownLines.set(line, (sayable = made));
	}
	return sayable;
}

export function textLayerOf(look: Look): TextLayer {
	return {
		...(look.family !== undefined && { family: look.family }),
		...(look.size !== undefined && { size: look.size }),
		...(look.weight !== undefined && { bold: look.weight >= 600 }),
		...(look.italic !== undefined && { italic: look.italic }),
		...(look.underline !== undefined && { underline: look.underline }),
		...(look.case !== undefined && { caps: look.case === 'upper', smallCaps: look.case === 'small-caps' }),
		...(look.tracking !== undefined && { tracking: look.tracking }),
		...(look.ink !== undefined && { ink: look.ink })
	};
}

export function paragraphLayerOf(look: Look): ParagraphLayer {
	return {
		...(look.h !== undefined && { h: look.h }),
		...(look.lineHeight !== undefined && { lineHeight: look.lineHeight })
	};
}

export function marginsOf(look: Look): Margins {
	return {
		...(look.marginTop !== undefined && { top: look.marginTop }),
		...(look.marginEnd !== undefined && { end: look.marginEnd }),
		...(look.marginBottom !== undefined && { bottom: look.marginBottom }),
		...(look.marginStart !== undefined && { start: look.marginStart })
	};
}

export function cellLayerOf(look: Look): Omit<CellLayer, 'borders'> {
	return {
		margins: marginsOf(look),
		...(look.fill !== undefined && { fill: look.fill }),
		...(look.v !== undefined && { v: look.v }),
		...(look.rotate !== undefined && { rotate: look.rotate })
	};
}
