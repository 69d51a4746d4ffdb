import { escapeXml } from '../../core/escape.ts';
import type { Line, Look } from '../../core/cascade/look.ts';
import { toTwips } from '../../core/units.ts';
import { linkedRuns, runsOf, type CellContent, type RunView } from '../../core/table/content.ts';
import { runsBothWays } from '../../core/layout/direction.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered } from '../../core/work/table.ts';
import type { DocumentTable, OpenDocument, WholeDocument } from '../document.ts';
import type { RowFacts } from '../held.ts';
import { Package, type EntryText } from '../package/zip.ts';
import type { Side } from '../../core/table/grid.ts';
import { CellSides } from '../sides.ts';
import { Apparatus } from './apparatus.ts';
import { writeProperties } from './containers.ts';
import { cellLayerOf, paragraphLayerOf, textLayerOf } from './layers.ts';
import { sayableLook } from './properties/fields.ts';
import { Media } from './media.ts';
import { CONTENT_TYPES, W_NAMESPACE } from './names.ts';
import { sayableLine, writeBorders, type Borders } from './properties/borders.ts';
import { CELL_ORDER, writeMargins, writeRotation, writeVertical } from './properties/cell.ts';
import { writeShading } from './properties/shading.ts';
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

const styles = (language?: string): string =>
	`${XML}<w:styles xmlns:w="${W_NAMESPACE}"><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Source Serif 4" w:hAnsi="Source Serif 4" w:cs="Source Serif 4"/><w:sz w:val="21"/>${language ? `<w:lang w:val="${escapeXml(language)}"/>` : ''}</w:rPr></w:rPrDefault><w:pPrDefault/></w:docDefaults>` +
	'<w:style w:type="paragraph" w:default="1" w:styleId="Normal"><w:name w:val="Normal"/></w:style>' +
	'<w:style w:type="paragraph" w:styleId="Title"><w:name w:val="Title"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:after="240"/></w:pPr><w:rPr><w:b/><w:sz w:val="36"/></w:rPr></w:style>' +
	HEADING_SIZES.map(
		(size, level) =>
			`<w:style w:type="paragraph" w:styleId="Heading${level + 1}"><w:name w:val="heading ${level + 1}"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:before="360" w:after="120"/><w:outlineLvl w:val="${level}"/></w:pPr><w:rPr><w:b/><w:sz w:val="${size}"/></w:rPr></w:style>`
	).join('') +
	'<w:style w:type="paragraph" w:styleId="Caption"><w:name w:val="caption"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:before="120" w:after="60"/></w:pPr></w:style>' +
	'<w:style w:type="character" w:styleId="Hyperlink"><w:name w:val="Hyperlink"/><w:rPr><w:color w:val="0B57A4"/><w:u w:val="single"/></w:rPr></w:style>' +
	'<w:style w:type="table" w:default="1" w:styleId="TableNormal"><w:name w:val="Normal Table"/><w:uiPriority w:val="99"/><w:semiHidden/><w:tblPr><w:tblInd w:w="0" w:type="dxa"/></w:tblPr></w:style>' +
	'</w:styles>';

/** A paragraph of given properties, by their names, and of runs that are markup already. */
const paragraph = (properties: ReadonlyMap<string, string>, runs = ''): string =>
	`<w:p>${writeProperties('w:pPr', PARAGRAPH_ORDER, properties)}${runs}</w:p>`;

/** What a new document holds beside its body, while it is written. */
interface Beside {
	readonly media: Media;
	readonly apparatus: Apparatus;
}

/** The runs of a paragraph in a look, with the links and notes among them. */
const runsMarkup = (runs: readonly RunView[], look: Look, { media, apparatus }: Beside, linkStyle = ''): string =>
	linkedRuns(runs)
		.map(({ link, runs: own }) => {
			const made = own.map((one) => (one.note ? apparatus.note(one.note) : run(one, look, link ? linkStyle : '')));
			return link ? media.link(link, made.join('')) : made.join('');
		})
		.join('');

/** A run in the look of what it stands in, with its own emphasis. */
function run(view: RunView, look: Look, style: string): string {
	const { text, position, link: _link, note: _note, ...own } = view;
	const markup = writeText(textLayerOf({ ...look, ...own }));
	if (style) markup.set('w:rStyle', `<w:rStyle w:val="${style}"/>`);
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

/** What a row says of itself (§17.4.81). */
const rowProperties = ({ height, isExact, staysWhole, isHidden, isHeader }: RowFacts = {}): string => {
	const said =
		(isHidden ? '<w:hidden/>' : '') +
		(staysWhole ? '<w:cantSplit/>' : '') +
		(height ? `<w:trHeight w:val="${toTwips(height)}" w:hRule="${isExact ? 'exact' : 'atLeast'}"/>` : '') +
		(isHeader ? '<w:tblHeader/>' : '');
	return said && `<w:trPr>${said}</w:trPr>`;
};

export function tableMarkup(
	document: Pick<OpenDocument, 'tables'>,
	entry: DocumentTable,
	media: Media,
	apparatus = new Apparatus()
): string {
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
			const pieces = isStart ? (content[i] ?? []) : [];
			const numbers = apparatus.numbersOf(pieces);
			const open = (at: number, runs: string, number?: string) => {
				const pPr = new Map<string, string>(layer.h ? writeAlignment(layer.h) : []);
				if (table.dir) pPr.set('w:bidi', '<w:bidi/>');
				if (number) pPr.set('w:numPr', number);
				const { lineHeight } = layer;
				const said = spacing(undefined, {
					...(lineHeight !== undefined && { lineHeight }),
					...(look.paragraphGap && at > 0 && { before: look.paragraphGap })
				});
				if (said) pPr.set('w:spacing', said);
				return paragraph(pPr, runs);
			};
			const inside = pieces
				.map((piece, at) =>
					'nested' in piece
						? tableMarkup(document, document.tables[piece.nested]!, media, apparatus)
						: 'picture' in piece
							? open(at, media.drawing(piece.picture))
							: open(at, runsMarkup(piece.runs, look, { media, apparatus }), numbers.get(piece))
				)
				.join('');
			// A cell ends with a paragraph (§17.4.65).
			const isOpen = !inside.endsWith('</w:p>');
			const markup = `<w:tc>${cellProperties(look, borders, more)}${inside}${isOpen ? open(0, '') : ''}</w:tc>`;
			const slot = entry.work?.rows[cell.r]!.cells[cell.c];
			cells += slot && !isCovered(slot) && forbids(slot.lock, 'content') ? lockedCell(markup) : markup;
			c += cell.cols;
		}
		rows += `<w:tr>${rowProperties(entry.rowFacts?.[r])}${cells}</w:tr>`;
	}
	const columns = widths.map((width) => `<w:gridCol w:w="${width}"/>`).join('');
	const whole = widths.reduce((sum, width) => sum + width, 0);
	return `<w:tbl><w:tblPr>${table.dir ? '<w:bidiVisual/>' : ''}<w:tblW w:w="${whole}" w:type="dxa"/></w:tblPr><w:tblGrid>${columns}</w:tblGrid>${rows}</w:tbl>`;
}

/** The headings, text, pictures and tables of a document, in order. */
function bodyMarkup(document: WholeDocument, beside: Beside): string {
	const { media, apparatus } = beside;
	/** Lists run from paragraph to paragraph. */
	const paragraphs = document.blocks.map((block): CellContent =>
		block.kind === 'paragraph' ? { runs: runsOf(block), ...(block.list && { list: block.list }) } : { nested: 0 }
	);
	const numbers = apparatus.numbersOf(paragraphs);
	return document.blocks
		.map((block, i) => {
			if (block.kind === 'table')
				return tableMarkup(document, document.tables[block.index]!, media, apparatus) + paragraph(new Map());
			if (block.kind === 'picture') return paragraph(new Map(), media.drawing(block.picture));
			const style = block.kind === 'heading' ? headingStyle(block.level) : block.isCaption ? 'Caption' : undefined;
			const number = numbers.get(paragraphs[i]!);
			const properties = new Map([
				...(style ? [['w:pStyle', `<w:pStyle w:val="${style}"/>`] as const] : []),
				...(number ? [['w:numPr', number] as const] : [])
			]);
			return paragraph(properties, runsMarkup(runsOf(block), {}, beside, 'Hyperlink'));
		})
		.join('');
}

const CORE = 'http://schemas.openxmlformats.org/package/2006/metadata/core-properties';
const coreProperties = (title: string): string =>
	`${XML}<cp:coreProperties xmlns:cp="${CORE}" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>${escapeXml(title)}</dc:title></cp:coreProperties>`;

/** A new DOCX (transitional) of a document's headings, text and tables, the tables as they look in their file. */
export async function makeDocx(document: WholeDocument): Promise<Uint8Array<ArrayBuffer>> {
	const media = new Media();
	const apparatus = new Apparatus();
	const body = bodyMarkup(document, { media, apparatus });
	const { title, language } = document;
	const extra = apparatus.parts;
	const page = `<w:sectPr><w:pgSz w:w="${PAGE.width}" w:h="${PAGE.height}"/><w:pgMar w:top="${PAGE.margin}" w:right="${PAGE.margin}" w:bottom="${PAGE.margin}" w:left="${PAGE.margin}" w:header="709" w:footer="709" w:gutter="0"/></w:sectPr>`;
	const type = 'application/vnd.openxmlformats-officedocument.wordprocessingml';
	const override = (part: string, kind: string) => `<Override PartName="/${part}" ContentType="${kind}"/>`;
	const relationship = (id: string, kind: string, target: string) =>
		`<Relationship Id="${id}" Type="${kind}" Target="${target}"/>`;
	const relationships = (inside: string) =>
		`${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${inside}</Relationships>`;
	return Package.empty().rewrite(
		new Map<string, EntryText>([
			[
				CONTENT_TYPES,
				`${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>${media.types.map(({ ending, type: kind }) => `<Default Extension="${ending}" ContentType="${kind}"/>`).join('')}${override('word/document.xml', `${type}.document.main+xml`)}${override('word/styles.xml', `${type}.styles+xml`)}${extra.map(({ name, kind }) => override(`word/${name}.xml`, `${type}.${kind}+xml`)).join('')}${title ? override('docProps/core.xml', 'application/vnd.openxmlformats-package.core-properties+xml') : ''}</Types>`
			],
			[
				'_rels/.rels',
				relationships(
					relationship('rId1', `${OFFICE}/officeDocument`, 'word/document.xml') +
						(title
							? relationship(
									'rId2',
									'http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties',
									'docProps/core.xml'
								)
							: '')
				)
			],
			['word/document.xml', `${XML}<w:document xmlns:w="${W_NAMESPACE}"><w:body>${body}${page}</w:body></w:document>`],
			[
				'word/_rels/document.xml.rels',
				relationships(
					relationship('rId1', `${OFFICE}/styles`, 'styles.xml') +
						extra.map(({ name, kind }, i) => relationship(`rId${i + 2}`, `${OFFICE}/${kind}`, `${name}.xml`)).join('') +
						media.relationships
				)
			],
			['word/styles.xml', styles(language)],
			...extra.map(({ name, markup }): [string, string] => [`word/${name}.xml`, markup]),
			...(title ? [['docProps/core.xml', coreProperties(title)] as const] : []),
			...media.parts
		])
	);
}
