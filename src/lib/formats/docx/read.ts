import { InputError } from '../../core/errors.ts';
import type { Appearance } from '../../core/cascade/look.ts';
import type { Hints } from '../../core/recognise/facts.ts';

import type { Block, CellContent, RunView } from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { descendants, parseXml, type XmlDocument, type XmlNode } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import type { Carried } from '../carried.ts';
import { foundTable, shownHints } from '../found.ts';
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

export async function readRelationships(archive: Package, part: string): Promise<Relationship[]> {
	const xml = await readPart(archive, part === '' ? '_rels/.rels' : relationshipsOf(part));
	return (xml?.root.children ?? [])
		.filter((node) => node.name === 'rel:Relationship' && node.attribute('TargetMode') !== 'External')
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

	const stories: StoryPart[] = [{ name: main, kind: 'body', xml: mainXml }];
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
		if (xml) stories.push({ name, kind: where, xml });
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
	const remarks: string[] = [];
	if (root.some(({ kind }) => kind === 'origin') || archive.names().some((name) => name.startsWith('_xmlsignatures/')))
		remarks.push('This document is signed; the signature will no longer hold for a changed file.');
	if (archive.names().some((name) => name.endsWith('vbaProject.bin')))
		remarks.push('This document holds macros; they stay as they are.');
	return {
		kind: 'docx',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: carriedData.styles,
		remarks,
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
				content: (appearance) => readContent(source, appearance, reader, nested)
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
	nested: ReadonlyMap<number, readonly number[]>
): CellContent[][] {
	const { grid } = source;
	const resolver = resolverOf(reader.sheet, readTableProperties(source.node, reader.sheet));
	return source.sources.map((cells, cell) => {
		const first = cells[0];
		if (!first) return [];
		const look = appearance.looks[appearance.cellLook[cell]!]!;
		const ground = resolver.ground(first, grid.rows, grid.columns);
		const layer = reader.cell(first.node.child('w:tcPr'));
		const paragraphs = readCellText(first.node, reader).map(({ context: paragraph, runs }) => ({
			runs: runs
				.filter(({ text }) => text)
				.map(({ node, context, text }): RunView => {
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
						...(position === 'subscript' && { position: 'sub' as const })
					};
				})
		}));
		return [...paragraphs, ...(nested.get(cell) ?? []).map((index) => ({ nested: index }))];
	});
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
