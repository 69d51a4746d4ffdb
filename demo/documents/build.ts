import {
	AlignmentType,
	BorderStyle,
	Document,
	HeadingLevel,
	Packer,
	Paragraph,
	ShadingType,
	Table,
	TableCell,
	TableRow,
	TextRun,
	VerticalAlignTable,
	WidthType,
	type IBorderOptions,
	type ITableCellOptions
} from 'docx';
import { Package } from '../../src/lib/formats/package/zip.ts';

/** What a hand does to a cell. Text may be split in runs: `**bold**` marks emphasis inside it. */
export interface CellSpec {
	readonly text: string;
	readonly span?: number;
	readonly down?: number;
	readonly bold?: boolean;
	readonly italic?: boolean;
	readonly fill?: string;
	readonly ink?: string;
	readonly font?: string;
	readonly size?: number;
	readonly align?: 'left' | 'center' | 'right';
	readonly v?: 'top' | 'center' | 'bottom';
	readonly borders?: ITableCellOptions['borders'];
	readonly nested?: TableSpec;
}

export interface TableSpec {
	readonly caption?: string;
	/** Widths in hundredths of a millimetre. */
	readonly widths: readonly number[];
	readonly rows: readonly (readonly (CellSpec | string)[])[];
	/** The file's own table style. */
	readonly style?: string;
	readonly headerRows?: number;
	readonly borders?: 'all' | 'none' | 'outer';
	/** How this hand formats a cell, unless the cell says otherwise. */
	readonly hand?: (r: number, c: number, text: string) => Partial<CellSpec>;
}

export interface DocumentSpec {
	readonly title: string;
	readonly font: string;
	/** Half points. */
	readonly size: number;
	readonly ink?: string;
	/** Whether font, size and ink stand in the default paragraph style instead of the document's defaults. */
	readonly inParagraphStyle?: boolean;
	readonly content: readonly (string | { heading: string; level?: 1 | 2 } | TableSpec)[];
	/** Table styles of the file, as WordprocessingML. */
	readonly tableStyles?: string;
}

const line = (size: number, color: string, style: IBorderOptions['style'] = BorderStyle.SINGLE): IBorderOptions => ({
	style,
	size,
	color
});
export const NO_LINE: IBorderOptions = { style: BorderStyle.NIL, size: 0, color: 'auto' };
export const single = (eighths: number, color: string) => line(eighths, color);
export const double = (eighths: number, color: string) => line(eighths, color, BorderStyle.DOUBLE);

const ALIGN = { left: AlignmentType.LEFT, center: AlignmentType.CENTER, right: AlignmentType.RIGHT };
const V = { top: VerticalAlignTable.TOP, center: VerticalAlignTable.CENTER, bottom: VerticalAlignTable.BOTTOM };
const twips = (hundredths: number) => Math.round((hundredths / 100 / 25.4) * 1440);

function runs(spec: CellSpec): TextRun[] {
	return spec.text.split('**').flatMap((piece, i) =>
		piece
			? [
					new TextRun({
						text: piece,
						...((spec.bold || i % 2 === 1) && { bold: true }),
						...(spec.italic && { italics: true }),
						...(spec.ink && { color: spec.ink }),
						...(spec.font && { font: spec.font }),
						...(spec.size && { size: spec.size })
					})
				]
			: []
	);
}

function cell(spec: CellSpec, width: number): TableCell {
	const text = new Paragraph({ children: runs(spec), ...(spec.align && { alignment: ALIGN[spec.align] }) });
	return new TableCell({
		children: spec.nested ? [text, table(spec.nested), new Paragraph('')] : [text],
		width: { size: twips(width), type: WidthType.DXA },
		...(spec.span && { columnSpan: spec.span }),
		...(spec.down && { rowSpan: spec.down }),
		...(spec.fill && { shading: { type: ShadingType.CLEAR, color: 'auto', fill: spec.fill } }),
		...(spec.v && { verticalAlign: V[spec.v] }),
		...(spec.borders && { borders: spec.borders })
	});
}

function table(spec: TableSpec): Table {
	const all = single(4, '000000');
	const inner = spec.borders === 'all' ? all : NO_LINE;
	const outer = spec.borders === 'none' ? NO_LINE : all;
	return new Table({
		columnWidths: spec.widths.map(twips),
		width: { size: twips(spec.widths.reduce((sum, width) => sum + width, 0)), type: WidthType.DXA },
		...(spec.style && { style: spec.style }),
		...(spec.borders && {
			borders: { top: outer, bottom: outer, left: outer, right: outer, insideHorizontal: inner, insideVertical: inner }
		}),
		rows: spec.rows.map(
			(row, r) =>
				new TableRow({
					tableHeader: r < (spec.headerRows ?? 0),
					children: row.map((entry, c) => {
						const own: CellSpec = typeof entry === 'string' ? { text: entry } : entry;
						return cell({ ...spec.hand?.(r, c, own.text), ...own }, spec.widths[c] ?? 2000);
					})
				})
		)
	});
}

/** Makes the DOCX; the same every time but for what the library stamps in docProps. */
export async function buildDocument(spec: DocumentSpec): Promise<Uint8Array<ArrayBuffer>> {
	const look = { font: spec.font, size: spec.size, ...(spec.ink && { color: spec.ink }) };
	const document = new Document({
		title: spec.title,
		creator: 'Thornmere Botanic Garden',
		styles: {
			default: {
				document: { run: spec.inParagraphStyle ? { font: 'Liberation Serif', size: 24 } : look },
				heading1: { run: { size: 32, bold: true }, paragraph: { spacing: { before: 240, after: 120 } } },
				heading2: { run: { size: 26, bold: true }, paragraph: { spacing: { before: 200, after: 100 } } },
				title: { run: { size: 48 } }
			},
			paragraphStyles: [
				...(spec.inParagraphStyle ? [{ id: 'Normal', name: 'Normal', quickFormat: true, run: look }] : []),
				{
					id: 'Caption',
					name: 'caption',
					basedOn: 'Normal',
					run: { italics: true, size: 18 },
					paragraph: { spacing: { before: 120, after: 60 } }
				}
			]
		},
		sections: [
			{
				children: [
					new Paragraph({ text: spec.title, heading: HeadingLevel.TITLE }),
					...spec.content.flatMap((item) => {
						if (typeof item === 'string') return [new Paragraph({ text: item, spacing: { after: 120 } })];
						if ('heading' in item)
							return [
								new Paragraph({
									text: item.heading,
									heading: item.level === 2 ? HeadingLevel.HEADING_2 : HeadingLevel.HEADING_1
								})
							];
						return [
							...(item.caption ? [new Paragraph({ text: item.caption, style: 'Caption' })] : []),
							table(item),
							new Paragraph('')
						];
					})
				]
			}
		]
	});
	const bytes = new Uint8Array(await Packer.toArrayBuffer(document));
	const archive = await Package.open(bytes, 'a DOCX document');
	let styles = (await archive.text('word/styles.xml'))!;
	if (
		spec.inParagraphStyle &&
		!/w:default="1"[^>]*w:styleId="Normal"|w:styleId="Normal"[^>]*w:default="1"/.test(styles)
	)
		styles = styles.replace('w:styleId="Normal"', 'w:styleId="Normal" w:default="1"');
	const tableNormal =
		'<w:style w:type="table" w:default="1" w:styleId="TableNormal"><w:name w:val="Normal Table"/><w:uiPriority w:val="99"/><w:semiHidden/><w:unhideWhenUsed/>' +
		'<w:tblPr><w:tblInd w:w="0" w:type="dxa"/><w:tblCellMar><w:top w:w="0" w:type="dxa"/><w:left w:w="108" w:type="dxa"/><w:bottom w:w="0" w:type="dxa"/><w:right w:w="108" w:type="dxa"/></w:tblCellMar></w:tblPr></w:style>';
	styles = styles.replace('</w:styles>', `${tableNormal}${spec.tableStyles ?? ''}</w:styles>`);
	// The library writes no w:tblLook, without which a table style's header and bands do not show.
	const tableLook =
		'<w:tblLook w:val="0460" w:firstRow="1" w:lastRow="1" w:firstColumn="0" w:lastColumn="0" w:noHBand="0" w:noVBand="1"/>';
	const main = (await archive.text('word/document.xml'))!.replace(
		/(<w:tblPr><w:tblStyle .*?)(<\/w:tblPr>)/g,
		`$1${tableLook}$2`
	);
	return archive.rewrite(
		new Map([
			['word/styles.xml', styles],
			['word/document.xml', main]
		])
	);
}
