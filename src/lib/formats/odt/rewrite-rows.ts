import type { Aspect } from '../../core/style/types.ts';
import type { RunView } from '../../core/table/content.ts';
import { isHeader } from '../../core/roles/index.ts';
import { toPoints, type Emu } from '../../core/units.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered, shownIn, type WorkTable } from '../../core/work/table.ts';
import { encodePieces } from '../package/encoding.ts';
import { Edits, withoutAttributes, type XmlNode } from '../package/xml.ts';
import { columnsFrom, insertions, outermost, rowCells, rowFrom, type RowRewriting } from '../row-cells.ts';
import { BodyWriter, pictureFrame, textMarkup } from './make.ts';
import type { OdtDocument } from './read.ts';
import { StyleMaker } from './styling.ts';
import { allFigures, isWorkedOut } from '../../core/work/working.ts';
import { VALUE_ATTRIBUTES, valueAttributes } from './values.ts';
import { addTo, declarePrefixes } from './sections.ts';

/** The document with tables made anew from what they were worked on, new ones put in, and others taken out; all else byte for byte. */
export async function rewriteRowsOdt(
	document: OdtDocument,
	{ works, added, gone }: RowRewriting
): Promise<Uint8Array<ArrayBuffer>> {
	const changed = new Map<string, string>();
	for (const part of new Set([document.content, ...document.sources.map((source) => source.part)])) {
		const edits = new Edits();
		const writer = new BodyWriter(document, 'HeptWork');
		const maker = new StyleMaker(document.odfStyles, part.xml.source);
		for (const [index, work] of works) {
			const source = document.sources[index]!;
			if (source.part !== part) continue;
			const { node } = source.grid;
			edits.replace(node.start, node.end, tableRows(document, index, work, { writer, maker }));
		}
		for (const index of outermost(document.tables, gone)) {
			const source = document.sources[index]!;
			if (source.part === part) edits.remove(source.grid.node);
		}
		if (part === document.content)
			for (const { at, made } of insertions(added, document.blockPlaces, (entry) => writer.table(entry)))
				edits.insert(at, made);
		if (!edits.count) continue;
		addTo(part, 'office:automatic-styles', 'office:body', writer.stylesMarkup + maker.stylesMarkup, edits);
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

const isRepeat = (name: string) => /^[\w.-]+:number-(?:columns|rows)-(?:repeated|spanned)$/.test(name);

const NOTHING: ReadonlySet<Aspect> = new Set();
/** Lengths that a new one takes the place of. */
const REPLACED: ReadonlySet<string> = new Set([
	'style:rel-column-width',
	'style:rel-width',
	'style:row-height',
	'style:use-optimal-row-height'
]);
const points = (length: number): string => `${toPoints(length as Emu)}pt`;

/** A start tag with this style in the place of its own. */
const styled = (tag: string, style: string): string =>
	withoutAttributes(tag, (name) => /^[\w.-]+:style-name$/.test(name)).replace(/\s*>$/, ` table:style-name="${style}">`);

/** Writes one table:table again (ODF 1.3 Part 3 §9.1.2). */
function tableRows(
	document: OdtDocument,
	index: number,
	work: WorkTable,
	{ writer, maker }: { readonly writer: BodyWriter; readonly maker: StyleMaker }
): string {
	const { part, grid } = document.sources[index]!;
	const { source } = part.xml;
	const entry = document.tables[index]!;
	const own = rowCells(work, entry);
	const raw = ({ start, end }: { start: number; end: number }) => source.slice(start, end);
	/** The start tag of an element, without how often it stands for itself. */
	const open = (node: XmlNode) =>
		withoutAttributes(source.slice(node.start, node.openEnd), isRepeat).replace(/\s*\/>$/, '>');
	const name = (node: XmlNode) => /^<([^\s/>]+)/.exec(source.slice(node.start, node.start + 200))![1]!;
	const isSameColumns =
		work.columns.length === entry.table.columns &&
		columnsFrom(work, entry).every((from, c) => from === undefined || from === c);
	const heads = grid.node.children.filter((child) => !/^table:table-(row|header-rows|rows|row-group)/.test(child.name));
	const isColumn = (child: XmlNode) => /^table:table-(column|header-columns)/.test(child.name);
	/** A style that says a length and all else that the old one says. */
	const sized = (family: string, old: string | undefined, lengths: Readonly<Record<string, string>>) =>
		maker.make(
			family,
			old,
			'size',
			{ [`style:${family}-properties`]: lengths },
			NOTHING,
			(_, name) => !REPLACED.has(name)
		);
	const sources = columnsFrom(work, entry);
	const had = sources.map((from) => (from === undefined ? undefined : entry.widths[from]));
	const widths = work.columns.map(({ width }, c) => width ?? had[c]);
	const isResized = widths.some((width, c) => width !== had[c]);
	const columns =
		isSameColumns && !isResized
			? heads.filter(isColumn).map(raw).join('')
			: sources
					.map((from, c) => {
						const old = from === undefined ? undefined : grid.columns[from];
						const width = widths[c];
						const style = width === had[c] ? old : sized('table-column', old, { 'style:column-width': points(width!) });
						return `<table:table-column${style ? ` table:style-name="${style}"` : ''}/>`;
					})
					.join('');
	const figureAt = allFigures(work);
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
			const isWhole = cell && !cell.selfClosing && cell.name === 'table:table-cell';
			// What is worked out may show the same for another value.
			const isSame = isKept && isWhole && !isWorkedOut(work, r, c);
			const value = isSame ? '' : valueAttributes(figureAt(r, c));
			const unlocked = bare.replace(/\s+[\w.-]+:protected\s*=\s*("[^"]*"|'[^']*')/, '');
			const tag = `${isSame ? unlocked : unlocked.replace(VALUE_ATTRIBUTES, '')}${spans}${value}${lock}>`;
			const close = `</${cell ? name(cell) : 'table:table-cell'}>`;
			if (isSame) return `${tag}${source.slice(cell.openEnd, cell.closeStart)}${close}`;
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
		const bare = model ? open(model) : '<table:table-row>';
		const old = model?.attribute('table:style-name');
		const tag = row.height
			? styled(bare, sized('table-row', old, { 'style:min-row-height': points(row.height) }))
			: bare;
		return {
			isHeader: isHeader(row.role) && (from === undefined || !!grid.rows[from]?.isHeader),
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
	const old = grid.node.attribute('table:style-name');
	const align = document.odfStyles.properties('table', old).get('table:align');
	const whole = widths.every((width) => width) ? widths.reduce<number>((sum, width) => sum + width!, 0) : undefined;
	const tag =
		isResized && whole
			? styled(
					open(grid.node),
					sized('table', old, {
						'style:width': points(whole),
						// A table between the margins of the page is as wide as they are, whatever it says.
						...((!align || align === 'margins') && { 'table:align': 'left' })
					})
				)
			: open(grid.node);
	return `${tag}${others}${columns}${head}${markup.slice(count).join('')}</${name(grid.node)}>`;
}
