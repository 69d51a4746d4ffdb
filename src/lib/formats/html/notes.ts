import type { Note } from '../../core/table/content.ts';
import { elements, isTag, rolesOf, type Document, type Element } from './dom.ts';

/** Whether an element is the mark of a note (DPUB-ARIA 1.1, doc-noteref). */
export const isNoteMark = (node: Element): boolean => node.name === 'a' && rolesOf(node).includes('doc-noteref');

/** Elements by their ids, for each page that was asked for. */
const pages = new WeakMap<object, ReadonlyMap<string, Element>>();
function idsOf(page: Document): ReadonlyMap<string, Element> {
	let known = pages.get(page);
	if (!known) {
		const found = new Map<string, Element>();
		for (const element of elements(page)) {
			const { id } = element.attribs;
			if (id !== undefined && !found.has(id)) found.set(id, element);
		}
		pages.set(page, (known = found));
	}
	return known;
}

/** The note that a mark leads to; `textOf` reads its text. Undefined where it leads nowhere in its page. */
export function noteOf(mark: Element, textOf: (note: Element) => string): Note | undefined {
	const id = /^#(.+)/.exec(mark.attribs.href ?? '')?.[1];
	if (id === undefined) return undefined;
	let page: Element['parent'] = mark.parent;
	while (page?.parent) page = page.parent;
	const target = page && idsOf(page as Document).get(decoded(id));
	if (!target) return undefined;
	let isEnd = false;
	for (let up = target.parent; up && isTag(up as Element); up = (up as Element).parent)
		isEnd ||= rolesOf(up as Element).includes('doc-endnotes');
	return { kind: isEnd ? 'end' : 'foot', text: textOf(target) };
}
const decoded = (id: string): string => {
	try {
		return decodeURIComponent(id);
	} catch {
		return id;
	}
};
