import { isBlock, isSilent, isTag, isText, type Element } from './dom.ts';

export interface TextRun {
	readonly text: string;
	/** The element that the text stands in directly. */
	readonly in: Element;
}

/** The text of an element as it is read: white space collapsed, one entry a line or block; tables inside are left out. */
export function paragraphsOf(element: Element): TextRun[][] {
	const paragraphs: TextRun[][] = [];
	let runs: { text: string; in: Element }[] = [];
	let endsInSpace = true;
	const flush = () => {
		const last = runs.at(-1);
		if (last) last.text = last.text.replace(/ $/, '');
		const filled = runs.filter(({ text }) => text);
		if (filled.length) paragraphs.push(filled);
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
				} else if (child.name === 'table') flush();
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
	while (paragraphs.at(-1)?.length === 0) paragraphs.pop();
	return paragraphs;
}

export const textOf = (element: Element): string =>
	paragraphsOf(element)
		.map((runs) => runs.map(({ text }) => text).join(''))
		.join('\n');
