import type { Emu } from '../../../core/units.ts';
import { toPx } from '../css.ts';
import { isBlock, isTag, type Element } from '../dom.ts';
import type { PageStyles } from '../cascade.ts';
import { fromPx, pt, sizeOf, type HtmlFields } from './property.ts';

/** The paragraphs of a cell that are elements of their own; lines that `br` parts have no space that could be said. */
export const paragraphElements = (cell: Element): Element[] =>
	cell.children.filter((child): child is Element => isTag(child) && child.name !== 'table' && isBlock(child));

const margin = (element: Element, side: 'top' | 'bottom', styles: PageStyles): number => {
	const computed = styles.computed(element);
	return toPx(computed.get(`margin-${side}`) ?? '0', sizeOf(computed), 0) ?? 0;
};

/** The space between the first two paragraphs of a cell, whose margins collapse (CSS 2.2 §8.3.1); undefined where there is one. */
export function gapOf(cell: Element, styles: PageStyles): Emu | undefined {
	const [first, second] = paragraphElements(cell);
	return first && second && fromPx(Math.max(margin(first, 'bottom', styles), margin(second, 'top', styles)));
}

/** What the paragraphs of a cell say of themselves: the first, and those that follow it. */
export const gapDeclarations = (gap: Emu): { readonly first: string[]; readonly following: string[] } => ({
	first: ['margin-block: 0'],
	following: [`margin-block: ${pt(gap)} 0`]
});

export const PARAGRAPH_GAP: HtmlFields<'paragraphGap'> = {
	paragraphGap: {
		read: ({ element, styles }) => gapOf(element, styles),
		// Said by the paragraphs, not by the cell.
		declare: () => []
	}
};
