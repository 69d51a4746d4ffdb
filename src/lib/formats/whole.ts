import type { Block, CellPicture, ListItem, RunView } from '../core/table/content.ts';
import type { DocumentTable } from './document.ts';
import type { RowFacts } from './held.ts';
import { withContent } from './found.ts';

/** A paragraph of a document's body with all that a new file can hold of it. */
export interface WholeParagraph {
	readonly runs: readonly RunView[];
	readonly list?: ListItem | undefined;
	readonly isCaption?: boolean;
	readonly pictures: readonly CellPicture[];
}

/** Puts one more at a key. */
export function addTo<K, V>(lists: Map<K, V[]>, key: K, one: V): void {
	const list = lists.get(key);
	if (list) list.push(one);
	else lists.set(key, [one]);
}

/** Whether a run says something beyond its text. */
export const isMore = (run: RunView): boolean => Object.keys(run).length > 1;

/** A paragraph's runs, beginning and ending where its words do. */
export function trimmed(runs: readonly RunView[]): RunView[] {
	const says = ({ text, note }: RunView) => note !== undefined || text.trim() !== '';
	const first = runs.findIndex(says);
	const last = runs.findLastIndex(says);
	return runs.slice(first, last + 1).map((run, i, { length }) => {
		const text = i === 0 ? run.text.trimStart() : run.text;
		return { ...run, text: i === length - 1 ? text.trimEnd() : text };
	});
}

/**
 * The blocks of a document with all that a new file can hold of them. `paragraphs` are those of its headings and
 * paragraphs, by the index of their block; `wordless` those without text that stand before a block.
 */
export function wholeBlocks<N>(
	blocks: readonly Block[],
	paragraphs: ReadonlyMap<number, N>,
	wordless: ReadonlyMap<number, readonly N[]>,
	see: (paragraph: N) => WholeParagraph
): Block[] {
	const pictures = (all: WholeParagraph['pictures']): Block[] => all.map((picture) => ({ kind: 'picture', picture }));
	const before = (i: number) => (wordless.get(i) ?? []).flatMap((one) => pictures(see(one).pictures));
	const whole = blocks.flatMap((block, i): Block[] => {
		const paragraph = paragraphs.get(i);
		if (paragraph === undefined || (block.kind !== 'heading' && block.kind !== 'paragraph'))
			return [...before(i), block];
		const seen = see(paragraph);
		const runs = trimmed(seen.runs);
		const said = { ...block, ...(runs.some(isMore) && { runs }) };
		const own: Block =
			said.kind === 'heading'
				? said
				: { ...said, ...(seen.list && { list: seen.list }), ...(seen.isCaption && { isCaption: true }) };
		return [...before(i), own, ...pictures(seen.pictures)];
	});
	return [...whole, ...before(blocks.length)];
}

/** A table with all that a new file can hold of its cells and rows. */
export const wholeTable = (
	entry: DocumentTable,
	content: () => DocumentTable['content'],
	rowFacts: readonly RowFacts[]
): DocumentTable =>
	Object.defineProperty(withContent(entry, content), 'rowFacts', { value: rowFacts, enumerable: true });

/** How many rows at the head of a table stand again on each page; none where a cell reaches from them into the others. */
export function headRows({ table, rowFacts = [] }: Pick<DocumentTable, 'table' | 'rowFacts'>): number {
	const heads = Math.max(
		0,
		rowFacts.findIndex(({ isHeader }) => !isHeader)
	);
	return table.cells.some(({ r, rows }) => r < heads && r + rows > heads) ? 0 : heads;
}

/** The language of a document as BCP 47 writes it; undefined where it says none. */
export const languageTag = (said: string | undefined): string | undefined => {
	const tag = said?.trim().replace(/_/g, '-');
	if (!tag || /^(und|zxx|none)$/i.test(tag)) return undefined;
	try {
		return new Intl.Locale(tag).toString();
	} catch {
		return undefined;
	}
};
