import type { RunView } from '../../core/table/content.ts';
import { roleFamily } from '../../core/table/roles.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered, shownIn, type WorkTable } from '../../core/work/table.ts';
import { encodePieces } from '../package/encoding.ts';
import { Edits, type XmlNode } from '../package/xml.ts';
import { columnsFrom, insertions, outermost, remadeCells, rowFrom, type Remaking } from '../remade.ts';
import { BodyWriter, pictureFrame, textMarkup } from './make.ts';
import type { OdtDocument } from './read.ts';
import { addTo, declarePrefixes } from './write.ts';

/** The document with tables made anew from what they were worked on, new ones put in, and others taken out; all else byte for byte. */
export async function remakeOdt(
	document: OdtDocument,
	{ works, added, gone }: Remaking
): Promise<Uint8Array<ArrayBuffer>> {
	const changed = new Map<string, string>();
	for (const part of new Set([document.content, ...document.sources.map((source) => source.part)])) {
		const edits = new Edits();
		const writer = new BodyWriter(document, 'HeptWork');
		for (const [index, work] of works) {
			const source = document.sources[index]!;
			if (source.part !== part) continue;
			const { node } = source.grid;
			edits.replace(node.start, node.end, remade(document, index, work, writer));
		}
		for (const index of outermost(document.tables, gone)) {
			const source = document.sources[index]!;
			if (source.part === part) edits.remove(source.grid.node);
		}
		if (part === document.content)
			for (const { at, made } of insertions(added, document.blockPlaces, (entry) => writer.table(entry)))
				edits.insert(at, made);
		if (!edits.count) continue;
		addTo(part, 'office:automatic-styles', 'office:body', writer.stylesMarkup, edits);
		declarePrefixes(part, edits);
		changed.set(part.name, edits.apply(part.xml.source));
	}
	if (document.package) return document.package.rewrite(changed);
	return encodePieces(
		document.flat!,
		[changed.get('content.xml') ?? document.content.xml.source],
		(char) => `&#x${char.codePointAt(0)!.toString(16)};`
	);
}

const REPEATS = /\s+[\w.-]+:number-(?:columns|rows)-(?:repeated|spanned)\s*=\s*("[^"]*"|'[^']*')/g;

/** Writes one table:table again (ODF 1.3 Part 3 §9.1.2). */
function remade(document: OdtDocument, index: number, work: WorkTable, writer: BodyWriter): string {
	const { part, grid } = document.sources[index]!;
	const { source } = part.xml;
	const entry = document.tables[index]!;
	const own = remadeCells(work, entry);
	const raw = ({ start, end }: { start: number; end: number }) => source.slice(start, end);
	/** The start tag of an element, without how often it stands for itself. */
	const open = (node: XmlNode) =>
		source
			.slice(node.start, node.openEnd)
			.replace(REPEATS, '')
			.replace(/\s*\/>$/, '>');
	const name = (node: XmlNode) => /^<([^\s/>]+)/.exec(source.slice(node.start, node.start + 200))![1]!;
	const isSameColumns =
		work.columns.length === entry.table.columns &&
		columnsFrom(work, entry).every((from, c) => from === undefined || from === c);
	const heads = grid.node.children.filter((child) => !/^table:table-(row|header-rows|rows|row-group)/.test(child.name));
	const isColumn = (child: XmlNode) => /^table:table-(column|header-columns)/.test(child.name);
	const columns = isSameColumns
		? heads.filter(isColumn).map(raw).join('')
		: columnsFrom(work, entry)
				.map((from) => {
					const style = from === undefined ? undefined : grid.columns[from];
					return `<table:table-column${style ? ` table:style-name="${style}"` : ''}/>`;
				})
				.join('');
	const rows = work.rows.map((row, r) => {
		const from = rowFrom(work, entry, r);
		const model = from === undefined ? undefined : grid.rows[from]?.node;
		const cells = row.cells.map((slot, c) => {
			if (isCovered(slot)) return '<table:covered-table-cell/>';
			const { from: origin, isKept } = own.get(`${r},${c}`)!;
			const cell = origin === undefined ? undefined : grid.cells[origin];
			const spans = `${(slot.cols ?? 1) > 1 ? ` table:number-columns-spanned="${slot.cols}"` : ''}${(slot.rows ?? 1) > 1 ? ` table:number-rows-spanned="${slot.rows}"` : ''}`;
			const lock = forbids(slot.lock, 'content') ? ' table:protected="true"' : '';
			const bare = cell ? open(cell).replace(/>$/, '') : '<table:table-cell';
			const tag = `${bare.replace(/\s+[\w.-]+:protected\s*=\s*("[^"]*"|'[^']*')/, '')}${spans}${lock}>`;
			const close = `</${cell ? name(cell) : 'table:table-cell'}>`;
			if (isKept && cell && !cell.selfClosing && cell.name === 'table:table-cell')
				return `${tag}${source.slice(cell.openEnd, cell.closeStart)}${close}`;
			const paragraph = cell?.children.find((child) => child.name === 'text:p' || child.name === 'text:h');
			const span = paragraph?.children.find((child) => child.name === 'text:span')?.attribute('text:style-name');
			const style = paragraph?.attribute('text:style-name');
			const nested = (cell?.children ?? []).filter((child) => child.name === 'table:table');
			let table = 0;
			const inside = shownIn(slot).map((piece) => {
				const paragraph = (text: string) => `<text:p${style ? ` text:style-name="${style}"` : ''}>${text}</text:p>`;
				if ('picture' in piece) return paragraph(pictureFrame(piece.picture));
				if ('nested' in piece) return nested[table] ? raw(nested[table++]!) : '';
				const runs = piece.runs.map((run: RunView) => writer.run(run, span)).join('');
				return paragraph(runs);
			});
			return `${tag}${inside.join('') || `<text:p>${textMarkup('')}</text:p>`}${close}`;
		});
		const tag = model ? open(model) : '<table:table-row>';
		return {
			isHeader: roleFamily(row.role) === 'header' && (from === undefined || !!grid.rows[from]?.isHeader),
			markup: `${tag}${cells.join('')}</${model ? name(model) : 'table:table-row'}>`
		};
	});
	const header = rows.findIndex(({ isHeader }) => !isHeader);
	const count = header < 0 ? rows.length : header;
	const markup = rows.map((row) => row.markup);
	const head = count ? `<table:table-header-rows>${markup.slice(0, count).join('')}</table:table-header-rows>` : '';
	const others = heads
		.filter((child) => !isColumn(child))
		.map(raw)
		.join('');
	return `${open(grid.node)}${others}${columns}${head}${markup.slice(count).join('')}</${name(grid.node)}>`;
}
