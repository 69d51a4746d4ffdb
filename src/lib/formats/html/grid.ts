import { createGrid, type Grid, type Span } from '../../core/table/grid.ts';
import { checkSize } from '../limits.ts';
import { childElements, type Element } from './dom.ts';

export interface HtmlRow {
	readonly node: Element;
	/** The `thead`, `tbody` or `tfoot` that it stands in. */
	readonly section: Element | undefined;
}

/** A table's grid as HTML forms it (HTML Standard §4.9.12), with the way back to its elements. */
export interface HtmlGrid {
	readonly node: Element;
	readonly grid: Grid;
	readonly rows: readonly HtmlRow[];
	/** Element of each cell; undefined where a row is too short and the grid has an empty cell of its own. */
	readonly cells: readonly (Element | undefined)[];
}

/** The `colgroup` and `col` of each column that has any (HTML Standard §4.9.3, §4.9.4). */
export function columnElements({ node, grid }: HtmlGrid): Element[][] {
	const columns: Element[][] = [];
	const take = (elements: Element[], span: string | undefined) => {
		for (let i = Math.min(Number(span) || 1, grid.columns); i > 0 && columns.length < grid.columns; i--)
			columns.push(elements);
	};
	for (const child of childElements(node, 'col', 'colgroup')) {
		const inside = child.name === 'colgroup' ? childElements(child, 'col') : [];
		if (inside.length) for (const col of inside) take([child, col], col.attribs.span);
		else take([child], child.attribs.span);
	}
	return columns;
}

const MAX_COLSPAN = 1000;
const MAX_ROWSPAN = 65_534;
const spanOf = (text: string | undefined, most: number, zero: number): number => {
	const number = Number.parseInt(text ?? '1', 10);
	return number === 0 ? zero : Number.isFinite(number) && number > 0 ? Math.min(number, most) : 1;
};

/** Rows in the order in which they are shown: heads first, feet last. */
function rowsOf(table: Element): HtmlRow[] {
	const [head, body, foot]: HtmlRow[][] = [[], [], []];
	for (const child of childElements(table)) {
		if (child.name === 'tr') body!.push({ node: child, section: undefined });
		const list =
			child.name === 'thead' ? head : child.name === 'tbody' ? body : child.name === 'tfoot' ? foot : undefined;
		for (const row of list ? childElements(child, 'tr') : []) list!.push({ node: row, section: child });
	}
	return [...head!, ...body!, ...foot!];
}

/** For each row, the row (exclusive) at which its section ends. */
function sectionEnds(rows: readonly HtmlRow[]): readonly number[] {
	const ends: number[] = [];
	for (let r = rows.length - 1; r >= 0; r--)
		ends[r] = rows[r + 1]?.section === rows[r]!.section && r + 1 < rows.length ? ends[r + 1]! : r + 1;
	return ends;
}

export function readGrid(node: Element, where: string, textOf: (cell: Element) => string): HtmlGrid {
	const rows = rowsOf(node);
	const starts = new Map<number, Element>();
	const spans: Span[] = [];
	const texts: string[][] = rows.map(() => []);
	/** Until which row (exclusive) each column is covered from above. */
	const busy: number[] = [];
	let columns = 0;
	checkSize(rows.length, columns, where);
	const ends = sectionEnds(rows);
	rows.forEach(({ node: row }, r) => {
		const end = ends[r]!;
		let c = 0;
		for (const cell of childElements(row, 'td', 'th')) {
			while ((busy[c] ?? 0) > r) c++;
			const wanted = spanOf(cell.attribs.colspan, MAX_COLSPAN, 1);
			let cols = 1;
			while (cols < wanted && (busy[c + cols] ?? 0) <= r) cols++;
			const height = Math.min(spanOf(cell.attribs.rowspan, MAX_ROWSPAN, end - r), end - r);
			columns = Math.max(columns, c + cols);
			checkSize(rows.length, columns, where);
			for (let x = c; x < c + cols; x++) busy[x] = r + height;
			texts[r]![c] = textOf(cell);
			starts.set(r * MAX_ROWSPAN + c, cell);
			if (cols > 1 || height > 1) spans.push({ r, c, rows: height, cols });
			c += cols;
		}
	});
	const grid = createGrid(
		texts.map((row) => Array.from({ length: columns }, (_, c) => row[c] ?? '')),
		spans
	);
	return { node, grid, rows, cells: grid.cells.map(({ r, c }) => starts.get(r * MAX_ROWSPAN + c)) };
}
