import { escapeHtml } from '../../core/escape.ts';
import type { Aspect } from '../../core/style/types.ts';
import { headRows } from '../../core/roles/index.ts';
import { toPixels, type Emu } from '../../core/units.ts';
import type { Prepared } from '../job.ts';
import { inlineDeclarations } from './cascade.ts';
import { childElements, tagsOf, type Element } from './dom.ts';
import type { PageEdits } from './edits.ts';
import type { HtmlGrid } from './grid.ts';
import { longhands } from './css.ts';

/** Which aspect the longhands of a page belong to; undefined for those that no look has. */
function aspectOf(property: string): Aspect | undefined {
	if (property === 'background-color') return 'fill';
	if (property.startsWith('border-')) return 'linework';
	if (property.startsWith('padding-')) return 'margins';
	if (/^(text-align|vertical-align|writing-mode)$/.test(property)) return 'alignment';
	if (/^(color|font-|line-height|letter-spacing|text-decoration-|text-transform)/.test(property)) return 'text';
	return undefined;
}
const LEGACY: Readonly<Record<string, Aspect>> = {
	bgcolor: 'fill',
	align: 'alignment',
	valign: 'alignment',
	border: 'linework',
	rules: 'linework',
	frame: 'linework',
	cellpadding: 'margins',
	cellspacing: 'linework'
};

/** An inline style without what the carried aspects say; as it was written where nothing of it goes. */
function keptStyle(style: string | undefined, carry: ReadonlySet<Aspect>): string {
	if (!style?.trim()) return '';
	if (!inlineDeclarations(style).some(([property]) => carry.has(aspectOf(property)!))) return style.trim();
	return style
		.split(/;(?![^(]*\))/)
		.filter((declaration) => {
			const colon = declaration.indexOf(':');
			if (colon < 0) return false;
			const property = declaration.slice(0, colon).trim().toLowerCase();
			const aspects = [...longhands(property, declaration.slice(colon + 1).trim())].map(([name]) => aspectOf(name));
			return !aspects.some((aspect) => aspect && carry.has(aspect));
		})
		.map((declaration) => declaration.trim())
		.filter(Boolean)
		.join('; ');
}

/** The class names that Heptarch gives to rows and cells. */
const OURS =
	/^(title|header|group|body|subtotal|total|note|first|last|(header|group|subtotal|band|stripe)-\d+|(kind|column|rule)-.+)$/;

export interface TagChange {
	readonly carry: ReadonlySet<Aspect>;
	readonly classes: readonly string[];
	readonly styles?: readonly string[];
	readonly attributes?: Readonly<Record<string, string>>;
	readonly name?: string;
	/** Attributes that go. */
	readonly drops?: readonly string[];
	/** Other class names that go. */
	readonly without?: ReadonlySet<string>;
}

/** A start tag anew: every attribute that is not about looks stays, in its order. As it is written where nothing changes. */
export function startTag(source: string, element: Element, change: TagChange): string {
	const { carry, classes, styles = [], attributes = {}, name = element.name, drops = [], without } = change;
	const kept = Object.entries(element.attribs).filter(
		([key]) =>
			!['class', 'style', ...Object.keys(attributes), ...drops].includes(key) &&
			!(LEGACY[key] && carry.has(LEGACY[key]) && element.name !== 'caption')
	);
	const names = [
		...(element.attribs.class ?? '').split(/\s+/).filter((one) => one && !OURS.test(one) && !without?.has(one)),
		...classes
	];
	const style = [keptStyle(element.attribs.style, carry), ...styles].filter(Boolean).join('; ');
	const all: [string, string][] = [
		...kept,
		...(names.length ? [['class', [...new Set(names)].join(' ')] as [string, string]] : []),
		...(style ? [['style', style] as [string, string]] : []),
		...Object.entries(attributes)
	];
	const before = Object.entries(element.attribs).sort();
	const tags = tagsOf(element);
	if (tags && name === element.name && JSON.stringify(before) === JSON.stringify([...all].sort()))
		return source.slice(tags.start, tags.open);
	return `<${name}${all.map(([key, value]) => ` ${key}="${escapeHtml(value)}"`).join('')}>`;
}

/** Puts a start tag anew in its place. */
export function changeTag(edits: PageEdits, source: string, element: Element, change: TagChange): void {
	const tags = tagsOf(element);
	if (!tags) return;
	const tag = startTag(source, element, change);
	if (tag !== source.slice(tags.start, tags.open)) edits.replace(tags.start, tags.open, tag);
	const { name = element.name } = change;
	if (name !== element.name && tags.hasEnd) edits.replace(tags.close, tags.end, `</${name}>`);
}

/** Adds declarations to the inline style of an element that keeps all else. */
export function declareOn(
	edits: PageEdits,
	source: string,
	element: Element | undefined,
	declarations: readonly string[]
): void {
	if (element)
		changeTag(edits, source, element, { carry: new Set(), classes: namedLikeOurs(element), styles: declarations });
}

/** Class names of an element that could be ours, and stay where it is none of ours. */
const namedLikeOurs = ({ attribs }: Element): string[] =>
	(attribs.class ?? '').split(/\s+/).filter((one) => OURS.test(one));

/** Elements that give words emphasis, and nothing else. */
const EMPHATIC: ReadonlySet<string> = new Set(['b', 'strong', 'i', 'em', 'u', 'font', 'big', 'small', 'mark', 'ins']);
const TEXT_ONLY: ReadonlySet<Aspect> = new Set(['text']);

/** Takes the emphasis inside a cell's text away; tables inside it keep theirs. Some elements are to say something else. */
export function dropEmphasis(
	edits: PageEdits,
	source: string,
	element: Element,
	saying: ReadonlyMap<Element, readonly string[]>
): void {
	for (const child of childElements(element)) {
		if (child.name === 'table') continue;
		const tags = tagsOf(child);
		if (tags && EMPHATIC.has(child.name)) {
			edits.replace(tags.start, tags.open, '');
			if (tags.hasEnd) edits.replace(tags.close, tags.end, '');
		} else if (child.attribs.style || saying.has(child)) {
			const styles = saying.get(child) ?? [];
			changeTag(edits, source, child, { carry: TEXT_ONLY, classes: namedLikeOurs(child), styles });
		}
		dropEmphasis(edits, source, child, saying);
	}
}

/** Gives the columns their widths by `col` elements, in the place of those that the table has. */
export function setWidths(edits: PageEdits, source: string, { node }: HtmlGrid, widths: readonly Emu[]): void {
	const markup = `<colgroup>${widths.map((width) => `<col style="width: ${toPixels(width).toFixed(1)}px">`).join('')}</colgroup>`;
	const old = childElements(node, 'colgroup', 'col').flatMap((one) => tagsOf(one) ?? []);
	for (const { start, end } of old.slice(1)) edits.replace(start, end, '');
	const [first] = old;
	if (first) return edits.replace(first.start, first.end, markup);
	const caption = childElements(node, 'caption').flatMap((one) => tagsOf(one) ?? [])[0];
	const tags = tagsOf(node);
	if (tags) edits.insert(caption?.end ?? tags.open, markup);
}

/**
 * A section with another start tag. Header rows that stand in no `thead` are put into one before it, so that they repeat
 * on paper and are read out as such. A section that the page does not write out gets tags where it has something to say.
 */
export function changeSection(
	edits: PageEdits,
	source: string,
	{ rows }: HtmlGrid,
	rowsHere: readonly number[],
	section: Element,
	change: TagChange,
	head: { readonly rows: number; readonly styles: readonly string[] }
): void {
	const own = tagsOf(section);
	const first = tagsOf(rows[rowsHere[0]!]!.node);
	const last = tagsOf(rows[rowsHere.at(-1)!]!.node);
	const next = head.rows ? tagsOf(rows[head.rows]!.node) : undefined;
	const tag = startTag(source, section, change);
	if (next && first && childElements(section)[0] === rows[0]!.node) {
		const open = head.styles.length ? `<thead style="${escapeHtml(head.styles.join('; '))}">` : '<thead>';
		if (own) edits.replace(own.start, own.open, open);
		else edits.insert(first.start, open);
		edits.insert(next.start, `</thead>${tag}`);
		if (!own && last) edits.insert(last.end, `</${section.name}>`);
	} else if (own) changeTag(edits, source, section, change);
	else if (change.styles?.length && first && last) {
		edits.insert(first.start, tag);
		edits.insert(last.end, `</${section.name}>`);
	}
}

/** How many rows at the top go into a `thead`; 0 where they cannot, or stand in one. */
export function rowsForHead({ rows }: HtmlGrid, { job }: Prepared): number {
	if (rows.some(({ section }) => section?.name === 'thead')) return 0;
	const head = headRows(job.table.roles);
	if (!head) return 0;
	// A cell that reaches down out of the head would end with it (HTML Standard §4.9.12.1).
	const { cells, merged } = job.table;
	if (merged.some((i) => cells[i]!.r < head && cells[i]!.r + cells[i]!.rows > head)) return 0;
	const section = rows[0]!.section;
	return section?.name !== 'tbody' || rows.some((row, r) => r <= head && row.section !== section) ? 0 : head;
}
