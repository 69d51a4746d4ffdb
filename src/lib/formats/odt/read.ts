import { InputError } from '../../core/errors.ts';
import { carriedFromJson, type Carried } from '../carried.ts';
import { heldBy, ownRemarksOf } from '../held.ts';
import { countHeld } from './held.ts';
import type { OpenDocument } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { parseXml, type XmlNode } from '../package/xml.ts';
import { Package } from '../package/zip.ts';
import { type OdtGrid } from './grid.ts';
import { DATA_FIELD, DATA_FILE, NAMESPACES } from './names.ts';
import { OdfStyles } from './styles.ts';
import { wholeOdt } from './whole.ts';
import { TextReader, type OdtPart } from './story.ts';

const WHAT = 'an ODT document';

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
	const document: OdtDocument = {
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
		whole: () => wholeOdt(document, reader, body),
		package: archive,
		flat,
		content,
		stylesPart,
		odfStyles,
		sources: reader.sources,
		carriedData: carried
	};
	return document;
}
