import SVGtoPDF from 'svg-to-pdfkit';
import { InputError } from '../../core/errors.ts';
import { faceKey, faceName } from '../../core/layout/faces.ts';
import { MM } from '../../core/layout/plotted.ts';
import { marksOf } from '../../core/layout/marks.ts';
import { drawnFromLeft, fromTheLeft } from '../../core/layout/bidi.ts';
import { escapeXml } from '../../core/escape.ts';
import { emu } from '../../core/units.ts';
import { pluralWord } from '../../core/words.ts';
import { decodedText, type XmlNode } from '../package/xml.ts';
import type { Prepared } from '../job.ts';
import { tableLabel } from '../pdf/report.ts';
import { fontFiles, shippedFaces } from '../pdf/fonts.ts';
import { drawableBytes } from '../pdf/pictures.ts';
import { drawPages, pictureRemarks, type Backdrop } from '../pdf/write.ts';
import { NOT_DRAWN } from './extents.ts';
import type { SvgDocument } from './read.ts';
import { plainMarkup } from './shown.ts';
import { dressedAs, drawOn } from './write.ts';

/** PDF has no larger page than this, in points (ISO 32000-1, Annex C). */
const LARGEST_PAGE = 14_400;

const POINTS = 72 / 25.4;

/** A drawing without our tables, in markup that the library understands. */
function drawingOf({ xml, source, groups }: SvgDocument, letters: Letters): string {
	return plainMarkup(xml.root, source.text, { without: new Set(groups.map(({ node }) => node)), words: letters.words });
}

/** What a drawing defines to be used: symbols, patterns, style sheets; its start tag around them. */
function definitionsOf(document: SvgDocument, content: string, letters: Letters): string {
	const { xml, source, groups } = document;
	const without = new Set([
		...groups.map(({ node }) => node),
		...xml.root.children.filter(({ name }) => !NOT_DRAWN.has(name))
	]);
	const defined = plainMarkup(xml.root, source.text, { without, words: letters.words });
	const bare = [xml.prefixes.get('svg'), xml.prefixes.get('xlink')].reduce<string>(
		(text, prefix) => (prefix ? text.replace(new RegExp(`(</?|\\s)${prefix}:(?=[A-Za-z])`, 'g'), '$1') : text),
		content
	);
	return defined.replace(/<\/svg>$/, `${bare}</svg>`);
}

/** Begins the name of a family that stands for whatever font has a letter. */
const LETTER_OF = 'letter-';
const TEXTS: ReadonlySet<string> = new Set(['svg:text', 'svg:tspan', 'svg:textPath', 'svg:a']);
const USUAL = 'Source Sans 3';

/** Writes the text of a drawing so that each stretch of it is in a font that has its letters, from the left as it is seen. */
class Letters {
	private readonly face = shippedFaces(faceName(USUAL, 400, false));
	readonly missing = new Set<string>();

	readonly words = (source: string, of: XmlNode): string => {
		const text = TEXTS.has(of.name) ? decodedText(source) : '';
		if (!/[^\0-\u00ff\u2000-\u206f]/.test(text)) return source;
		return fromTheLeft(this.face.shown(text))
			.flatMap(({ text: stretch, isTurned }) => {
				const runs = this.face.runs(stretch);
				return isTurned ? runs.toReversed().map((run) => ({ ...run, text: drawnFromLeft(run.text) })) : runs;
			})
			.map(({ text: run, file }) => {
				for (const character of run) if (/\S/.test(character) && !this.face.has(character)) this.missing.add(character);
				const letter = [...run].find((character) => /\S/.test(character));
				return file === 0 || !letter
					? escapeXml(run)
					: `<tspan font-family="${LETTER_OF}${letter.codePointAt(0)!.toString(16)}">${escapeXml(run)}</tspan>`;
			})
			.join('');
	};

	get remarks(): string[] {
		const all = [...this.missing];
		if (!all.length) return [];
		const which = pluralWord(all.length, 'the character', 'these characters');
		return [`No font that ships has ${which}: ${all.slice(0, 12).join(' ')}${all.length > 12 ? ' …' : ''}.`];
	}
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
	const letters = new Letters();
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
		{
			behind: draw(drawingOf(document, letters)),
			...(symbols && { over: draw(definitionsOf(document, symbols, letters)) })
		}
	);
	return { bytes, remarks: [...letters.remarks, ...remarks].slice(0, 5) };
}

/** The font that stands for a family of the drawing, made known to the PDF. */
function registered(doc: PDFKit.PDFDocument, family: string, bold: boolean, italic: boolean): string {
	const asked = family.split(',')[0]!.replace(/["']/g, '').trim();
	const isLetter = asked.startsWith(LETTER_OF);
	const name = faceName(isLetter ? USUAL : asked, bold ? 700 : 400, italic);
	const letter = isLetter ? String.fromCodePoint(parseInt(asked.slice(LETTER_OF.length), 16)) : undefined;
	const file = letter === undefined ? 0 : shippedFaces(name).runs(letter)[0]!.file;
	const key = `drawing ${faceKey(name)} ${file}`;
	doc.registerFont(key, fontFiles(name)[file]!);
	return key;
}
