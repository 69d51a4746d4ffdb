import { InputError } from '../../core/errors.ts';
import { plural } from '../../core/words.ts';
import { BUDGET } from '../limits.ts';
import { parseXml, type XmlNode } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import { NAMESPACES } from '../odt/names.ts';
import { evened, type Sheet } from './sheet.ts';

/** What a cell says (ODF 1.3 Part 3 §19.385): dates and shares by their value, all else as it is shown. */
function textOf(cell: XmlNode): string {
	const type = cell.attribute('office:value-type');
	const date = cell.attribute('office:date-value');
	if (type === 'date' && date) return date.replace('T', ' ').replace(/ 00:00(:00(\.0+)?)?$/, '');
	const value = cell.attribute('office:value');
	const number = Number(value);
	if (value !== undefined && Number.isFinite(number)) {
		const plain = (of: number) => String(Number(of.toPrecision(15)));
		if (type === 'percentage') return `${plain(number * 100)} %`;
		if (type === 'float') return plain(number);
	}
	const lines: string[] = [];
	for (const child of cell.children) if (child.name === 'text:p') lines.push(shownIn(child));
	return lines.join('\n');
}
const shownIn = (node: XmlNode): string =>
	node.text +
	node.children
		.map((child) => (child.name === 'text:s' ? ' ' : child.name === 'office:annotation' ? '' : shownIn(child)))
		.join('');

function* rowsIn(node: XmlNode): Generator<XmlNode> {
	for (const child of node.children)
		if (child.name === 'table:table-row') yield child;
		else if (/^table:table-(header-rows|rows|row-group)$/.test(child.name)) yield* rowsIn(child);
}

function readSheet(table: XmlNode, isHidden: boolean): Sheet {
	const name = table.attribute('table:name') ?? 'sheet';
	const rows: string[][] = [];
	let [r, formulas, joined] = [0, 0, 0];
	const times = (node: XmlNode, attribute: string) => Math.max(1, Number(node.attribute(attribute)) || 1);
	for (const row of rowsIn(table)) {
		const line: string[] = [];
		let c = 0;
		for (const cell of row.children) {
			if (cell.name !== 'table:table-cell' && cell.name !== 'table:covered-table-cell') continue;
			const count = times(cell, 'table:number-columns-repeated');
			const text = cell.name === 'table:table-cell' ? textOf(cell) : '';
			if (cell.attribute('table:formula')) formulas++;
			if (times(cell, 'table:number-columns-spanned') > 1 || times(cell, 'table:number-rows-spanned') > 1) joined++;
			if (text.trim()) for (let i = 0; i < Math.min(count, BUDGET.columns + 1); i++) line[c + i] = text;
			c += count;
		}
		const count = times(row, 'table:number-rows-repeated');
		// Empty rows are repeated to the end of the sheet.
		if (line.length) for (let i = 0; i < Math.min(count, BUDGET.rows + 1); i++) rows[r + i] = line;
		r += count;
	}
	return {
		name,
		isHidden,
		rows: evened(rows, name),
		remarks: [
			...(formulas
				? [
						`${plural(formulas, 'cell is', 'cells are')} worked out there: what they showed when the file was saved is taken.`
					]
				: []),
			...(joined ? ['Joined cells say something in their first cell only.'] : [])
		]
	};
}

/** Reads the sheets of an ODS spreadsheet (ODF 1.3 Part 3 §9), as they were when it was saved. */
export async function readOds(bytes: Uint8Array<ArrayBuffer>): Promise<Sheet[]> {
	const archive = await Package.open(bytes, 'an ODS spreadsheet');
	const content = await archive.text('content.xml');
	if (content === undefined)
		throw new InputError('not-a-spreadsheet', 'This is no ODS spreadsheet: it holds no “content.xml”.', 'content.xml');
	const { root } = parseXml(content, 'content.xml', { namespaces: NAMESPACES });
	const hidden = new Set<string>();
	const tables: XmlNode[] = [];
	const visit = (node: XmlNode): void => {
		for (const child of node.children) {
			if (child.name === 'style:style' && child.attribute('style:family') === 'table')
				for (const own of child.children)
					if (own.attribute('table:display') === 'false') hidden.add(child.attribute('style:name') ?? '');
			if (child.name === 'table:table') tables.push(child);
			else visit(child);
		}
	};
	visit(root);
	return tables.map((table) => readSheet(table, hidden.has(table.attribute('table:style-name') ?? '')));
}
