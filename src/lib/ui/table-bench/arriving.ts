import { InputError } from '$lib/core/errors.ts';
import { plural } from '$lib/core/words.ts';
import type { CellContent, RunView } from '$lib/core/table/content.ts';
import type { Clip } from '$lib/core/work/cells.ts';
import { MOST_CELLS, MOST_COLUMNS, textOfContent, tidy, type WorkCell } from '$lib/core/work/table.ts';

/** A table on its way in, and what of it stays behind. */
export interface Arriving {
	/** Its caption, or its first words. */
	readonly title: string;
	readonly clip: Clip;
	/** The same without joined cells. */
	readonly plain: Clip;
	/** Joined cells reach over each other: they are cut where the other begins. */
	readonly collides: boolean;
	/** In words: “2 pictures”. */
	readonly left: readonly string[];
}

const BLOCKS = new Set(['P', 'DIV', 'LI', 'H1', 'H2', 'H3', 'H4', 'H5', 'H6', 'BLOCKQUOTE', 'PRE', 'UL', 'OL']);
const SILENT = new Set(['SCRIPT', 'STYLE', 'TEMPLATE', 'TITLE', 'TABLE', 'NOSCRIPT']);
/** Elements inside each other are followed so deep. */
const DEPTH = 100;

/** The words of an element as paragraphs, with the emphasis that elements give them. Nothing of it is run or loaded. */
function contentOfElement(cell: Element): CellContent[] {
	const paragraphs: RunView[][] = [[]];
	const next = () => {
		if (paragraphs.at(-1)!.length) paragraphs.push([]);
	};
	const walk = (node: Node, emphasis: Omit<RunView, 'text'>, depth: number) => {
		for (const child of node.childNodes) {
			if (child.nodeType === 3) {
				const text = child.textContent!.replace(/[ \t\n\r\f]+/g, ' ');
				const runs = paragraphs.at(-1)!;
				const clean = runs.length ? text : text.replace(/^ /, '');
				if (clean) runs.push({ text: clean, ...emphasis });
			} else if (child.nodeType === 1) {
				const element = child as HTMLElement;
				const name = element.tagName.toUpperCase();
				if (SILENT.has(name) || depth > DEPTH) continue;
				if (name === 'BR') {
					paragraphs.push([]);
					continue;
				}
				const isBlock = BLOCKS.has(name);
				if (isBlock) next();
				const own = { ...emphasis };
				const style = element.style;
				if (name === 'B' || name === 'STRONG' || Number(style?.fontWeight) >= 600 || style?.fontWeight === 'bold')
					own.weight = 700;
				if (name === 'I' || name === 'EM' || style?.fontStyle === 'italic') own.italic = true;
				if (name === 'U') own.underline = 'single';
				if (name === 'SUP') own.position = 'super';
				if (name === 'SUB') own.position = 'sub';
				walk(element, own, depth + 1);
				if (isBlock) next();
			}
		}
	};
	walk(cell, {}, 0);
	const trimmed = paragraphs.map((runs) =>
		runs
			.map((run, i) => (i === runs.length - 1 ? { ...run, text: run.text.replace(/ $/, '') } : run))
			.filter(({ text }) => text)
	);
	while (trimmed.length > 1 && !trimmed.at(-1)!.length) trimmed.pop();
	return trimmed.map((runs) => ({ runs }));
}

/** Cells that each hold something, joined as the table says; whether two reached over each other. */
function clipOfTable(table: HTMLTableElement): { clip: Clip; collides: boolean } {
	const rows = [...table.rows];
	const cells: (WorkCell | null | undefined)[][] = rows.map(() => []);
	let collides = false;
	rows.forEach((row, r) => {
		let c = 0;
		for (const cell of row.cells) {
			while (cells[r]![c] !== undefined) c++;
			if (c >= MOST_COLUMNS) break;
			let cols = 1;
			const wanted = Math.min(Math.max(1, cell.colSpan), MOST_COLUMNS - c);
			while (cols < wanted && cells[r]![c + cols] === undefined) cols++;
			const down = cell.rowSpan === 0 ? rows.length - r : Math.max(1, Math.min(cell.rowSpan, rows.length - r));
			let height = 1;
			const isFree = (y: number) =>
				Array.from({ length: cols }, (_, i) => cells[y]![c + i]).every((slot) => slot === undefined);
			while (height < down && isFree(r + height)) height++;
			collides ||= cols < wanted || height < down;
			const content = contentOfElement(cell);
			const text = textOfContent(content);
			const isPlain = content.every(
				(piece) => 'runs' in piece && piece.runs.every((run) => Object.keys(run).length === 1)
			);
			for (let y = r; y < r + height; y++) for (let x = c; x < c + cols; x++) cells[y]![x] = null;
			cells[r]![c] = tidy<WorkCell>({
				text,
				content: isPlain ? undefined : content,
				rows: height > 1 ? height : undefined,
				cols: cols > 1 ? cols : undefined
			});
			c += cols;
		}
		if (r * cells[0]!.length > MOST_CELLS)
			throw new InputError(
				'paste',
				`More than ${MOST_CELLS.toLocaleString('en')} cells are too many to be worked on by hand.`
			);
	});
	const width = Math.max(...cells.map((row) => row.length));
	// Short rows are filled up with empty cells.
	const filled = cells.map((row) =>
		Array.from({ length: width }, (_, c) => (row[c] === undefined ? { text: '' } : row[c]!))
	);
	return { clip: { cells: filled }, collides };
}

const withoutSpans = ({ cells }: Clip): Clip => ({
	cells: cells.map((row) =>
		row.map((cell) => (cell ? tidy<WorkCell>({ ...cell, rows: undefined, cols: undefined }) : { text: '' }))
	)
});

/** The tables directly inside an element, not those inside them. */
const tablesIn = (element: Element): HTMLTableElement[] =>
	[...element.querySelectorAll('table')].filter(
		(table) => table.parentElement!.closest('table') === element.closest('table')
	);
/** The words of a cell that stand in none of the tables inside it. */
const ownText = (cell: Element): string =>
	contentOfElement(cell)
		.map((piece) => ('runs' in piece ? piece.runs.map(({ text }) => text).join('') : ''))
		.join('')
		.trim();

/**
 * A table that only places others: where each cell with a table in it holds nothing else, and no more cells hold words than
 * hold tables.
 */
function isLayout(table: HTMLTableElement): boolean {
	const cells = [...table.rows].flatMap((row) => [...row.cells]);
	const [holders, others] = [true, false].map((holds) => cells.filter((one) => tablesIn(one).length > 0 === holds));
	return (
		holders!.length > 0 && holders!.every((cell) => !ownText(cell)) && others!.filter(ownText).length <= holders!.length
	);
}
/** A table, or those that it only places, each with the words that stand around it. */
function unwrapped(table: HTMLTableElement): { table: HTMLTableElement; around: boolean }[] {
	if (!isLayout(table)) return [{ table, around: false }];
	const cells = [...table.rows].flatMap((row) => [...row.cells]);
	const around = cells.some((cell) => !tablesIn(cell).length && ownText(cell));
	return cells
		.flatMap(tablesIn)
		.flatMap(unwrapped)
		.map((one) => ({ ...one, around: one.around || around }));
}

const count = (table: Element, selector: string): number => table.querySelectorAll(selector).length;

/** So many tables can be chosen from; a page with more is no longer something to choose from by looking. */
const MOST_TABLES = 100;

/** The tables of a page that can be pasted, the first of them; those that only place others are unwrapped. Spans that overlap end where others begin. */
export function tablesOfHtml(html: string): Arriving[] {
	// Its style sheets say nothing here, and the page would complain of them.
	const page = new DOMParser().parseFromString(html.replace(/<style\b[^]*?<\/style\s*>/gi, ''), 'text/html');
	return [...page.querySelectorAll('table')]
		.filter((table) => !table.parentElement!.closest('table'))
		.flatMap(unwrapped)
		.filter(({ table }) => [...table.rows].some((row) => row.cells.length > 0))
		.slice(0, MOST_TABLES)
		.map(({ table, around }): Arriving => {
			const { clip, collides } = clipOfTable(table);
			const found: [number, (number: number) => string][] = [
				[count(table, 'img, svg, canvas, video'), (number) => plural(number, 'picture')],
				[count(table, 'a[href]'), (number) => `the addresses of ${plural(number, 'link')}`],
				[count(table, 'table'), (number) => `${plural(number, 'table')} inside a cell`],
				[count(table, 'input, select, textarea'), (number) => plural(number, 'form field')]
			];
			const first =
				clip.cells
					.flat()
					.find((cell) => cell?.text.trim())
					?.text.trim() ?? '';
			return {
				title: table.caption?.textContent?.trim() || first.slice(0, 40),
				clip,
				plain: withoutSpans(clip),
				collides,
				left: [
					...found.flatMap(([number, words]) => (number ? [words(number)] : [])),
					...(around ? ['the words around it'] : [])
				]
			};
		});
}
