import type { Block, CellContent, Note, Paragraph, RunView } from '../../core/table/content.ts';
import { runsOf } from '../../core/table/content.ts';
import type { WholeDocument } from '../document.ts';
import { markerText } from '../lists.ts';

/** How far a list stands in, for each level. */
const INDENT = '\u00a0'.repeat(5);

/** A document as it is printed: the markers of its lists and the numbers of its notes are text, and the notes stand at its end. */
export interface Printed {
	readonly blocks: readonly Block[];
	readonly content: (cells: readonly (readonly CellContent[])[]) => readonly (readonly CellContent[])[];
}

export function printed(document: Pick<WholeDocument, 'blocks' | 'tables'>): Printed {
	const numbers = new Map<Note, number>();
	const count = ({ runs }: Partial<Paragraph>) =>
		runs?.forEach(({ note }) => note && !numbers.has(note) && numbers.set(note, numbers.size + 1));
	const visit = (index: number) => {
		for (const pieces of document.tables[index]!.content)
			for (const piece of pieces)
				if ('runs' in piece) count(piece);
				else if ('nested' in piece) visit(piece.nested);
	};
	for (const block of document.blocks)
		if (block.kind === 'table') visit(block.index);
		else if (block.kind !== 'picture') count(block);

	const shown = ({ runs, list }: Paragraph): readonly RunView[] => {
		const marked = runs.some(({ note }) => note)
			? runs.map((run) => (run.note ? { text: String(numbers.get(run.note)), position: 'super' as const } : run))
			: runs;
		return list ? [{ text: `${INDENT.repeat(list.level)}${markerText(list)} ` }, ...marked] : marked;
	};
	const notes = [...numbers].flatMap(([{ text }, number]) =>
		text.split('\n').map((line, i): Block => ({
			kind: 'paragraph',
			text: i === 0 ? `${number} ${line}` : line,
			...(i === 0 && { runs: [{ text: String(number), position: 'super' }, { text: ` ${line}` }] })
		}))
	);
	return {
		blocks: [
			...document.blocks.map((block): Block => {
				if (block.kind === 'table' || block.kind === 'picture' || !(block.runs || 'list' in block)) return block;
				const list = block.kind === 'paragraph' ? block.list : undefined;
				const runs = shown({ runs: runsOf(block), ...(list && { list }) });
				return { ...block, runs, text: runs.map(({ text }) => text).join('') };
			}),
			...notes
		],
		content: (cells) =>
			cells.map((pieces) =>
				pieces.some((piece) => 'runs' in piece && (piece.list || piece.runs.some(({ note }) => note)))
					? pieces.map((piece) => ('runs' in piece ? { runs: shown(piece) } : piece))
					: pieces
			)
	};
}
