import { contrast, PAPER, toHex } from '../colour.ts';
import { lowContrast } from '../cascade/contrast.ts';
import { appearanceOf } from '../cascade/look.ts';
import { resolve, traceCell } from '../cascade/resolve.ts';
import { partWords } from '../style/parts.ts';
import { withFix, type Finding, type Fix, type Trial, type Tried } from './types.ts';

/** The contrast of a cell after a fix, as composed. */
function contrastWith(trial: Trial, { resolved }: Tried, cell: number, fix: Fix): number {
	const fixed = resolve(resolved.structure.table, trial.flatten(withFix(trial.style, fix)), trial.house);
	const appearance = appearanceOf(fixed);
	const { fill, ink } = appearance.looks[appearance.cellLook[cell]!]!;
	return contrast(ink ?? '#000000', fill === undefined || fill === 'none' ? PAPER : fill);
}

/** Text that cannot be read well on its background as composed (WCAG 2.2, SC 1.4.3). One finding for each pair of setters. */
export function findContrast(trial: Trial): Finding[] {
	const found = new Map<string, Finding>();
	for (const tried of trial.tables) {
		const { table } = tried.resolved.structure;
		for (const { ratio, wanted, cell, cells } of lowContrast(table.cells, tried.appearance)) {
			const { r, c, text } = table.cells[cell]!;
			const trace = traceCell(tried.resolved, r, c);
			const ink = trace.get('text.ink')?.[0];
			const fill = trace.get('fill.ink')?.[0];
			const key = `${ink?.part} ${fill?.part}`;
			if (found.has(key)) continue;
			const place = ink?.part ?? fill?.part ?? 'ground';
			const tint = trace.get('fill.tint')?.[0];
			const candidates: Fix[] = [];
			if (fill && tint && tint.part !== fill.part && Number(tint.value) < 1)
				candidates.push({
					words: `Full tint in ${partWords(fill.part)}`,
					leaves: [{ place: fill.part, path: 'fill.tint', value: 1 }]
				});
			const look = tried.appearance.looks[tried.appearance.cellLook[cell]!]!;
			const background = look.fill === undefined || look.fill === 'none' ? PAPER : look.fill;
			const inks = Object.entries({ ...trial.house.inks, ...Object.fromEntries(trial.flat.inks) })
				.map(([name, hex]) => ({ name, ratio: contrast(toHex(hex) ?? PAPER, background) }))
				.filter((entry) => entry.ratio >= wanted)
				.sort((a, b) => b.ratio - a.ratio);
			if (inks[0])
				candidates.push({
					words: `Text of ${partWords(place)} in ${inks[0].name}`,
					leaves: [{ place, path: 'text.ink', value: inks[0].name }]
				});
			const isOwn = (fix: Fix) =>
				fix.leaves!.every(
					({ place }) =>
						place !== 'touch' &&
						(!place.startsWith('rule:') || trial.style.rules?.some(({ name }) => name === place.slice(5)))
				);
			found.set(key, {
				kind: 'contrast',
				what: `“${text.trim().slice(0, 24)}” has a contrast of ${ratio.toFixed(1)}:1${cells > 1 ? `, and so have ${cells - 1} more cells` : ''} in ${tried.title}`,
				why: `${wanted}:1 is needed to read it well. ${ink ? `Its ink comes from ${partWords(ink.part)}` : 'Nobody sets its ink'}, ${fill ? `its fill from ${partWords(fill.part)}` : 'and it stands on paper'}.`,
				place,
				at: { key: tried.key, cell },
				fixes: candidates.filter((fix) => isOwn(fix) && contrastWith(trial, tried, cell, fix) >= wanted),
				weight: 1 - ratio / 21
			});
		}
	}
	return [...found.values()];
}
