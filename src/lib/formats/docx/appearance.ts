import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { Hex } from '../../core/colour.ts';
import type { XmlNode } from '../package/xml.ts';
import type { Emu } from '../../core/units.ts';
import {
	getOrMake,
	readTableProperties,
	resolverOf,
	type CellGround,
	type LookResolver,
	type ParagraphContext,
	type PropertyReader,
	type SideLines
} from './looks.ts';
import { shownBorder } from './properties/borders.ts';
import { gapBetween, type ParagraphLayer } from './properties/paragraph.ts';
import { shownFill } from './properties/shading.ts';
import type { TextLayer } from './properties/text.ts';
import type { StyleSheet } from './styles.ts';
import { paragraphsOf, runsOf, runText, type SourceCell, type SourceGrid } from './tables.ts';
import { directOnly, emphasisOf, evenText, readCellText, type CellText } from './cell-text.ts';

interface TextLayers {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
}

/** The layers that most of a cell's text shows, emphasis inside the text aside; its paragraph mark's where there is no text. */
function prevailing(resolver: LookResolver, reader: PropertyReader, ground: CellGround, cell: XmlNode): TextLayers {
	const even = evenText(cell, reader);
	if (!even) return prevailingOf(resolver, reader.sheet, ground, readCellText(cell, reader));
	const { paragraph = NO_PARAGRAPH, run = paragraph.mark } = even;
	return { text: resolver.text(ground, run), paragraph: resolver.paragraph(ground, paragraph) };
}

/** What shows behind all of a cell's words, where it is something else than the cell's own fill. */
export function behindText(
	resolver: LookResolver,
	reader: PropertyReader,
	ground: CellGround,
	cell: XmlNode
): Hex | undefined {
	const seen = new Set<Hex | undefined>();
	for (const node of paragraphsOf(cell)) {
		const paragraph = reader.paragraph(node.child('w:pPr'));
		const below = resolver.paragraph(ground, paragraph).behind;
		for (const run of runsOf(node)) {
			if (!runText(run).trim()) continue;
			const { behind } = resolver.text(ground, reader.run(run.child('w:rPr'), paragraph.styleId));
			const shown = shownFill(behind, below, undefined);
			seen.add(shown === 'none' ? undefined : shown);
		}
	}
	return seen.size === 1 ? [...seen][0] : undefined;
}

/** The same for a cell in which some words stand out. */
function prevailingOf(resolver: LookResolver, sheet: StyleSheet, ground: CellGround, text: CellText): TextLayers {
	const emphasis = emphasisOf(text, { shown: (context) => resolver.text(ground, context) });
	const runs = text.flatMap(({ context: paragraph, runs }) =>
		runs
			.filter((run) => run.text.trim())
			.map(({ context, text }) => ({ paragraph, context, length: text.trim().length, kept: emphasis(context) }))
	);
	// Words that stand out say little of the rest, if there is a rest.
	const rest = runs.filter(({ kept }) => kept.size === 0);
	const share = new Map<TextLayer, number>();
	for (const { context, length, kept } of rest.length ? rest : runs) {
		const layer = {
			...resolver.effectiveText(ground, { ...context, direct: directOnly(context.direct, kept, false) })
		};
		for (const field of kept) {
			const other = runs.find((run) => !run.kept.has(field));
			if (other) Object.assign(layer, { [field]: resolver.text(ground, other.context)[field] });
		}
		const shown = sheet.interned(layer);
		share.set(shown, (share.get(shown) ?? 0) + length);
	}
	const [[most]] = [...share].sort((a, b) => b[1] - a[1]) as [[TextLayer, number]];
	return { text: most, paragraph: resolver.paragraph(ground, runs[0]!.paragraph) };
}

/** Of a cell without paragraphs. */
const NO_PARAGRAPH: ParagraphContext = {
	markup: '',
	styleId: undefined,
	direct: {},
	mark: { markup: '', direct: {}, isSymbol: false, characterStyle: undefined, paragraphStyle: undefined }
};

const gapped = new WeakMap<Look, Map<Emu, Look>>();
/** A look with the space between paragraphs; the same object for the same two. */
function withGap(look: Look, paragraphGap: Emu): Look {
	let byGap = gapped.get(look);
	if (!byGap) gapped.set(look, (byGap = new Map()));
	return getOrMake(byGap, paragraphGap, () => ({ ...look, paragraphGap }));
}

/** Tells how a cell of the table looks in its file, by its index in the grid. */
export function cellLooks({ node, grid, sources }: SourceGrid, reader: PropertyReader): (cell: number) => Look {
	const { sheet } = reader;
	const resolver = resolverOf(sheet, readTableProperties(node, sheet));
	return (cell) => {
		const first = sources[cell]![0];
		if (!first) return NO_LOOK;
		const ground = resolver.ground(first, grid.rows, grid.columns);
		const { text, paragraph } = prevailing(resolver, reader, ground, first.node);
		const isMarked = text.behind !== undefined || paragraph.behind !== undefined;
		const isFilled = isMarked && behindText(resolver, reader, ground, first.node) !== undefined;
		const unmarked = <T extends TextLayer | ParagraphLayer>({ behind: _behind, ...layer }: T) => sheet.interned(layer);
		const look = resolver.look(
			ground,
			reader.cell(first.node.child('w:tcPr')),
			isMarked && !isFilled ? unmarked(text) : text,
			isMarked && !isFilled ? unmarked(paragraph) : paragraph
		);
		const paragraphs = paragraphsOf(first.node);
		if (paragraphs.length < 2) return look;
		const [one, next] = paragraphs.map((node) => resolver.paragraph(ground, reader.paragraph(node.child('w:pPr'))));
		return withGap(look, gapBetween(one!, next!));
	};
}

/** How the table looks in its file: every cell's look, every edge as the standard's conflict rule shows it. */
export function fileAppearance(source: SourceGrid, reader: PropertyReader): Appearance {
	const { grid, rows } = source;
	const { sheet } = reader;
	const resolver = resolverOf(sheet, readTableProperties(source.node, sheet));
	const looks = new Interned<Look>();
	const lookOf = cellLooks(source, reader);
	const cellLook = new Int32Array(grid.cells.length);
	for (let cell = 0; cell < cellLook.length; cell++) {
		const look = lookOf(cell);
		cellLook[cell] = looks.add(look, look);
	}
	const sidesOf = (cell: SourceCell): SideLines =>
		resolver.sides(resolver.ground(cell, grid.rows, grid.columns), reader.cell(cell.node.child('w:tcPr')));
	return {
		cellLook,
		looks: looks.items,
		...edgesFrom(
			source,
			rows.map(({ cells }) => cells.map(sidesOf))
		)
	};
}

const NO_LOOK: Look = {};

/** The edges that show where each w:tc claims these sides; conflicts by §17.4.66. `sides` has one entry per w:tc of each row. */
function edgesFrom(
	source: SourceGrid,
	sides: readonly (readonly SideLines[])[]
): Pick<Appearance, 'across' | 'down' | 'lines'> {
	const { grid, rows } = source;
	const { columns } = grid;
	const lines = new Interned<Line | null>();
	const numberOf = (line: Line | null) => lines.add(line, line);
	numberOf(null);
	const claims: (SideLines | undefined)[] = Array<SideLines | undefined>(grid.rows * columns).fill(undefined);
	const owner = new Int32Array(grid.rows * columns).fill(-1);
	let count = 0;
	rows.forEach(({ cells }, r) =>
		cells.forEach(({ c, cols }, i) => {
			for (let x = c; x < c + cols; x++) {
				claims[r * columns + x] = sides[r]![i];
				owner[r * columns + x] = count;
			}
			count++;
		})
	);
	const across = new Int32Array((grid.rows + 1) * columns);
	for (let r = 0; r <= grid.rows; r++)
		for (let c = 0; c < columns; c++) {
			const place = r * columns + c;
			const inside = r > 0 && r < grid.rows && grid.slots[place] === grid.slots[place - columns];
			const above = r > 0 ? claims[place - columns]?.bottom : undefined;
			const below = r < grid.rows ? claims[place]?.top : undefined;
			across[place] = inside ? -1 : numberOf(shownBorder(above, below));
		}
	const down = new Int32Array(grid.rows * (columns + 1));
	for (let r = 0; r < grid.rows; r++)
		for (let c = 0; c <= columns; c++) {
			const slot = r * columns + c;
			const inside =
				c > 0 &&
				c < columns &&
				(grid.slots[slot] === grid.slots[slot - 1] || (owner[slot] !== -1 && owner[slot] === owner[slot - 1]));
			const before = c > 0 ? claims[slot - 1]?.end : undefined;
			const after = c < columns ? claims[slot]?.start : undefined;
			down[r * (columns + 1) + c] = inside ? -1 : numberOf(shownBorder(before, after));
		}
	return { across, down, lines: lines.items };
}
