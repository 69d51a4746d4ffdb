import { toPoints } from '../../units.ts';
import { policyRule } from '../rule.ts';

export const typeSize = policyRule({
	name: 'type-size',
	words: ({ least }: { readonly least: number }) => `Type is ${least} pt or larger.`,
	settings: { least: { type: 'number', minimum: 1, maximum: 100 } },
	judge: ({ table, appearance }, { least }) => {
		const seen = new Set<number>();
		return table.cells.flatMap(({ r, c, text }, cell) => {
			const at = appearance.cellLook[cell]!;
			const { size } = appearance.looks[at]!;
			if (!text.trim() || seen.has(at) || size === undefined || toPoints(size) >= least) return [];
			seen.add(at);
			return [{ r, c, words: `“${text.trim().slice(0, 24)}” is set in ${Number(toPoints(size).toFixed(1))} pt` }];
		});
	}
});
