import type { Look } from '../../../core/cascade/look.ts';
import type { XmlNode } from '../../package/xml.ts';

/** Paragraph properties (w:pPr, §17.3.1) as far as a look has them. */
export interface ParagraphLayer {
	h?: Look['h'];
	lineHeight?: number;
}

const FROM_JC: Record<string, Look['h']> = {
	left: 'start',
	start: 'start',
	right: 'end',
	end: 'end',
	center: 'middle',
	both: 'justify',
	distribute: 'justify'
};
const TO_JC: Record<string, string> = {
	start: 'left',
	end: 'right',
	middle: 'center',
	justify: 'both',
	decimal: 'left'
};

export function readParagraph(pPr: XmlNode | undefined): ParagraphLayer {
	const layer: ParagraphLayer = {};
	const jc = pPr?.child('w:jc')?.attribute('w:val');
	if (jc && FROM_JC[jc]) layer.h = FROM_JC[jc];
	if (
		pPr
			?.child('w:tabs')
			?.children.some((tab) => tab.attribute('w:val') === 'decimal' || tab.attribute('w:val') === 'num')
	)
		if (layer.h === undefined || layer.h === 'start') layer.h = 'decimal';
	const spacing = pPr?.child('w:spacing');
	const line = spacing?.attribute('w:line');
	if (line && (spacing!.attribute('w:lineRule') ?? 'auto') === 'auto' && Number(line) > 0)
		layer.lineHeight = Number(line) / 240;
	return layer;
}

/** Order of the children of w:pPr (CT_PPr). */
export const PARAGRAPH_ORDER = (
	'pStyle keepNext keepLines pageBreakBefore framePr widowControl numPr suppressLineNumbers pBdr shd tabs suppressAutoHyphens kinsoku ' +
	'wordWrap overflowPunct topLinePunct autoSpaceDE autoSpaceDN bidi adjustRightInd snapToGrid spacing ind contextualSpacing mirrorIndents ' +
	'suppressOverlap jc textDirection textAlignment textboxTightWrap outlineLvl divId cnfStyle rPr sectPr pPrChange'
)
	.split(' ')
	.map((name) => `w:${name}`);

/** The line factor as it stands beside whatever else w:spacing says (before, after). */
export function lineSpacing(existing: XmlNode | undefined, factor: number | undefined): string {
	const kept = Object.entries(existing?.attributes ?? {}).filter(
		([name]) => name !== 'w:line' && name !== 'w:lineRule'
	);
	const attributes = kept.map(([name, value]) => ` ${name}="${value}"`).join('');
	const line = factor === undefined ? '' : ` w:line="${Math.round(factor * 240)}" w:lineRule="auto"`;
	return attributes || line ? `<w:spacing${attributes}${line}/>` : '';
}

/** Markup for the alignment across. `decimalAt`: where the decimal tab stands, in twips from the start of the cell's text. */
export function writeAlignment(h: NonNullable<Look['h']>, decimalAt = 0): Map<string, string> {
	const out = new Map([['w:jc', `<w:jc w:val="${TO_JC[h]}"/>`]]);
	if (h === 'decimal') out.set('w:tabs', `<w:tabs><w:tab w:val="decimal" w:pos="${decimalAt}"/></w:tabs>`);
	return out;
}
