import { allFigures } from '../../core/work/working.ts';
import { valueAttributes } from './values.ts';
import { escapeXml } from '../../core/escape.ts';
import {
	inPixels,
	linkedRuns,
	runsOf,
	type CellContent,
	type CellPicture,
	type ListItem,
	type ListMarker,
	type Note,
	type RunView
} from '../../core/table/content.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered } from '../../core/work/table.ts';
import type { DocumentTable, OpenDocument, WholeDocument } from '../document.ts';
import type { RowFacts } from '../held.ts';
import { NUMBER_FORMATS } from './lists.ts';
import { inLists, isList, type List } from '../lists.ts';
import { Package, type EntryText } from '../package/zip.ts';
import { MIMETYPE, namespaceOf, OWN_PREFIXES } from './names.ts';
import { headRows } from '../whole.ts';
import { CellSides, mirrored } from '../sides.ts';
import { RIGHT_TO_LEFT } from './direction.ts';
import { attributesOf, SAYABLE } from './properties/index.ts';
import { gapAttributes } from './properties/paragraph.ts';
import type { Attributes } from './properties/property.ts';
import { shadowAttribute, TABLE_SHADOW_ATTRIBUTE } from './properties/shadow.ts';
import { cellProperties, sidesOf } from './say.ts';

const attributes = (all: Attributes): string =>
	Object.entries(all)
		.map(([name, value]) => ` ${name}="${escapeXml(value)}"`)
		.join('');
const namespaces = OWN_PREFIXES.map((prefix) => ` xmlns:${prefix}="${namespaceOf(prefix)}"`).join('');

/** White space as ODF writes it: runs of spaces, tabs and line breaks are elements (ODF 1.3 Part 3 §6.1). */
export const textMarkup = (text: string): string =>
	escapeXml(text)
		.replace(/\n/g, '<text:line-break/>')
		.replace(/\t/g, '<text:tab/>')
		.replace(/^ | {2,}| $/g, (spaces) => `<text:s text:c="${spaces.length}"/>`);

/** A picture as a frame that stands in the text like a letter, with the picture itself in it (ODF 1.3 Part 3 §10.4.4). */
export function pictureFrame(picture: CellPicture): string {
	const { alternative, width, height } = picture;
	const data = inPixels(picture).replace(/^data:[^,]*,/, '');
	return `<draw:frame text:anchor-type="as-char" svg:width="${width / 12_700}pt" svg:height="${height / 12_700}pt"><draw:image><office:binary-data>${data}</office:binary-data></draw:image><svg:title>${escapeXml(alternative)}</svg:title></draw:frame>`;
}

const LIST_LEVELS = 10;
/** A list style that has one marker on all levels (ODF 1.3 Part 3 §16.30). */
function listStyle(name: string, marker: ListMarker): string {
	const levels = Array.from({ length: LIST_LEVELS }, (_, i) => {
		const kind =
			marker === 'disc'
				? ['bullet', 'text:bullet-char="•"']
				: ['number', `style:num-format="${NUMBER_FORMATS[marker]}" style:num-suffix="."`];
		const place = `<style:list-level-properties text:space-before="${0.6 * i}cm" text:min-label-width="0.6cm"/>`;
		return `<text:list-level-style-${kind[0]} text:level="${i + 1}" ${kind[1]}>${place}</text:list-level-style-${kind[0]}>`;
	});
	return `<text:list-style style:name="${name}">${levels.join('')}</text:list-style>`;
}

/** Writes the body of a document and collects the automatic styles that it needs. */
export class BodyWriter {
	private readonly known = new Map<string, string>();
	private readonly styles: string[] = [];
	private readonly fonts = new Set<string>();

	/** `before` begins the names of its styles, where a document has others already. */
	constructor(
		private readonly document: Pick<OpenDocument, 'blocks' | 'tables'>,
		private readonly before = ''
	) {}

	private style(family: string, letter: string, groups: Readonly<Record<string, Attributes>>): string {
		const inside = Object.entries(groups)
			.filter(([, all]) => Object.keys(all).length)
			.map(([name, all]) => `<${name}${attributes(all)}/>`)
			.join('');
		const key = `${family} ${inside}`;
		let name = this.known.get(key);
		if (!name) {
			name = `${this.before}${letter}${this.known.size + 1}`;
			this.known.set(key, name);
			this.styles.push(`<style:style style:name="${name}" style:family="${family}">${inside}</style:style>`);
		}
		return name;
	}
	private readonly font = (family: string): string => {
		this.fonts.add(family);
		return family;
	};

	body(): string {
		return this.flow(this.document.blocks, (block) => {
			if (block.kind === 'table') return this.table(this.document.tables[block.index]!);
			if (block.kind === 'picture')
				return `<text:p text:style-name="Text_20_body">${pictureFrame(block.picture)}</text:p>`;
			const text = this.runs(runsOf(block));
			return block.kind === 'heading'
				? `<text:h text:style-name="Heading" text:outline-level="${Math.max(1, block.level)}">${text}</text:h>`
				: `<text:p text:style-name="${block.isCaption ? 'Caption' : 'Text_20_body'}">${text}</text:p>`;
		});
	}

	/** Pieces of text in order, those that are items of lists in lists (ODF 1.3 Part 3 §5.3). */
	private flow<T extends object>(pieces: readonly T[], markup: (piece: T, at: number) => string): string {
		const at = new Map(pieces.map((piece, i) => [piece, i]));
		const list = ({ marker, start, items }: List<T>): string => {
			this.markers.add(marker);
			const entries = items.map(
				({ is, inside }, i) =>
					`<text:list-item${i === 0 && start !== 1 ? ` text:start-value="${start}"` : ''}>${is ? markup(is, at.get(is)!) : ''}${inside.map(list).join('')}</text:list-item>`
			);
			return `<text:list text:style-name="${this.listStyle(marker)}">${entries.join('')}</text:list>`;
		};
		return inLists(pieces, (piece) => ('list' in piece ? (piece.list as ListItem) : undefined))
			.map((one) => (isList(one) ? list(one) : markup(one, at.get(one)!)))
			.join('\n');
	}
	private readonly markers = new Set<ListMarker>();
	private listStyle = (marker: ListMarker): string => `${this.before}L_${marker}`;

	private notes = 0;
	/** A note where it is referred to (ODF 1.3 Part 3 §6.3). */
	private note({ kind, text }: Note): string {
		const number = ++this.notes;
		const paragraphs = text.split('\n').map((line) => `<text:p>${textMarkup(line)}</text:p>`);
		return `<text:note text:id="note${number}" text:note-class="${kind}note"><text:note-citation>${number}</text:note-citation><text:note-body>${paragraphs.join('')}</text:note-body></text:note>`;
	}

	/** The runs of a paragraph, with the links among them (ODF 1.3 Part 3 §6.1.8). */
	private runs(runs: readonly RunView[]): string {
		return linkedRuns(runs)
			.map(({ link, runs: own }) => {
				const text = own.map((run) => this.run(run)).join('');
				return link ? `<text:a xlink:type="simple" xlink:href="${escapeXml(link)}">${text}</text:a>` : text;
			})
			.join('');
	}

	/** `style` is what its text has where it has nothing of its own. */
	run(run: RunView, style?: string): string {
		if (run.note) return this.note(run.note);
		const look = {
			...(run.weight !== undefined && { weight: run.weight }),
			...(run.italic !== undefined && { italic: run.italic }),
			...(run.underline !== undefined && { underline: run.underline }),
			...(run.ink !== undefined && { ink: run.ink })
		};
		const properties = {
			...attributesOf('text', look, this.font),
			...(run.position && { 'style:text-position': `${run.position} 58%` })
		};
		const text = textMarkup(run.text);
		if (!Object.keys(properties).length)
			return style ? `<text:span text:style-name="${style}">${text}</text:span>` : text;
		return `<text:span text:style-name="${this.style('text', 'T', { 'style:text-properties': properties })}">${text}</text:span>`;
	}

	table(entry: DocumentTable): string {
		const { table, appearance, content, widths, index, rowFacts = [] } = entry;
		const sides = new CellSides(table, appearance, SAYABLE.line);
		const isRight = table.dir === 'rtl';
		const runs = isRight ? RIGHT_TO_LEFT : {};
		const piece = (one: CellContent, paragraph: string): string =>
			'nested' in one
				? this.table(this.document.tables[one.nested]!)
				: 'picture' in one
					? `<text:p text:style-name="${paragraph}">${pictureFrame(one.picture)}</text:p>`
					: `<text:p text:style-name="${paragraph}">${this.runs(one.runs)}</text:p>`;
		const columns = widths.length
			? widths
					.map(
						(width) =>
							`<table:table-column table:style-name="${this.style('table-column', 'C', { 'style:table-column-properties': { 'style:column-width': `${width / 12_700}pt` } })}"/>`
					)
					.join('')
			: `<table:table-column table:number-columns-repeated="${table.columns}"/>`;
		const figureAt = entry.work && allFigures(entry.work);
		const rows = Array.from({ length: table.rows }, (_, r) => {
			const cells = Array.from({ length: table.columns }, (_, c) => {
				const i = table.slots[r * table.columns + c]!;
				const cell = table.cells[i]!;
				if (cell.r !== r || cell.c !== c) return '<table:covered-table-cell/>';
				const look = appearance.looks[appearance.cellLook[i]!]!;
				const style = this.style('table-cell', 'Z', {
					'style:table-cell-properties': cellProperties(isRight ? mirrored(look) : look, sidesOf(sides, i, isRight))
				});
				const paragraph = (isFirst: boolean) =>
					this.style('paragraph', 'P', {
						'style:paragraph-properties': {
							...attributesOf('paragraph', look),
							...runs,
							...(look.paragraphGap !== undefined && gapAttributes(look.paragraphGap, isFirst))
						},
						'style:text-properties': attributesOf('text', look, this.font)
					});
				const spans = `${cell.cols > 1 ? ` table:number-columns-spanned="${cell.cols}"` : ''}${cell.rows > 1 ? ` table:number-rows-spanned="${cell.rows}"` : ''}`;
				// A cell without a paragraph could not say how its text looks.
				const pieces = content[i]!.some((one) => !('nested' in one)) ? content[i]! : [...content[i]!, { runs: [] }];
				const inside = this.flow(pieces, (one, at) => piece(one, paragraph(at === 0)));
				const slot = entry.work?.rows[r]?.cells[c];
				const value = valueAttributes(figureAt?.(r, c));
				const lock = slot && !isCovered(slot) && forbids(slot.lock, 'content') ? ' table:protected="true"' : '';
				return `<table:table-cell table:style-name="${style}"${spans}${value}${lock}>${inside}</table:table-cell>`;
			});
			return `<table:table-row${this.rowAttributes(rowFacts[r])}>${cells.join('')}</table:table-row>`;
		});
		const heads = headRows(entry);
		const head = rows.slice(0, heads).join('');
		const style = this.style('table', 'A', {
			'style:table-properties': {
				'table:border-model': 'collapsing',
				...runs,
				...(appearance.shadow && { [TABLE_SHADOW_ATTRIBUTE]: shadowAttribute(appearance.shadow) }),
				...(widths.length && {
					'style:width': `${widths.reduce<number>((sum, width) => sum + width, 0) / 12_700}pt`,
					'table:align': isRight ? 'right' : 'left'
				})
			}
		});
		return `<table:table table:name="Table${index + 1}" table:style-name="${style}">${columns}${head && `<table:table-header-rows>${head}</table:table-header-rows>`}${rows.slice(heads).join('')}</table:table>`;
	}

	/** What a row says of itself (ODF 1.3 Part 3 §17.17). */
	private rowAttributes({ height, isExact, staysWhole, isHidden }: RowFacts = {}): string {
		const properties = {
			...(height && { [isExact ? 'style:row-height' : 'style:min-row-height']: `${height / 12_700}pt` }),
			...(staysWhole && { 'fo:keep-together': 'always' })
		};
		const style = Object.keys(properties).length
			? ` table:style-name="${this.style('table-row', 'R', { 'style:table-row-properties': properties })}"`
			: '';
		return style + (isHidden ? ' table:visibility="collapse"' : '');
	}

	get stylesMarkup(): string {
		return this.styles.join('') + [...this.markers].map((marker) => listStyle(this.listStyle(marker), marker)).join('');
	}
	get fontsMarkup(): string {
		return [...this.fonts]
			.map(
				(font) =>
					`<style:font-face style:name="${escapeXml(font)}" svg:font-family="'${escapeXml(font.replace(/'/g, ''))}'"/>`
			)
			.join('');
	}
}

const styles = (language: string | undefined): string => {
	const { language: tongue, region: country } = language ? new Intl.Locale(language) : {};
	const said = tongue
		? ` fo:language="${escapeXml(tongue)}"${country ? ` fo:country="${escapeXml(country)}"` : ''}`
		: '';
	return `<?xml version="1.0" encoding="UTF-8"?>
<office:document-styles${namespaces} office:version="1.3"><office:styles><style:default-style style:family="paragraph"><style:text-properties fo:font-family="serif" fo:font-size="11pt"${said}/></style:default-style><style:style style:name="Standard" style:family="paragraph"/><style:style style:name="Text_20_body" style:display-name="Text body" style:family="paragraph" style:parent-style-name="Standard"><style:paragraph-properties fo:margin-bottom="6pt"/></style:style><style:style style:name="Caption" style:family="paragraph" style:parent-style-name="Standard"><style:paragraph-properties fo:margin-top="6pt" fo:margin-bottom="3pt" fo:keep-with-next="always"/></style:style><style:style style:name="Heading" style:family="paragraph" style:parent-style-name="Standard"><style:paragraph-properties fo:margin-top="12pt" fo:margin-bottom="6pt"/><style:text-properties fo:font-size="14pt" fo:font-weight="bold"/></style:style></office:styles><office:automatic-styles><style:page-layout style:name="A4"><style:page-layout-properties fo:page-width="210mm" fo:page-height="297mm" fo:margin-top="25mm" fo:margin-bottom="25mm" fo:margin-left="25mm" fo:margin-right="25mm"/></style:page-layout></office:automatic-styles><office:master-styles><style:master-page style:name="Standard" style:page-layout-name="A4"/></office:master-styles></office:document-styles>`;
};

const metaMarkup = (title: string): string =>
	`<?xml version="1.0" encoding="UTF-8"?>
<office:document-meta xmlns:office="${namespaceOf('office')}" xmlns:dc="http://purl.org/dc/elements/1.1/" office:version="1.3"><office:meta><dc:title>${escapeXml(title)}</dc:title></office:meta></office:document-meta>`;

/** A text document (ODF 1.3) of a document's headings, text and tables, the tables as they look in their file. */
export async function makeOdt(document: WholeDocument): Promise<Uint8Array<ArrayBuffer>> {
	const writer = new BodyWriter(document);
	const body = writer.body();
	const content = `<?xml version="1.0" encoding="UTF-8"?>
<office:document-content${namespaces} office:version="1.3"><office:font-face-decls>${writer.fontsMarkup}</office:font-face-decls><office:automatic-styles>${writer.stylesMarkup}</office:automatic-styles><office:body><office:text>${body}</office:text></office:body></office:document-content>`;
	const entry = (path: string, type: string) =>
		`<manifest:file-entry manifest:full-path="${path}" manifest:media-type="${type}"/>`;
	const manifest = `<?xml version="1.0" encoding="UTF-8"?>
<manifest:manifest xmlns:manifest="${namespaceOf('manifest')}" manifest:version="1.3">${entry('/', MIMETYPE)}${entry('content.xml', 'text/xml')}${entry('styles.xml', 'text/xml')}${document.title ? entry('meta.xml', 'text/xml') : ''}</manifest:manifest>`;
	return Package.empty().rewrite(
		new Map<string, EntryText>([
			['mimetype', MIMETYPE],
			['content.xml', content],
			['styles.xml', styles(document.language)],
			...(document.title ? [['meta.xml', metaMarkup(document.title)] as const] : []),
			['META-INF/manifest.xml', manifest]
		])
	);
}
