import type { Hex } from '../colour.ts';
import type { Emu } from '../units.ts';

/** A stretch of text in a cell. What it has beyond its cell's look is emphasis inside the text: content, kept whatever the style. */
export interface RunView {
	readonly text: string;
	readonly weight?: number;
	readonly italic?: boolean;
	readonly underline?: 'none' | 'single' | 'double';
	readonly ink?: Hex;
	readonly position?: 'super' | 'sub';
	/** Where it leads: an address. */
	readonly link?: string;
	/** Nothing but the mark of a note, which is no text of the paragraph. */
	readonly note?: Note;
}

/** A note at the foot of a page or at the end of a document; a paragraph a line. */
export interface Note {
	readonly kind: 'foot' | 'end';
	readonly text: string;
}

/** What stands before the items of a list, by CSS Lists 3 §3.1. */
export const LIST_MARKERS = ['disc', 'decimal', 'lower-alpha', 'upper-alpha', 'lower-roman', 'upper-roman'] as const;
export type ListMarker = (typeof LIST_MARKERS)[number];

/** A paragraph as an item of a list. */
export interface ListItem {
	/** How deep the list stands in others, from 0. */
	readonly level: number;
	readonly marker: ListMarker;
	/** Its number in its list; of no meaning where the marker is no number. */
	readonly number: number;
}

/** A paragraph: its text in stretches, and its place in a list. */
export interface Paragraph {
	readonly runs: readonly RunView[];
	readonly list?: ListItem;
}

/** A picture in a cell. */
export interface CellPicture {
	/** A `data:` address: PNG, JPEG or sanitised SVG. */
	readonly source: string;
	/** The same in pixels, where `source` is SVG, for formats that hold nothing else. */
	readonly pixels?: string;
	/** What it shows, for people who cannot see it. */
	readonly alternative: string;
	/** As large as it is by itself. */
	readonly width: Emu;
	readonly height: Emu;
	/** The picture takes the cell's width, or the row the picture's height. */
	readonly fits: 'cell' | 'row';
}

/** A picture as PNG or JPEG, for formats that hold nothing else. */
export const inPixels = ({ source, pixels }: CellPicture): string => pixels ?? source;

/** One paragraph of a cell; a nested table's index stands for a table inside the cell. */
export type CellContent = Paragraph | { readonly nested: number } | { readonly picture: CellPicture };

/** Runs of a paragraph, those that lead to one address together. */
export function linkedRuns(
	runs: readonly RunView[]
): { readonly link: string | undefined; readonly runs: readonly RunView[] }[] {
	const groups: { link: string | undefined; runs: RunView[] }[] = [];
	for (const run of runs) {
		const last = groups.at(-1);
		if (last && last.link === run.link) last.runs.push(run);
		else groups.push({ link: run.link, runs: [run] });
	}
	return groups;
}

/** What stands in a document's body, in its order; with runs where its text is more than plain. */
export type Block =
	| { readonly kind: 'heading'; readonly level: number; readonly text: string; readonly runs?: readonly RunView[] }
	| ({ readonly kind: 'paragraph'; readonly text: string; readonly isCaption?: true } & Partial<Paragraph>)
	| { readonly kind: 'picture'; readonly picture: CellPicture }
	| { readonly kind: 'table'; readonly index: number };

/** The text of a heading or paragraph in stretches. */
export const runsOf = (block: { readonly text: string; readonly runs?: readonly RunView[] }): readonly RunView[] =>
	block.runs ?? (block.text ? [{ text: block.text }] : []);

/** Content whose words have no emphasis of their own; what is raised or lowered stays so. */
export const withoutEmphasis = (content: readonly (readonly CellContent[])[]): CellContent[][] =>
	content.map((pieces) =>
		pieces.map((piece) =>
			!('runs' in piece)
				? piece
				: {
						...piece,
						runs: piece.runs.map(({ text, position, link, note }) => ({
							text,
							...(position && { position }),
							...(link && { link }),
							...(note && { note })
						}))
					}
		)
	);
