import { BORDER_STYLE, type Line } from '$lib/core/properties/line.ts';
import { escapeHtml } from '$lib/core/escape.ts';
import { isHeader } from '$lib/core/roles/index.ts';
import type { CellContent, RunView } from '$lib/core/table/content.ts';
import { toPoints } from '$lib/core/units.ts';
import { clipOf, textsOf, type Clip } from '$lib/core/work/cells.ts';
import { tablesOfHtml, type Arriving } from './arriving.ts';
import type { Range } from '$lib/core/work/selection.ts';
import type { WorkCell } from '$lib/core/work/table.ts';
import { cellStyle } from '../table/paint.ts';
import type { TableBench } from './bench.svelte.ts';

/** Our own form of copied cells, which keeps formulas out and everything else in. */
export const OWN_TYPE = 'application/x-heptarch-cells';

const runHtml = ({ text, weight, italic, underline, ink, position }: RunView): string => {
	let html = escapeHtml(text);
	if (position) html = position === 'sub' ? `<sub>${html}</sub>` : `<sup>${html}</sup>`;
	if (italic) html = `<em>${html}</em>`;
	if (weight !== undefined && weight >= 600) html = `<strong>${html}</strong>`;
	if (underline && underline !== 'none') html = `<u>${html}</u>`;
	return ink ? `<span style="color:${ink}">${html}</span>` : html;
};
const contentHtml = (content: readonly CellContent[]) =>
	content.map((piece) => ('runs' in piece ? piece.runs.map(runHtml).join('') : '')).join('<br>');

const border = (side: string, line: Line | null | undefined): string =>
	line && line.pattern !== 'none'
		? `border-${side}:${toPoints(line.weight)}pt ${BORDER_STYLE[line.pattern]} ${line.ink};`
		: '';

/** A range as a web page's table, with its looks said on every cell, so that it looks the same wherever it is pasted. */
function htmlOf(bench: TableBench, range: Range): string {
	const { table, work } = bench;
	const { across, down, lines, looks, cellLook } = bench.appearance;
	const line = (edge: number | undefined) => (edge === undefined || edge < 0 ? null : lines[edge]);
	let rows = '';
	for (let r = range.top; r <= range.bottom; r++) {
		let cells = '';
		for (let c = range.start; c <= range.end; c++) {
			const index = table.slots[r * table.columns + c]!;
			const cell = table.cells[index]!;
			if (cell.r !== r || cell.c !== c) continue;
			const look = looks[cellLook[index]!]!;
			const borders =
				border('top', line(across[r * table.columns + c])) +
				border('bottom', line(across[(r + cell.rows) * table.columns + c])) +
				border('left', line(down[r * (table.columns + 1) + c])) +
				border('right', line(down[r * (table.columns + 1) + c + cell.cols]));
			const tag = isHeader(work.rows[r]!.role) ? 'th' : 'td';
			const spans = `${cell.rows > 1 ? ` rowspan="${cell.rows}"` : ''}${cell.cols > 1 ? ` colspan="${cell.cols}"` : ''}`;
			const style = `${cellStyle(look, 1)}vertical-align:${look.v ?? 'top'};${borders}`;
			cells += `<${tag}${spans} style="${escapeHtml(style)}">${contentHtml(bench.shown(index))}</${tag}>`;
		}
		rows += `<tr>${cells}</tr>`;
	}
	return `<table style="border-collapse:collapse">${rows}</table>`;
}

/** Puts a range on the clipboard: as styled HTML, as tab-separated text and in our own form. */
export function copyTo(data: DataTransfer, bench: TableBench): void {
	const { range } = bench;
	const clip = clipOf(bench.work, range);
	data.setData(OWN_TYPE, JSON.stringify(clip));
	data.setData('text/html', htmlOf(bench, range));
	data.setData(
		'text/plain',
		textsOf(clip)
			.map((row) => row.map(tabField).join('\t'))
			.join('\n')
	);
}

/** Fields with tabs or line ends stand in quotation marks, as RFC 4180 has it. */
const tabField = (text: string) => (/[\t\n"]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text);

/** Tab-separated text as rows; a field in quotation marks may hold tabs and line ends. */
export function rowsOfText(text: string): string[][] {
	const rows: string[][] = [[]];
	const source = text.replace(/\r\n?/g, '\n').replace(/\n$/, '');
	for (let at = 0; at <= source.length;) {
		let field = '';
		if (source[at] === '"') {
			const end = /"(?!")/g;
			let from = at + 1;
			for (;;) {
				end.lastIndex = from;
				const found = end.exec(source);
				if (!found) break;
				// A doubled mark stands for itself.
				if (source[found.index - 1] === '"' && oddMarksBefore(source, found.index, at)) {
					from = found.index + 1;
					continue;
				}
				field = source.slice(at + 1, found.index).replace(/""/g, '"');
				from = found.index + 1;
				break;
			}
			if (source[from] === '\t' || source[from] === '\n' || from >= source.length) {
				rows.at(-1)!.push(field);
				if (source[from] === '\n') rows.push([]);
				at = from + 1;
				continue;
			}
		}
		const end = source.slice(at).search(/[\t\n]/);
		const stop = end < 0 ? source.length : at + end;
		rows.at(-1)!.push(source.slice(at, stop));
		if (source[stop] === '\n') rows.push([]);
		at = stop + 1;
	}
	return rows;
}
function oddMarksBefore(text: string, at: number, from: number): boolean {
	let count = 0;
	for (let i = at - 1; i > from && text[i] === '"'; i--) count++;
	return count % 2 === 1;
}

const clipOfRows = (rows: readonly (readonly string[])[]): Clip => {
	const width = Math.max(...rows.map((row) => row.length));
	return { cells: rows.map((row) => Array.from({ length: width }, (_, c): WorkCell => ({ text: row[c] ?? '' }))) };
};

/** What is on the clipboard as tables: our own form first, then those of a page, then text. Empty where there is neither. */
export function arrivingFrom(data: DataTransfer): Arriving[] {
	const own = data.getData(OWN_TYPE);
	if (own) return [whole(JSON.parse(own) as Clip)];
	const html = data.getData('text/html');
	const tables = html ? tablesOfHtml(html) : [];
	if (tables.length) return tables;
	const text = data.getData('text/plain');
	return text ? [whole(clipOfRows(rowsOfText(text)))] : [];
}
const whole = (clip: Clip): Arriving => ({ title: '', clip, plain: clip, collides: false, left: [] });
