import type { Block } from '../core/table/content.ts';
import type { OpenDocument } from './document.ts';

export interface Flow {
	readonly blocks: readonly Block[];
	/** The tables that the blocks hold, those inside cells included, in the order in which a made file has them. */
	readonly order: readonly number[];
}

/**
 * What a new file of a document holds: its headings, text and tables. Tables beside the body (headers, notes, text
 * boxes) follow it. With `only`, nothing but those tables and their captions.
 */
export function flowOf({ blocks, tables }: Pick<OpenDocument, 'blocks' | 'tables'>, only?: readonly number[]): Flow {
	const placed = new Set(blocks.flatMap((block) => (block.kind === 'table' ? [block.index] : [])));
	const kept: Block[] = only
		? only.flatMap((index): Block[] => {
				const caption = tables[index]?.place.caption;
				return [
					...(caption ? [{ kind: 'paragraph' as const, text: caption, isCaption: true as const }] : []),
					{ kind: 'table', index }
				];
			})
		: [
				...blocks,
				...tables.flatMap(({ index, place }): Block[] =>
					place.where !== 'nested' && !placed.has(index) ? [{ kind: 'table', index }] : []
				)
			];
	const order: number[] = [];
	const visit = (index: number) => {
		order.push(index);
		for (const pieces of tables[index]?.content ?? [])
			for (const piece of pieces) if ('nested' in piece) visit(piece.nested);
	};
	for (const block of kept) if (block.kind === 'table') visit(block.index);
	return { blocks: kept, order };
}

/** How many cells these tables of a document have. */
export const cellsIn = ({ tables }: Pick<OpenDocument, 'tables'>, order: readonly number[]): number =>
	order.reduce((sum, index) => sum + (tables[index]?.table.cells.length ?? 0), 0);
