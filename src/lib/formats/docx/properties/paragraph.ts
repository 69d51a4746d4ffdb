import type { Look } from '../../../core/cascade/look.ts';
import type { Hex } from '../../../core/colour.ts';
import { fromTwips, toTwips, type Emu } from '../../../core/units.ts';
import type { XmlNode } from '../../package/xml.ts';
import type { Theme } from '../theme.ts';
import { readShading } from './shading.ts';
import { readOnOff } from './text.ts';

/** Paragraph properties (w:pPr, §17.3.1) as far as a look has them. */
export interface ParagraphLayer {
	h?: Look['h'];
	lineHeight?: number;
	/** Space above and below it. */
	before?: Emu;
	after?: Emu;
	/** The shading behind it (§17.3.1.31). */
	behind?: Hex | 'none';
	/** It runs from right to left: it starts at the right. */
	isRight?: boolean;
}

/** The space between two paragraphs: the larger of what the two say (§17.3.1.33). */
export const gapBetween = (first: ParagraphLayer, second: ParagraphLayer): Emu =>
	Math.max(first.after ?? 0, second.before ?? 0) as Emu;

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

export function readParagraph(pPr: XmlNode | undefined, theme: Theme): ParagraphLayer {
	const layer: ParagraphLayer = {};
	const jc = pPr?.child('w:jc')?.attribute('w:val');
	if (jc && FROM_JC[jc]) layer.h = FROM_JC[jc];
	if (pPr?.child('w:tabs')?.children.some((tab) => tab.attribute('w:val') === 'decimal'))
		if (layer.h === undefined || layer.h === 'start') layer.h = 'decimal';
	const behind = readShading(pPr?.child('w:shd'), theme);
	if (behind) layer.behind = behind;
	const isRight = readOnOff(pPr?.child('w:bidi'));
	if (isRight !== undefined) layer.isRight = isRight;
	const spacing = pPr?.child('w:spacing');
	const line = spacing?.attribute('w:line');
	if (line && (spacing!.attribute('w:lineRule') ?? 'auto') === 'auto' && Number(line) > 0)
		layer.lineHeight = Number(line) / 240;
	const [before, after] = [spacing?.attribute('w:before'), spacing?.attribute('w:after')];
	if (before !== undefined && Number.isFinite(Number(before))) layer.before = fromTwips(Number(before));
	if (after !== undefined && Number.isFinite(Number(after))) layer.after = fromTwips(Number(after));
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

/** w:spacing (§17.3.1.33) with a line factor and spaces of its own; whatever else it says stays, but for an older line factor. */
export function spacing(
	existing: XmlNode | undefined,
	{ lineHeight, before, after }: Pick<ParagraphLayer, 'lineHeight' | 'before' | 'after'>
): string {
	const said: Record<string, string> = {
		...Object.fromEntries(
			Object.entries(existing?.attributes ?? {}).filter(([name]) => name !== 'w:line' && name !== 'w:lineRule')
		)
	};
	const space = (name: 'before' | 'after', length: Emu | undefined) => {
		if (length === undefined) return;
		// Spaces in lines, and those that a program works out, are stronger.
		for (const other of ['Lines', 'Autospacing']) delete said[`w:${name}${other}`];
		said[`w:${name}`] = String(toTwips(length));
	};
	space('before', before);
	space('after', after);
	if (lineHeight !== undefined)
		Object.assign(said, { 'w:line': String(Math.round(lineHeight * 240)), 'w:lineRule': 'auto' });
	const attributes = Object.entries(said)
		.map(([name, value]) => ` ${name}="${value}"`)
		.join('');
	return attributes && `<w:spacing${attributes}/>`;
}

/** Markup for the alignment across. `decimalAt`: where the decimal tab stands, in twips from the start of the cell's text. */
export function writeAlignment(h: NonNullable<Look['h']>, decimalAt = 0): Map<string, string> {
	const out = new Map([['w:jc', `<w:jc w:val="${TO_JC[h]}"/>`]]);
	if (h === 'decimal') out.set('w:tabs', `<w:tabs><w:tab w:val="decimal" w:pos="${decimalAt}"/></w:tabs>`);
	return out;
}
