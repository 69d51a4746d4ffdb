import { InputError } from '../../core/errors.ts';
import { createGrid, type Grid, type Span } from '../../core/table/grid.ts';
import { fromTwips, type Emu } from '../../core/units.ts';
import type { XmlNode } from '../package/xml.ts';
import { readOnOff } from './properties/text.ts';

/** One w:tc with the slots it covers in its own row. */
export interface SourceCell {
	readonly node: XmlNode;
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
const MAX_SLOTS = 4_000_000;
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
export function wrapped(node: XmlNode, name: string, found: XmlNode[] = []): XmlNode[] {
	for (const child of node.children)
		if (child.name === name) found.push(child);
		else if (WRAPPERS.has(child.name)) wrapped(child, name, found);
	return found;
}

/** Cells or rows in content controls that are locked against editing of what they hold. */
function lockedIn(node: XmlNode, name: 'w:tr' | 'w:tc'): ReadonlySet<XmlNode> {
	const controls = node.children.filter(
		(child) => child.name === 'w:sdt' && LOCKED.has(child.at('w:sdtPr', 'w:lock')?.attribute('w:val') ?? '')
	);
	return new Set(controls.flatMap((control) => wrapped(control, name)));
}
const LOCKED: ReadonlySet<string> = new Set(['contentLocked', 'sdtContentLocked']);

/** A cell's paragraphs, without those of tables inside it. */
export const paragraphsOf = (cell: XmlNode): XmlNode[] => wrapped(cell, 'w:p');

/** A paragraph's runs, also those in links and fields. */
export const runsOf = (paragraph: XmlNode): XmlNode[] => wrapped(paragraph, 'w:r');

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

export const paragraphText = (paragraph: XmlNode): string => runsOf(paragraph).map(runText).join('');

const count = (node: XmlNode | undefined): number =>
	Math.min(MAX_SPAN, Math.max(0, Number(node?.attribute('w:val')) || 0));

/** Reads the grid of a w:tbl (§17.4): spans, vertical merges, slots left out before and after. */
export function readGrid(tbl: XmlNode, part: string): SourceGrid {
	const rows: SourceRow[] = [];
	let columns = 0;
	const lockedRows = lockedIn(tbl, 'w:tr');
	for (const tr of wrapped(tbl, 'w:tr')) {
		const lockedCells = lockedIn(tr, 'w:tc');
		const trPr = tr.child('w:trPr');
		let c = count(trPr?.child('w:gridBefore'));
		const cells: SourceCell[] = [];
		for (const tc of wrapped(tr, 'w:tc')) {
			const tcPr = tc.child('w:tcPr');
			const cols = Math.max(1, count(tcPr?.child('w:gridSpan')));
			const vMerge = tcPr?.child('w:vMerge');
			cells.push({
				node: tc,
				r: rows.length,
				c,
				cols,
				continues: !!vMerge && vMerge.attribute('w:val') !== 'restart',
				isLocked: lockedCells.has(tc) || lockedRows.has(tr)
			});
			c += cols;
		}
		columns = Math.max(columns, c + count(trPr?.child('w:gridAfter')));
		rows.push({ node: tr, cells, header: readOnOff(trPr?.child('w:tblHeader')) ?? false });
		if (rows.length * columns > MAX_SLOTS)
			throw new InputError(
				'too-large',
				`A table in “${part}” has over ${MAX_SLOTS.toLocaleString('en')} slots, more than a document can mean.`,
				part
			);
	}
	const texts: (string | null)[][] = rows.map(() => Array<string | null>(columns).fill(''));
	const groups = new Map<string, SourceCell[]>();
	let above = new Map<string, SourceCell[]>();
	for (const { cells } of rows) {
		const here = new Map<string, SourceCell[]>();
		for (const cell of cells) {
			const key = `${cell.c} ${cell.cols}`;
			const upper = cell.continues ? above.get(key) : undefined;
			if (upper) {
				upper.push(cell);
				here.set(key, upper);
			} else {
				const own = [cell];
				groups.set(`${cell.r} ${cell.c}`, own);
				here.set(key, own);
				texts[cell.r]![cell.c] = paragraphsOf(cell.node).map(paragraphText).join('\n');
			}
		}
		above = here;
	}
	const spans: Span[] = [...groups.values()]
		.map((cells) => ({ r: cells[0]!.r, c: cells[0]!.c, rows: cells.length, cols: cells[0]!.cols }))
		.filter(({ rows: high, cols }) => high > 1 || cols > 1);
	const grid = createGrid(texts, spans);
	const stated = [...(tbl.child('w:tblGrid')?.children ?? [])].map((column) =>
		fromTwips(Number(column.attribute('w:w')) || 0)
	);
	return {
		node: tbl,
		rows,
		grid,
		widths: Array.from({ length: columns }, (_, c) => stated[c] ?? (0 as Emu)),
		sources: grid.cells.map(({ r, c }) => groups.get(`${r} ${c}`) ?? [])
	};
}
