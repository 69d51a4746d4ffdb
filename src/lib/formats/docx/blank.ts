import type { Grid } from '../../core/table/grid.ts';
import { escapeXml } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import { CONTENT_TYPES, W_NAMESPACE } from './names.ts';

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
/** A4 with margins of 25 mm, in twentieths of a point. */
const PAGE = { width: 11_906, height: 16_838, margin: 1_417 };

const STYLES =
	`${XML}<w:styles xmlns:w="${W_NAMESPACE}"><w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Source Serif 4" w:hAnsi="Source Serif 4" w:cs="Source Serif 4"/><w:sz w:val="21"/></w:rPr></w:rPrDefault><w:pPrDefault/></w:docDefaults>` +
	'<w:style w:type="paragraph" w:default="1" w:styleId="Normal"><w:name w:val="Normal"/></w:style>' +
	'<w:style w:type="paragraph" w:styleId="Heading1"><w:name w:val="heading 1"/><w:basedOn w:val="Normal"/><w:pPr><w:keepNext/><w:spacing w:before="360" w:after="120"/><w:outlineLvl w:val="0"/></w:pPr><w:rPr><w:b/><w:sz w:val="28"/></w:rPr></w:style>' +
	'<w:style w:type="table" w:default="1" w:styleId="TableNormal"><w:name w:val="Normal Table"/><w:uiPriority w:val="99"/><w:semiHidden/><w:tblPr><w:tblInd w:w="0" w:type="dxa"/></w:tblPr></w:style>' +
	'</w:styles>';

const paragraph = (text: string, style?: string) =>
	`<w:p>${style ? `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>` : ''}${text ? `<w:r><w:t xml:space="preserve">${escapeXml(text)}</w:t></w:r>` : ''}</w:p>`;

function table(grid: Grid): string {
	const width = Math.floor((PAGE.width - 2 * PAGE.margin) / grid.columns);
	let rows = '';
	for (let r = 0; r < grid.rows; r++) {
		let cells = '';
		for (let c = 0; c < grid.columns;) {
			const cell = grid.cells[grid.slots[r * grid.columns + c]!]!;
			const merge = cell.rows > 1 ? `<w:vMerge${cell.r === r ? ' w:val="restart"' : ''}/>` : '';
			const span = cell.cols > 1 ? `<w:gridSpan w:val="${cell.cols}"/>` : '';
			cells += `<w:tc><w:tcPr><w:tcW w:w="${width * cell.cols}" w:type="dxa"/>${span}${merge}</w:tcPr>${paragraph(cell.r === r ? cell.text : '')}</w:tc>`;
			c += cell.cols;
		}
		rows += `<w:tr>${cells}</w:tr>`;
	}
	const columns = `<w:gridCol w:w="${width}"/>`.repeat(grid.columns);
	return `<w:tbl><w:tblPr><w:tblW w:w="${width * grid.columns}" w:type="dxa"/></w:tblPr><w:tblGrid>${columns}</w:tblGrid>${rows}</w:tbl>`;
}

/** A new DOCX (transitional): for each section a heading, a line of text and a table that nothing is said of yet. */
export async function blankDocx(
	sections: readonly { readonly heading: string; readonly text: string; readonly grid: Grid }[]
): Promise<Uint8Array<ArrayBuffer>> {
	const body = sections
		.map(({ heading, text, grid }) => paragraph(heading, 'Heading1') + paragraph(text) + table(grid) + paragraph(''))
		.join('');
	const page = `<w:sectPr><w:pgSz w:w="${PAGE.width}" w:h="${PAGE.height}"/><w:pgMar w:top="${PAGE.margin}" w:right="${PAGE.margin}" w:bottom="${PAGE.margin}" w:left="${PAGE.margin}" w:header="709" w:footer="709" w:gutter="0"/></w:sectPr>`;
	const type = 'application/vnd.openxmlformats-officedocument.wordprocessingml';
	return Package.empty().rewrite(
		new Map([
			[
				CONTENT_TYPES,
				`${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="${type}.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="${type}.styles+xml"/></Types>`
			],
			[
				'_rels/.rels',
				`${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${OFFICE}/officeDocument" Target="word/document.xml"/></Relationships>`
			],
			['word/document.xml', `${XML}<w:document xmlns:w="${W_NAMESPACE}"><w:body>${body}${page}</w:body></w:document>`],
			[
				'word/_rels/document.xml.rels',
				`${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${OFFICE}/styles" Target="styles.xml"/></Relationships>`
			],
			['word/styles.xml', STYLES]
		])
	);
}
