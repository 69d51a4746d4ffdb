import type { Hex } from '../colour.ts';

/** A stretch of text in a cell. What it has beyond its cell's look is emphasis inside the text: content, kept whatever the style. */
export interface RunView {
	readonly text: string;
	readonly weight?: number;
	readonly italic?: boolean;
	readonly underline?: 'none' | 'single' | 'double';
	readonly ink?: Hex;
	readonly position?: 'super' | 'sub';
}

/** One paragraph of a cell; a nested table's index stands for a table inside the cell. */
export type CellContent = { readonly runs: readonly RunView[] } | { readonly nested: number };

/** What stands in a document's body, in its order. */
export type Block =
	| { readonly kind: 'heading'; readonly level: number; readonly text: string }
	| { readonly kind: 'paragraph'; readonly text: string }
	| { readonly kind: 'table'; readonly index: number };

/** Content whose words have no emphasis of their own; what is raised or lowered stays so. */
export const withoutEmphasis = (content: readonly (readonly CellContent[])[]): CellContent[][] =>
	content.map((pieces) =>
		pieces.map((piece) =>
			'nested' in piece
				? piece
				: { runs: piece.runs.map(({ text, position }) => ({ text, ...(position && { position }) })) }
		)
	);
