import { rowFacts } from './held.ts';
import { emu } from '../../core/units.ts';
import type { CellPicture, Note, RunView } from '../../core/table/content.ts';
import type { WholeDocument } from '../document.ts';
import { languageTag, wholeBlocks, wholeTable } from '../whole.ts';
import { pictureAddress, pictureOf } from '../picture-size.ts';
import { descendants, type XmlNode } from '../package/xml.ts';
import type { Package } from '../package/zip.ts';
import { effectiveText, PropertyReader, type RunContext } from './looks.ts';
import { readPart, readRelationships, type Relationship } from './parts.ts';
import type { StyleSheet } from './styles.ts';
import type { XmlDocument } from '../package/xml.ts';
import { paragraphText, runsOf, runText } from './tables.ts';
import { picturesIn, noteIn, linksIn, positionOf, type Beside } from './beside.ts';
import type { SourceTable, StoryPart, StoryReader } from './story.ts';

/** Notes by their references in the stories (§17.11). */
function notesOf(stories: readonly StoryPart[]): Map<XmlNode, Note> {
	const found = new Map<XmlNode, Note>();
	for (const [kind, name] of [
		['foot', 'footnote'],
		['end', 'endnote']
	] as const) {
		const texts = new Map<string, string>();
		for (const story of stories)
			if (story.kind === 'notes')
				for (const note of story.xml.root.children)
					if (note.name === `w:${name}`)
						texts.set(
							note.attribute('w:id') ?? '',
							descendants(note, 'w:p')
								.map((paragraph) => paragraphText(paragraph).trim())
								.join('\n')
								.trim()
						);
		if (!texts.size) continue;
		for (const story of stories)
			for (const reference of descendants(story.xml.root, `w:${name}Reference`)) {
				const text = texts.get(reference.attribute('w:id') ?? '');
				if (text !== undefined) found.set(reference, { kind, text });
			}
	}
	return found;
}

/** Pictures by the elements that draw them (§20.4), PNG and JPEG. */
async function picturesOf(archive: Package, stories: readonly StoryPart[]): Promise<Map<XmlNode, CellPicture>> {
	const pictures = new Map<XmlNode, CellPicture>();
	for (const story of stories) {
		let parts: readonly Relationship[] | undefined;
		for (const drawing of descendants(story.xml.root, 'w:drawing')) {
			const id = descendants(drawing, 'a:blip')[0]?.attribute('r:embed');
			if (id === undefined) continue;
			parts ??= await readRelationships(archive, story.name);
			const target = parts.find((one) => one.id === id)?.target;
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
	}
	return pictures;
}

/** The text of a paragraph of the body in stretches, with what they have beyond their paragraph. */
function bodyRuns(node: XmlNode, reader: PropertyReader, links: StoryPart['links'], beside: Beside): RunView[] {
	const { styleId } = reader.paragraph(node.child('w:pPr'));
	const layer = (context: RunContext) => effectiveText(reader.sheet, {}, context);
	const plain = layer(reader.run(undefined, styleId));
	const linked = linksIn(node, links);
	return runsOf(node).flatMap((run): RunView[] => {
		const text = runText(run);
		const note = noteIn(run, beside);
		if (!text && !note) return [];
		const own = layer(reader.run(run.child('w:rPr'), styleId));
		const position = positionOf(run);
		const link = linked.get(run);
		const view: RunView = {
			text,
			...(!!own.bold !== !!plain.bold && { weight: own.bold ? 700 : 400 }),
			...(!!own.italic !== !!plain.italic && { italic: !!own.italic }),
			...(own.underline && own.underline !== (plain.underline ?? 'none') && !link && { underline: own.underline }),
			...(own.ink && own.ink !== 'auto' && own.ink !== plain.ink && !link && { ink: own.ink }),
			...(position && !note && { position }),
			...(link && { link })
		};
		return note ? [...(text ? [view] : []), { text: '', note }] : [view];
	});
}

/** What of an opened document is asked for. */
interface WholeSource {
	readonly package: Package;
	readonly stories: readonly StoryPart[];
	readonly sheet: StyleSheet;
	readonly stylesPart: { readonly xml: XmlDocument } | undefined;
	readonly sources: readonly SourceTable[];
}

/** All of a document that a new file can hold. */
export async function wholeDocx(
	{ package: archive, stories, sheet, stylesPart, sources }: WholeSource,
	reader: StoryReader,
	lists: Beside['lists']
): Promise<WholeDocument> {
	const beside: Beside = {
		pictures: await picturesOf(archive, stories),
		lists,
		notes: notesOf(stories)
	};
	const body = new PropertyReader(stories[0]!.xml, sheet);
	return {
		blocks: wholeBlocks(reader.blocks, reader.paragraphs, reader.wordless, (node) => {
			const style = sheet.styles.get(node.at('w:pPr', 'w:pStyle')?.attribute('w:val') ?? '');
			return {
				runs: bodyRuns(node, body, stories[0]!.links, beside),
				list: beside.lists.get(node),
				isCaption: /^caption$/i.test(style?.name ?? ''),
				pictures: picturesIn(node, beside)
			};
		}),
		tables: reader.tables.map((entry, index) =>
			wholeTable(
				entry,
				() => reader.content(index, entry.appearance, beside),
				sources[index]!.source.rows.map(({ node }) => rowFacts(node.child('w:trPr')))
			)
		),
		...(await describedIn(archive)),
		language: languageTag(
			stylesPart?.xml.root.at('w:docDefaults', 'w:rPrDefault', 'w:rPr', 'w:lang')?.attribute('w:val')
		)
	};
}

/** The title among a package's core properties (ECMA-376 Part 2 §11). */
async function describedIn(archive: Package): Promise<{ readonly title?: string }> {
	const part = (await readRelationships(archive, '')).find(({ kind }) => kind === 'core-properties')?.target;
	const properties = part === undefined ? undefined : await readPart(archive, part);
	const title = properties?.root.children.find(({ name }) => name.endsWith('}title'))?.text.trim();
	return title ? { title } : {};
}
