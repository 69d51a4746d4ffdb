import { BLACK, contrast as contrastOf, PAPER, type Hex } from '../../colour.ts';
import type { Touch } from '../../table/grid.ts';
import { policyRule, type Subject } from '../rule.ts';

interface Settings {
	readonly least: number;
}

const WHITE: Hex = '#FFFFFF';

/** Cells with text, each with the contrast of its ink on its ground. */
const contrasts = ({ table, appearance }: Subject) =>
	table.cells.flatMap(({ r, c, text }, cell) => {
		if (!text.trim()) return [];
		const at = appearance.cellLook[cell]!;
		const { ink = BLACK, fill = 'none' } = appearance.looks[at]!;
		const ground = fill === 'none' ? PAPER : fill;
		return [{ r, c, text, at, ground, ratio: contrastOf(ink, ground) }];
	});

export const contrast = policyRule({
	name: 'contrast',
	words: ({ least }: Settings) => `Text has a contrast of ${least}:1 or more.`,
	settings: { least: { type: 'number', minimum: 1, maximum: 21 } },
	usual: { least: 4.5 },
	measure: (subject) => contrasts(subject).reduce((least, { ratio }) => Math.min(least, ratio), 21),
	fails: (measure, { least }) => measure !== null && Number(measure) < least,
	judge: (subject, { least }) => {
		const seen = new Set<number>();
		return contrasts(subject).flatMap(({ r, c, text, at, ratio }) => {
			if (ratio >= least || seen.has(at)) return [];
			seen.add(at);
			return [{ r, c, words: `“${text.trim().slice(0, 24)}” has a contrast of ${ratio.toFixed(1)}:1` }];
		});
	},
	mend: {
		words: () => 'Set that text in black or white, whichever reads better',
		of: (subject, { least }) => {
			const touches = contrasts(subject).flatMap(({ r, c, ground, ratio }): Touch[] => {
				if (ratio >= least) return [];
				const ink = contrastOf(BLACK, ground) >= contrastOf(WHITE, ground) ? BLACK : WHITE;
				return contrastOf(ink, ground) > ratio ? [{ r, c, set: { text: { ink } } }] : [];
			});
			return touches.length ? { touches } : undefined;
		}
	}
});
