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
export type CellContent =
	{ readonly runs: readonly RunView[] } | { readonly nested: number } | { readonly picture: CellPicture };

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

/** What stands in a document's body, in its order. */
export type Block =
	| { readonly kind: 'heading'; readonly level: number; readonly text: string }
	| { readonly kind: 'paragraph'; readonly text: string }
	| { readonly kind: 'table'; readonly index: number };

/** Content whose words have no emphasis of their own; what is raised or lowered stays so. */
export const withoutEmphasis = (content: readonly (readonly CellContent[])[]): CellContent[][] =>
	content.map((pieces) =>
		pieces.map((piece) =>
			!('runs' in piece)
				? piece
				: {
						runs: piece.runs.map(({ text, position, link }) => ({
							text,
							...(position && { position }),
							...(link && { link })
						}))
					}
		)
	);
