import { isBlock, isSilent, isTag, isText, type Element } from './dom.ts';

export interface TextRun {
	readonly text: string;
	/** The element that the text stands in directly. */
	readonly in: Element;
}

/** The text of an element as it is read: white space collapsed, one entry a line or block; tables inside are left out. */
export const paragraphsOf = (element: Element): TextRun[][] =>
	contentsOf(element).filter((one): one is TextRun[] => Array.isArray(one));

/** The same with the tables and pictures that stand between. */
export function contentsOf(element: Element): (TextRun[] | Element)[] {
	const paragraphs: (TextRun[] | Element)[] = [];
	let runs: { text: string; in: Element }[] = [];
	/** Pictures follow the line that they stand in. */
	let images: Element[] = [];
	let endsInSpace = true;
	const flush = () => {
		const last = runs.at(-1);
		if (last) last.text = last.text.replace(/ $/, '');
		const filled = runs.filter(({ text }) => text);
		if (filled.length) paragraphs.push(filled);
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
				if (last?.in === node) last.text += text;
				else runs.push({ text, in: node });
			} else if (isTag(child)) {
				if (child.name === 'br') {
					// A break ends a line, and two of them leave an empty one.
					if (runs.length === 0) paragraphs.push([]);
					flush();
				} else if (child.name === 'table') {
					flush();
					paragraphs.push(child);
				} else if (child.name === 'img') images.push(child);
				else if (isSilent(child)) continue;
				else if (isBlock(child)) {
					flush();
					visit(child);
					flush();
				} else visit(child);
			}
	};
	visit(element);
	flush();
	for (let last = paragraphs.at(-1); Array.isArray(last) && !last.length; last = paragraphs.at(-1)) paragraphs.pop();
	return paragraphs;
}

export const textOf = (element: Element): string =>
	paragraphsOf(element)
		.map((runs) => runs.map(({ text }) => text).join(''))
		.join('\n');
