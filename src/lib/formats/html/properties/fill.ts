import { BLACK, type Hex } from '../../../core/colour.ts';
import type { Computed, PageStyles } from '../cascade.ts';
import { over, toColour } from '../css.ts';
import { parentOf, type Element } from '../dom.ts';
import { paragraphsOf } from '../text.ts';
import type { HtmlFields } from './property.ts';

export const inkOf = (computed: Computed): Hex => toColour(computed.get('color') ?? '#000', BLACK)?.hex ?? BLACK;

const background = (computed: Computed) => toColour(computed.get('background-color') ?? 'transparent', inkOf(computed));

/** Whether an element has a background of its own, be it faint. */
export const hasBackground = (element: Element, styles: PageStyles): boolean =>
	(background(styles.computed(element))?.opacity ?? 0) > 0;

/** The elements inside a cell with a background that a stretch of its text stands on, the outermost first. */
function groundsOf(from: Element, cell: Element, styles: PageStyles): Element[] {
	const grounds: Element[] = [];
	for (let node: Element | undefined = from; node && node !== cell; node = parentOf(node))
		if (hasBackground(node, styles)) grounds.unshift(node);
	return grounds;
}

/** The backgrounds that each stretch of a cell's text stands on, where all stand on the same; none where words differ in that. */
function sharedGrounds(cell: Element, styles: PageStyles): readonly Element[][] {
	const runs = paragraphsOf(cell)
		.flat()
		.filter(({ text }) => text.trim());
	const grounds = runs.map((run) => groundsOf(run.in, cell, styles));
	const shown = new Set(grounds.map((own) => own.map((one) => styles.computed(one).get('background-color')).join('|')));
	return shown.size === 1 && grounds[0]!.length ? grounds : [];
}

/** Elements inside a cell that show behind all of its text, and so are its fill as anybody sees it. */
export const fillingInside = (cell: Element, styles: PageStyles): readonly Element[] => [
	...new Set(sharedGrounds(cell, styles).flat())
];

function behindText(cell: Element, styles: PageStyles, below: Hex | undefined): Hex | undefined {
	const [grounds] = sharedGrounds(cell, styles);
	return grounds?.reduce<Hex | undefined>((fill, one) => over(background(styles.computed(one))!, fill), below);
}

export const FILL: HtmlFields<'fill'> = {
	fill: {
		/** Backgrounds of row, section and table lie under the cell's own. */
		read({ element, styles, columns }) {
			const layers: Element[] = [];
			for (let node: Element | undefined = element; node; node = parentOf(node)) {
				// Columns lie under rows, over the table (CSS 2.2 §17.5.1).
				if (node.name === 'table') layers.unshift(node, ...columns);
				else layers.unshift(node);
				if (node.name === 'table') break;
			}
			let fill: Hex | undefined;
			for (const layer of layers) {
				const colour = background(styles.computed(layer));
				if (colour && colour.opacity > 0) fill = over(colour, fill);
			}
			return behindText(element, styles, fill) ?? fill ?? 'none';
		},
		declare: (fill) => [`background-color: ${fill === 'none' ? 'transparent' : fill.toLowerCase()}`]
	}
};
