import { escapeXml } from '../../core/escape.ts';
import type { Line, Look } from '../../core/cascade/look.ts';
import { toTwips } from '../../core/units.ts';
import { linkedRuns, type RunView } from '../../core/table/content.ts';
import { runsBothWays } from '../../core/layout/direction.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered } from '../../core/work/table.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import { Package, type EntryText } from '../package/zip.ts';
import type { Side } from '../../core/table/grid.ts';
import { CellSides } from '../sides.ts';
import { writeProperties } from './containers.ts';
import { cellLayerOf, paragraphLayerOf, textLayerOf } from './layers.ts';
import { sayableLook } from './properties/fields.ts';
import { Media } from './media.ts';
import { CONTENT_TYPES, W_NAMESPACE } from './names.ts';
import { sayableLine, writeBorders, type Borders } from './properties/borders.ts';
import { CELL_ORDER, writeMargins, writeRotation, writeShading, writeVertical } from './properties/cell.ts';
import { PARAGRAPH_ORDER, spacing, writeAlignment } from './properties/paragraph.ts';
import { RUN_ORDER, writeText } from './properties/text.ts';

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
/** A4 with margins of 25 mm, in twentieths of a point. */
const PAGE = { width: 11_906, height: 16_838, margin: 1_417 };

/** Of headings by their level, in half points. */
const HEADING_SIZES = [28, 26, 24, 22, 21, 21];
const headingStyle = (level: number): string =>
	level < 1 ? 'Title' : `Heading${Math.min(level, HEADING_SIZES.length)}`;

const STYLES =
	`${XML}<w:styles xmlns:w="${W_NAMESPACE}"><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Source Serif 4" w:hAnsi="Source Serif 4" w:cs="Source Serif 4"/><w:sz w:val="21"/></w:rPr></w:rPrDefault><w:pPrDefault/></w:docDefaults>` +
	'<w:style w:type="paragraph" w:default="1" w:styleId="Normal"><w:name w:val="Normal"/></w:style>' +
	'<w:style w:type="paragraph" w:styleId="Title"><w:name w:val="Title"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:after="240"/></w:pPr><w:rPr><w:b/><w:sz w:val="36"/></w:rPr></w:style>' +
	HEADING_SIZES.map(
		(size, level) =>
			`<w:style w:type="paragraph" w:styleId="Heading${level + 1}"><w:name w:val="heading ${level + 1}"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:before="360" w:after="120"/><w:outlineLvl w:val="${level}"/></w:pPr><w:rPr><w:b/><w:sz w:val="${size}"/></w:rPr></w:style>`
	).join('') +
	'<w:style w:type="table" w:default="1" w:styleId="TableNormal"><w:name w:val="Normal Table"/><w:uiPriority w:val="99"/><w:semiHidden/><w:tblPr><w:tblInd w:w="0" w:type="dxa"/></w:tblPr></w:style>' +
	'</w:styles>';

const paragraph = (text: string, style?: string) =>
	`<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ''}${text ? `<w:r><w:t xml:space="preserve">${escapeXml(text)}</w:t></w:r>` : ''}</w:p>`;

/** A run in its cell's look, with its own emphasis. */
function run(view: RunView, look: Look): string {
	const { text, position, link: _, ...own } = view;
	const markup = writeText(textLayerOf({ ...look, ...own }));
	if (runsBothWays(text, 'ltr')) markup.set('w:rtl', '<w:rtl/>');
	if (position)
		markup.set('w:vertAlign', `<w:vertAlign w:val="${position === 'super' ? 'superscript' : 'subscript'}"/>`);
	const pieces = text
		.split('\n')
		.map((line) => (line ? `<w:t xml:space="preserve">${escapeXml(line)}</w:t>` : ''))
		.join('<w:br/>')
		.replace(/\t/g, '</w:t><w:tab/><w:t xml:space="preserve">');
	return `<w:r>${writeProperties('w:rPr', RUN_ORDER, markup)}${pieces}</w:r>`;
}

/** Direct formatting of a cell. */
function cellProperties(look: Look, borders: Borders, more: ReadonlyMap<string, string>): string {
	const layer = cellLayerOf(sayableLook(look));
	const markup = new Map(more);
	const lines = writeBorders('w:tcBorders', borders, false);
	if (lines) markup.set('w:tcBorders', lines);
	if (layer.fill !== undefined) markup.set('w:shd', writeShading(layer.fill));
	const margins = writeMargins('w:tcMar', layer.margins, false);
	if (margins) markup.set('w:tcMar', margins);
	if (layer.v) markup.set('w:vAlign', writeVertical(layer.v));
	if (layer.rotate) markup.set('w:textDirection', writeRotation(layer.rotate, false));
	return writeProperties('w:tcPr', CELL_ORDER, markup);
}

/** A cell in a content control that keeps its content from being edited (§17.5.2.23, §17.5.2.32). */
export const lockedCell = (tc: string): string =>
	`<w:sdt><w:sdtPr><w:lock w:val="sdtContentLocked"/></w:sdtPr><w:sdtContent>${tc}</w:sdtContent></w:sdt>`;

export function tableMarkup(document: Pick<OpenDocument, 'tables'>, entry: DocumentTable, media: Media): string {
	const { table, appearance, content } = entry;
	const room = PAGE.width - 2 * PAGE.margin;
	const total = entry.widths.reduce<number>((sum, width) => sum + width, 0);
	const widths = Array.from({ length: table.columns }, (_, c) =>
		total ? toTwips(entry.widths[c]!) : Math.floor(room / table.columns)
	);
	const sides = new CellSides(table, appearance, sayableLine);
	const line = (edge: number): Line | null => (edge < 0 ? null : sayableLine(appearance.lines[edge]!));
	let rows = '';
	for (let r = 0; r < table.rows; r++) {
		let cells = '';
		for (let c = 0; c < table.columns;) {
			const i = table.slots[r * table.columns + c]!;
			const cell = table.cells[i]!;
			const look = appearance.looks[appearance.cellLook[i]!]!;
			const isStart = cell.r === r;
			const width = widths.slice(c, c + cell.cols).reduce((sum, one) => sum + one, 0);
			const more = new Map([['w:tcW', `<w:tcW w:w="${width}" w:type="dxa"/>`]]);
			if (cell.cols > 1) more.set('w:gridSpan', `<w:gridSpan w:val="${cell.cols}"/>`);
			if (cell.rows > 1) more.set('w:vMerge', isStart ? '<w:vMerge w:val="restart"/>' : '<w:vMerge/>');
			const borders: Borders = {};
			const said = (place: Side, one: Line | null | undefined) => {
				if (one) borders[place] = one;
			};
			if (isStart) said('top', sides.line(i, 'top'));
			if (r === cell.r + cell.rows - 1) said('bottom', sides.line(i, 'bottom'));
			said('start', line(appearance.down[r * (table.columns + 1) + c]!));
			said('end', line(appearance.down[r * (table.columns + 1) + c + cell.cols]!));
			const layer = paragraphLayerOf(look);
			const open = (at: number) => {
				const pPr = new Map<string, string>(layer.h ? writeAlignment(layer.h) : []);
				if (table.dir) pPr.set('w:bidi', '<w:bidi/>');
				const { lineHeight } = layer;
				const said = spacing(undefined, {
					...(lineHeight !== undefined && { lineHeight }),
					...(look.paragraphGap && at > 0 && { before: look.paragraphGap })
				});
				if (said) pPr.set('w:spacing', said);
				return `<w:p>${writeProperties('w:pPr', PARAGRAPH_ORDER, pPr)}`;
			};
			const inside = (isStart ? (content[i] ?? []) : [])
				.map((piece, at) =>
					'nested' in piece
						? tableMarkup(document, document.tables[piece.nested]!, media)
						: 'picture' in piece
							? `${open(at)}${media.drawing(piece.picture)}</w:p>`
							: `${open(at)}${linkedRuns(piece.runs)
									.map(({ link, runs }) => {
										const made = runs.map((one) => run(one, look)).join('');
										return link ? media.link(link, made) : made;
									})
									.join('')}</w:p>`
				)
				.join('');
			// A cell ends with a paragraph (§17.4.65).
			const isOpen = !inside.endsWith('</w:p>');
			const markup = `<w:tc>${cellProperties(look, borders, more)}${inside}${isOpen ? `${open(0)}</w:p>` : ''}</w:tc>`;
			const slot = entry.work?.rows[cell.r]!.cells[cell.c];
			cells += slot && !isCovered(slot) && forbids(slot.lock, 'content') ? lockedCell(markup) : markup;
			c += cell.cols;
		}
		rows += `<w:tr>${cells}</w:tr>`;
	}
	const columns = widths.map((width) => `<w:gridCol w:w="${width}"/>`).join('');
	const whole = widths.reduce((sum, width) => sum + width, 0);
	return `<w:tbl><w:tblPr>${table.dir ? '<w:bidiVisual/>' : ''}<w:tblW w:w="${whole}" w:type="dxa"/></w:tblPr><w:tblGrid>${columns}</w:tblGrid>${rows}</w:tbl>`;
}

/** A new DOCX (transitional) of a document's headings, text and tables, the tables as they look in their file. */
export async function makeDocx(document: Pick<OpenDocument, 'blocks' | 'tables'>): Promise<Uint8Array<ArrayBuffer>> {
	const media = new Media();
	const body = document.blocks
		.map((block) =>
			block.kind === 'table'
				? tableMarkup(document, document.tables[block.index]!, media) + paragraph('')
				: paragraph(block.text, block.kind === 'heading' ? headingStyle(block.level) : undefined)
		)
		.join('');
	const page = `<w:sectPr><w:pgSz w:w="${PAGE.width}" w:h="${PAGE.height}"/><w:pgMar w:top="${PAGE.margin}" w:right="${PAGE.margin}" w:bottom="${PAGE.margin}" w:left="${PAGE.margin}" w:header="709" w:footer="709" w:gutter="0"/></w:sectPr>`;
	const type = 'application/vnd.openxmlformats-officedocument.wordprocessingml';
	return Package.empty().rewrite(
		new Map<string, EntryText>([
			[
				CONTENT_TYPES,
				`${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>${media.types.map(({ ending, type: kind }) => `<Default Extension="${ending}" ContentType="${kind}"/>`).join('')}<Override PartName="/word/document.xml" ContentType="${type}.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="${type}.styles+xml"/></Types>`
			],
			[
				'_rels/.rels',
				`${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="word/document.xml"/></Relationships>`
			],
			['word/document.xml', `${XML}<w:document xmlns:w="${W_NAMESPACE}"><w:body>${body}${page}</w:body></w:document>`],
			[
				'word/_rels/document.xml.rels',
				`${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${OFFICE}/styles" Target="styles.xml"/>${media.relationships}</Relationships>`
			],
			['word/styles.xml', STYLES],
			...media.parts
		])
	);
}
