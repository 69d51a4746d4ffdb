import { BLACK, type Hex } from '../../../core/colour.ts';
import type { Computed, PageStyles } from '../cascade.ts';
import { over, toColour } from '../css.ts';
import { parentOf, type Element } from '../dom.ts';
import type { HtmlFields } from './property.ts';

export const inkOf = (computed: Computed): Hex => toColour(computed.get('color') ?? '#000', BLACK)?.hex ?? BLACK;

const background = (computed: Computed) => toColour(computed.get('background-color') ?? 'transparent', inkOf(computed));

/** Whether an element has a background of its own, be it faint. */
export const hasBackground = (element: Element, styles: PageStyles): boolean =>
	(background(styles.computed(element))?.opacity ?? 0) > 0;

export const FILL: HtmlFields<'fill'> = {
	fill: {
		/** Backgrounds of row, section and table lie under the cell's own. */
		read({ element, styles }) {
			const layers: Element[] = [];
			for (let node: Element | undefined = element; node; node = parentOf(node)) {
				layers.unshift(node);
				if (node.name === 'table') break;
			}
			let fill: Hex | undefined;
			for (const layer of layers) {
				const colour = background(styles.computed(layer));
				if (colour && colour.opacity > 0) fill = over(colour, fill);
			}
			return fill ?? 'none';
		},
		declare: (fill) => [`background-color: ${fill === 'none' ? 'transparent' : fill.toLowerCase()}`]
	}
};
