import type { Note } from '../../core/table/content.ts';
import { elements, parentOf, rolesOf, type Document, type Element } from './dom.ts';

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

/** Notes by their elements, each read once however often it is referred to. */
const known = new WeakMap<Element, Note>();

/**
 * The note that a mark leads to; `textOf` reads its text, without marks in it. Undefined where it leads to no note of its
 * page (DPUB-ARIA 1.1, doc-footnote, doc-endnotes).
 */
export function noteOf(mark: Element, textOf: (note: Element) => string): Note | undefined {
	const id = /^#(.+)/.exec(mark.attribs.href ?? '')?.[1];
	if (id === undefined) return undefined;
	let page: Element['parent'] = mark.parent;
	while (page?.parent) page = page.parent;
	const target = page && idsOf(page as Document).get(decoded(id));
	const kind = target && kindOf(target);
	if (!kind) return undefined;
	let note = known.get(target);
	if (!note) known.set(target, (note = { kind, text: textOf(target) }));
	return note;
}

function kindOf(note: Element): Note['kind'] | undefined {
	for (let up: Element | undefined = note; up; up = parentOf(up)) {
		const roles = rolesOf(up);
		if (roles.includes('doc-footnote')) return 'foot';
		if (roles.includes('doc-endnotes')) return 'end';
	}
	return undefined;
}
const decoded = (id: string): string => {
	try {
		return decodeURIComponent(id);
	} catch {
		return id;
	}
};
