import { rowFacts } from './held.ts';
import { emu } from '../../core/units.ts';
import type { CellPicture } from '../../core/table/content.ts';
import type { WholeDocument } from '../document.ts';
import { pictureAddress, pictureOf } from '../picture-size.ts';
import { languageTag, wholeBlocks, wholeTable } from '../whole.ts';
import { parseXml, type XmlNode } from '../package/xml.ts';
import type { Package } from '../package/zip.ts';
import type { OdtGrid } from './grid.ts';
import { listItems } from './lists.ts';
import { runProperties, textLook } from './looks.ts';
import { NAMESPACES } from './names.ts';
import { toEmu } from './properties/property.ts';
import type { OdfStyles } from './styles.ts';
import { paragraphsOf, readParagraph } from './text.ts';
import { picturesIn, runView, type Beside } from './beside.ts';
import type { OdtPart, TextReader } from './story.ts';

/** Pictures by the frames that hold them (ODF 1.3 Part 3 §10.4.4), PNG and JPEG. */
async function picturesOf(archive: Package | undefined, roots: readonly XmlNode[]): Promise<Map<XmlNode, CellPicture>> {
	const pictures = new Map<XmlNode, CellPicture>();
	const frames = (node: XmlNode): XmlNode[] =>
		node.children.flatMap((child) => (child.name === 'draw:frame' ? [child, ...frames(child)] : frames(child)));
	for (const frame of roots.flatMap(frames)) {
		const image = frame.child('draw:image');
		const href = image?.attribute('xlink:href')?.replace(/^\.\//, '');
		const inside = image?.child('office:binary-data')?.text.replace(/\s+/g, '');
		const bytes = inside
			? Uint8Array.from(atob(inside), (letter) => letter.charCodeAt(0))
			: href
				? await archive?.bytes(href)
				: undefined;
		const known = bytes && pictureOf(bytes);
		if (!known) continue;
		const length = (name: string, pixels: number) => toEmu(frame.attribute(name)) ?? emu(pixels * 9_525);
		pictures.set(frame, {
			source: pictureAddress(bytes, known.type),
			alternative: frame.child('svg:title')?.text ?? frame.child('svg:desc')?.text ?? '',
			width: length('svg:width', known.width),
			height: length('svg:height', known.height),
			fits: 'row'
		});
	}
	return pictures;
}

/** What of an opened document is asked for. */
interface WholeSource {
	readonly package: Package | undefined;
	readonly content: OdtPart;
	readonly stylesPart: OdtPart | undefined;
	readonly odfStyles: OdfStyles;
	readonly sources: readonly { readonly part: OdtPart; readonly grid: OdtGrid }[];
}

/** All of a document that a new file can hold. */
export async function wholeOdt(source: WholeSource, reader: TextReader, body: XmlNode): Promise<WholeDocument> {
	const { package: archive, content, stylesPart, odfStyles: styles, sources } = source;
	const roots = [content.xml.root, ...(stylesPart ? [stylesPart.xml.root] : [])];
	const beside: Beside = { pictures: await picturesOf(archive, roots), lists: listItems(body, styles) };
	const text = content.xml.source;
	return {
		blocks: wholeBlocks(reader.blocks, reader.paragraphs, reader.wordless, (node) => {
			const style = node.attribute('text:style-name');
			const look = textLook(styles.properties('paragraph', style), styles);
			const paragraph = readParagraph(node, text, true);
			return {
				runs: paragraph.runs.map((run) => {
					const properties = runProperties(paragraph, run, styles, undefined);
					const view = runView(run, { properties, styles, look, source: text });
					// A link looks like one wherever it comes to.
					return view.link ? { text: view.text, link: view.link } : view;
				}),
				list: beside.lists.get(node),
				isCaption: /^(caption|table|tabelle)$/i.test(styles.displayName('paragraph', style) ?? ''),
				pictures: picturesIn(node, beside)
			};
		}),
		tables: reader.tables.map((entry, index) => {
			const { part, grid } = sources[index]!;
			const paragraphs = (cell: XmlNode) => paragraphsOf(cell, part.xml.source, true);
			const inCells = () => reader.contentOf(index, entry.appearance, paragraphs, beside);
			return wholeTable(
				entry,
				inCells,
				grid.rows.map(({ node, isHeader }) => ({ ...rowFacts(node, styles), ...(isHeader && { isHeader: true }) }))
			);
		}),
		title: await titleOf(source),
		language: languageOf(styles)
	};
}

async function titleOf({ package: archive, content }: WholeSource): Promise<string | undefined> {
	const text = await archive?.text('meta.xml');
	const root = archive ? text && parseXml(text, 'meta.xml', { namespaces: NAMESPACES }).root : content.xml.root;
	const meta = root ? root.child('office:meta') : undefined;
	return meta?.children.find(({ name }) => name === 'dc:title' || name.endsWith('}title'))?.text.trim() || undefined;
}

/** The language of the text that nobody gives another. */
function languageOf(styles: OdfStyles): string | undefined {
	const usual = styles.properties('paragraph', undefined);
	const [language, country] = [usual.get('fo:language'), usual.get('fo:country')];
	return languageTag(language && country && country !== 'none' ? `${language}-${country}` : language);
}
