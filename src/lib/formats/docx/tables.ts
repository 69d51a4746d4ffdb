import { checkSize } from '../limits.ts';
import { createGrid, type Grid, type Span } from '../../core/table/grid.ts';
import { fromTwips, type Emu } from '../../core/units.ts';
import type { XmlNode } from '../package/xml.ts';
import { readOnOff } from './properties/text.ts';

/** One w:tc with the slots it covers in its own row. */
export interface SourceCell {
	readonly node: XmlNode;
	/** Among the w:tc's of its table, in document order. */
	readonly number: number;
	readonly r: number;
	readonly c: number;
	readonly cols: number;
	/** Goes on with the cell above (w:vMerge without restart). */
	readonly continues: boolean;
	/** Stands in a content control that keeps its content from being edited (w:lock, §17.5.2.23). */
	readonly isLocked: boolean;
}

export interface SourceRow {
	readonly node: XmlNode;
	readonly cells: readonly SourceCell[];
	readonly header: boolean;
}

/** A w:tbl as a grid, with the way back to its markup. */
export interface SourceGrid {
	readonly node: XmlNode;
	readonly rows: readonly SourceRow[];
	readonly grid: Grid;
	readonly widths: readonly Emu[];
	/** The w:tc's of each cell of the grid, top down; none for slots that the file leaves out. */
	readonly sources: readonly (readonly SourceCell[])[];
}

const MAX_SPAN = 1_000;
const WRAPPERS = new Set([
	'w:sdt',
	'w:sdtContent',
	'w:customXml',
	'w:smartTag',
	'w:ins',
	'w:moveTo',
	'w:hyperlink',
	'w:fldSimple',
	'w:dir',
	'w:bdo'
]);

/** Children with this name, also inside content controls and other wrappers that stand between. */
export function wrapped(node: XmlNode, name: string): readonly XmlNode[] {
	const { children } = node;
	let count = 0;
	for (const child of children)
		if (child.name === name) count++;
		else if (WRAPPERS.has(child.name)) return intoWrappers(node, name, []);
	// Called for every cell: nothing is made that is not needed.
	if (count === children.length) return children;
	if (count === children.length - 1 && children[0]!.name !== name) return children.slice(1);
	return children.filter((child) => child.name === name);
}

function intoWrappers(node: XmlNode, name: string, found: XmlNode[]): XmlNode[] {
	for (const child of node.children)
		if (child.name === name) found.push(child);
		else if (WRAPPERS.has(child.name)) intoWrappers(child, name, found);
	return found;
}

/** Cells or rows in content controls that are locked against editing of what they hold. */
function lockedIn(node: XmlNode, name: 'w:tr' | 'w:tc'): ReadonlySet<XmlNode> {
	const locked: XmlNode[] = [];
	for (const child of node.children)
		if (child.name === 'w:sdt' && LOCKED.has(child.at('w:sdtPr', 'w:lock')?.attribute('w:val') ?? ''))
			intoWrappers(child, name, locked);
	return locked.length ? new Set(locked) : NONE;
}
const NONE: ReadonlySet<XmlNode> = new Set();
const LOCKED: ReadonlySet<string> = new Set(['contentLocked', 'sdtContentLocked']);

/** A cell's paragraphs, without those of tables inside it. */
export const paragraphsOf = (cell: XmlNode): readonly XmlNode[] => wrapped(cell, 'w:p');

/** A paragraph's runs, also those in links and fields. */
export const runsOf = (paragraph: XmlNode): readonly XmlNode[] => wrapped(paragraph, 'w:r');

/** The text that a run shows. */
export function runText(run: XmlNode): string {
	let text = '';
	for (const node of run.children)
		if (node.name === 'w:t') text += node.text;
		else if (node.name === 'w:tab') text += '\t';
		else if (node.name === 'w:br' || node.name === 'w:cr') text += '\n';
		else if (node.name === 'w:noBreakHyphen') text += '\u2011';
	return text;
}

/** The text of a paragraph's runs, also of those in links and fields, after `before`. */
export function paragraphText(paragraph: XmlNode, before = ''): string {
	let text = before;
	for (const child of paragraph.children)
		if (child.name === 'w:r') text += runText(child);
		else if (WRAPPERS.has(child.name)) text = paragraphText(child, text);
	return text;
}

const cellText = (cell: XmlNode): string => {
	const paragraphs = paragraphsOf(cell);
	return paragraphs.length === 1
		? paragraphText(paragraphs[0]!)
		: paragraphs.map((paragraph) => paragraphText(paragraph)).join('\n');
};

const count = (node: XmlNode | undefined): number =>
	Math.min(MAX_SPAN, Math.max(0, Number(node?.attribute('w:val')) || 0));

/** Reads the grid of a w:tbl (§17.4): spans, vertical merges, slots left out before and after. */
export function readGrid(tbl: XmlNode, part: string): SourceGrid {
	const rows: SourceRow[] = [];
	let columns = 0;
	let number = 0;
	const lockedRows = lockedIn(tbl, 'w:tr');
	for (const tr of wrapped(tbl, 'w:tr')) {
		const lockedCells = lockedIn(tr, 'w:tc');
		const isLocked = lockedRows.has(tr);
		const trPr = tr.child('w:trPr');
		let c = count(trPr?.child('w:gridBefore'));
		const cells: SourceCell[] = [];
		for (const tc of wrapped(tr, 'w:tc')) {
			const tcPr = tc.child('w:tcPr');
			const cols = Math.max(1, count(tcPr?.child('w:gridSpan')));
			const vMerge = tcPr?.child('w:vMerge');
			cells.push({
				node: tc,
				number: number++,
				r: rows.length,
				c,
				cols,
				continues: !!vMerge && vMerge.attribute('w:val') !== 'restart',
				isLocked: isLocked || lockedCells.has(tc)
			});
			c += cols;
		}
		columns = Math.max(columns, c + count(trPr?.child('w:gridAfter')));
		rows.push({ node: tr, cells, header: readOnOff(trPr?.child('w:tblHeader')) ?? false });
		checkSize(rows.length, columns, part);
	}
	const texts: (string | null)[][] = rows.map(() => Array<string | null>(columns).fill(''));
	/** The w:tc's of the cell whose first slot this is, top down. */
	const startingAt = Array<SourceCell[] | undefined>(rows.length * columns).fill(undefined);
	const spans: Span[] = [];
	let above: (SourceCell[] | undefined)[] = [];
	for (const { cells } of rows) {
		const here: (SourceCell[] | undefined)[] = [];
		for (const cell of cells) {
			const upper = cell.continues ? above[cell.c] : undefined;
			if (upper && upper[0]!.cols === cell.cols) {
				upper.push(cell);
				here[cell.c] = upper;
			} else {
				here[cell.c] = startingAt[cell.r * columns + cell.c] = [cell];
				texts[cell.r]![cell.c] = cellText(cell.node);
			}
		}
		above = here;
	}
	for (const cells of startingAt) {
		if (!cells) continue;
		const { r, c, cols } = cells[0]!;
		if (cells.length > 1 || cols > 1) spans.push({ r, c, rows: cells.length, cols });
	}
	const grid = createGrid(texts, spans);
	const stated = [...(tbl.child('w:tblGrid')?.children ?? [])].map((column) =>
		fromTwips(Number(column.attribute('w:w')) || 0)
	);
	return {
		node: tbl,
		rows,
		grid,
		widths: Array.from({ length: columns }, (_, c) => stated[c] ?? (0 as Emu)),
		sources: grid.cells.map(({ r, c }) => startingAt[r * columns + c] ?? [])
	};
}
