import type { PartSettings } from '../../../src/lib/core/style/types.ts';
import type { Cell, Table, Touch } from '../../../src/lib/core/table/grid.ts';
import { zipOf } from './zip.ts';

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

export interface Parts {
	/** What stands in w:body. */
	body: string;
	/** What stands in w:styles. */
	styles?: string;
	theme?: string;
	extra?: Record<string, string>;
	/** Relationships of the main part besides styles and theme. */
	relationships?: string;
}

/** The smallest package that is a DOCX, around this markup. */
export function docx({ body, styles, theme, extra = {}, relationships = '' }: Parts): Promise<Uint8Array<ArrayBuffer>> {
	return zipOf({
		'[Content_Types].xml': `<?xml version="1.0" encoding="UTF-8"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>`,
		'_rels/.rels': `<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="${OFFICE}/officeDocument" Target="word/document.xml"/></Relationships>`,
		'word/document.xml': `<?xml version="1.0" encoding="UTF-8"?>\n<w:document ${W}><w:body>${body}<w:sectPr/></w:body></w:document>`,
		'word/_rels/document.xml.rels': `<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${styles === undefined ? '' : `<Relationship Id="s" Type="${OFFICE}/styles" Target="styles.xml"/>`}${theme === undefined ? '' : `<Relationship Id="t" Type="${OFFICE}/theme" Target="theme/theme1.xml"/>`}${relationships}</Relationships>`,
		...(styles !== undefined && { 'word/styles.xml': `<?xml version="1.0"?><w:styles ${W}>${styles}</w:styles>` }),
		...(theme !== undefined && { 'word/theme/theme1.xml': theme }),
		...extra
	});
}

export const p = (text: string, { pPr = '', rPr = '' } = {}): string =>
	`<w:p>${pPr && `<w:pPr>${pPr}</w:pPr>`}<w:r>${rPr && `<w:rPr>${rPr}</w:rPr>`}<w:t>${text}</w:t></w:r></w:p>`;
export const tc = (content: string, tcPr = ''): string =>
	`<w:tc>${tcPr && `<w:tcPr>${tcPr}</w:tcPr>`}${content.startsWith('<') ? content : p(content)}</w:tc>`;
export const tr = (...cells: string[]): string =>
	`<w:tr>${cells.map((cell) => (cell.startsWith('<w:tc>') ? cell : tc(cell))).join('')}</w:tr>`;
export const tbl = (rows: string[], tblPr = '', columns = 2): string =>
	`<w:tbl><w:tblPr>${tblPr}</w:tblPr><w:tblGrid>${'<w:gridCol w:w="2000"/>'.repeat(columns)}</w:tblGrid>${rows.join('')}</w:tbl>`;
export const LEDGER = [tr('Item', 'Cost'), tr('Seed', '12.00'), tr('Glass', '30.50'), tr('Total', '42.50')];

/** What a cell or its edges can be touched with, one of each sort. */
export const TOUCHES: readonly PartSettings[] = [
	{ fill: { ink: '#FFEEAA' } },
	{ text: { weight: 700, ink: '#AA0000' } },
	{ text: { italic: true, size: '13pt' } },
	{ align: { h: 'middle', v: 'bottom' } },
	{ margin: { top: '3pt', start: '6pt' } },
	{ rotate: 90 },
	{ lines: { bottom: { pattern: 'solid', weight: '1.5pt', ink: '#0000FF' } } },
	{ lines: { end: { pattern: 'none' } } }
];

/** Touches a cell. At the rim a touched line is that of its whole side, since nobody else can say a part of it. */
export function touchesOf({ rows, columns }: Table, cell: Cell, set: PartSettings): Touch[] {
	const { r, c } = cell;
	if (set.lines?.bottom && r + cell.rows === rows)
		return Array.from({ length: cell.cols }, (_, k) => ({ r: rows - 1, c: c + k, set }));
	if (set.lines?.end && c + cell.cols === columns)
		return Array.from({ length: cell.rows }, (_, k) => ({ r: r + k, c: columns - 1, set }));
	return [{ r, c, set }];
}
