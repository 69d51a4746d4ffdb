import { decodedText, type XmlNode } from '../package/xml.ts';

export interface TextRun {
	readonly text: string;
	/** The span that it stands in directly, or the paragraph. */
	readonly in: XmlNode;
	/** Spans around it, outermost first. */
	readonly spans: readonly XmlNode[];
	/** The link that it stands in. */
	readonly link?: XmlNode | undefined;
	/** A note that is anchored here, where notes were asked for; it has no text then. */
	readonly note?: XmlNode;
}

export interface TextParagraph {
	readonly node: XmlNode;
	readonly runs: readonly TextRun[];
}

/** Content that is not part of the text where it stands. */
const APART: ReadonlySet<string> = new Set([
	'text:note',
	'office:annotation',
	'text:tracked-changes',
	'draw:frame',
	'draw:text-box',
	'text:ruby-text'
]);

/**
 * The characters between an element's children, in order: the parser keeps the text of an element together, so the source
 * says where each piece stands.
 */
function* contentOf(node: XmlNode, source: string): Generator<string | XmlNode> {
	let at = node.openEnd;
	for (const child of node.children) {
		if (child.start > at) yield decodedText(source.slice(at, child.start));
		yield child;
		at = child.end;
	}
	if (!node.selfClosing && node.closeStart > at) yield decodedText(source.slice(at, node.closeStart));
}

export function readParagraph(node: XmlNode, source: string, hasNotes = false): TextParagraph {
	const runs: { -readonly [key in keyof TextRun]: TextRun[key] }[] = [];
	let link: XmlNode | undefined;
	let endsInSpace = true;
	const add = (text: string, at: XmlNode, spans: readonly XmlNode[]) => {
		const last = runs.at(-1);
		if (last?.in === at && !last.note) last.text += text;
		else runs.push({ text, in: at, spans, link });
	};
	const visit = (at: XmlNode, spans: readonly XmlNode[]) => {
		for (const piece of contentOf(at, source)) {
			if (typeof piece === 'string') {
				// White space collapses (ODF 1.3 Part 3 §6.1.2).
				let text = piece.replace(/[ \t\n\r]+/g, ' ');
				if (endsInSpace) text = text.replace(/^ /, '');
				if (text) {
					endsInSpace = text.endsWith(' ');
					add(text, at, spans);
				}
			} else if (piece.name === 'text:s') {
				add(' '.repeat(Math.min(1_000, Number(piece.attribute('text:c') ?? 1) || 1)), at, spans);
				endsInSpace = false;
			} else if (piece.name === 'text:tab') {
				add('\t', at, spans);
				endsInSpace = true;
			} else if (piece.name === 'text:line-break') {
				add('\n', at, spans);
				endsInSpace = true;
			} else if (piece.name === 'text:span') visit(piece, [...spans, piece]);
			else if (piece.name === 'text:a') {
				link = piece;
				visit(piece, spans);
				link = undefined;
			} else if (hasNotes && piece.name === 'text:note') runs.push({ text: '', in: at, spans, note: piece });
			else if (!APART.has(piece.name)) visit(piece, spans);
		}
	};
	visit(node, []);
	const last = runs.at(-1);
	if (last) last.text = last.text.replace(/ $/, '');
	return { node, runs: runs.filter(({ text, note }) => text || note) };
}

/** The paragraphs of an element, those in lists and sections included; what stands in tables inside is left out. */
export function paragraphsOf(node: XmlNode, source: string, hasNotes = false): TextParagraph[] {
	const out: TextParagraph[] = [];
	const visit = (at: XmlNode) => {
		for (const child of at.children)
			if (child.name === 'text:p' || child.name === 'text:h') out.push(readParagraph(child, source, hasNotes));
			else if (child.name !== 'table:table' && !APART.has(child.name)) visit(child);
	};
	visit(node);
	return out;
}

export const textOf = (paragraphs: readonly TextParagraph[]): string =>
	paragraphs.map(({ runs }) => runs.map(({ text }) => text).join('')).join('\n');
