import SVGtoPDF from 'svg-to-pdfkit';
import { InputError } from '../../core/errors.ts';
import { faceKey, faceName } from '../../core/layout/faces.ts';
import { MM } from '../../core/layout/plotted.ts';
import { marksOf } from '../../core/layout/marks.ts';
import { emu } from '../../core/units.ts';
import type { Prepared } from '../job.ts';
import { tableLabel } from '../pdf/report.ts';
import { fontFiles } from '../pdf/fonts.ts';
import { drawableBytes } from '../pdf/pictures.ts';
import { drawPages, pictureRemarks, type Backdrop } from '../pdf/write.ts';
import { NOT_DRAWN } from './extents.ts';
import type { SvgDocument } from './read.ts';
import { shownText } from './shown.ts';
import { dressedAs, drawOn } from './write.ts';

/** PDF has no larger page than this, in points (ISO 32000-1, Annex C). */
const LARGEST_PAGE = 14_400;

const POINTS = 72 / 25.4;

/** What a drawing defines to be used: symbols, patterns, style sheets; its start tag around them. */
function definitionsOf({ xml, source }: SvgDocument, content: string): string {
	const { root } = xml;
	const tag = source.text.slice(root.start, root.openEnd).replace(/\/>$/, '>');
	const name = /^<([^\s/>]+)/.exec(tag)![1]!;
	const kept = root.children
		.filter(({ name: own }) => NOT_DRAWN.has(own) && !/script|foreignObject|metadata/.test(own))
		.map(({ start, end }) => source.text.slice(start, end));
	return `${tag}${kept.join('')}${content}</${name}>`;
}

/** A drawing as a PDF page at true size: the drawing as it is, its tables tagged and in embedded fonts. */
export async function writeSheetPdf(
	document: SvgDocument,
	prepared: readonly Prepared[],
	title: string
): Promise<{ bytes: Uint8Array<ArrayBuffer>; remarks: string[] }> {
	const { width, height } = document.sheet;
	const size = { width: width * POINTS, height: height * POINTS };
	if (size.width > LARGEST_PAGE || size.height > LARGEST_PAGE)
		throw new InputError(
			'too-large',
			`A PDF page is ${Math.floor(LARGEST_PAGE / POINTS)} mm long at most; this sheet is ${Math.round(width)} × ${Math.round(height)} mm.`
		);
	const wearing = new Map(prepared.map((one) => [one.job.index, one]));
	const remarks = new Set<string>();
	const drawn = document.placed.map((placed, index) => {
		const entry = document.tables[index]!;
		return { index, label: tableLabel(entry), table: drawOn(document, placed, dressedAs(entry, wearing.get(index))) };
	});
	const pieces = drawn.map(({ index, table: { laid, x, y } }) => ({
		kind: 'table' as const,
		table: index,
		y: y * MM,
		marks: marksOf(laid, [0, laid.tops.at(-1)!], x * MM, y * MM)
	}));
	const symbols = drawn.map(({ table }) => table.symbols).join('');
	const draw =
		(svg: string): Backdrop =>
		(doc) => {
			SVGtoPDF(doc, svg, 0, 0, {
				width: size.width,
				height: size.height,
				preserveAspectRatio: 'xMidYMid meet',
				fontCallback: (family, bold, italic) => registered(doc, family, bold, italic),
				imageCallback: (link) => (/^data:image\/(png|jpeg);base64,/i.test(link) && drawableBytes(link) ? link : ''),
				warningCallback: (words) => remarks.add(`In the PDF: ${words}`)
			});
		};
	const page = { width: emu(width * MM), height: emu(height * MM), pieces };
	for (const words of pictureRemarks([page])) remarks.add(words);
	const bytes = await drawPages(
		[page],
		{ title, tables: new Map(drawn.map(({ index, label }) => [index, { label }])) },
		{ behind: draw(shownText(document)), ...(symbols && { over: draw(definitionsOf(document, symbols)) }) }
	);
	return { bytes, remarks: [...remarks].slice(0, 5) };
}

/** The font that stands for a family of the drawing, made known to the PDF. */
function registered(doc: PDFKit.PDFDocument, family: string, bold: boolean, italic: boolean): string {
	const name = faceName(family.split(',')[0]!.replace(/["']/g, '').trim(), bold ? 700 : 400, italic);
	const key = `drawing ${faceKey(name)}`;
	doc.registerFont(key, fontFiles(name)[0]!);
	return key;
}
