import { styleCss, cssName } from '../../core/share/css.ts';
import { ASPECTS } from '../../core/style/types.ts';
import type { SeenLeaf } from '../read-back.ts';
import {
	differencesOf,
	givesStyle,
	isCleared,
	keepsOwnLook,
	prepare,
	type Prepared,
	type StyleJob,
	type Travel,
	type WriteOptions
} from '../job.ts';
import { tallyOf, type Written } from '../tally.ts';
import { carriedAfter, carriedToJson } from '../carried.ts';
import { encodePieces } from '../package/encoding.ts';
import { asciiCss, classesOf, scopeOf } from './classes.ts';
import { elements, parentOf, tagsOf, type Element } from './dom.ts';
import { PageEdits, type Piece } from './edits.ts';
import { bump, fixesFor, meantBy, merged, type Directs, type Fixes } from './fixes.ts';
import { columnElements, type HtmlGrid } from './grid.ts';
import { DATA_TYPE, readHtml, type HtmlDocument } from './read.ts';
import { fillingInside } from './properties/fill.ts';
import { lostLeaves, SAYABLE } from './properties/index.ts';
import { gapDeclarations, paragraphElements } from './properties/paragraph-gap.ts';
import { changeSection, changeTag, declareOn, dropEmphasis, rowsForHead, setWidths } from './tags.ts';

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
	/** What elements inside some cells are to say: paragraphs of the space between them, and what hides a fill that it goes. */
	const gapsIn = (index: number) => {
		const said = new Map<Element, string[]>();
		const say = (element: Element, declarations: readonly string[]) =>
			said.set(element, [...(said.get(element) ?? []), ...declarations]);
		for (const [i, gap] of directs.get(index)?.gaps ?? []) {
			const { first, following } = gapDeclarations(gap);
			paragraphElements(document.grids[index]!.cells[i]!).forEach((element, at) =>
				say(element, at ? following : first)
			);
		}
		for (const i of directs.get(index)?.behind ?? [])
			for (const element of fillingInside(document.grids[index]!.cells[i]!, document.pageStyles))
				say(element, ['background-color: transparent']);
		return said;
	};
	const sayGaps = (index: number) => {
		for (const [element, declarations] of gapsIn(index)) declareOn(edits, source, element, declarations);
	};
	for (const one of prepared) {
		const { job, resolved } = one;
		const grid = document.grids[job.index]!;
		const dropsEmphasis = !keepsOwnLook(job) && job.dropsEmphasis;
		const gaps = dropsEmphasis ? gapsIn(job.index) : new Map<Element, string[]>();
		// A tag is changed once: where emphasis goes, the paragraphs say their space along with it.
		if (!dropsEmphasis) sayGaps(job.index);
		if (keepsOwnLook(job)) {
			for (const [i, declarations] of directs.get(job.index)?.cells ?? [])
				declareOn(edits, source, grid.cells[i], declarations);
			continue;
		}
		const carry = new Set(job.table.carry);
		const living = isLiving(one, as);
		const { rows, cells, className } = classesOf(one);
		const fixes = directs.get(job.index);
		const said = (kind: string, of: readonly number[]) => [
			...new Set(of.flatMap((r) => [...(fixes?.blocks.get(`${kind} ${r}`) ?? [])]))
		];
		const previous = new Set([cssName(grid.node.attribs['data-style'] ?? '')]);
		changeTag(edits, source, grid.node, {
			carry,
			classes: living ? [className] : [],
			styles: [...(carry.has('linework') ? ['border-collapse: collapse'] : []), ...(fixes?.blocks.get('table') ?? [])],
			attributes: isCleared(job) ? {} : { 'data-style': job.style.name },
			drops: isCleared(job) ? ['data-style'] : [],
			without: previous
		});
		if (living) sheets.set(className, styleCss(resolved.style, options.house));
		if (!job.widths?.length)
			for (const [k, element] of [...new Set(columnElements(grid).flat())].entries()) {
				const styles = [...(fixes?.blocks.get(`columns ${k}`) ?? [])];
				if (styles.length) declareOn(edits, source, element, styles);
			}
		const headRows = rowsForHead(grid, one);
		for (const [section, rowsHere] of rowsBySection(grid)) {
			const toHead = rowsHere[0] === 0 ? headRows : 0;
			const styles = said('section', rowsHere.slice(toHead));
			const head = { rows: toHead, styles: said('section', rowsHere.slice(0, toHead)) };
			changeSection(edits, source, grid, rowsHere, section, { carry, classes: [], styles }, head);
		}
		if (job.widths?.length) setWidths(edits, source, grid, job.widths);
		grid.rows.forEach(({ node }, r) =>
			changeTag(edits, source, node, { carry, classes: living ? [...rows[r]!] : [], styles: said('row', [r]) })
		);
		grid.cells.forEach((cell, i) => {
			if (!cell) return;
			if (dropsEmphasis) dropEmphasis(edits, source, cell, gaps);
			const { r, c } = grid.grid.cells[i]!;
			const scope = scopeOf(one, r, c);
			changeTag(edits, source, cell, {
				carry,
				classes: living ? cells[i]! : [],
				styles: [...(scope && cell.name === 'td' ? plainHead(one, i) : []), ...(fixes?.cells.get(i) ?? [])],
				name: scope ? 'th' : cell.name,
				attributes: scope ? { scope } : {}
			});
		});
	}
	const own = new Set(prepared.map(({ job }) => job.index));
	for (const [index, { cells }] of directs) {
		if (own.has(index)) continue;
		sayGaps(index);
		for (const [i, declarations] of cells) declareOn(edits, source, document.grids[index]!.cells[i], declarations);
	}
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

/** What keeps a cell that becomes a th from being bold and centred (HTML Standard §15.3.8) where nobody says it is. */
function plainHead({ wanted }: Prepared, i: number): string[] {
	const { weight, h } = wanted.looks[wanted.cellLook[i]!]!;
	return [
		...(weight === undefined ? ['font-weight: inherit'] : []),
		...(h === undefined ? ['text-align: inherit'] : [])
	];
}

/** The sections of a table with the numbers of their rows. */
function rowsBySection({ rows }: HtmlGrid): Map<Element, number[]> {
	const sections = new Map<Element, number[]>();
	for (const [r, { section }] of rows.entries()) {
		if (!section) continue;
		const own = sections.get(section);
		if (own) own.push(r);
		else sections.set(section, [r]);
	}
	return sections;
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
	if (prepared.length === 0 && !document.tables.some(({ work }) => work))
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
		let directs: Directs = new Map();
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
		const differences = back ? differencesOf(document, back, one, SAYABLE) : [];
		const direct = isLiving(one, as) ? (counts.get(one.job.index) ?? new Map<SeenLeaf, number>()) : undefined;
		return tallyOf(one, lostLeaves, direct).account(one, differences);
	});
	return { bytes, account: { tables, remarks: document.remarks } };
}
