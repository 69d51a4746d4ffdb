import { contrast, PAPER, type Hex } from '../colour.ts';
import { computeLook } from '../cascade/look.ts';
import { inkHex, resolveParts } from '../cascade/resolve.ts';
import type { FlatStyle } from '../style/inherit.ts';
import { partWords } from '../style/parts.ts';
import { findingKind, found, type Finding, type Fix } from './finding.ts';
import { withFix, type Trial } from './trial.ts';

/** Two neighbouring stripes with less contrast than this cannot be told apart in greyscale. */
const LEAST = 1.08;

function fillOf(style: FlatStyle, trial: Trial, part: string): Hex {
	const table = trial.tables[0]!.resolved.structure.table;
	const carrier = { ...table, partsOff: [] };
	const { leaves } = resolveParts(style, trial.house, carrier, ['ground', part]);
	const { fill } = computeLook(leaves, (name) => inkHex(name, style, trial.house));
	return fill === undefined || fill === 'none' ? PAPER : fill;
}

export const faintBands = findingKind({
	code: 'bands',
	called: 'bands hardly seen',
	of: ['style'],
	words: ({ parts: [one, next], ratio }: { readonly parts: readonly [string, string]; readonly ratio: number }) =>
		`${partWords(one)} and ${partWords(next)} differ by ${ratio.toFixed(2)}:1 in greyscale`,
	why: () => 'Printed or copied in grey they cannot be told apart, and the stripes do nothing.',
	weight: () => 0.4
});

/** Stripes whose fills differ, but not in lightness: printed or copied in grey they are one. */
export function findFaintBands(trial: Trial): Finding[] {
	if (!trial.tables.length) return [];
	const findings: Finding[] = [];
	for (const [family, count] of [
		['rowBand', trial.flat.bands.rowSizes.length],
		['columnBand', trial.flat.bands.columnSizes.length]
	] as const)
		for (let k = 1; k < count; k++) {
			const names = [`${family}:${k}`, `${family}:${k + 1}`];
			const ratioIn = (style: FlatStyle) => {
				const [a, b] = names.map((name) => fillOf(style, trial, name)) as [Hex, Hex];
				return a === b ? undefined : contrast(a, b);
			};
			const ratio = ratioIn(trial.flat);
			if (ratio === undefined || ratio >= LEAST) continue;
			const place = names.find((name) => trial.flat.parts.get(name)?.has('fill.ink')) ?? names[1]!;
			const tint = Number(trial.flat.parts.get(place)?.get('fill.tint')?.value ?? 1);
			const stronger = [1.5, 2, 3, 5, 8].map((factor) => Math.min(1, Math.round(tint * factor * 100) / 100));
			const fix = stronger
				.map((value): Fix => ({
					words: `${Math.round(value * 100)} % tint in ${partWords(place)}`,
					leaves: [{ place, path: 'fill.tint', value }]
				}))
				.find((fix) => (ratioIn(trial.flatten(withFix(trial.style, fix))) ?? 0) >= LEAST);
			findings.push(found(faintBands, { parts: [names[0]!, names[1]!], ratio }, { place, fixes: fix ? [fix] : [] }));
		}
	return findings;
}
