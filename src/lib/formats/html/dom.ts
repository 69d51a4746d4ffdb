import { parse } from 'parse5';
import { adapter } from 'parse5-htmlparser2-tree-adapter';
import { isTag, isText, type ChildNode, type Document, type Element, type ParentNode } from 'domhandler';
import { InputError } from '../../core/errors.ts';

/** Elements may stand this deep in each other. */
const MAX_DEPTH = 600;

export type { ChildNode, Document, Element };
export { isTag, isText };

/** Parses a page as browsers do (HTML Standard §13.2), with the place of every tag in the source. Nothing in it is run. */
export function parsePage(text: string): Document {
	const document = parse(text, { treeAdapter: adapter, sourceCodeLocationInfo: true, scriptingEnabled: false });
	const check = (node: ParentNode, depth: number): void => {
		if (depth > MAX_DEPTH)
			throw new InputError('depth', `Elements of this page stand more than ${MAX_DEPTH} deep in each other.`);
		for (const child of node.children) if (isTag(child)) check(child, depth + 1);
	};
	check(document, 0);
	return document;
}

export function* elements(node: ParentNode): Generator<Element> {
	for (const child of node.children)
		if (isTag(child)) {
			yield child;
			yield* elements(child);
		}
}

export const childElements = (node: ParentNode, ...names: string[]): Element[] =>
	node.children.filter((child): child is Element => isTag(child) && (names.length === 0 || names.includes(child.name)));

export const parentOf = (node: Element): Element | undefined =>
	node.parent && isTag(node.parent as Element) ? (node.parent as Element) : undefined;

/** All text in a node. */
export const textContent = (node: ParentNode): string =>
	node.children.map((child) => (isText(child) ? child.data : isTag(child) ? textContent(child) : '')).join('');

/** Where the tags of an element stand in the source; undefined for one that the parser made up. */
export function tagsOf(node: Element) {
	const place = node.sourceCodeLocation;
	if (!place || !('startTag' in place) || !place.startTag) return undefined;
	const { startTag, endTag } = place;
	return {
		start: startTag.startOffset,
		open: startTag.endOffset,
		close: endTag?.startOffset ?? place.endOffset,
		end: endTag?.endOffset ?? place.endOffset,
		hasEnd: endTag !== undefined && endTag !== null
	};
}

const SILENT: ReadonlySet<string> = new Set([
	'script',
	'style',
	'template',
	'noscript',
	'head',
	'title',
	'svg',
	'math'
]);
/** The roles that a page gives an element (WAI-ARIA 1.2). */
export const rolesOf = (node: Element): readonly string[] => node.attribs.role?.toLowerCase().split(/\s+/) ?? [];

/** Whether an element is no text where it stands: notes, which belong where they are referred to, and ways back to there. */
export const isNoteText = (node: Element): boolean =>
	rolesOf(node).some((role) => role === 'doc-footnote' || role === 'doc-endnotes' || role === 'doc-backlink');

export const isSilent = (node: Element): boolean =>
	SILENT.has(node.name) || 'hidden' in node.attribs || isNoteText(node);

const BLOCKS: ReadonlySet<string> = new Set(
	'address article aside blockquote dd details div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr li main nav ol p pre section ul table tr'.split(
		' '
	)
);
export const isBlock = (node: Element): boolean => BLOCKS.has(node.name);
