import type { Note } from '../../core/table/content.ts';
import { isNoteMark, noteOf } from './notes.ts';
import { isBlock, isSilent, isTag, isText, type Element } from './dom.ts';

export interface TextRun {
	readonly text: string;
	/** The element that the text stands in directly. */
	readonly in: Element;
	/** A note that is marked here, which has no text of its own. */
	readonly note?: Note;
}

/** A line or block of text, with the item of a list that it begins. */
export interface TextParagraph {
	readonly runs: readonly TextRun[];
	readonly item?: Element;
}

/** The text of an element as it is read: white space collapsed, one entry a line or block; tables inside are left out. */
export const paragraphsOf = (element: Element): (readonly TextRun[])[] =>
	contentsOf(element).flatMap((one) => ('runs' in one ? [one.runs] : []));

/** The note that an element is the mark of. Marks in notes are text: notes can lead to each other in a circle. */
export const noteIn = (mark: Element): Note | undefined =>
	isNoteMark(mark)
		? noteOf(mark, (note) =>
				linesOf(contentsOf(note, () => undefined).flatMap((one) => ('runs' in one ? [one.runs] : [])))
			)
		: undefined;

/** The same with the tables and pictures that stand between. */
export function contentsOf(element: Element, readNote = noteIn): (TextParagraph | Element)[] {
	const paragraphs: (TextParagraph | Element)[] = [];
	let runs: { text: string; in: Element; note?: Note }[] = [];
	/** The item of a list that has begun, and has no text yet. */
	let item: Element | undefined;
	/** Pictures follow the line that they stand in. */
	let images: Element[] = [];
	let endsInSpace = true;
	const flush = () => {
		const last = runs.at(-1);
		if (last) last.text = last.text.replace(/ $/, '');
		const filled = runs.filter(({ text, note }) => text || note);
		if (filled.length) {
			paragraphs.push({ runs: filled, ...(item && { item }) });
			item = undefined;
		}
		paragraphs.push(...images);
		images = [];
		runs = [];
		endsInSpace = true;
	};
	const visit = (node: Element) => {
		for (const child of node.children)
			if (isText(child)) {
				let text = child.data.replace(/[ \t\n\r\f]+/g, ' ');
				if (endsInSpace) text = text.replace(/^ /, '');
				if (!text) continue;
				endsInSpace = text.endsWith(' ');
				const last = runs.at(-1);
				if (last?.in === node && !last.note) last.text += text;
				else runs.push({ text, in: node });
			} else if (isTag(child)) {
				if (child.name === 'br') {
					// A break ends a line, and two of them leave an empty one.
					if (runs.length === 0) paragraphs.push({ runs: [] });
					flush();
				} else if (child.name === 'table') {
					flush();
					paragraphs.push(child);
				} else if (child.name === 'img') images.push(child);
				else if (isSilent(child)) continue;
				else if (isBlock(child)) {
					flush();
					if (child.name === 'li') item = child;
					visit(child);
					flush();
					if (child.name === 'li') item = undefined;
				} else {
					const note = readNote(child);
					if (note) runs.push({ text: '', in: child, note });
					else visit(child);
				}
			}
	};
	visit(element);
	flush();
	const isEmpty = (one: TextParagraph | Element | undefined) => one !== undefined && 'runs' in one && !one.runs.length;
	while (isEmpty(paragraphs.at(-1))) paragraphs.pop();
	return paragraphs;
}

const linesOf = (paragraphs: readonly (readonly TextRun[])[]): string =>
	paragraphs.map((runs) => runs.map(({ text }) => text).join('')).join('\n');

export const textOf = (element: Element): string => linesOf(paragraphsOf(element));
