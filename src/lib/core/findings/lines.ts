import { linePath } from '../properties/lines.ts';
import { partWords } from '../style/parts.ts';
import { leafWords } from '../style/words.ts';
import { LINE_PLACES } from '../style/types.ts';
import { parseLength, toPoints } from '../units.ts';
import type { Finding, Trial } from './types.ts';

/** The thinnest stroke that presses and printers hold, in points (about 0.09 mm). */
const LEAST = 0.25;
/** How many strokes and gaps share the weight of a line. */
const SHARES: Record<string, number> = { double: 3, triple: 5 };

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
			findings.push({
				kind: 'thin',
				what: `${leafWords(linePath(side, 'pattern'))} of ${partWords(place)} is ${weight} thick${shares > 1 ? `, ${stroke.toFixed(2)}pt a stroke` : ''}`,
				why: `Strokes under ${LEAST}pt break up or vanish in print.`,
				place,
				fixes: [{ words: `Make it ${least}`, leaves: [{ place, path: linePath(side, 'weight'), value: least }] }],
				weight: 0.3
			});
		}
	return findings;
}
