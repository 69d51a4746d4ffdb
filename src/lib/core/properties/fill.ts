import { BLACK, mix, PAPER, type Hex } from '../colour.ts';
import {
	field,
	inkSchema,
	leaf,
	percentWords,
	property,
	shareSchema,
	type Computing,
	type Winning
} from './property.ts';

const BOUNDS = 'It goes from 0 to 100 %.';

/**
 * The fill that shows: ink thinned by its tint, over whatever the parts below the one that set the ink paint, by its
 * opacity; over paper at the bottom. Undefined where nobody says anything.
 */
export function composedFill(leaves: Winning, { ink, below }: Computing): Hex | 'none' | undefined {
	const name = leaves.get('fill.ink')?.value;
	if (name === undefined) return undefined;
	if (name === 'none') return 'none';
	const tinted = mix(ink(String(name)) ?? BLACK, PAPER, Number(leaves.get('fill.tint')?.value ?? 1));
	const opacity = Number(leaves.get('fill.opacity')?.value ?? 1);
	if (opacity >= 1) return tinted;
	const base = below();
	return mix(tinted, base === undefined || base === 'none' ? PAPER : base, opacity);
}

export const fill = property({
	section: 'Fill',
	leaves: [
		leaf({
			path: 'fill.ink',
			aspect: 'fill',
			schema: inkSchema,
			words: 'fill',
			label: 'Ink',
			editor: 'ink',
			css: (ink, colour) =>
				ink === 'none'
					? ['background-color: transparent']
					: [
							`--fill: ${colour(ink)}`,
							'background-color: color-mix(in srgb, color-mix(in srgb, var(--fill) var(--tint, 100%), white) var(--opacity, 100%), transparent)'
						]
		}),
		leaf({
			path: 'fill.tint',
			aspect: 'fill',
			schema: shareSchema,
			words: 'fill tint',
			label: 'Tint',
			editor: 'share',
			bounds: BOUNDS,
			say: percentWords,
			css: (tint) => [`--tint: ${tint * 100}%`]
		}),
		leaf({
			path: 'fill.opacity',
			aspect: 'fill',
			schema: shareSchema,
			words: 'fill opacity',
			label: 'Opacity',
			editor: 'share',
			bounds: BOUNDS,
			say: percentWords,
			css: (opacity) => [`--opacity: ${opacity * 100}%`]
		})
	],
	fields: [
		field<'fill', Hex | 'none'>({
			name: 'fill',
			aspect: 'fill',
			words: 'fill',
			leaves: ['fill.ink', 'fill.tint', 'fill.opacity'],
			visible: 4,
			unsaid: 'none',
			compute: composedFill,
			say: String,
			lift: (fill, name) => [['fill.ink', fill === 'none' ? fill : name(fill)]]
		})
	],
	sentence: {
		place: 9,
		words(value) {
			const ink = value('fill.ink');
			if (ink === undefined || ink === 'none') return undefined;
			// Tint and opacity both let less of the ink be seen.
			const shown = Number(value('fill.tint') ?? 1) * Number(value('fill.opacity') ?? 1);
			return `on ${shown === 1 ? ink : `${ink} at ${percentWords(shown)}`}`;
		}
	}
});
