import { InputError } from '../../core/errors.ts';
import type { Appearance } from '../../core/cascade/look.ts';
import type { Hints } from '../../core/recognise/facts.ts';

import { emu } from '../../core/units.ts';
import type { Block, CellContent, CellPicture, RunView } from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { descendants, parseXml, type XmlDocument, type XmlNode } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import type { Carried } from '../carried.ts';
import { heldBy, ownRemarksOf, safeLink } from '../held.ts';
import { pictureAddress, pictureOf } from '../picture-size.ts';
import { countHeld } from './held.ts';
import { foundTable, shownHints, withContent } from '../found.ts';
import { isTableCaption } from '../captions.ts';
import { readCarried } from './carried.ts';
import { isRightToLeft, PropertyReader, readTableProperties, resolverOf } from './looks.ts';
import { cellLooks, fileAppearance } from './appearance.ts';
import { readCellText } from './cell-text.ts';
import { NAMESPACES, relationshipKind, relationshipsOf, resolveTarget } from './names.ts';
import { StyleSheet } from './styles.ts';
import { paragraphText, readGrid, type SourceGrid } from './tables.ts';
import { NO_THEME, readTheme } from './theme.ts';

const WHAT = 'a DOCX document';

export interface Relationship {
	readonly id: string;
	readonly kind: string;
	readonly target: string;
}

/** A part that can hold tables. */
export interface StoryPart {
	readonly name: string;
	readonly kind: TablePlace['where'];
	readonly xml: XmlDocument;
	/** Addresses of links, by the ids of their relationships. */
	readonly links: ReadonlyMap<string, string>;
}

/** A table with the way back to its markup. */
export interface SourceTable {
	readonly story: StoryPart;
	readonly source: SourceGrid;
	readonly reader: PropertyReader;
}

/** A DOCX opened, with the way back from each table to its markup. */
export interface DocxDocument extends OpenDocument {
	readonly kind: 'docx';
	readonly package: Package;
	readonly main: string;
	readonly strict: boolean;
	readonly relationships: readonly Relationship[];
	readonly stories: readonly StoryPart[];
	readonly sheet: StyleSheet;
	readonly stylesPart: { readonly name: string; readonly xml: XmlDocument } | undefined;
	readonly sources: readonly SourceTable[];
	readonly blockPlaces: readonly BlockPlace[];
	readonly carriedPart: string | undefined;
	readonly carriedData: Carried;
}

/** Elements that hold properties; text and tables stand outside them. */
const PROPERTIES: ReadonlySet<string> = new Set(['w:tblPr', 'w:tblPrEx', 'w:trPr', 'w:tcPr', 'w:pPr', 'w:rPr']);

async function readPart(archive: Package, name: string): Promise<XmlDocument | undefined> {
	const text = await archive.text(name);
	if (text === undefined) return undefined;
	return parseXml(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text, name, {
		namespaces: NAMESPACES,
		properties: PROPERTIES
	});
}

const relationshipNodes = async (archive: Package, part: string): Promise<XmlNode[]> =>
	((await readPart(archive, part === '' ? '_rels/.rels' : relationshipsOf(part)))?.root.children ?? []).filter(
		({ name }) => name === 'rel:Relationship'
	);
const isExternal = (node: XmlNode) => node.attribute('TargetMode') === 'External';

/** The addresses that a part's links lead to, by the ids of their relationships. */
async function readLinks(archive: Package, part: string): Promise<ReadonlyMap<string, string>> {
	const links = (await relationshipNodes(archive, part)).filter(isExternal);
	return new Map(links.map((node) => [node.attribute('Id') ?? '', node.attribute('Target') ?? '']));
}

export async function readRelationships(archive: Package, part: string): Promise<Relationship[]> {
	return (await relationshipNodes(archive, part))
		.filter((node) => !isExternal(node))
		.map((node) => ({
			id: node.attribute('Id') ?? '',
			kind: relationshipKind(node.attribute('Type') ?? ''),
			target: resolveTarget(part, node.attribute('Target') ?? '')
		}));
}

/** Opens a DOCX (ECMA-376, transitional or strict). Throws InputError saying what is wrong, where, and what to do. */
export async function readDocx(bytes: Uint8Array<ArrayBuffer>): Promise<DocxDocument> {
	const archive = await Package.open(bytes, WHAT);
	const root = await readRelationships(archive, '');
	const main = root.find(({ kind }) => kind === 'officeDocument')?.target;
	if (!main || !archive.has(main))
		throw new InputError(
			'no-main-part',
			`This package has no main document part${main ? ` (“${main}” is missing)` : ''}, so it is not ${WHAT}. Get the original file, or open it elsewhere and save it as DOCX.`,
			main ?? '_rels/.rels'
		);
	const mainXml = (await readPart(archive, main))!;
	if (mainXml.root.name !== 'w:document')
		throw new InputError(
			'wrong-namespace',
			`“${main}” is not a word-processed document (its root is “${mainXml.root.name}”), so this is not ${WHAT}.`,
			main
		);
	const relationships = await readRelationships(archive, main);
	const target = (kind: string) => relationships.find((relationship) => relationship.kind === kind)?.target;
	const themePart = target('theme');
	const theme = themePart ? await readPart(archive, themePart) : undefined;
	const stylesName = target('styles');
	const stylesXml = stylesName ? await readPart(archive, stylesName) : undefined;
	const sheet = new StyleSheet(stylesXml?.root, theme ? readTheme(theme.root) : NO_THEME);

	const stories: StoryPart[] = [{ name: main, kind: 'body', xml: mainXml, links: await readLinks(archive, main) }];
	const storyKinds: Record<string, TablePlace['where']> = {
		header: 'header',
		footer: 'footer',
		footnotes: 'notes',
		endnotes: 'notes'
	};
	for (const { kind, target: name } of relationships) {
		const where = storyKinds[kind];
		if (!where || stories.some((story) => story.name === name)) continue;
		const xml = await readPart(archive, name);
		if (xml) stories.push({ name, kind: where, xml, links: await readLinks(archive, name) });
	}

	let carriedPart: string | undefined;
	let carriedData: Carried = { styles: [], tables: [] };
	for (const { kind, target: name } of relationships) {
		if (kind !== 'customXml') continue;
		const text = await archive.text(name);
		if (!text?.includes('urn:heptarch:document:1')) continue;
		carriedPart = name;
		carriedData = readCarried(parseXml(text, name, { namespaces: NAMESPACES }).root);
	}

	const reader = new StoryReader(sheet, carriedData);
	for (const story of stories) reader.read(story);
	const isSigned =
		root.some(({ kind }) => kind === 'origin') || archive.names().some((name) => name.startsWith('_xmlsignatures/'));
	const hasMacros = archive.names().some((name) => name.endsWith('vbaProject.bin'));
	const file = { isSigned, hasMacros };
	return {
		kind: 'docx',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: carriedData.styles,
		remarks: [],
		ownRemarks: ownRemarksOf(file),
		held: (only) =>
			heldBy(
				only,
				file,
				{ all: () => stories.map(({ xml }) => xml.root), of: (index) => reader.sources[index]!.source.node },
				countHeld
			),
		withPictures: () => tablesWithPictures(archive, reader),
		package: archive,
		main,
		strict: mainXml.source.includes('http://purl.oclc.org/ooxml/wordprocessingml/main'),
		relationships,
		stories,
		sheet,
		stylesPart: stylesName && stylesXml ? { name: stylesName, xml: stylesXml } : undefined,
		sources: reader.sources,
		carriedPart,
		carriedData
	};
}

/** Walks the stories of a document and collects its text and tables in order. */
class StoryReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the main part; tables of other parts are put at its end. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly sources: SourceTable[] = [];
	private reader!: PropertyReader;
	private hasFields = false;
	private heading: string | undefined;
	private lastParagraph: { text: string; caption: boolean } | undefined;

	constructor(
		private readonly sheet: StyleSheet,
		private readonly carried: Carried
	) {}

	read(story: StoryPart): void {
		this.heading = undefined;
		this.lastParagraph = undefined;
		this.hasFields = story.xml.source.includes('instrText');
		this.reader = new PropertyReader(story.xml, this.sheet);
		const body = story.kind === 'body' ? story.xml.root.child('w:body') : story.xml.root;
		if (body) this.walk(body, story, story.kind);
	}

	private walk(node: XmlNode, story: StoryPart, where: TablePlace['where'], inside?: number): void {
		for (const child of node.children)
			if (child.name === 'w:tbl') this.table(child, story, where, inside);
			else if (child.name === 'w:p') this.paragraph(child, story, where === 'body');
			else if (child.name !== 'mc:Fallback') this.walk(child, story, where, inside);
	}

	private paragraph(node: XmlNode, story: StoryPart, isContext: boolean): void {
		const text = paragraphText(node).trim();
		if (isContext && text) {
			const styleId = node.at('w:pPr', 'w:pStyle')?.attribute('w:val');
			const name = (styleId && this.sheet.styles.get(styleId)?.name) || '';
			const level = /^heading (\d)/i.exec(name)?.[1] ?? (/^title$/i.test(name) ? '0' : undefined);
			if (level !== undefined) {
				this.heading = text;
				this.blocks.push({ kind: 'heading', level: Number(level), text });
			} else this.blocks.push({ kind: 'paragraph', text });
			this.places.push(node);
			this.lastParagraph = { text, caption: /^caption$/i.test(name) || isTableCaption(text) };
		}
		for (const box of descendants(node, 'w:txbxContent')) this.walk(box, story, 'text box');
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold; with pictures, by the elements that draw them. */
	content(index: number, appearance: Appearance, pictures?: ReadonlyMap<XmlNode, CellPicture>): CellContent[][] {
		const { source, reader, story } = this.sources[index]!;
		const inside = (cell: number) =>
			(this.nested.get(index)?.get(cell) ?? []).map((at) => ({ start: this.sources[at]!.source.node.start, at }));
		return readContent(source, appearance, reader, { inside, links: story.links, pictures });
	}

	private table(node: XmlNode, story: StoryPart, where: TablePlace['where'], inside?: number): void {
		const index = this.tables.length;
		const source = readGrid(node, story.name);
		const { reader, hasFields } = this;
		const styleId = node.at('w:tblPr', 'w:tblStyle')?.attribute('w:val');
		const wornName = (styleId && this.sheet.styles.get(styleId)?.name) || null;
		const caption = this.lastParagraph?.caption ? this.lastParagraph.text : undefined;
		this.sources.push({ story, source, reader: this.reader });
		const place: TablePlace = {
			where: inside === undefined ? where : 'nested',
			part: story.name,
			...(this.heading && { heading: this.heading }),
			...(caption && { caption }),
			...(inside !== undefined && { inside })
		};
		const nested = new Map<number, number[]>();
		this.nested.set(index, nested);
		this.tables.push(
			foundTable({
				index,
				place,
				grid: source.grid,
				...(isRightToLeft(node, this.sheet) && { dir: 'rtl' as const }),
				widths: source.widths,
				wornName,
				locked: source.sources.flatMap((cells, i) => (cells[0]?.isLocked ? [i] : [])),
				carried: this.carried,
				hints: () => hintsOf(source, reader, hasFields),
				appearance: () => fileAppearance(source, reader),
				content: (appearance) => this.content(index, appearance)
			})
		);
		if (inside === undefined) {
			this.blocks.push({ kind: 'table', index });
			this.places.push(where === 'body' ? node : (this.places.at(-1) ?? { start: 0, end: 0 }));
		}
		this.lastParagraph = undefined;
		source.sources.forEach((cells, cell) => {
			for (const { node: tc } of cells)
				for (const inner of descendants(tc, 'w:tbl')) {
					nested.set(cell, [...(nested.get(cell) ?? []), this.tables.length]);
					this.table(inner, story, where, index);
				}
		});
	}
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function readContent(
	source: SourceGrid,
	appearance: Appearance,
	reader: PropertyReader,
	{
		inside,
		links,
		pictures
	}: {
		/** The tables in a cell, by where they begin. */
		readonly inside: (cell: number) => readonly { readonly start: number; readonly at: number }[];
		readonly links: ReadonlyMap<string, string>;
		readonly pictures: ReadonlyMap<XmlNode, CellPicture> | undefined;
	}
): CellContent[][] {
	const { grid } = source;
	const resolver = resolverOf(reader.sheet, readTableProperties(source.node, reader.sheet));
	return source.sources.map((cells, cell) => {
		const first = cells[0];
		if (!first) return [];
		const look = appearance.looks[appearance.cellLook[cell]!]!;
		const ground = resolver.ground(first, grid.rows, grid.columns);
		const layer = reader.cell(first.node.child('w:tcPr'));
		const paragraphs = readCellText(first.node, reader).map(({ node, context: paragraph, runs }) => {
			const linked = linksIn(node, links);
			const own = runs
				.filter(({ text }) => text)
				.map(({ node, context, text }): RunView => {
					const link = linked.get(node);
					const own = resolver.look(
						ground,
						layer,
						resolver.text(ground, context),
						resolver.paragraph(ground, paragraph)
					);
					const position = node.at('w:rPr', 'w:vertAlign')?.attribute('w:val');
					return {
						text,
						...(own.weight !== look.weight && { weight: own.weight }),
						...(own.italic !== look.italic && { italic: own.italic }),
						...(own.underline !== look.underline && { underline: own.underline }),
						...(own.ink !== look.ink && own.ink && { ink: own.ink }),
						...(position === 'superscript' && { position: 'super' as const }),
						...(position === 'subscript' && { position: 'sub' as const }),
						...(link && { link })
					};
				});
			const drawn = pictures ? descendants(node, 'w:drawing').flatMap((one) => pictures.get(one) ?? []) : [];
			const pieces: CellContent[] = drawn.map((picture) => ({ picture }));
			return { start: node.start, pieces: own.length || !drawn.length ? [{ runs: own }, ...pieces] : pieces };
		});
		const tables = inside(cell).map(({ start, at }) => ({ start, pieces: [{ nested: at }] as CellContent[] }));
		// A cell ends with a paragraph (§17.4.65), which says nothing where it follows a table.
		const last = paragraphs.at(-1);
		const isEmptyLast = tables.length && last && last.start > tables.at(-1)!.start && !saysSomething(last.pieces);
		return [...(isEmptyLast ? paragraphs.slice(0, -1) : paragraphs), ...tables]
			.sort((a, b) => a.start - b.start)
			.flatMap(({ pieces }) => pieces);
	});
}

const saysSomething = (pieces: readonly CellContent[]): boolean =>
	pieces.some((piece) => !('runs' in piece) || piece.runs.length > 0);

/** The addresses of the links that runs of a paragraph stand in (§17.16.22). */
function linksIn(paragraph: XmlNode, links: ReadonlyMap<string, string>): ReadonlyMap<XmlNode, string> {
	const found = new Map<XmlNode, string>();
	for (const link of descendants(paragraph, 'w:hyperlink')) {
		const address = safeLink(links.get(link.attribute('r:id') ?? ''));
		if (address) for (const run of descendants(link, 'w:r')) found.set(run, address);
	}
	return found;
}

/** The tables with the pictures in their cells (§20.4), PNG and JPEG. */
async function tablesWithPictures(archive: Package, reader: StoryReader): Promise<DocumentTable[]> {
	const parts = new Map<string, readonly Relationship[]>();
	const pictures = new Map<XmlNode, CellPicture>();
	for (const { story, source } of reader.sources)
		for (const drawing of descendants(source.node, 'w:drawing')) {
			const id = descendants(drawing, 'a:blip')[0]?.attribute('r:embed');
			if (pictures.has(drawing) || id === undefined) continue;
			if (!parts.has(story.name)) parts.set(story.name, await readRelationships(archive, story.name));
			const target = parts.get(story.name)!.find((one) => one.id === id)?.target;
			const bytes = target === undefined ? undefined : await archive.bytes(target);
			const known = bytes && pictureOf(bytes);
			if (!known) continue;
			const [frame] = drawing.children;
			const part = (name: string) => frame?.children.find((one) => one.name.endsWith(`}${name}`));
			const length = (name: 'cx' | 'cy', pixels: number) =>
				emu(Number(part('extent')?.attribute(name)) || pixels * 9_525);
			pictures.set(drawing, {
				source: pictureAddress(bytes, known.type),
				alternative: part('docPr')?.attribute('descr') ?? part('docPr')?.attribute('title') ?? '',
				width: length('cx', known.width),
				height: length('cy', known.height),
				fits: 'row'
			});
		}
	return reader.tables.map((entry, index) =>
		withContent(entry, () => reader.content(index, entry.appearance, pictures))
	);
}

/** What the file says or shows of its rows. */
function hintsOf(source: SourceGrid, reader: PropertyReader, hasFields: boolean): Hints {
	const { grid, rows } = source;
	return {
		header: rows.map(({ header }, r) => header && rows.slice(0, r).every((row) => row.header)),
		...shownHints(grid, cellLooks(source, reader)),
		formula: rows.map(
			({ cells }) =>
				hasFields &&
				cells.some(({ node }) => descendants(node, 'w:instrText').some(({ text }) => /=\s*SUM\s*\(/i.test(text)))
		)
	};
}
