import { BLACK, contrast as contrastOf, PAPER } from '../../colour.ts';
import { policyRule } from '../rule.ts';

export const contrast = policyRule({
	name: 'contrast',
	words: ({ least }: { readonly least: number }) => `Text has a contrast of ${least}:1 or more.`,
	settings: { least: { type: 'number', minimum: 1, maximum: 21 } },
	judge: ({ table, appearance }, { least }) => {
		const seen = new Set<number>();
		return table.cells.flatMap(({ r, c, text }, cell) => {
			const at = appearance.cellLook[cell]!;
			if (!text.trim() || seen.has(at)) return [];
			seen.add(at);
			const { ink = BLACK, fill = 'none' } = appearance.looks[at]!;
			const ratio = contrastOf(ink, fill === 'none' ? PAPER : fill);
			return ratio < least
				? [{ r, c, words: `“${text.trim().slice(0, 24)}” has a contrast of ${ratio.toFixed(1)}:1` }]
				: [];
		});
	}
});
