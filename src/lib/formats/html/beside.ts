import { emu } from '../../core/units.ts';
import type { CellPicture, RunView } from '../../core/table/content.ts';
import { safeLink } from '../held.ts';
import { pictureSize } from '../picture-size.ts';
import type { PageStyles } from './cascade.ts';
import { type Element } from './dom.ts';
import type { HtmlGrid } from './grid.ts';
import { inkOf } from './properties/fill.ts';
import { underlineOf, weightOf } from './properties/text.ts';
import type { TextRun } from './text.ts';
import type { DocumentTable } from '../document.ts';

/** A run as it is shown: what it has beyond what it stands in, a cell or block. */
export function runView(run: TextRun, around: Element, styles: PageStyles): RunView {
	if (run.note) return { text: '', note: run.note };
	if (run.in === around) return { text: run.text };
	const [base, own] = [styles.computed(around), styles.computed(run.in)];
	const weight = weightOf(run.in, styles);
	const isItalic = (computed: typeof own) => /italic|oblique/.test(computed.get('font-style') ?? '');
	const underline = underlineWithin(run.in, around, styles);
	const position = positionOf(run.in, around);
	const link = linkAround(run.in, around);
	return {
		text: run.text,
		...(weight !== weightOf(around, styles) && { weight }),
		...(isItalic(own) !== isItalic(base) && { italic: isItalic(own) }),
		...(underline && underline !== underlineOf(base) && { underline }),
		...(inkOf(own) !== inkOf(base) && { ink: inkOf(own) }),
		...(position && { position }),
		...(link && { link })
	};
}

/** What stands between an element and what is around it, from the inside. */
function* within(from: Element, around: Element): Generator<Element> {
	for (let node: Element | null = from; node && node !== around; node = node.parent as Element | null) yield node;
}

/** An underline shows through everything inside the element that has it. */
function underlineWithin(from: Element, around: Element, styles: PageStyles) {
	for (const node of within(from, around)) {
		const underline = underlineOf(styles.computed(node));
		if (underline !== 'none') return underline;
	}
	return undefined;
}

/** The address of the link that some text stands in. */
function linkAround(from: Element, around: Element): string | undefined {
	for (const { name, attribs } of within(from, around)) if (name === 'a') return safeLink(attribs.href);
	return undefined;
}

function positionOf(from: Element, around: Element): 'super' | 'sub' | undefined {
	for (const { name } of within(from, around))
		if (name === 'sup') return 'super';
		else if (name === 'sub') return 'sub';
	return undefined;
}

/** A picture that the page holds itself; others are named, not fetched. */
export function pictureIn({ attribs }: Element): CellPicture[] {
	const source = attribs.src?.trim() ?? '';
	const size = pictureSize(source);
	if (!size) return [];
	const said = (name: 'width' | 'height') => Number(/^\d+/.exec(attribs[name] ?? '')?.[0]) || undefined;
	const width = said('width') ?? (said('height') ? (size.width * said('height')!) / size.height : size.width);
	const height = said('height') ?? (size.height * width) / size.width;
	const pixels = (count: number) => emu(count * 9_525);
	const alternative = attribs.alt ?? '';
	return [{ source, alternative, width: pixels(width), height: pixels(height), fits: 'row' }];
}

/** A caption that stands in its table, rather than before it. */
export const ownCaption = (
	{ grids, tables }: { readonly grids: readonly HtmlGrid[]; readonly tables: readonly DocumentTable[] },
	index: number
): string | undefined =>
	grids[index]!.node.children.some((child) => 'name' in child && child.name === 'caption')
		? tables[index]!.place.caption
		: undefined;
