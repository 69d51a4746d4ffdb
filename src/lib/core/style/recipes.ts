import type { FlatStyle } from './inherit.ts';
import { linePath } from '../properties/lines.ts';
import { withLeaf } from './leaves.ts';
import { settingsAt, withSettings } from './edit.ts';
import { LINE_PLACES, type LinePlace, type LineSettings, type Style } from './types.ts';

/** A whole linework, ready to be given to a style and changed afterwards. */
export interface Recipe {
	readonly name: string;
	readonly words: string;
	/** Lines by part; `ink` is the main ink that the designer chose. */
	lines(ink: string): Readonly<Record<string, Partial<Record<LinePlace, LineSettings>>>>;
}

const line = (weight: string, ink: string, pattern: LineSettings['pattern'] = 'solid'): LineSettings => ({
	pattern: pattern ?? 'solid',
	weight,
	ink
});
const NONE: LineSettings = { pattern: 'none' };
const rim = (settings: LineSettings) => ({ top: settings, bottom: settings, start: settings, end: settings });
const sides = { start: NONE, end: NONE };
const inside = { betweenRows: NONE, betweenColumns: NONE };

export const RECIPES: readonly Recipe[] = [
	{
		name: 'Three rules',
		words: 'One line above, one under the header, one at the foot.',
		lines: (ink) => ({
			ground: { top: line('1.25pt', ink), bottom: line('1.25pt', ink), ...sides, ...inside },
			header: { bottom: line('0.5pt', ink), betweenRows: NONE }
		})
	},
	{
		name: 'Ledger lines',
		words: 'A fine line under every row, a double one over the total.',
		lines: (ink) => ({
			ground: {
				top: line('0.5pt', ink),
				bottom: line('1pt', ink),
				betweenRows: line('0.25pt', ink),
				betweenColumns: NONE,
				...sides
			},
			header: { bottom: line('1pt', ink) },
			subtotal: { top: line('0.5pt', ink) },
			total: { top: line('2.25pt', ink, 'double') }
		})
	},
	{
		name: 'Full lattice',
		words: 'A line on every edge, stronger around the outside.',
		lines: (ink) => ({
			ground: { ...rim(line('1pt', ink)), betweenRows: line('0.5pt', ink), betweenColumns: line('0.5pt', ink) },
			header: { bottom: line('1pt', ink) }
		})
	},
	{
		name: 'Framed',
		words: 'The rim alone, and one line under the header.',
		lines: (ink) => ({
			ground: { ...rim(line('1pt', ink)), ...inside },
			header: { bottom: line('0.5pt', ink) }
		})
	},
	{
		name: 'Columns apart',
		words: 'Upright lines only, and one across under the header.',
		lines: (ink) => ({
			ground: { top: NONE, bottom: NONE, ...sides, betweenRows: NONE, betweenColumns: line('0.5pt', ink) },
			header: { bottom: line('1pt', ink) }
		})
	},
	{
		name: 'Floating',
		words: 'Paper-coloured lines part the rows, so that fills float on the page.',
		lines: () => ({
			ground: { top: NONE, bottom: NONE, ...sides, betweenRows: line('2pt', 'paper'), betweenColumns: NONE },
			header: { bottom: line('2pt', 'paper') }
		})
	},
	{
		name: 'Bare',
		words: 'No line anywhere.',
		lines: () => ({ ground: { ...rim(NONE), ...inside } })
	}
];

/**
 * The style with its whole linework replaced by a recipe: its own lines go, and what its bases (`below`, flattened)
 * would still draw is said to be none. Rules and diagonals stay as they are.
 */
export function withRecipe(style: Style, below: FlatStyle | undefined, recipe: Recipe, ink: string): Style {
	const lines = recipe.lines(ink);
	let next = style;
	const places = new Set([...Object.keys(style.parts), ...(below?.parts.keys() ?? []), ...Object.keys(lines)]);
	for (const place of places) {
		let settings = settingsAt(next, place);
		for (const side of LINE_PLACES) {
			if (side.startsWith('diagonal')) continue;
			const wanted = lines[place]?.[side];
			for (const property of ['pattern', 'weight', 'ink'] as const)
				settings = withLeaf(settings, linePath(side, property), wanted?.[property] ?? undefined);
			const drawnBelow = below?.parts.get(place)?.get(linePath(side, 'pattern'))?.value ?? 'none';
			if (!wanted && drawnBelow !== 'none') settings = withLeaf(settings, linePath(side, 'pattern'), 'none');
		}
		next = withSettings(next, place, settings);
	}
	return next;
}
