import type { CellPicture, ListItem, Note, RunView } from '../../core/table/content.ts';
import { safeLink } from '../held.ts';
import { descendants, type XmlNode } from '../package/xml.ts';
import { runsOf } from './tables.ts';

/** What a new file can hold of the paragraphs of a document, beside their text. */
export interface Beside {
	readonly pictures: ReadonlyMap<XmlNode, CellPicture>;
	readonly lists: ReadonlyMap<XmlNode, ListItem>;
	/** By the element that refers to them. */
	readonly notes: ReadonlyMap<XmlNode, Note>;
}
export const NOTHING_BESIDE: Beside = { pictures: new Map(), lists: new Map(), notes: new Map() };

/** The addresses of the links that runs of a paragraph stand in (§17.16.22), those that are fields included (§17.16.5.25). */
export function linksIn(paragraph: XmlNode, links: ReadonlyMap<string, string>): ReadonlyMap<XmlNode, string> {
	const found = new Map<XmlNode, string>();
	for (const link of descendants(paragraph, 'w:hyperlink')) {
		const address = safeLink(links.get(link.attribute('r:id') ?? ''));
		if (address) for (const run of descendants(link, 'w:r')) found.set(run, address);
	}
	/** The fields that a run stands in, with what each says before its result begins. */
	const open: { code: string; isResult: boolean }[] = [];
	for (const run of runsOf(paragraph)) {
		for (const child of run.children) {
			const kind = child.name === 'w:fldChar' ? child.attribute('w:fldCharType') : undefined;
			if (kind === 'begin') open.push({ code: '', isResult: false });
			else if (kind === 'separate' && open.length) open.at(-1)!.isResult = true;
			else if (kind === 'end') open.pop();
			else if (child.name === 'w:instrText' && open.length) open.at(-1)!.code += child.text;
		}
		for (const { code, isResult } of open) {
			const address = isResult ? safeLink(/^\s*HYPERLINK\s+"([^"]*)"/i.exec(code)?.[1]) : undefined;
			if (address) found.set(run, address);
		}
	}
	return found;
}

/** The note that a run refers to. */
export const noteIn = (run: XmlNode, { notes }: Beside): Note | undefined =>
	notes.size ? run.children.flatMap((child) => notes.get(child) ?? [])[0] : undefined;

export const picturesIn = (paragraph: XmlNode, { pictures }: Beside): CellPicture[] =>
	pictures.size ? descendants(paragraph, 'w:drawing').flatMap((one) => pictures.get(one) ?? []) : [];

/** How a run is raised or lowered. */
export function positionOf(run: XmlNode): RunView['position'] {
	const position = run.at('w:rPr', 'w:vertAlign')?.attribute('w:val');
	return position === 'superscript' ? 'super' : position === 'subscript' ? 'sub' : undefined;
}
