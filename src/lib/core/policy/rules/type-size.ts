import type { Touch } from '../../table/grid.ts';
import { toPoints } from '../../units.ts';
import { policyRule, type Subject } from '../rule.ts';

interface Settings {
	readonly least: number;
}

/** Cells with text whose size somebody says, in points. */
const sizes = ({ table, appearance }: Subject) =>
	table.cells.flatMap(({ r, c, text }, cell) => {
		const at = appearance.cellLook[cell]!;
		const { size } = appearance.looks[at]!;
		return !text.trim() || size === undefined ? [] : [{ r, c, text, at, points: toPoints(size) }];
	});

export const typeSize = policyRule({
	name: 'type-size',
	words: ({ least }: Settings) => `Type is ${least} pt or larger.`,
	settings: { least: { type: 'number', minimum: 1, maximum: 100 } },
	usual: { least: 8 },
	measure: (subject) => {
		const all = sizes(subject);
		return all.length ? all.reduce((least, { points }) => Math.min(least, points), Infinity) : null;
	},
	fails: (measure, { least }) => measure !== null && Number(measure) < least,
	judge: (subject, { least }) => {
		const seen = new Set<number>();
		return sizes(subject).flatMap(({ r, c, text, at, points }) => {
			if (points >= least || seen.has(at)) return [];
			seen.add(at);
			return [{ r, c, words: `“${text.trim().slice(0, 24)}” is set in ${Number(points.toFixed(1))} pt` }];
		});
	},
	mend: {
		words: ({ least }) => `Set that text in ${least} pt`,
		of: (subject, { least }) => {
			const touches = sizes(subject).flatMap(({ r, c, points }): Touch[] =>
				points < least ? [{ r, c, set: { text: { size: `${least}pt` } } }] : []
			);
			return touches.length ? { touches } : undefined;
		}
	}
});
