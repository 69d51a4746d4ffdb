import { linePath } from '../properties/lines.ts';
import { partWords } from '../style/parts.ts';
import { leafWords } from '../style/words.ts';
import { LINE_PLACES } from '../style/types.ts';
import { parseLength, toPoints } from '../units.ts';
import { findingKind, found, type Finding } from './finding.ts';
import type { Trial } from './trial.ts';

/** The thinnest stroke that presses and printers hold, in points (about 0.09 mm). */
const LEAST = 0.25;
/** How many strokes and gaps share the weight of a line. */
const SHARES: Record<string, number> = { double: 3, triple: 5 };

interface Args {
	readonly path: string;
	readonly part: string;
	readonly weight: string;
	/** Of one stroke, in points. */
	readonly stroke: number;
	readonly strokes: number;
}

export const thinLine = findingKind({
	code: 'thin',
	called: 'line too thin for print',
	of: ['style'],
	words: ({ path, part, weight, stroke, strokes }: Args) =>
		`${leafWords(path)} of ${partWords(part)} is ${weight} thick${strokes > 1 ? `, ${stroke.toFixed(2)}pt a stroke` : ''}`,
	why: () => `Strokes under ${LEAST}pt break up or vanish in print.`,
	weight: () => 0.3
});

/** Lines with a stroke too thin to print. */
export function findThinLines({ flat }: Trial): Finding[] {
	const findings: Finding[] = [];
	const places = [...flat.parts, ...flat.rules.map(({ name, leaves }) => [`rule:${name}`, leaves] as const)];
	for (const [place, leaves] of places)
		for (const side of LINE_PLACES) {
			const pattern = leaves.get(linePath(side, 'pattern'))?.value;
			const weight = leaves.get(linePath(side, 'weight'))?.value;
			if (pattern === undefined || pattern === 'none' || weight === undefined) continue;
			const shares = SHARES[String(pattern)] ?? 1;
			const stroke = toPoints(parseLength(String(weight))) / shares;
			if (stroke >= LEAST - 1e-6) continue;
			const least = `${LEAST * shares}pt`;
			const path = linePath(side, 'weight');
			findings.push(
				found(
					thinLine,
					{ path: linePath(side, 'pattern'), part: place, weight: String(weight), stroke, strokes: shares },
					{ place, fixes: [{ words: `Make it ${least}`, leaves: [{ place, path, value: least }] }] }
				)
			);
		}
	return findings;
}
