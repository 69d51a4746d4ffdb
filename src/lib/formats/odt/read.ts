import { InputError } from '../../core/errors.ts';
import type { Appearance } from '../../core/cascade/look.ts';
import type { Hints } from '../../core/recognise/facts.ts';
import { isTableCaption } from '../captions.ts';
import { carriedFromJson, type Carried } from '../carried.ts';
import { heldBy, ownRemarksOf, safeLink } from '../held.ts';
import { pictureAddress, pictureOf } from '../picture-size.ts';
import { countHeld } from './held.ts';
import { foundTable, shownHints, withContent } from '../found.ts';
import { emu } from '../../core/units.ts';
import type { Block, CellContent, CellPicture, RunView } from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { parseXml, type XmlDocument, type XmlNode } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import { readGrid, type OdtGrid } from './grid.ts';
import { documentAppearance, runProperties, textLook } from './looks.ts';
import { toEmu } from './properties/property.ts';
import { DATA_FIELD, DATA_FILE, NAMESPACES } from './names.ts';
import { tableIsRight } from './direction.ts';
import { OdfStyles } from './styles.ts';
import { paragraphsOf, readParagraph, textOf, type TextParagraph } from './text.ts';

const WHAT = 'an ODT document';

/** A part of the document with text and tables of its own. */
export interface OdtPart {
	readonly name: 'content.xml' | 'styles.xml';
	readonly xml: XmlDocument;
}

/** An ODT opened, with the way back from each table to its markup. A flat document is one part and no package. */
export interface OdtDocument extends OpenDocument {
	readonly kind: 'odt';
	readonly package: Package | undefined;
	/** The text of a flat document, as it was encoded. */
	readonly flat: EncodedText | undefined;
	readonly content: OdtPart;
	readonly stylesPart: OdtPart | undefined;
	readonly blockPlaces: readonly BlockPlace[];
	readonly odfStyles: OdfStyles;
	readonly sources: readonly { readonly part: OdtPart; readonly grid: OdtGrid }[];
	readonly carriedData: Carried;
}

const stripMark = (text: string) => (text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);

async function openParts(bytes: Uint8Array<ArrayBuffer>) {
	if (bytes[0] !== 0x50) {
		const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
		const flat = decodeText(bytes, /^<\?xml[^>]*encoding=["']([\w-]+)/.exec(head)?.[1]);
		const { text } = flat;
		if (!/^\s*<\?xml|<office:document\b/.test(text.slice(0, 2_000)))
			throw new InputError(
				'not-a-package',
				`This is not ${WHAT}: the file does not begin like one. Was it renamed? Open it in the program it came from and save it as ODT.`
			);
		const xml = parseXml(text, 'the document', { namespaces: NAMESPACES });
		if (xml.root.name !== 'office:document')
			throw new InputError('wrong-namespace', `This is no flat text document: its root is “${xml.root.name}”.`);
		return { package: undefined, flat, content: { name: 'content.xml', xml } as OdtPart, styles: undefined };
	}
	const archive = await Package.open(bytes, WHAT);
	const content = await archive.text('content.xml');
	if (content === undefined)
		throw new InputError(
			'no-main-part',
			`This package has no “content.xml”, so it is not ${WHAT}. Get the original file and add it again.`,
			'content.xml'
		);
	if (/<manifest:encryption-data\b/.test((await archive.text('META-INF/manifest.xml')) ?? ''))
		throw new InputError(
			'encrypted',
			`This document is protected by a password. Save it without one and add it again.`
		);
	const xml = parseXml(stripMark(content), 'content.xml', { namespaces: NAMESPACES });
	if (xml.root.name !== 'office:document-content')
		throw new InputError(
			'wrong-namespace',
			`“content.xml” is not the content of a text document (its root is “${xml.root.name}”).`,
			'content.xml'
		);
	const styles = await archive.text('styles.xml');
	return {
		package: archive,
		flat: undefined,
		content: { name: 'content.xml', xml } as OdtPart,
		styles:
			styles === undefined
				? undefined
				: ({
						name: 'styles.xml',
						xml: parseXml(stripMark(styles), 'styles.xml', { namespaces: NAMESPACES })
					} as OdtPart)
	};
}

async function readCarriedData(archive: Package | undefined, root: XmlNode): Promise<Carried> {
	const text = archive
		? archive.has(DATA_FILE)
			? await archive.text(DATA_FILE)
			: undefined
		: root
				.child('office:meta')
				?.children.find((node) => node.name === 'meta:user-defined' && node.attribute('meta:name') === DATA_FIELD)
				?.text;
	return carriedFromJson(text);
}

/** Opens an ODT, in a package or as flat XML (ODF 1.2, 1.3). Throws InputError saying what is wrong, where, and what to do. */
export async function readOdt(bytes: Uint8Array<ArrayBuffer>): Promise<OdtDocument> {
	const { package: archive, flat, content, styles: stylesPart } = await openParts(bytes);
	const body = content.xml.root.at('office:body', 'office:text');
	if (!body)
		throw new InputError(
			'wrong-namespace',
			'This is an open document, but not a text document: sheets and presentations are not taken.',
			'content.xml'
		);
	const odfStyles = new OdfStyles([...(stylesPart ? [stylesPart.xml.root] : []), content.xml.root]);
	const carried = await readCarriedData(archive, content.xml.root);
	const reader = new TextReader(odfStyles, carried);
	reader.read(content, body, 'body');
	const masters = (stylesPart ?? content).xml.root.child('office:master-styles');
	for (const page of masters?.children ?? [])
		for (const part of page.children)
			if (/^style:(header|footer)/.test(part.name))
				reader.read(stylesPart ?? content, part, part.name.startsWith('style:header') ? 'header' : 'footer');
	const isSigned = archive?.has('META-INF/documentsignatures.xml') ?? false;
	const hasMacros = archive?.names().some((name) => name.startsWith('Basic/') || name.startsWith('Scripts/')) ?? false;
	const file = { isSigned, hasMacros };
	return {
		kind: 'odt',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: carried.styles,
		remarks: [],
		ownRemarks: ownRemarksOf(file),
		held: (only) =>
			heldBy(only, file, { all: () => [body], of: (index) => reader.sources[index]!.grid.node }, (node, held) =>
				countHeld(node, odfStyles, held)
			),
		withPictures: () => tablesWithPictures(archive, reader),
		package: archive,
		flat,
		content,
		stylesPart,
		odfStyles,
		sources: reader.sources,
		carriedData: carried
	};
}

/** Walks the text of a document and collects its text and tables in order. */
class TextReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the main part; tables of other parts are put at its end. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly sources: { part: OdtPart; grid: OdtGrid }[] = [];
	private heading: string | undefined;
	private last: { text: string; isCaption: boolean } | undefined;

	constructor(
		private readonly styles: OdfStyles,
		private readonly carried: Carried
	) {}

	read(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		this.heading = undefined;
		this.last = undefined;
		this.walk(part, node, where);
	}

	private walk(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		for (const child of node.children)
			if (child.name === 'table:table') this.table(part, child, where);
			else if (child.name === 'text:p' || child.name === 'text:h') this.paragraph(part, child, where);
			else if (child.name === 'text:note') this.walk(part, child, 'notes');
			else if (child.name !== 'text:tracked-changes' && child.name !== 'office:annotation')
				this.walk(part, child, where);
	}

	private paragraph(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		const { source } = part.xml;
		const text = textOf([readParagraph(node, source)]).trim();
		if (where === 'body' && text) {
			if (node.name === 'text:h') {
				this.heading = text;
				this.blocks.push({ kind: 'heading', level: Number(node.attribute('text:outline-level') ?? 1), text });
			} else this.blocks.push({ kind: 'paragraph', text });
			this.places.push(node);
			const name = this.styles.displayName('paragraph', node.attribute('text:style-name')) ?? '';
			this.last = { text, isCaption: /^(caption|table|tabelle)$/i.test(name) || isTableCaption(text) };
		}
		// Frames and notes anchored in a paragraph may hold tables of their own.
		for (const child of node.children) this.walkFrames(part, child);
	}
	private walkFrames(part: OdtPart, node: XmlNode): void {
		if (node.name === 'draw:text-box') this.walk(part, node, 'text box');
		else if (node.name === 'text:note') this.walk(part, node, 'notes');
		else for (const child of node.children) this.walkFrames(part, child);
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold; with pictures, by the frames that hold them. */
	contentOf(
		index: number,
		appearance: Appearance,
		paragraphs: (cell: XmlNode) => readonly TextParagraph[],
		pictures?: ReadonlyMap<XmlNode, CellPicture>
	): CellContent[][] {
		const inside = (cell: number) =>
			(this.nested.get(index)?.get(cell) ?? []).map((at) => ({ start: this.sources[at]!.grid.node.start, at }));
		return contentOf(this.sources[index]!.grid, appearance, { paragraphs, styles: this.styles, inside, pictures });
	}

	private table(part: OdtPart, node: XmlNode, where: TablePlace['where'], inside?: number): void {
		const { styles } = this;
		const { source } = part.xml;
		const index = this.tables.length;
		const known = new Map<XmlNode, readonly TextParagraph[]>();
		const paragraphs = (cell: XmlNode) => {
			let found = known.get(cell);
			if (!found) known.set(cell, (found = paragraphsOf(cell, source)));
			return found;
		};
		const read = readGrid(node, `table ${index + 1}`, (cell) => textOf(paragraphs(cell)));
		if (read.grid.cells.length === 0) return;
		const nested = new Map<number, number[]>();
		this.nested.set(index, nested);
		this.sources.push({ part, grid: read });
		this.tables.push(
			foundTable({
				index,
				place: {
					where: inside === undefined ? where : 'nested',
					part: part.name,
					...(this.heading && { heading: this.heading }),
					...(this.last?.isCaption && { caption: this.last.text }),
					...(inside !== undefined && { inside })
				},
				grid: read.grid,
				...(tableIsRight(styles.properties('table', node.attribute('table:style-name'))) && { dir: 'rtl' as const }),
				widths: widthsOf(read, styles),
				wornName: node.attribute('table:template-name') ?? null,
				locked: read.cells.flatMap((cell, i) => (cell?.attribute('table:protected') === 'true' ? [i] : [])),
				carried: this.carried,
				hints: (appearance) => hintsOf(read, appearance),
				appearance: () => documentAppearance(read, paragraphs, styles),
				content: (appearance) => this.contentOf(index, appearance, paragraphs)
			})
		);
		if (inside === undefined) {
			this.blocks.push({ kind: 'table', index });
			this.places.push(where === 'body' ? node : (this.places.at(-1) ?? { start: 0, end: 0 }));
		}
		this.last = undefined;
		read.cells.forEach((cell, i) => {
			const inner = cell ? [...tablesIn(cell)] : [];
			for (const one of inner) {
				nested.set(i, [...(nested.get(i) ?? []), this.tables.length]);
				this.table(part, one, where, index);
			}
		});
	}
}

function* tablesIn(node: XmlNode): Generator<XmlNode> {
	for (const child of node.children)
		if (child.name === 'table:table') yield child;
		else yield* tablesIn(child);
}

function widthsOf({ grid, columns }: OdtGrid, styles: OdfStyles) {
	const widths = columns
		.slice(0, grid.columns)
		.map((name) => toEmu(styles.properties('table-column', name).get('style:column-width')));
	return widths.length === grid.columns && widths.every((width) => width !== undefined && width > 0)
		? widths.map((width) => width!)
		: [];
}

function hintsOf({ grid, rows }: OdtGrid, appearance: () => Appearance): Hints {
	return {
		header: rows.map(({ isHeader }, r) => isHeader && rows.slice(0, r).every((row) => row.isHeader)),
		...shownHints(grid, (cell) => appearance().looks[appearance().cellLook[cell]!]!)
	};
}

/** Frames that stand in an element, those inside tables in it left out. */
const framesIn = (node: XmlNode): XmlNode[] =>
	node.children.flatMap((child) =>
		child.name === 'draw:frame' ? [child] : child.name === 'table:table' ? [] : framesIn(child)
	);

/** The tables with the pictures in their cells (ODF 1.3 Part 3 §10.4.4), PNG and JPEG. */
async function tablesWithPictures(archive: Package | undefined, reader: TextReader): Promise<DocumentTable[]> {
	const pictures = new Map<XmlNode, CellPicture>();
	for (const { grid } of reader.sources)
		for (const cell of grid.cells)
			for (const frame of cell ? framesIn(cell) : []) {
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
	return reader.tables.map((entry, index) => {
		const { source } = reader.sources[index]!.part.xml;
		const paragraphs = (cell: XmlNode) => paragraphsOf(cell, source);
		return withContent(entry, () => reader.contentOf(index, entry.appearance, paragraphs, pictures));
	});
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function contentOf(
	{ cells, cellStyles }: OdtGrid,
	appearance: Appearance,
	{
		paragraphs,
		styles,
		inside,
		pictures
	}: {
		readonly paragraphs: (cell: XmlNode) => readonly TextParagraph[];
		readonly styles: OdfStyles;
		/** The tables in a cell, by where they begin. */
		readonly inside: (cell: number) => readonly { readonly start: number; readonly at: number }[];
		readonly pictures: ReadonlyMap<XmlNode, CellPicture> | undefined;
	}
): CellContent[][] {
	return cells.map((cell, i) => {
		if (!cell) return [];
		const look = appearance.looks[appearance.cellLook[i]!]!;
		const content = paragraphs(cell).map((one) => {
			const runs = one.runs.map((run): RunView => {
				const link = safeLink(run.link?.attribute('xlink:href'));
				const properties = runProperties(one, run, styles, cellStyles[i]);
				const own = textLook(properties, styles, look.size);
				const position = properties.get('style:text-position') ?? '';
				return {
					text: run.text,
					...(own.weight !== look.weight && own.weight !== undefined && { weight: own.weight }),
					...(own.italic !== look.italic && own.italic !== undefined && { italic: own.italic }),
					...(own.underline !== look.underline && own.underline && { underline: own.underline }),
					...(own.ink !== look.ink && own.ink && { ink: own.ink }),
					...(/^(super|[1-9])/.test(position) && { position: 'super' as const }),
					...(/^(sub|-)/.test(position) && { position: 'sub' as const }),
					...(link && { link })
				};
			});
			const drawn = pictures ? framesIn(one.node).flatMap((frame) => pictures.get(frame) ?? []) : [];
			const pieces: CellContent[] = drawn.map((picture) => ({ picture }));
			return { start: one.node.start, pieces: runs.length || !drawn.length ? [{ runs }, ...pieces] : pieces };
		});
		const tables = inside(i).map(({ start, at }) => ({ start, pieces: [{ nested: at }] as CellContent[] }));
		return [...content, ...tables].sort((a, b) => a.start - b.start).flatMap(({ pieces }) => pieces);
	});
}
