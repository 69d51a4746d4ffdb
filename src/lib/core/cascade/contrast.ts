import { BLACK, contrast, PAPER } from '../colour.ts';
import { toPoints } from '../units.ts';
import type { Appearance, Look } from './look.ts';

/** WCAG 2.2 asks for 3:1 of large text: 18 pt, or 14 pt bold (SC 1.4.3); 4.5:1 of the rest. */
function wantedContrast(look: Look): number {
	const size = look.size ? toPoints(look.size) : 10;
	return size >= 18 || (size >= 14 && (look.weight ?? 400) >= 700) ? 3 : 4.5;
}

export interface LowContrast {
	readonly ratio: number;
	readonly wanted: number;
	/** The first such cell, by its index, and how many there are. */
	readonly cell: number;
	readonly cells: number;
}

/** Cells with text that cannot be read well on the background as composed, worst first. */
export function lowContrast(cells: readonly { readonly text: string }[], appearance: Appearance): LowContrast[] {
	const found = new Map<number, { first: number; count: number }>();
	appearance.cellLook.forEach((look, cell) => {
		if (!cells[cell]!.text.trim()) return;
		const known = found.get(look);
		if (known) known.count++;
		else found.set(look, { first: cell, count: 1 });
	});
	return [...found]
		.map(([index, { first, count }]) => {
			const look = appearance.looks[index]!;
			const background = look.fill === undefined || look.fill === 'none' ? PAPER : look.fill;
			return {
				ratio: contrast(look.ink ?? BLACK, background),
				wanted: wantedContrast(look),
				cell: first,
				cells: count
			};
		})
		.filter(({ ratio, wanted }) => ratio < wanted)
		.sort((a, b) => a.ratio - b.ratio);
}
