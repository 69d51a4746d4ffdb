import { BLACK, PAPER, mix, type Hex } from '../../../core/colour.ts';
import type { XmlNode } from '../../package/xml.ts';
import { readColour, type Theme } from '../theme.ts';

/** w:shd (§17.3.5): a pattern of `color` on `fill`, as the one colour that the eye mixes. */
export function readShading(shd: XmlNode | undefined, theme: Theme): Hex | 'none' | undefined {
	if (!shd) return undefined;
	const pattern = shd.attribute('w:val') ?? 'clear';
	const fill = readColour(shd, 'fill', theme);
	const colour = readColour(shd, 'color', theme);
	const background = fill === undefined || fill === 'auto' ? 'none' : fill;
	if (pattern === 'clear' || pattern === 'nil') return pattern === 'nil' ? 'none' : background;
	const foreground = colour === undefined || colour === 'auto' ? BLACK : colour;
	const share =
		pattern === 'solid'
			? 1
			: pattern.startsWith('pct')
				? Number(pattern.slice(3)) / 100
				: /thin/i.test(pattern)
					? 0.25
					: 0.5;
	return mix(foreground, background === 'none' ? PAPER : background, share);
}

export const writeShading = (fill: Hex | 'none'): string =>
	`<w:shd w:val="clear" w:color="auto" w:fill="${fill === 'none' ? 'auto' : fill.slice(1)}"/>`;

/** What shows as the fill of a cell: what is behind its words, else behind their paragraph, else its own (§17.3.2.32, §17.3.1.31). */
export const shownFill = <Fill extends Hex | 'none' | undefined>(
	...layers: readonly [text: Fill, paragraph: Fill, cell: Fill]
): Fill | undefined => layers.find((fill) => fill !== undefined && fill !== 'none') ?? layers[2];
