import { InputError } from '../../core/errors.ts';
import { once } from '../../core/once.ts';
import type { OpenDocument, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { parseXml, type XmlDocument } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import type { Carried } from '../carried.ts';
import { heldBy, ownRemarksOf } from '../held.ts';
import { countHeld } from './held.ts';
import { readCarried } from './carried.ts';
import { readLinks, readPart, readRelationships, type Relationship } from './parts.ts';
import { listItems } from './numbering.ts';
import { NAMESPACES } from './names.ts';
import { StyleSheet } from './styles.ts';
import { NO_THEME, readTheme } from './theme.ts';
import { wholeDocx } from './whole.ts';
import { StoryReader, type SourceTable, type StoryPart } from './story.ts';

const WHAT = 'a DOCX document';

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
	const numberingName = target('numbering');
	const numbering = numberingName ? await readPart(archive, numberingName) : undefined;
	const roots = stories.map(({ xml }) => xml.root);
	const lists = once(() => listItems(roots, numbering?.root, sheet));
	const document: DocxDocument = {
		kind: 'docx',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: carriedData.styles,
		remarks: [],
		ownRemarks: ownRemarksOf(file),
		held: (only) =>
			heldBy(only, file, { all: () => roots, of: (index) => reader.sources[index]!.source.node }, (node, held) =>
				countHeld(node, lists(), held)
			),
		whole: () => wholeDocx(document, reader, lists()),
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
	return document;
}
