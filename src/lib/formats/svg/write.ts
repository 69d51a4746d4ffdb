import { escapeXml } from '../../core/escape.ts';
import type { Appearance, Line, Look, LookField } from '../../core/cascade/look.ts';
import { standIn } from '../../core/layout/fonts.ts';
import type { PlacedTable } from '../../core/schedule/placed.ts';
import type { Style } from '../../core/style/types.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { selfContained } from '../../core/style/export.ts';
import { compare, type Sayable } from '../read-back.ts';
import { givesStyle, prepare, type Prepared, type StyleJob, type WriteOptions } from '../job.ts';
import { tallyOf, type Written } from '../tally.ts';
import { wearsOf } from '../carried.ts';
import type { CarriedTable, DocumentTable } from '../document.ts';
import { encodePieces } from '../package/encoding.ts';
import { attributesIn, type XmlNode } from '../package/xml.ts';
import { drawPlaced, type DrawnTable } from './draw.ts';
import { drawnAppearance } from './group.ts';
import { readSvg, sheetContext, type SvgDocument } from './read.ts';

/** What shows of a look once its text stands in place: places are said by coordinates. */
const SHOWN: ReadonlySet<LookField> = new Set([
	'fill',
	'family',
	'size',
	'weight',
	'italic',
	'underline',
	'tracking',
	'ink',
	'textShadow'
]);

const SAYABLE: Sayable = {
	look: (look) => {
		const shown = Object.fromEntries(
			Object.entries(look).filter(
				([field, value]) => SHOWN.has(field as LookField) && !(field === 'tracking' && value === 0) && value !== null
			)
		) as Look;
		return {
			...shown,
			fill: shown.fill ?? 'none',
			...(shown.family !== undefined && { family: standIn(shown.family) })
		};
	},
	line: (line: Line | null) => (line && line.pattern !== 'none' ? line : null),
	shadow: (shadow) => shadow
};

/** A table as it is drawn on its sheet, with what rides along in its group. */
export function drawOn(
	document: SvgDocument,
	placed: PlacedTable,
	{ table, appearance }: Pick<DocumentTable, 'table' | 'appearance'>,
	style?: Style
): DrawnTable {
	const wears: CarriedTable | null = style ? wearsOf(table, style.name) : null;
	const riding = { placed, ...(wears && { wears }), ...(style && { style: canonicalStyle(style) }) };
	return drawPlaced(placed, table, appearance, sheetContext(document), JSON.stringify(riding));
}

/** A table in the style that it is given, or as it stands in the file. */
export const dressedAs = (
	entry: DocumentTable,
	one: Prepared | undefined
): Pick<DocumentTable, 'table' | 'appearance'> => (one ? { table: one.job.table, appearance: one.wanted } : entry);

interface Edit {
	readonly start: number;
	readonly end: number;
	readonly text: string;
}

/**
 * Writes a drawing with its tables: each is one group, that is put in the place of the one before, or at the end of the
 * drawing. Nothing else is changed, but for attributes of objects that a person changed, and the size of the sheet where
 * a person gave it another scale.
 */
export async function writeSvg(
	document: SvgDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> {
	const prepared = prepare(document, jobs, options);
	const byIndex = new Map(prepared.map((one) => [one.job.index, one]));
	const edits: Edit[] = [...attributeEdits(document), ...rootEdits(document)];
	const drawn = new Map<number, DrawnTable>();
	const added: string[] = [];
	document.placed.forEach((placed, index) => {
		const one = byIndex.get(index);
		const group = document.groups.find((known) => known.placed.id === placed.id);
		// A table that nothing was done to stays byte for byte.
		if (!one && group && group.placed === placed && !document.edits.sheet) return;
		const entry = document.tables[index]!;
		const style = one && givesStyle(one.job) ? selfContained(one.job.style, options.house, options.find) : undefined;
		const table = drawOn(document, placed, dressedAs(entry, one), style ?? (entry.carried ? group?.style : undefined));
		drawn.set(index, table);
		if (group) edits.push({ start: group.node.start, end: group.node.end, text: table.markup });
		else added.push(table.markup);
	});
	const ids = new Set(document.placed.map(({ id }) => id));
	for (const { node, placed } of document.groups)
		if (!ids.has(placed.id)) edits.push({ start: node.start, end: node.end, text: '' });
	if (added.length) edits.push(...atTheEnd(document.xml.root, document.source.text, added.join('\n')));

	const bytes = encodePieces(
		document.source,
		pieces(document.source.text, edits),
		(char) => `&#${char.codePointAt(0)};`
	);
	const tables = readBack(document, bytes, prepared, drawn, options);
	return { bytes, account: { tables, remarks: document.remarks } };
}

function* pieces(source: string, edits: readonly Edit[]) {
	let at = 0;
	for (const { start, end, text } of [...edits].sort((a, b) => a.start - b.start || a.end - b.end)) {
		if (start > at) yield { from: at, to: start };
		if (text) yield text;
		at = end;
	}
	yield { from: at, to: source.length };
}

function atTheEnd(root: XmlNode, source: string, markup: string): Edit[] {
	if (!root.selfClosing) return [{ start: root.closeStart, end: root.closeStart, text: `${markup}\n` }];
	// <svg …/>: it is given an end tag.
	const name = /^<([^\s/>]+)/.exec(source.slice(root.start, root.end))![1]!;
	const slash = source.lastIndexOf('/', root.end);
	return [{ start: slash, end: root.end, text: `>\n${markup}\n</${name}>` }];
}

/** Sets attributes in the start tag of an element; null takes one away. Everything else of the tag stays. */
function tagEdits(node: XmlNode, source: string, changed: Readonly<Record<string, string | null>>): Edit[] {
	const tag = source.slice(node.start, node.openEnd);
	const edits: Edit[] = [];
	for (const [name, value] of Object.entries(changed)) {
		const found = [...attributesIn(tag)].find((one) => one.name === name);
		if (found) {
			const space = /^\s+/.exec(tag.slice(found.start))![0];
			edits.push({
				start: node.start + found.start,
				end: node.start + found.end,
				text: value === null ? '' : `${space}${name}="${escapeXml(value)}"`
			});
		} else if (value !== null) {
			const end = node.start + tag.replace(/\s*\/?>$/, '').length;
			edits.push({ start: end, end, text: ` ${name}="${escapeXml(value)}"` });
		}
	}
	return edits;
}

function attributeEdits({ edits, found, source }: SvgDocument): Edit[] {
	if (!edits.attributes) return [];
	const nodes = new Map(found.objects.map(({ key, node }) => [key, node]));
	// What is used several times stands in the file once: the last word counts.
	const byNode = new Map<XmlNode, Record<string, string | null>>();
	for (const [key, changed] of Object.entries(edits.attributes)) {
		const node = nodes.get(key);
		if (!node) continue;
		const named = Object.fromEntries(Object.entries(changed).map(([name, value]) => [`data-${name}`, value]));
		byNode.set(node, { ...byNode.get(node), ...named });
	}
	return [...byNode].flatMap(([node, changed]) => tagEdits(node, source.text, changed));
}

const length = (mm: number) => `${Number(mm.toFixed(4))}mm`;

/** The size and scale that a person gave the sheet stand in its root element from then on. */
function rootEdits({ edits, sheet, xml, source }: SvgDocument): Edit[] {
	if (!edits.sheet || Object.keys(edits.sheet).length === 0) return [];
	const { width, height, scale } = sheet;
	const said: Record<string, string> = { width: length(width), height: length(height), 'data-scale': `1:${scale}` };
	if (!xml.root.attribute('viewBox')) {
		const [per] = sheet.toPaper;
		said.viewBox = `0 0 ${Number((width / per).toFixed(6))} ${Number((height / per).toFixed(6))}`;
	}
	if (edits.sheet.unit) said['data-unit'] = edits.sheet.unit;
	return tagEdits(xml.root, source.text, said);
}

/** Fields of type, which a cell without text does not show. */
const OF_TEXT: readonly LookField[] = ['family', 'size', 'weight', 'italic', 'underline', 'tracking', 'ink'];

function readBack(
	document: SvgDocument,
	bytes: Uint8Array,
	prepared: readonly Prepared[],
	drawn: ReadonlyMap<number, DrawnTable>,
	{ readBack: isWanted = true }: WriteOptions
) {
	const back = isWanted && prepared.length ? readSvg(bytes) : undefined;
	return prepared.map((one) => {
		const { index, table } = one.job;
		const { appearance } = drawn.get(index)!;
		const group = back?.groups.find(({ placed }) => placed.id === document.placed[index]!.id);
		const differences = !back
			? []
			: group
				? compare(table, appearance, withoutType(drawnAppearance(group.node, table), appearance, table), SAYABLE)
				: [{ r: 0, c: 0, leaf: 'fill' as const, what: 'table', wanted: 'a group', got: 'none' }];
		return tallyOf(one, () => [], new Map()).account(one, differences);
	});
}

/** What was read back, with the type of cells without text taken for granted: nothing of it shows. */
function withoutType(got: Appearance, wanted: Appearance, table: StyleJob['table']): Appearance {
	const looks: Look[] = [];
	const cellLook = Int32Array.from(table.cells, (_, i) => {
		const look = got.looks[got.cellLook[i]!]!;
		const want = wanted.looks[wanted.cellLook[i]!]!;
		const isBare = look.family === undefined;
		const type = isBare ? Object.fromEntries(OF_TEXT.map((field) => [field, SAYABLE.look(want)[field]])) : {};
		// Small capitals are drawn as smaller capitals; their size is that of the letters typed small.
		const size = want.case === 'small-caps' || table.cells[i]!.text === '' ? { size: want.size } : {};
		return looks.push({ ...look, ...type, ...size } as Look) - 1;
	});
	return { ...got, looks, cellLook };
}
