import type { House } from '../../core/house.ts';
import type { Appearance } from '../../core/cascade/look.ts';
import type { Resolved } from '../../core/cascade/resolve.ts';
import { flatten, type FindBase } from '../../core/style/inherit.ts';
import { isPartOff } from '../../core/style/parts.ts';
import { ASPECTS, type Style } from '../../core/style/types.ts';
import type { Table } from '../../core/table/grid.ts';
import { headRows, isHeader } from '../../core/roles/index.ts';
import { type Sayable } from '../read-back.ts';
import {
	differencesOf,
	isCleared,
	givesStyle,
	prepare,
	type Prepared,
	type StyleJob,
	type WriteOptions,
	writtenAspects
} from '../job.ts';
import { formatsLost, type Tally, type Written } from '../tally.ts';
import { Edits, parseXml, type XmlNode } from '../package/xml.ts';
import type { EntryText } from '../package/zip.ts';
import { carriedAfter } from '../carried.ts';
import { writeCarried } from './carried.ts';
import { sayableEdge } from './layers.ts';
import { sayableLook } from './properties/fields.ts';
import { readTableProperties, resolverOf } from './looks.ts';
import { livingId, livingStyle, type LivingStyle } from './living.ts';
import { CONTENT_TYPES, NAMESPACES, relationshipsOf, W_NAMESPACE, W_NAMESPACE_STRICT } from './names.ts';
import { patchTable } from './patch.ts';
import { PatchCache } from './property-markup.ts';
import type { TableLook } from './regions.ts';
import { readDocx, type DocxDocument } from './read.ts';
import { StyleSheet } from './styles.ts';

/** What WordprocessingML can say of a look and of a line. */
export const SAYABLE: Sayable = { look: sayableLook, line: sayableEdge };

/**
 * Gives styles to tables of a DOCX. Everything else in the package comes out byte for byte. Throws InputError where a
 * style or table is not usable; nothing is written then.
 */
export async function writeDocx(
	document: DocxDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> {
	const { house, find, as = 'living', readBack = true } = options;
	const prepared = prepare(document, jobs, options);
	const changed = new Map<string, EntryText>();
	const sheet = new StyleSheet(document.stylesPart?.xml.root, document.sheet.theme);
	const livings =
		as === 'direct' ? new Map<string, LivingStyle>() : makeLivingStyles(document, prepared, house, sheet, find);

	const cache = new PatchCache();
	const tallies: Tally[] = [];
	const patch = ({ job, resolved, wanted, changes }: Prepared, edits: Edits): Tally => {
		const { source, reader } = document.sources[job.index]!;
		const living = livings.get(livingId(job.style.name, job.table.carry, ASPECTS));
		return patchTable(
			{
				source,
				reader,
				cache,
				sheet,
				strict: document.strict,
				wanted,
				carry: new Set(job.table.carry),
				styleId: living?.id,
				clears: isCleared(job),
				dropsEmphasis: job.dropsEmphasis ?? false,
				widths: job.widths ?? [],
				look: living
					? chooseLook(job.table, living, sheet, wanted, source)
					: readTableProperties(source.node, sheet).look,
				direct: as !== 'living-only',
				hasLines: !changes || writtenAspects(job).has('linework'),
				rows: rowKeeping(resolved),
				changes
			},
			edits
		);
	};
	for (const story of document.stories) {
		const own = prepared.flatMap((one, i) => {
			const source = document.sources[one.job.index]!;
			if (source.story !== story) return [];
			return [{ node: source.source.node, patch: (edits: Edits) => void (tallies[i] = patch(one, edits)) }];
		});
		if (own.length === 0) continue;
		const pieces = patchedText(story.xml.source, own);
		const isOurs = story.xml.prefixes.get('w') === 'w';
		changed.set(story.name, isOurs ? pieces : ownPrefix([...pieces].join(''), story.xml));
	}
	if (livings.size > 0) await writeStyles(document, [...livings.values()], changed);
	await writeCarriedPart(document, prepared, house, find, changed);
	const bytes = await document.package.rewrite(changed);

	const back = readBack ? await readDocx(bytes) : undefined;
	const tables = prepared.map((one, i) => {
		const tally = tallies[i]!;
		tally.lose('formats', 'number formats', formatsLost(one));
		return tally.account(one, back ? differencesOf(document, back, one, SAYABLE) : []);
	});
	return { bytes, account: { tables, remarks: [...document.remarks, ...(document.ownRemarks ?? [])] } };
}

/**
 * A story's text with its tables patched, in pieces: each table is patched when the text has come to it, while what
 * came before is being compressed.
 */
function* patchedText(
	source: string,
	tables: readonly { readonly node: XmlNode; readonly patch: (edits: Edits) => void }[]
): Generator<string> {
	const inOrder = [...tables].sort((a, b) => a.node.start - b.node.start);
	let at = 0;
	for (let i = 0; i < inOrder.length;) {
		const edits = new Edits();
		const { end } = inOrder[i]!.node;
		// Tables inside this one are edited with it.
		for (; i < inOrder.length && inOrder[i]!.node.start < end; i++) inOrder[i]!.patch(edits);
		yield* edits.pieces(source, at, end);
		at = end;
	}
	yield source.slice(at);
}

function makeLivingStyles(
	document: DocxDocument,
	prepared: readonly Prepared[],
	house: House,
	sheet: StyleSheet,
	find?: FindBase
): Map<string, LivingStyle> {
	const livings = new Map<string, LivingStyle>();
	const root = [...sheet.styles.values()].find(({ type, isDefault }) => type === 'table' && isDefault)?.id;
	const taken = new Set(
		[...sheet.styles.values()].filter(({ id }) => !id.startsWith('Heptarch-')).map(({ name }) => name.toLowerCase())
	);
	const add = (style: Style, table: Table): string => {
		const id = livingId(style.name, table.carry, ASPECTS);
		if (livings.has(id)) return id;
		const base = style.basedOn
			? (find?.(style.basedOn) ?? style.bases?.find(({ name }) => name === style.basedOn))
			: undefined;
		const basedOn = base ? add({ ...base, bases: base.bases ?? style.bases }, table) : root;
		const partial =
			table.carry.length < ASPECTS.length &&
			table.carry.some((aspect) => aspect !== 'formats') &&
			ASPECTS.some((aspect) => aspect !== 'formats' && !table.carry.includes(aspect));
		let name = partial
			? `${style.name} (${table.carry.filter((aspect) => aspect !== 'formats').join(', ')})`
			: style.name;
		while (taken.has(name.toLowerCase())) name += ' (house)';
		taken.add(name.toLowerCase());
		const living = livingStyle(flatten(style, find), house, table, { id, name, basedOn, strict: document.strict });
		livings.set(id, living);
		return id;
	};
	for (const { job } of prepared) if (givesStyle(job)) add(job.style, job.table);
	for (const { xml } of livings.values())
		sheet.add(
			parseXml(`<w:styles xmlns:w="${W_NAMESPACE}">${xml}</w:styles>`, 'living style', { namespaces: NAMESPACES }).root
				.children[0]!
		);
	return livings;
}

/** Header rows that repeat, rows that keep together. */
function rowKeeping(resolved: Resolved) {
	const { table, cellSignature } = resolved.structure;
	const leaf = (r: number, path: string) => resolved.leaves[cellSignature[r * table.columns]!]?.get(path)?.value;
	const head = headRows(table.roles);
	return table.roles.map((_, r) => ({
		header: r < head && leaf(r, 'keep.repeat') !== false,
		together: leaf(r, 'keep.together') === true,
		withNext: leaf(r, 'keep.withNext') === true
	}));
}

/** The conditional formats to ask for: those the table has parts for; bands only where they say more right than wrong. */
function chooseLook(
	table: Table,
	living: LivingStyle,
	sheet: StyleSheet,
	wanted: Appearance,
	source: DocxDocument['sources'][number]['source']
): TableLook {
	const off = new Set(table.partsOff);
	const base: TableLook = {
		firstRow: !!table.roles[0] && isHeader(table.roles[0]) && !isPartOff('header', off),
		lastRow: table.rows > 1 && table.roles.at(-1) === 'total' && !isPartOff('total', off),
		firstColumn: table.firstColumns > 0 && !isPartOff('firstColumn', off),
		lastColumn: table.lastColumns > 0 && table.columns > 1 && !isPartOff('lastColumn', off),
		rowBands: false,
		columnBands: false
	};
	if (!living.rowBands && !living.columnBands) return base;
	const misses = (look: TableLook): number => {
		const resolver = resolverOf(sheet, { styleId: living.id, look, borders: {}, margins: {}, isRight: false });
		let count = 0;
		source.sources.forEach((cells, i) => {
			const first = cells[0];
			if (!first) return;
			const ground = resolver.ground(first, table.rows, table.columns);
			const { fill = 'none', ink } = wanted.looks[wanted.cellLook[i]!]!;
			if ((ground.cell.fill ?? 'none') !== fill) count++;
			if (ink !== undefined && ground.text.ink !== undefined && ground.text.ink !== ink) count++;
		});
		return count;
	};
	let best = base;
	let least = misses(base);
	const candidates: TableLook[] = [
		...(living.rowBands ? [{ ...base, rowBands: true }] : []),
		...(living.columnBands ? [{ ...base, columnBands: true }] : []),
		...(living.rowBands && living.columnBands ? [{ ...base, rowBands: true, columnBands: true }] : [])
	];
	for (const look of candidates) {
		const count = misses(look);
		if (count < least) [best, least] = [look, count];
	}
	return best;
}

/** Markup is written with the prefix w; sources that call the namespace something else get theirs. */
export function ownPrefix(
	text: string,
	xml: { prefixes: ReadonlyMap<string, string>; source: string; root: { start: number; openEnd: number } }
): string {
	const prefix = xml.prefixes.get('w');
	if (prefix === 'w' || prefix === undefined) return text;
	if (prefix !== '') return text.replace(/(<\/?|\s)w:(?=[A-Za-z0-9]+[\s=/>])/g, `$1${prefix}:`);
	const namespace = xml.source.includes(W_NAMESPACE_STRICT) ? W_NAMESPACE_STRICT : W_NAMESPACE;
	return text.slice(0, xml.root.openEnd - 1) + ` xmlns:w="${namespace}"` + text.slice(xml.root.openEnd - 1);
}

async function writeStyles(
	document: DocxDocument,
	livings: readonly LivingStyle[],
	changed: Map<string, EntryText>
): Promise<void> {
	if (!document.stylesPart) {
		const namespace = document.strict ? W_NAMESPACE_STRICT : W_NAMESPACE;
		const name = document.main.replace(/[^/]*$/, 'styles.xml');
		changed.set(
			name,
			`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<w:styles xmlns:w="${namespace}">${livings.map(({ xml }) => xml).join('')}</w:styles>`
		);
		await addRelationship(document, document.main, 'styles', name.slice(name.lastIndexOf('/') + 1), changed);
		await addContentType(
			document,
			name,
			'application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml',
			changed
		);
		return;
	}
	const { name, xml } = document.stylesPart;
	const edits = new Edits();
	for (const living of livings) {
		const old = xml.root.children.find((node) => node.name === 'w:style' && node.attribute('w:styleId') === living.id);
		if (old) edits.replace(old.start, old.end, living.xml);
		else if (!xml.root.selfClosing) edits.insert(xml.root.closeStart, living.xml);
	}
	changed.set(name, ownPrefix(edits.apply(xml.source), xml));
}

async function addRelationship(
	document: DocxDocument,
	from: string,
	kind: string,
	target: string,
	changed: Map<string, EntryText>
): Promise<void> {
	const name = relationshipsOf(from);
	const text =
		partText(changed, name) ??
		(await document.package.text(name)) ??
		'<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"></Relationships>';
	let id = 1;
	while (text.includes(`"rIdHept${id}"`)) id++;
	const family = document.strict
		? 'http://purl.oclc.org/ooxml/officeDocument/relationships'
		: 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
	await addRelationshipsType(document, name, changed);
	changed.set(
		name,
		insertBeforeEnd(text, name, `<Relationship Id="rIdHept${id}" Type="${family}/${kind}" Target="${target}"/>`)
	);
}

/** The content type of a relationships part, where the package types parts one by one (ECMA-376 Part 2 §6.5). */
async function addRelationshipsType(
	document: DocxDocument,
	name: string,
	changed: Map<string, EntryText>
): Promise<void> {
	const types = partText(changed, CONTENT_TYPES) ?? (await document.package.text(CONTENT_TYPES));
	if (types && !/Extension="rels"/i.test(types))
		await addContentType(document, name, 'application/vnd.openxmlformats-package.relationships+xml', changed);
}

async function addContentType(
	document: DocxDocument,
	part: string,
	type: string,
	changed: Map<string, EntryText>
): Promise<void> {
	const text = partText(changed, CONTENT_TYPES) ?? (await document.package.text(CONTENT_TYPES));
	if (!text || text.includes(`"/${part}"`)) return;
	changed.set(
		CONTENT_TYPES,
		insertBeforeEnd(text, CONTENT_TYPES, `<Override PartName="/${part}" ContentType="${type}"/>`)
	);
}

/** A part that was changed before, as text; only stories are in pieces. */
function partText(changed: ReadonlyMap<string, EntryText>, name: string): string | undefined {
	const text = changed.get(name);
	return typeof text === 'string' ? text : undefined;
}

/** Adds an element at the end of a part's root, in the prefix of the root. */
function insertBeforeEnd(text: string, part: string, markup: string): string {
	const { root } = parseXml(text, part, { namespaces: new Map() });
	const [, name, prefix = ''] = /^<(([\w.-]+:)?[^\s/>]+)/.exec(text.slice(root.start))!;
	const own = markup.replace('<', `<${prefix}`);
	if (!root.selfClosing) return text.slice(0, root.closeStart) + own + text.slice(root.closeStart);
	const open = text.slice(root.start, root.end).replace(/\s*\/>$/, '>');
	return `${text.slice(0, root.start)}${open}${own}</${name}>${text.slice(root.end)}`;
}

/** Our own definition of the styles and what each table wears, in a custom XML part. What other tables wore before is kept. */
async function writeCarriedPart(
	document: DocxDocument,
	prepared: readonly Prepared[],
	house: House,
	find: FindBase | undefined,
	changed: Map<string, EntryText>
): Promise<void> {
	const jobs = prepared.map(({ job }) => job);
	const carried = carriedAfter(document, jobs, house, find);
	if (!carried.tables.length && !document.carriedPart) return;
	const text = writeCarried(carried);
	if (document.carriedPart) {
		changed.set(document.carriedPart, text);
		return;
	}
	let number = 1;
	while (document.package.has(`customXml/item${number}.xml`)) number++;
	const name = `customXml/item${number}.xml`;
	const propertiesName = `customXml/itemProps${number}.xml`;
	const family = document.strict
		? 'http://purl.oclc.org/ooxml/officeDocument'
		: 'http://schemas.openxmlformats.org/officeDocument/2006';
	changed.set(name, text);
	changed.set(
		propertiesName,
		`<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<ds:datastoreItem ds:itemID="{7A0E3C52-4B1D-4E6F-9C7A-48455054${String(number).padStart(4, '0')}}" xmlns:ds="${document.strict ? 'http://purl.oclc.org/ooxml/officeDocument/customXml' : 'http://schemas.openxmlformats.org/officeDocument/2006/customXml'}"><ds:schemaRefs><ds:schemaRef ds:uri="urn:heptarch:document:1"/></ds:schemaRefs></ds:datastoreItem>`
	);
	const relationships = `customXml/_rels/item${number}.xml.rels`;
	await addRelationshipsType(document, relationships, changed);
	changed.set(
		relationships,
		`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${family}/relationships/customXmlProps" Target="itemProps${number}.xml"/></Relationships>`
	);
	await addRelationship(
		document,
		document.main,
		'customXml',
		`${'../'.repeat(document.main.split('/').length - 1)}${name}`,
		changed
	);
	await addContentType(
		document,
		propertiesName,
		'application/vnd.openxmlformats-officedocument.customXmlProperties+xml',
		changed
	);
	const types = partText(changed, CONTENT_TYPES) ?? (await document.package.text(CONTENT_TYPES));
	if (types && !/Extension="xml"/i.test(types)) await addContentType(document, name, 'application/xml', changed);
}
