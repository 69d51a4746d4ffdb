import { LOOK_FIELDS, type Appearance } from '../../core/cascade/look.ts';
import { ASPECTS, type Aspect } from '../../core/style/types.ts';
import { cssName, styleCss } from '../../core/share/css.ts';
import { roleFamily } from '../../core/table/roles.ts';
import { toPixels, type Emu } from '../../core/units.ts';
import {
	compare,
	givesStyle,
	isCleared,
	keepsOwnLook,
	tallyOf,
	prepare,
	sameLine,
	type Prepared,
	type StyleJob,
	type SeenLeaf,
	type Travel,
	type WriteOptions,
	type Written
} from '../account.ts';
import { carriedAfter, carriedToJson } from '../carried.ts';
import { encodePieces } from '../package/encoding.ts';
import type { Grid, Side } from '../../core/table/grid.ts';
import { CellSides, OPPOSITE } from '../sides.ts';
import { inlineDeclarations } from './cascade.ts';
import { asciiCss, classesOf, scopeOf } from './classes.ts';
import { childElements, elements, parentOf, tagsOf, type Element } from './dom.ts';
import type { HtmlGrid } from './grid.ts';
import { longhands } from './properties.ts';
import { DATA_TYPE, readHtml, type HtmlDocument } from './read.ts';
import { declare, declareLine, lostLeaves, SAYABLE } from './say.ts';

/** Declarations that a cell gets of its own, by table and cell. */
type Directs = ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>;
type Piece = string | { readonly from: number; readonly to: number };

/** Replacements in the page's text. */
export class PageEdits {
	private readonly edits: { start: number; end: number; text: string; order: number }[] = [];
	replace(start: number, end: number, text: string): void {
		this.edits.push({ start, end, text, order: this.edits.length });
	}
	insert(at: number, text: string): void {
		this.replace(at, at, text);
	}
	pieces(length: number): Piece[] {
		// At one place, what is inserted comes before what is replaced.
		this.edits.sort((a, b) => a.start - b.start || a.end - b.end || a.order - b.order);
		const pieces: Piece[] = [];
		let at = 0;
		for (const { start, end, text } of this.edits) {
			if (start > at) pieces.push({ from: at, to: start });
			if (text) pieces.push(text);
			at = Math.max(at, end);
		}
		pieces.push({ from: at, to: length });
		return pieces;
	}
}

const escapeAttribute = (text: string) =>
	text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Which aspect the longhands of a page belong to; undefined for those that no look has. */
function aspectOf(property: string): Aspect | undefined {
	if (property === 'background-color') return 'fill';
	if (property.startsWith('border-')) return 'linework';
	if (property.startsWith('padding-')) return 'margins';
	if (/^(text-align|vertical-align|writing-mode)$/.test(property)) return 'alignment';
	if (/^(color|font-|line-height|letter-spacing|text-decoration-|text-transform)/.test(property)) return 'text';
	return undefined;
}
const LEGACY: Readonly<Record<string, Aspect>> = {
	bgcolor: 'fill',
	align: 'alignment',
	valign: 'alignment',
	border: 'linework',
	rules: 'linework',
	frame: 'linework',
	cellpadding: 'margins',
	cellspacing: 'linework'
};

/** An inline style without what the carried aspects say; as it was written where nothing of it goes. */
function keptStyle(style: string | undefined, carry: ReadonlySet<Aspect>): string {
	if (!style?.trim()) return '';
	if (!inlineDeclarations(style).some(([property]) => carry.has(aspectOf(property)!))) return style.trim();
	return style
		.split(/;(?![^(]*\))/)
		.filter((declaration) => {
			const colon = declaration.indexOf(':');
			if (colon < 0) return false;
			const property = declaration.slice(0, colon).trim().toLowerCase();
			const aspects = [...longhands(property, declaration.slice(colon + 1).trim())].map(([name]) => aspectOf(name));
			return !aspects.some((aspect) => aspect && carry.has(aspect));
		})
		.map((declaration) => declaration.trim())
		.filter(Boolean)
		.join('; ');
}

/** The class names that Heptarch gives to rows and cells. */
const OURS =
	/^(title|header|group|body|subtotal|total|note|first|last|(header|group|subtotal|band|stripe)-\d+|(kind|column|rule)-.+)$/;

interface TagChange {
	readonly carry: ReadonlySet<Aspect>;
	readonly classes: readonly string[];
	readonly styles?: readonly string[];
	readonly attributes?: Readonly<Record<string, string>>;
	readonly name?: string;
	/** Attributes that go. */
	readonly drops?: readonly string[];
	/** Other class names that go. */
	readonly without?: ReadonlySet<string>;
}

/** Writes a start tag anew: every attribute that is not about looks stays, in its order. */
function changeTag(edits: PageEdits, source: string, element: Element, change: TagChange): void {
	const tags = tagsOf(element);
	if (!tags) return;
	const { carry, classes, styles = [], attributes = {}, name = element.name, drops = [], without } = change;
	const kept = Object.entries(element.attribs).filter(
		([key]) =>
			!['class', 'style', ...Object.keys(attributes), ...drops].includes(key) &&
			!(LEGACY[key] && carry.has(LEGACY[key]) && element.name !== 'caption')
	);
	const names = [
		...(element.attribs.class ?? '').split(/\s+/).filter((one) => one && !OURS.test(one) && !without?.has(one)),
		...classes
	];
	const style = [keptStyle(element.attribs.style, carry), ...styles].filter(Boolean).join('; ');
	const all: [string, string][] = [
		...kept,
		...(names.length ? [['class', [...new Set(names)].join(' ')] as [string, string]] : []),
		...(style ? [['style', style] as [string, string]] : []),
		...Object.entries(attributes)
	];
	const written = source.slice(tags.start, tags.open);
	const tag = `<${name}${all.map(([key, value]) => ` ${key}="${escapeAttribute(value)}"`).join('')}>`;
	const before = Object.entries(element.attribs).sort();
	const isSame = name === element.name && JSON.stringify(before) === JSON.stringify([...all].sort());
	if (!isSame && written !== tag) edits.replace(tags.start, tags.open, tag);
	if (name !== element.name && tags.hasEnd) edits.replace(tags.close, tags.end, `</${name}>`);
}

/** Adds declarations to the inline style of an element that keeps all else. */
function declareOn(
	edits: PageEdits,
	source: string,
	element: Element | undefined,
	declarations: readonly string[]
): void {
	if (!element) return;
	const classes = (element.attribs.class ?? '').split(/\s+/).filter((one) => OURS.test(one));
	changeTag(edits, source, element, { carry: new Set(), classes, styles: declarations });
}

/** Elements that give words emphasis, and nothing else. */
const EMPHATIC: ReadonlySet<string> = new Set(['b', 'strong', 'i', 'em', 'u', 'font', 'big', 'small', 'mark', 'ins']);
const TEXT_ONLY: ReadonlySet<Aspect> = new Set(['text']);

/** Takes the emphasis inside a cell's text away; tables inside it keep theirs. */
function dropEmphasis(edits: PageEdits, source: string, element: Element): void {
	for (const child of childElements(element)) {
		if (child.name === 'table') continue;
		const tags = tagsOf(child);
		if (tags && EMPHATIC.has(child.name)) {
			edits.replace(tags.start, tags.open, '');
			if (tags.hasEnd) edits.replace(tags.close, tags.end, '');
		} else if (child.attribs.style) changeTag(edits, source, child, { carry: TEXT_ONLY, classes: [] });
		dropEmphasis(edits, source, child);
	}
}

/** Gives the columns their widths by `col` elements, in the place of those that the table has. */
function setWidths(edits: PageEdits, source: string, { node }: HtmlGrid, widths: readonly Emu[]): void {
	const markup = `<colgroup>${widths.map((width) => `<col style="width: ${toPixels(width).toFixed(1)}px">`).join('')}</colgroup>`;
	const old = childElements(node, 'colgroup', 'col').flatMap((one) => tagsOf(one) ?? []);
	for (const { start, end } of old.slice(1)) edits.replace(start, end, '');
	const [first] = old;
	if (first) return edits.replace(first.start, first.end, markup);
	const caption = childElements(node, 'caption').flatMap((one) => tagsOf(one) ?? [])[0];
	const tags = tagsOf(node);
	if (tags) edits.insert(caption?.end ?? tags.open, markup);
}

/** Puts the header rows into a `thead` where they stand in none, so that they repeat on paper and are read out as such. */
function addHead(edits: PageEdits, { rows }: HtmlGrid, { job }: Prepared, source: string): void {
	const family = job.table.roles.map(roleFamily);
	let head = 0;
	while (head < family.length && (family[head] === 'header' || family[head] === 'title')) head++;
	if (!family.slice(0, head).includes('header') || head === family.length) return;
	// A cell that reaches down out of the head would end with it (HTML Standard §4.9.12.1).
	const { cells, merged } = job.table;
	if (merged.some((i) => cells[i]!.r < head && cells[i]!.r + cells[i]!.rows > head)) return;
	const section = rows[0]!.section;
	if (section?.name !== 'tbody' || rows.some((row, r) => r <= head && row.section !== section)) return;
	const first = tagsOf(rows[0]!.node);
	const next = tagsOf(rows[head]!.node);
	if (!first || !next || childElements(section)[0] !== rows[0]!.node) return;
	const own = tagsOf(section);
	if (own) {
		edits.replace(own.start, own.open, '<thead>');
		edits.insert(next.start, `</thead>${source.slice(own.start, own.open)}`);
	} else {
		edits.insert(first.start, '<thead>');
		edits.insert(next.start, '</thead><tbody>');
		const last = tagsOf(rows.filter((row) => row.section === section).at(-1)!.node);
		if (last) edits.insert(last.end, '</tbody>');
	}
}

/** The page with some tables in their styles, as pieces. */
function pageWith(
	document: HtmlDocument,
	prepared: readonly Prepared[],
	directs: Directs,
	options: WriteOptions,
	as: Travel
): Piece[] {
	const source = document.source.text;
	const edits = new PageEdits();
	const sheets = new Map<string, string>();
	for (const one of prepared) {
		const { job, resolved } = one;
		const grid = document.grids[job.index]!;
		if (keepsOwnLook(job)) {
			for (const [i, declarations] of directs.get(job.index) ?? [])
				declareOn(edits, source, grid.cells[i], declarations);
			continue;
		}
		const carry = new Set(job.table.carry);
		const living = isLiving(one, as);
		const { rows, cells, className } = classesOf(one);
		const previous = new Set([cssName(grid.node.attribs['data-style'] ?? '')]);
		changeTag(edits, source, grid.node, {
			carry,
			classes: living ? [className] : [],
			styles: carry.has('linework') ? ['border-collapse: collapse'] : [],
			attributes: isCleared(job) ? {} : { 'data-style': job.style.name },
			drops: isCleared(job) ? ['data-style'] : [],
			without: previous
		});
		if (living) sheets.set(className, styleCss(resolved.style, options.house));
		for (const section of new Set(grid.rows.map((row) => row.section)))
			if (section) changeTag(edits, source, section, { carry, classes: [] });
		if (job.widths?.length) setWidths(edits, source, grid, job.widths);
		grid.rows.forEach(({ node }, r) => changeTag(edits, source, node, { carry, classes: living ? [...rows[r]!] : [] }));
		grid.cells.forEach((cell, i) => {
			if (!cell) return;
			if (job.dropsEmphasis) dropEmphasis(edits, source, cell);
			const { r, c } = grid.grid.cells[i]!;
			const scope = scopeOf(one, r, c);
			changeTag(edits, source, cell, {
				carry,
				classes: living ? cells[i]! : [],
				styles: directs.get(job.index)?.get(i) ?? [],
				name: scope ? 'th' : cell.name,
				attributes: scope ? { scope } : {}
			});
		});
		if (grid.rows[0] && !grid.rows.some(({ section }) => section?.name === 'thead')) addHead(edits, grid, one, source);
	}
	const own = new Set(prepared.map(({ job }) => job.index));
	for (const [index, cells] of directs)
		if (!own.has(index))
			for (const [i, declarations] of cells) declareOn(edits, source, document.grids[index]!.cells[i], declarations);
	for (const element of elements(document.page)) {
		const isOwn =
			(element.name === 'style' && 'data-heptarch' in element.attribs) ||
			(element.name === 'script' && element.attribs.type === DATA_TYPE);
		const tags = isOwn ? tagsOf(element) : undefined;
		if (!tags) continue;
		edits.replace(tags.start, tags.end, '');
	}
	edits.insert(placeForStyles(document), ownMarkup(document, prepared, sheets, options));
	return edits.pieces(source.length);
}

const isLiving = ({ job }: Prepared, as: Travel): boolean =>
	as !== 'direct' &&
	givesStyle(job) &&
	ASPECTS.every((aspect) => aspect === 'formats' || job.table.carry.includes(aspect));

/** Our style sheets and data: at the end of the head, or before the first table where the page has no head of its own. */
function placeForStyles({ page, grids }: HtmlDocument): number {
	for (const element of elements(page)) {
		const tags = element.name === 'head' ? tagsOf(element) : undefined;
		if (tags?.hasEnd) return tags.close;
	}
	let first: Element = grids[0]!.node;
	for (let up = parentOf(first); up; up = parentOf(up)) if (up.name === 'table') first = up;
	return tagsOf(first)?.start ?? 0;
}

function ownMarkup(
	document: HtmlDocument,
	prepared: readonly Prepared[],
	sheets: ReadonlyMap<string, string>,
	{ house, find }: WriteOptions
): string {
	const carried = carriedAfter(
		document,
		prepared.map(({ job }) => job),
		house,
		find
	);
	const worn = carried.styles.map(({ name }) => cssName(name));
	// Sheets of styles that other tables of the page wear from before stay.
	const old = [...elements(document.page)].flatMap((element) => {
		const name = element.name === 'style' ? element.attribs['data-heptarch'] : undefined;
		if (!name || !worn.includes(name) || sheets.has(name)) return [];
		return [[name, element.children.map((child) => ('data' in child ? child.data : '')).join('')] as const];
	});
	return [
		...[...old, ...sheets].map(([name, css]) => `<style data-heptarch="${name}">\n${asciiCss(css)}</style>\n`),
		carried.tables.length
			? `<script type="${DATA_TYPE}">${carriedToJson(carried).replace(/</g, '\\u003c')}</script>\n`
			: ''
	].join('');
}

const bump = (counts: Map<SeenLeaf, number>, leaf: SeenLeaf, count: number) => {
	if (count) counts.set(leaf, (counts.get(leaf) ?? 0) + count);
};

interface Fixes {
	readonly directs: Map<number, Map<number, string[]>>;
	/** By table: how many settings of which leaf travel directly. */
	readonly counts: Map<number, Map<SeenLeaf, number>>;
}

/** A table as it is to be seen on the page that is written. */
interface Meant {
	readonly index: number;
	readonly table: Grid;
	readonly wanted: Appearance;
}

/**
 * How the tables with a job are to be seen, and those inside them without one: CSS hands what text looks like down to
 * them, and they are to stay as they are.
 */
function meantBy(document: HtmlDocument, prepared: readonly Prepared[]): Meant[] {
	const meant = new Map<number, Meant>();
	for (const { job, wanted } of prepared) meant.set(job.index, { index: job.index, table: job.table, wanted });
	// An outer table comes before those in it.
	for (const { index, place, table, appearance } of document.tables)
		if (place.inside !== undefined && meant.has(place.inside) && !meant.has(index))
			meant.set(index, { index, table, wanted: appearance });
	return [...meant.values()];
}

/** What the page shows otherwise than meant, as declarations of the cells. */
function fixesFor(document: HtmlDocument, meant: readonly Meant[]): Fixes {
	const directs = new Map<number, Map<number, string[]>>();
	const counts: Fixes['counts'] = new Map();
	for (const { index, table, wanted } of meant) {
		const got = document.tables[index]!.appearance;
		const own = new Map<number, string[]>();
		const count = new Map<SeenLeaf, number>();
		const add = (cell: number, ...declarations: string[]) => own.set(cell, [...(own.get(cell) ?? []), ...declarations]);
		table.cells.forEach((_, i) => {
			const want = SAYABLE.look(wanted.looks[wanted.cellLook[i]!]!);
			const have = got.looks[got.cellLook[i]!]!;
			if (Object.keys(have).length === 0) return;
			for (const field of LOOK_FIELDS)
				if (want[field] !== undefined && want[field] !== have[field]) {
					bump(count, field, 1);
					add(i, ...declare(field, want));
				}
		});
		bump(count, 'lines', fixLines(table, wanted, got, add));
		directs.set(index, own);
		counts.set(index, count);
	}
	return { directs, counts };
}

/** Borders of the cells beside every edge that shows otherwise: both sides of the edge say the same. */
function fixLines(
	table: Grid,
	wanted: Appearance,
	got: Appearance,
	add: (cell: number, declaration: string) => void
): number {
	const sides = new CellSides(table, wanted, SAYABLE.line);
	const lines = wanted.lines.map(SAYABLE.line);
	const said = new Set<string>();
	let count = 0;
	const say = (cell: number, side: Side) => {
		if (said.has(`${cell} ${side}`)) return;
		said.add(`${cell} ${side}`);
		const line = sides.line(cell, side);
		add(cell, declareLine(side, line));
		for (const other of sides.beyond(cell, side)) say(other, OPPOSITE[side]);
	};
	const differs = (edges: 'across' | 'down', i: number) =>
		wanted[edges][i]! >= 0 && !sameLine(lines[wanted[edges][i]!], got.lines[got[edges][i]!]);
	const { rows, columns, slots } = table;
	for (let r = 0; r <= rows; r++)
		for (let c = 0; c < columns; c++)
			if (differs('across', r * columns + c)) {
				count++;
				if (r > 0) say(slots[(r - 1) * columns + c]!, 'bottom');
				else say(slots[c]!, 'top');
			}
	for (let r = 0; r < rows; r++)
		for (let c = 0; c <= columns; c++)
			if (differs('down', r * (columns + 1) + c)) {
				count++;
				if (c > 0) say(slots[r * columns + c - 1]!, 'end');
				else say(slots[r * columns]!, 'start');
			}
	return count;
}

/**
 * Gives styles to tables of a page. Everything else in it comes out byte for byte. The style travels as a style sheet
 * with classes; what the page shows otherwise all the same is said on the cells.
 */
export async function writeHtml(
	document: HtmlDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> {
	const { as = 'living', readBack = true } = options;
	const prepared = prepare(document, jobs, options);
	if (prepared.length === 0)
		return { bytes: new Uint8Array(document.source.bytes), account: { tables: [], remarks: document.remarks } };
	const build = (directs: Directs) =>
		encodePieces(
			document.source,
			pageWith(document, prepared, directs, options, as),
			(char) => `&#x${char.codePointAt(0)!.toString(16)};`
		);
	let bytes = build(new Map());
	const counts: Fixes['counts'] = new Map();
	if (as !== 'living-only') {
		// A fix can bring up another: a shared border said on one cell is seen from the next.
		let directs = new Map<number, Map<number, string[]>>();
		const meant = meantBy(document, prepared);
		for (let round = 0; round < 2; round++) {
			const fixes = fixesFor(readHtml(bytes), meant);
			if (![...fixes.counts.values()].some((count) => count.size > 0)) break;
			for (const [index, found] of fixes.counts) {
				const own = counts.get(index) ?? new Map<SeenLeaf, number>();
				for (const [leaf, count] of found) bump(own, leaf, count);
				counts.set(index, own);
			}
			directs = merged(directs, fixes.directs);
			bytes = build(directs);
		}
	}
	const back = readBack ? readHtml(bytes) : undefined;
	const tables = prepared.map((one) => {
		const { job, wanted } = one;
		const differences = back ? compare(job.table, wanted, back.tables[job.index]!.appearance, SAYABLE) : [];
		const direct = isLiving(one, as) ? (counts.get(job.index) ?? new Map<SeenLeaf, number>()) : undefined;
		return tallyOf(one, lostLeaves, direct).account(one, differences);
	});
	return { bytes, account: { tables, remarks: document.remarks } };
}

/** Later declarations after earlier ones. */
function merged(
	a: ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>,
	b: ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>
): Map<number, Map<number, string[]>> {
	const out = new Map<number, Map<number, string[]>>();
	for (const from of [a, b])
		for (const [table, cells] of from) {
			const own = out.get(table) ?? new Map<number, string[]>();
			out.set(table, own);
			for (const [cell, declarations] of cells) own.set(cell, [...(own.get(cell) ?? []), ...declarations]);
		}
	return out;
}
