import { parseXml, type XmlDocument, type XmlNode } from '../package/xml.ts';
import type { Package } from '../package/zip.ts';
import { NAMESPACES, relationshipKind, relationshipsOf, resolveTarget } from './names.ts';

/** A part that another part names (ECMA-376 Part 2 §6.5). */
export interface Relationship {
	readonly id: string;
	readonly kind: string;
	readonly target: string;
}

/** Elements that hold properties; text and tables stand outside them. */
const PROPERTIES: ReadonlySet<string> = new Set(['w:tblPr', 'w:tblPrEx', 'w:trPr', 'w:tcPr', 'w:pPr', 'w:rPr']);

export async function readPart(archive: Package, name: string): Promise<XmlDocument | undefined> {
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
export async function readLinks(archive: Package, part: string): Promise<ReadonlyMap<string, string>> {
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
