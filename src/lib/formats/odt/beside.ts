import type { CellPicture, ListItem, Note, RunView } from '../../core/table/content.ts';
import { safeLink } from '../held.ts';
import { type XmlNode } from '../package/xml.ts';
import { textLook, type TextLook } from './looks.ts';
import type { OdfStyles, Properties } from './styles.ts';
import { paragraphsOf, textOf, type TextParagraph } from './text.ts';

/** What a new file can hold of the paragraphs of a document, beside their text. */
export interface Beside {
	readonly pictures: ReadonlyMap<XmlNode, CellPicture>;
	readonly lists: ReadonlyMap<XmlNode, ListItem>;
}
export const NOTHING_BESIDE: Beside = { pictures: new Map(), lists: new Map() };

/** Frames that stand in an element, those inside tables in it left out. */
const framesIn = (node: XmlNode): XmlNode[] =>
	node.children.flatMap((child) =>
		child.name === 'draw:frame' ? [child] : child.name === 'table:table' ? [] : framesIn(child)
	);

export const picturesIn = (paragraph: XmlNode, { pictures }: Beside): CellPicture[] =>
	pictures.size ? framesIn(paragraph).flatMap((frame) => pictures.get(frame) ?? []) : [];

/** A note as it is written, without its mark (ODF 1.3 Part 3 §6.3.2). */
function noteOf(node: XmlNode, source: string): Note {
	const body = node.child('text:note-body');
	const text = body ? textOf(paragraphsOf(body, source)).trim() : '';
	return { kind: node.attribute('text:note-class') === 'endnote' ? 'end' : 'foot', text };
}

/** A run as it is shown: what it has beyond `look`, the look of what it stands in. */
export function runView(
	run: TextParagraph['runs'][number],
	{ properties, styles, look, source }: { properties: Properties; styles: OdfStyles; look: TextLook; source: string }
): RunView {
	if (run.note) return { text: '', note: noteOf(run.note, source) };
	const link = safeLink(run.link?.attribute('xlink:href'));
	const own = textLook(properties, styles, look.size);
	const position = properties.get('style:text-position') ?? '';
	return {
		text: run.text,
		...(own.weight !== look.weight && own.weight !== undefined && { weight: own.weight }),
		...(own.italic !== look.italic && own.italic !== undefined && { italic: own.italic }),
		...(own.underline !== look.underline && own.underline && { underline: own.underline }),
		...(own.ink !== look.ink && own.ink && { ink: own.ink }),
		...(/^(super|[1-9])/.test(position) && { position: 'super' as const }),
		...(/^(sub|-)/.test(position) && { position: 'sub' as const }),
		...(link && { link })
	};
}
