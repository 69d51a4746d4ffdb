import { createGrid, type Grid, type Span } from '../../core/table/grid.ts';
import type { XmlNode } from '../package/xml.ts';
import { checkSize } from '../limits.ts';

export interface OdtRow {
	readonly node: XmlNode;
	readonly isHeader: boolean;
}

/** A table's grid (ODF 1.3 Part 3 §9), with the way back to its markup. Repeated rows and cells are several, with one node. */
export interface OdtGrid {
	readonly node: XmlNode;
	readonly grid: Grid;
	readonly rows: readonly OdtRow[];
	/** Element of each cell; undefined where a row is too short. */
	readonly cells: readonly (XmlNode | undefined)[];
	/** The style of each cell: its own, else the one that its row or column has for its cells (ODF 1.3 Part 3 §19.615). */
	readonly cellStyles: readonly (string | undefined)[];
	/** Style names of the columns. */
	readonly columns: readonly (string | undefined)[];
	/** Rows stand in groups, which are left as they are. */
	readonly isGrouped: boolean;
}

const SLOTS = 1 << 20;
const repeat = (node: XmlNode, name: string): number =>
	Math.max(1, Math.min(SLOTS, Number.parseInt(node.attribute(name) ?? '1', 10) || 1));
const CELLS: ReadonlySet<string> = new Set(['table:table-cell', 'table:covered-table-cell']);

function rowsOf(node: XmlNode, isHeader: boolean, out: OdtRow[]): boolean {
	let isGrouped = false;
	for (const child of node.children)
		if (child.name === 'table:table-row') out.push({ node: child, isHeader });
		else if (child.name === 'table:table-header-rows') isGrouped = rowsOf(child, true, out) || isGrouped;
		else if (child.name === 'table:table-rows') isGrouped = rowsOf(child, isHeader, out) || isGrouped;
		else if (child.name === 'table:table-row-group') {
			rowsOf(child, isHeader, out);
			isGrouped = true;
		}
	return isGrouped;
}

const DEFAULT_STYLE = 'table:default-cell-style-name';
interface Column {
	readonly style: string | undefined;
	readonly cells: string | undefined;
}
function columnsOf(node: XmlNode, out: Column[]): void {
	for (const child of node.children)
		if (child.name === 'table:table-column')
			for (let i = Math.min(repeat(child, 'table:number-columns-repeated'), 4_096); i > 0; i--)
				out.push({ style: child.attribute('table:style-name'), cells: child.attribute(DEFAULT_STYLE) });
		else if (/^table:table-(columns|header-columns|column-group)$/.test(child.name)) columnsOf(child, out);
}

interface Entry {
	readonly cell: XmlNode;
	readonly times: number;
	/** Read once, however often the cell is repeated. */
	readonly text: string;
}

const isEmpty = ({ cell, text }: Entry): boolean =>
	!cell.attribute('table:number-columns-spanned') && !cell.attribute('table:number-rows-spanned') && text === '';

export function readGrid(node: XmlNode, where: string, textOf: (cell: XmlNode) => string): OdtGrid {
	const sources: OdtRow[] = [];
	const isGrouped = rowsOf(node, false, sources);
	const lists = sources.map(({ node: row }) => {
		return row.children
			.filter(({ name }) => CELLS.has(name))
			.map((cell): Entry => ({ cell, times: repeat(cell, 'table:number-columns-repeated'), text: textOf(cell) }));
	});
	// Empty cells repeated to the end of a row are no columns where all rows end before.
	const extent = (entries: readonly Entry[]) => {
		const last = entries.findLastIndex((entry) => entry.times === 1 || !isEmpty(entry));
		return entries.slice(0, last + 1).reduce((sum, { times }) => sum + times, 0);
	};
	const whole = (entries: readonly Entry[]) => entries.reduce((sum, { times }) => sum + times, 0);
	const most = (size: (entries: readonly Entry[]) => number) =>
		lists.reduce((width, entries) => Math.max(width, size(entries)), 0);
	const width = most(extent) || most(whole);
	const rows: OdtRow[] = [];
	const texts: string[][] = [];
	const starts = new Map<number, XmlNode>();
	const spans: Span[] = [];
	const busy: number[] = [];
	sources.forEach((source, s) => {
		const times = repeat(source.node, 'table:number-rows-repeated');
		// Rows repeated to the end of a sheet hold nothing.
		if (times > 1 && s === sources.length - 1 && lists[s]!.every(isEmpty) && s > 0) return;
		checkSize(rows.length + times, Math.max(1, width), where);
		for (let i = 0; i < times; i++) {
			const r = rows.length;
			rows.push(source);
			const row: string[] = [];
			let c = 0;
			for (const { cell, times: cols, text } of lists[s]!)
				for (let k = 0; k < cols && c < width; k++, c++) {
					if ((busy[c] ?? 0) > r) continue;
					row[c] = text;
					starts.set(r * SLOTS + c, cell);
					let spanned = 1;
					const wanted = repeat(cell, 'table:number-columns-spanned');
					while (spanned < wanted && c + spanned < width && (busy[c + spanned] ?? 0) <= r) spanned++;
					const height = repeat(cell, 'table:number-rows-spanned');
					for (let x = c; x < c + spanned; x++) busy[x] = r + height;
					if (spanned > 1 || height > 1) spans.push({ r, c, rows: height, cols: spanned });
				}
			texts.push(row);
		}
	});
	const grid = createGrid(
		texts.map((row) => Array.from({ length: width }, (_, c) => row[c] ?? '')),
		spans.map((span) => ({ ...span, rows: Math.min(span.rows, rows.length - span.r) }))
	);
	const columns: Column[] = [];
	columnsOf(node, columns);
	const cells = grid.cells.map(({ r, c }) => starts.get(r * SLOTS + c));
	return {
		node,
		grid,
		rows,
		cells,
		cellStyles: grid.cells.map(
			({ r, c }, i) =>
				cells[i]?.attribute('table:style-name') ?? rows[r]?.node.attribute(DEFAULT_STYLE) ?? columns[c]?.cells
		),
		columns: columns.map(({ style }) => style),
		isGrouped
	};
}
