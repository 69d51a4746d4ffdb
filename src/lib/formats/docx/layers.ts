import type { Line, Look } from '../../core/cascade/look.ts';
import { sayableLine } from './properties/borders.ts';
import type { CellLayer, Margins } from './properties/cell.ts';
import type { ParagraphLayer } from './properties/paragraph.ts';
import { semiboldFamily } from './properties/semibold.ts';
import type { TextLayer } from './properties/text.ts';

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
	const semibold = semiboldFamily(look.family, look.weight);
	return {
		...(look.family !== undefined && { family: semibold ?? look.family }),
		...(look.size !== undefined && { size: look.size }),
		...(look.weight !== undefined && { bold: look.weight >= 600 && !semibold }),
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
