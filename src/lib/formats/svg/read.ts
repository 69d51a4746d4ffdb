import { parseJson } from '../../core/well-formed.ts';
import { pluralWord } from '../../core/words.ts';
import { InputError } from '../../core/errors.ts';
import { appearanceOf } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../core/house.ts';
import { kindsOf, type ObjectKind } from '../../core/schedule/objects.ts';
import type { PlacedTable } from '../../core/schedule/placed.ts';
import type { ScheduleRows, SheetFacts } from '../../core/schedule/rows.ts';
import { recognise } from '../../core/recognise/recognise.ts';
import { isCovered, withCells, withText, type WorkTable } from '../../core/work/table.ts';
import { tableOf as workTableOf, contentsOf } from '../../core/work/convert.ts';
import { standing, tableOf } from '../../core/schedule/table.ts';
import { checkPlaced } from '../../core/schedule/validate.ts';
import { flatten } from '../../core/style/inherit.ts';
import type { Style } from '../../core/style/types.ts';
import type { Block } from '../../core/table/content.ts';
import { parseViewBox } from '../../core/layout/matrix.ts';
import { bareAppearance, plainContent } from '../bare.ts';
import { checkedStyle, checkedWears, orNothing, withCarried } from '../carried.ts';
import type { CarriedTable, DocumentTable, OpenDocument } from '../document.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { parseXml, type XmlDocument, type XmlNode } from '../package/xml.ts';
import type { DrawnSymbol, SheetContext } from './draw.ts';
import { drawnTexts } from './group.ts';
import { NAMESPACES } from './names.ts';
import { findObjects, isTable, type FoundObject, type DrawingContents } from './objects.ts';
import { readSheet, type Sheet, type SheetAnswer } from './sheet.ts';

/** What is changed of a drawing beside the styles of its tables. */
export interface DrawingEdits {
	/** Size and scale, where a person said them. */
	readonly sheet?: SheetAnswer;
	/** All tables on the sheet; as in the file where absent. */
	readonly placed?: readonly PlacedTable[];
	/** Attributes of objects by the object's key; null takes one away. */
	readonly attributes?: Readonly<Record<string, Readonly<Record<string, string | null>>>>;
}

/** A table of ours as it stands in the file. */
export interface TableGroup {
	readonly node: XmlNode;
	readonly placed: PlacedTable;
	readonly wears: CarriedTable | null;
	readonly style: Style | undefined;
}

/** A drawing opened for reading and writing. */
export interface SvgDocument extends OpenDocument {
	readonly kind: 'svg';
	readonly source: EncodedText;
	readonly xml: XmlDocument;
	readonly sheet: Sheet;
	readonly found: DrawingContents;
	readonly kinds: readonly ObjectKind[];
	readonly groups: readonly TableGroup[];
	/** By the index of its table. */
	readonly placed: readonly PlacedTable[];
	readonly edits: DrawingEdits;
}

export const isDrawing = (document: OpenDocument): document is SvgDocument => document.kind === 'svg';

const DECLARED = /^<\?xml[^>]*\sencoding\s*=\s*["']([A-Za-z0-9._-]+)["']/;

/** Reads a drawing (SVG 1.1 and 2). Nothing in it runs or is loaded. Throws InputError saying what is wrong and where. */
export function readSvg(bytes: Uint8Array): SvgDocument {
	if (bytes[0] === 0x1f && bytes[1] === 0x8b)
		throw new InputError('compressed', 'This drawing is compressed (SVGZ). Save it as plain SVG and add it again.');
	const declared = DECLARED.exec(new TextDecoder('latin1').decode(bytes.subarray(0, 200)))?.[1];
	const source = decodeText(bytes, declared);
	const xml = parseXml(source.text, 'the drawing', { namespaces: NAMESPACES, allowDoctype: true });
	if (xml.root.name !== 'svg:svg')
		throw new InputError(
			'not-a-drawing',
			`This is not an SVG drawing: its outermost element is <${xml.root.name.replace(/^.*[:}]/, '')}>${xml.root.name === 'svg' ? ' without the SVG namespace' : ''}.`
		);
	const groups = groupsIn(xml);
	return opened({ source, xml, groups: groups.read, remarks: [...scripted(source.text), ...groups.remarks] }, {});
}

type File = Pick<SvgDocument, 'source' | 'xml' | 'groups' | 'remarks'>;
const files = new WeakMap<SvgDocument, File>();

/** A drawing with what is changed of it. */
export const withEdits = (document: SvgDocument, edits: DrawingEdits | undefined): SvgDocument =>
	edits ? opened(files.get(document)!, edits) : document;

/** Whether a rectangle of the file was read already; objects do not change with the tables. */
const foundBefore = new WeakMap<XmlNode, Map<string, DrawingContents>>();
function foundIn(root: XmlNode, sheet: Sheet): DrawingContents {
	const key = sheet.toPaper.join();
	let known = foundBefore.get(root);
	if (!known) foundBefore.set(root, (known = new Map()));
	let found = known.get(key);
	if (!found) known.set(key, (found = findObjects(root, sheet)));
	return found;
}

function opened(file: File, edits: DrawingEdits): SvgDocument {
	const { xml, groups } = file;
	const sheet = readSheet(xml.root, edits.sheet);
	const found = withAttributes(foundIn(xml.root, sheet), edits.attributes);
	const placed = edits.placed ?? groups.map((group) => group.placed);
	const styles = new Map(groups.flatMap(({ style }) => (style ? [[style.name, style] as const] : [])));
	const tables = placed.map((one, index) =>
		entryOf(
			one,
			index,
			groups.find((group) => group.placed.id === one.id)
		)
	);
	const document: SvgDocument = {
		kind: 'svg',
		blocks: tables.map(({ index }): Block => ({ kind: 'table', index })),
		tables,
		styles: [...styles.values()],
		remarks: [...sheet.remarks, ...found.remarks, ...file.remarks],
		source: file.source,
		xml,
		sheet,
		found,
		kinds: kindsOf(found.objects, found.symbols),
		groups,
		placed,
		edits
	};
	files.set(document, file);
	return document;
}

function withAttributes(found: DrawingContents, changed: DrawingEdits['attributes']): DrawingContents {
	if (!changed || Object.keys(changed).length === 0) return found;
	const objects = found.objects.map((object): FoundObject => {
		const own = changed[object.key];
		if (!own) return object;
		const attributes = Object.fromEntries(
			Object.entries({ ...object.attributes, ...own }).filter((entry): entry is [string, string] => entry[1] !== null)
		);
		return { ...object, attributes };
	});
	return { ...found, objects };
}

/** What a placed table is called. */
export const titleOf = ({ rows, source }: PlacedTable): string =>
	rows.rows.find(({ role }) => role === 'title')?.cells[0]?.text.trim() ||
	(source.from === 'objects' ? source.definition.title : source.from === 'bench' ? 'Table' : 'Revisions');

function entryOf(placed: PlacedTable, index: number, group: TableGroup | undefined): DocumentTable {
	const { source } = placed;
	const made = source.from === 'bench' ? workTableOf(source.work) : undefined;
	const { table: bare, recognition } = made
		? { table: made, recognition: recognise(made) }
		: tableOf(placed.rows, placed.reads);
	const fits = group?.wears && group.wears.roles.length === bare.rows && group.wears.columns.length === bare.columns;
	const carried = fits ? group.wears : null;
	const table = carried
		? { ...withCarried(bare, carried), roles: bare.roles, ...(made && { touches: made.touches }) }
		: bare;
	const appearance =
		carried && group?.style ? appearanceOf(resolve(table, flatten(group.style), FIRST_HOUSE)) : bareAppearance(table);
	return {
		index,
		place: { where: 'sheet', part: placed.id, caption: titleOf(placed) },
		table,
		recognition,
		appearance,
		widths: [],
		content: source.from === 'bench' ? contentsOf(source.work) : plainContent(table.cells),
		wornName: carried?.style ?? null,
		carried,
		...(source.from === 'bench' && { work: source.work })
	};
}

/** What the group of a table carries, as JSON. */
interface Riding {
	readonly placed?: unknown;
	readonly wears?: unknown;
	readonly style?: unknown;
}

function groupsIn({ root, source }: XmlDocument): { read: TableGroup[]; remarks: string[] } {
	const read: TableGroup[] = [];
	const remarks: string[] = [];
	const ids = new Set<string>();
	const visit = (node: XmlNode) => {
		if (!isTable(node)) {
			node.children.forEach(visit);
			return;
		}
		const group = readGroup(node, source, remarks);
		if (!group || ids.has(group.placed.id)) return;
		ids.add(group.placed.id);
		read.push(group);
	};
	visit(root);
	return { read, remarks };
}

function readGroup(node: XmlNode, source: string, remarks: string[]): TableGroup | undefined {
	const text = node.at('svg:metadata', 'hept:table')?.text;
	const riding = text === undefined ? undefined : orNothing(() => parseJson(text) as Riding);
	const placed = riding && orNothing(() => checkPlaced(riding.placed));
	if (!placed) {
		remarks.push(
			`The group “${node.attribute('id') ?? 'without an id'}” was a table of ours, but what it says of itself is gone or was changed. It is left as it is, as part of the drawing.`
		);
		return undefined;
	}
	const style = riding.style === undefined ? undefined : orNothing(() => checkedStyle(JSON.stringify(riding.style)));
	const wears = riding.wears ? (orNothing(() => checkedWears(JSON.stringify(riding.wears))) ?? null) : null;
	const drawn = drawnTexts(node, source);
	// Another program may have given the group another id; it is found by what it has now.
	const id = node.attribute('id');
	const own: PlacedTable = id && /^[A-Za-z_][\w-]{0,99}$/.test(id) ? { ...placed, id } : placed;
	if (!drawn) {
		remarks.push(
			`The cells of “${titleOf(placed)}” were taken apart by another program; it is drawn again from what it says of itself.`
		);
		return { node, placed: own, wears, style };
	}
	const { rows, edited } = asDrawn(own, drawn);
	if (edited.length)
		remarks.push(
			`Another program changed ${pluralWord(edited.length, 'a text', `${edited.length} texts`)} of “${titleOf(placed)}” (${edited.slice(0, 3).join(', ')}${edited.length > 3 ? ' …' : ''}); ${pluralWord(edited.length, 'it is', 'they are')} kept as typed.`
		);
	const from =
		edited.length && own.source.from === 'bench'
			? { ...own.source, work: withRows(own.source.work, rows) }
			: own.source;
	return { node, placed: { ...own, rows, source: from }, wears, style };
}

/** A table of the bench with the texts that its rows have now. */
const withRows = (work: WorkTable, { rows }: ScheduleRows): WorkTable =>
	withCells(
		work,
		work.rows.flatMap(({ cells }, r) => cells.flatMap((slot, c) => (isCovered(slot) ? [] : [{ r, c }]))),
		(cell, r, c) => withText(cell, rows[r]?.cells[c]?.text ?? cell.text)
	);

const bareText = (text: string): string => text.replace(/\s+/g, '').toLowerCase();

/** Rows with the texts that their drawing shows, where those are others; what the drawing's objects said is remembered. */
function asDrawn(placed: PlacedTable, drawn: ReadonlyMap<string, string>): { rows: ScheduleRows; edited: string[] } {
	const edited: string[] = [];
	const shown = standing(placed.rows.rows, placed.reads).map((row, r) => {
		const cells = row.cells.map((cell, c) => {
			const text = drawn.get(`${r} ${c}`);
			if (text === undefined || bareText(text) === bareText(cell.text)) return cell;
			edited.push(`“${text}”`);
			return { ...cell, text, over: cell.over ?? cell.text };
		});
		return cells.every((cell, c) => cell === row.cells[c]) ? row : { ...row, cells };
	});
	return edited.length
		? { rows: { ...placed.rows, rows: standing(shown, placed.reads) }, edited }
		: { rows: placed.rows, edited };
}

/** What of a drawing would run or be loaded, in words. */
function scripted(text: string): string[] {
	const found = [
		...(/<(?:\w+:)?script\b/.test(text) ? ['a script'] : []),
		...(/\son[a-z]+\s*=/.test(text) ? ['event attributes'] : []),
		...(/(?:href|src)\s*=\s*["']\s*(?:https?:|file:|\/\/)/i.test(text) ? ['references to other files'] : []),
		...(/<(?:\w+:)?foreignObject\b/.test(text) ? ['foreign content'] : [])
	];
	return found.length
		? [`The drawing holds ${found.join(', ')}: left in the file as it is, but never run, loaded or shown here.`]
		: [];
}

/** What making rows needs to know of a drawing. */
export const sheetFacts = ({ sheet, kinds, found }: SvgDocument, name = ''): SheetFacts => ({
	name,
	scale: sheet.scale,
	names: new Map(kinds.map(({ kind, name }) => [kind, name])),
	symbols: new Set(found.symbols.keys())
});

/** What drawing a table needs to know of its drawing. */
export function sheetContext({ sheet, xml, found }: SvgDocument): SheetContext {
	const xlink = xml.prefixes.get('xlink');
	const symbols = new Map(
		[...found.symbols].flatMap(([kind, { node, extent, looks }]): [string, DrawnSymbol][] => {
			const id = node.attribute('id');
			const hasViewBox = node.name === 'svg:symbol' && parseViewBox(node.attribute('viewBox')) !== undefined;
			return id === undefined ? [] : [[kind, { id, hasViewBox, extent, looks }]];
		})
	);
	return {
		width: sheet.width,
		toUnits: sheet.toUnits,
		prefix: xml.prefixes.get('svg') ?? '',
		href: xlink ? `${xlink}:href` : 'href',
		symbols
	};
}
