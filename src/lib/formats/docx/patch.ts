import { LEAF_WORDS, sameLine, Tally, type SeenLeaf } from '../account.ts';
import type { Appearance, Line, Look } from '../../core/cascade/look.ts';
import type { Aspect } from '../../core/style/types.ts';
import { toPoints, toTwips, type Emu } from '../../core/units.ts';
import { decimalMarkOf } from '../../core/values/parse.ts';
import type { Edits, XmlNode } from '../package/xml.ts';
import { placeProperties, rewriteProperties } from './containers.ts';
import { cellLayerOf, paragraphLayerOf, sayableEdge, sayableLook, textLayerOf } from './layers.ts';
import {
	directOnly,
	emphasisOf,
	getOrMake,
	NO_FIELDS,
	readCellText,
	type CellContext,
	type CellGround,
	type CellText,
	type LookResolver,
	type ParagraphContext,
	type PropertyReader,
	type RunContext
} from './looks.ts';
import { readBorders, writeBorders, type Borders } from './properties/borders.ts';
import {
	CELL_ORDER,
	readMargins,
	ROW_ORDER,
	TABLE_ORDER,
	writeMargins,
	writeRotation,
	writeShading,
	writeVertical
} from './properties/cell.ts';
import { lineSpacing, PARAGRAPH_ORDER, writeAlignment } from './properties/paragraph.ts';
import { readOnOff, RUN_ORDER, TEXT_ELEMENTS, writeText, type TextLayer } from './properties/text.ts';
import { writeTableLook, type TableLook } from './regions.ts';
import type { StyleSheet } from './styles.ts';
import type { SourceCell, SourceGrid } from './tables.ts';

/** What one table is to look like, and how much of it a living style says already. */
export interface PatchJob {
	readonly source: SourceGrid;
	readonly reader: PropertyReader;
	/** The document's styles, the new living ones among them. */
	readonly sheet: StyleSheet;
	readonly strict: boolean;
	/** The look wanted, whether this format can say it or not. */
	readonly wanted: Appearance;
	readonly carry: ReadonlySet<Aspect>;
	/** The living style that the table is to wear; undefined leaves the file's own and says all directly. */
	readonly styleId: string | undefined;
	/** The file's own table style goes, and no other comes. */
	readonly clears: boolean;
	/** The emphasis inside the text goes. */
	readonly dropsEmphasis: boolean;
	/** Widths that the columns take, in EMU; empty leaves them. */
	readonly widths: readonly Emu[];
	readonly look: TableLook;
	/** Whether what the style cannot say may be said directly. */
	readonly direct: boolean;
	readonly rows: readonly { readonly header: boolean; readonly together: boolean; readonly withNext: boolean }[];
	/** Only these cells are changed, by index, and no row; undefined: all are. */
	readonly changes: ReadonlySet<number> | undefined;
	/** Shared by the tables of one document. */
	readonly cache: PatchCache;
}

/** What a property element becomes, and which settings that says: those that were said already, and the others. */
interface Patched {
	readonly markup: string;
	readonly same: readonly SeenLeaf[];
	readonly different: readonly SeenLeaf[];
}

/** Property elements patched already: the same markup, in cells that are to look the same, comes out the same. */
export class PatchCache {
	private readonly kinds = new Map<string, Map<string, Patched>>();
	private readonly ids = new Map<object, number>();

	/** For patches of one kind, by a key of the ids of all that they depend on. */
	of(kind: string): Map<string, Patched> {
		let patched = this.kinds.get(kind);
		if (!patched) this.kinds.set(kind, (patched = new Map()));
		return patched;
	}
	/** A number from 1 for a look or line. */
	id(object: object): number {
		let id = this.ids.get(object);
		if (id === undefined) this.ids.set(object, (id = this.ids.size + 1));
		return id;
	}
}

const TEXT_NAMES: ReadonlySet<string> = new Set(Object.values(TEXT_ELEMENTS).flat());
/** Fields of run properties that are called otherwise among looks. */
const TEXT_LEAF: Partial<Record<keyof TextLayer, SeenLeaf>> = { bold: 'weight', caps: 'case', smallCaps: 'case' };
const widthMarkup = (name: string, widths: readonly Emu[]) =>
	`<${name} w:w="${toTwips(widths.reduce<number>((sum, width) => sum + width, 0) as Emu)}" w:type="dxa"/>`;
const SIDES = ['top', 'bottom', 'start', 'end'] as const;
const MARGIN_FIELDS = { top: 'marginTop', bottom: 'marginBottom', start: 'marginStart', end: 'marginEnd' } as const;
const OPPOSITE = [1, 0, 3, 2] as const;
const EMPTY: ReadonlyMap<string, string> = new Map();

/** What is wanted on a side of a w:tc: the number of a line from 0, or one of these. */
const NO_LINE = -1;
/** No edge: the side runs inside a merged cell. */
const INSIDE = -2;
/** Its segments show different lines, so that the finer cells on the other side have to say them. */
const UNEVEN = -3;

/** Rewrites one table's own markup so that it looks as wanted; all edits go to `edits`. */
export function patchTable(job: PatchJob, edits: Edits): Tally {
	return new TablePatch(job, edits).run();
}

class TablePatch {
	private readonly tally = new Tally();
	/** How often each patched element is used. */
	private readonly uses = new Map<Patched, number>();
	private readonly resolver: LookResolver;
	private readonly decimals: number[];
	private readonly looks: readonly Look[];
	private readonly lines: readonly (Line | null)[];
	private readonly lostPerLook: readonly (readonly (keyof Look)[])[];
	/** Ids of the lines and looks for keys that hold across tables. */
	private readonly lineIds: readonly number[];
	private readonly lookIds: readonly number[];
	private readonly patchedCells: Map<string, Patched>;
	private readonly patchedParagraphs: Map<string, Patched>;
	private readonly patchedRuns: Map<string, Patched>;
	/** The number of the w:tc that covers each slot in its row, −1 for none; and of the first w:tc of each row. */
	private readonly owner: Int32Array;
	private readonly firstOfRow: readonly number[];
	/** For each w:tc top, bottom, start, end: what is wanted there, and whether style and table say just that already. */
	private readonly wantedSides: Int32Array;
	private readonly stated: Uint8Array;

	constructor(
		private readonly job: PatchJob,
		private readonly edits: Edits
	) {
		const { source, sheet, carry, styleId, look, wanted } = job;
		const tblPr = source.node.child('w:tblPr');
		// What stays of the table's own properties once those that the style carries are gone.
		const kept = (name: string, aspect: Aspect) => (carry.has(aspect) ? undefined : tblPr?.child(name));
		this.resolver = sheet.resolver({
			styleId: styleId ?? (job.clears ? undefined : tblPr?.child('w:tblStyle')?.attribute('w:val')),
			look,
			borders: readBorders(kept('w:tblBorders', 'linework'), sheet.theme),
			margins: readMargins(kept('w:tblCellMar', 'margins'))
		});
		const sayable = wanted.looks.map(sayableLook);
		this.looks = sayable.map(({ look }) => look);
		this.lostPerLook = sayable.map(({ lost }) => lost);
		this.lines = wanted.lines.map(sayableEdge);
		this.decimals = this.fractionDigits();
		const { cache } = job;
		this.lineIds = this.lines.map((line) => (line ? cache.id(line) : 0));
		this.lookIds = this.looks.map((look) => cache.id(look));
		const kind = `${[...carry].join()} ${job.direct}`;
		this.patchedCells = cache.of(`tc ${kind}`);
		this.patchedParagraphs = cache.of(`p ${kind}`);
		this.patchedRuns = cache.of(`r ${kind}`);
		const { rows, grid } = source;
		this.owner = new Int32Array(grid.rows * grid.columns).fill(-1);
		const firstOfRow: number[] = [];
		let count = 0;
		for (const { cells } of rows) {
			firstOfRow.push(count);
			for (const { r, c, cols } of cells) this.owner.fill(count++, r * grid.columns + c, r * grid.columns + c + cols);
		}
		this.firstOfRow = firstOfRow;
		this.wantedSides = new Int32Array(count * 4);
		this.stated = new Uint8Array(count * 4);
		rows.forEach(({ cells }, r) => cells.forEach((cell, i) => this.wantSides(cell, firstOfRow[r]! + i)));
	}

	/** The most characters from the decimal mark on in each column. */
	private fractionDigits(): number[] {
		const { grid } = this.job.source;
		const digits = Array<number>(grid.columns).fill(0);
		if (!this.looks.some(({ h }) => h === 'decimal')) return digits;
		const mark = decimalMarkOf(grid.cells.map(({ text }) => text));
		for (const { c, cols, text } of grid.cells) {
			if (cols > 1) continue;
			const at = text.lastIndexOf(mark);
			const tail = at >= 0 && /\d/.test(text) ? text.length - at : (/\d(\D*)$/.exec(text)?.[1]!.length ?? 0);
			digits[c] = Math.max(digits[c]!, tail);
		}
		return digits;
	}

	run(): Tally {
		const { source, wanted, changes } = this.job;
		this.patchTableProperties();
		if (!changes) source.rows.forEach((_, r) => this.patchRow(r));
		const looks = new Map<SourceCell, number>();
		source.sources.forEach((cells, index) => {
			if (changes && !changes.has(index)) return;
			const look = wanted.cellLook[index]!;
			for (const field of this.lostPerLook[look]!) this.tally.lose(field, LEAF_WORDS[field], 1);
			for (const cell of cells) looks.set(cell, look);
		});
		this.patchWidths();
		source.rows.forEach(({ cells }) =>
			cells.forEach((cell, i) => {
				const look = looks.get(cell);
				if (look !== undefined) this.patchCell(cell, i, look);
			})
		);
		this.countUses();
		return this.tally;
	}

	private note(patched: Patched): void {
		this.uses.set(patched, (this.uses.get(patched) ?? 0) + 1);
	}

	/** Counts settings that are said already, and those that have to be said directly. */
	private countUses(): void {
		for (const [{ same, different }, count] of this.uses) {
			// Without a living style, what is said already is said by the file itself.
			for (const leaf of same) this.tally.add(leaf, this.job.styleId === undefined ? 'direct' : 'living', count);
			for (const leaf of different)
				if (this.job.direct) this.tally.add(leaf, 'direct', count);
				else this.tally.lose(leaf, 'living style only', count);
		}
	}

	/** Gives the columns their widths: the grid here, the cells as each is patched (§17.4.16, §17.4.71). */
	private patchWidths(): void {
		const { source, widths } = this.job;
		const grid = source.node.child('w:tblGrid');
		if (widths.length === 0 || !grid) return;
		const columns = widths.map((width) => `<w:gridCol w:w="${toTwips(width)}"/>`).join('');
		this.edits.replace(grid.start, grid.end, `<w:tblGrid>${columns}</w:tblGrid>`);
	}

	private patchTableProperties(): void {
		const { source, styleId, look } = this.job;
		const set = new Map<string, string>();
		if (styleId !== undefined) {
			set.set('w:tblStyle', `<w:tblStyle w:val="${styleId}"/>`);
			set.set('w:tblLook', writeTableLook(look));
		}
		if (this.job.widths.length) set.set('w:tblW', widthMarkup('w:tblW', this.job.widths));
		this.place(source.node, 'w:tblPr', TABLE_ORDER, this.goesFromTable, set);
	}

	/** Changes a property element that is not worth remembering. */
	private place(
		parent: XmlNode,
		name: string,
		order: readonly string[],
		remove: (child: XmlNode) => boolean,
		set: ReadonlyMap<string, string>
	): void {
		const { xml } = this.job.reader;
		const old = parent.child(name);
		const markup = old ? xml.source.slice(old.start, old.end) : '';
		placeProperties(this.edits, xml.source, parent, old, rewriteProperties(markup, xml, name, order, remove, set));
	}

	/** Which of a table's own settings (also those that a row makes exceptions of) the style takes over. */
	private readonly goesFromTable = ({ name }: XmlNode): boolean => {
		const { carry, clears } = this.job;
		return (
			(clears && (name === 'w:tblStyle' || name === 'w:tblLook')) ||
			(carry.has('linework') && (name === 'w:tblBorders' || name === 'w:tblCellSpacing')) ||
			(carry.has('margins') && name === 'w:tblCellMar') ||
			(carry.has('fill') && name === 'w:shd')
		);
	};

	private patchRow(r: number): void {
		const { source, carry, rows } = this.job;
		const { node, header } = source.rows[r]!;
		const wanted = rows[r]!;
		const set = new Map<string, string>();
		if (wanted.header && !header) set.set('w:tblHeader', '<w:tblHeader/>');
		if (wanted.together && !readOnOff(node.at('w:trPr', 'w:cantSplit'))) set.set('w:cantSplit', '<w:cantSplit/>');
		const remove = ({ name }: XmlNode) =>
			name === 'w:cnfStyle' ||
			(name === 'w:tblHeader' && !wanted.header) ||
			(carry.has('linework') && name === 'w:tblCellSpacing');
		this.place(node, 'w:trPr', ROW_ORDER, remove, set);
		if (node.child('w:tblPrEx')) this.place(node, 'w:tblPrEx', TABLE_ORDER, this.goesFromTable, EMPTY);
	}

	private ground(cell: SourceCell): CellGround {
		const { rows, columns } = this.job.source.grid;
		return this.resolver.ground(cell, rows, columns);
	}

	/** Works out what is wanted on the four sides of a w:tc, and whether that is said already. */
	private wantSides(cell: SourceCell, number: number): void {
		const { wanted, source, carry, reader } = this.job;
		const { columns } = source.grid;
		const { r, c, cols } = cell;
		const own = carry.has('linework') ? undefined : reader.cell(cell.node.child('w:tcPr')).borders;
		const { sides } = this.ground(cell);
		for (let side = 0; side < 4; side++) {
			let want = INSIDE;
			if (side < 2) {
				const at = (side === 0 ? r : r + 1) * columns + c;
				for (let i = 0; i < cols; i++) {
					const edge = wanted.across[at + i]!;
					if (edge < 0 || want === UNEVEN) continue;
					const next = this.lines[edge] ? edge : NO_LINE;
					if (want === INSIDE) want = next;
					else if (!sameLine(this.lines[want], this.lines[next])) want = UNEVEN;
				}
			} else {
				const edge = wanted.down[r * (columns + 1) + (side === 2 ? c : c + cols)]!;
				if (edge >= 0) want = this.lines[edge] ? edge : NO_LINE;
			}
			this.wantedSides[number * 4 + side] = want;
			const name = SIDES[side]!;
			const said = own?.[name] === undefined ? sides[name] : own[name];
			this.stated[number * 4 + side] = want === INSIDE || (want !== UNEVEN && sameLine(said, this.lines[want])) ? 1 : 0;
		}
	}

	/** Whether the cells beyond a side state something else there than is wanted, so that both have to say it. */
	private isContested({ r, c, cols }: SourceCell, side: number): boolean {
		const { rows, columns } = this.job.source.grid;
		const beyond = (row: number, column: number): boolean => {
			if (row < 0 || row >= rows || column < 0 || column >= columns) return false;
			const other = this.owner[row * columns + column]!;
			return other >= 0 && this.stated[other * 4 + OPPOSITE[side]!] === 0;
		};
		if (side === 2) return beyond(r, c - 1);
		if (side === 3) return beyond(r, c + cols);
		for (let i = 0; i < cols; i++) if (beyond(side === 0 ? r - 1 : r + 1, c + i)) return true;
		return false;
	}

	private patchCell(cell: SourceCell, at: number, lookNumber: number): void {
		const { reader } = this.job;
		const ground = this.ground(cell);
		const tcPr = cell.node.child('w:tcPr');
		const own = reader.cell(tcPr);
		const number = this.firstOfRow[cell.r]! + at;
		let contested = false;
		let key = `${own.id},${this.lookIds[lookNumber]},${ground.id}`;
		for (let side = 0; side < 4; side++) {
			const want = this.wantedSides[number * 4 + side]!;
			key += `,${want < 0 ? want : this.lineIds[want]}${this.stated[number * 4 + side] ? '' : '!'}`;
			contested ||= want !== INSIDE && this.isContested(cell, side);
		}
		if (contested) key += '*';
		const width = this.job.widths.slice(cell.c, cell.c + cell.cols);
		if (width.length) key += `w${width.join()}`;
		const look = this.looks[lookNumber]!;
		const patched = getOrMake(this.patchedCells, key, () =>
			this.cellPatch(own, look, ground, number, contested, width)
		);
		this.note(patched);
		placeProperties(this.edits, reader.xml.source, cell.node, tcPr, patched.markup);
		this.patchText(cell, lookNumber, ground);
	}

	/** A w:tcPr that says what table and style do not say of the cell already. */
	private cellPatch(
		own: CellContext,
		look: Look,
		ground: CellGround,
		number: number,
		contested: boolean,
		width: readonly Emu[]
	): Patched {
		const { reader, carry, strict, direct } = this.job;
		const kept = (aspect: Aspect) => !carry.has(aspect);
		const set = new Map<string, string>();
		if (width.length) set.set('w:tcW', widthMarkup('w:tcW', width));
		const same: SeenLeaf[] = [];
		const different: SeenLeaf[] = [];
		const say = <T>(
			leaf: SeenLeaf,
			is: T | undefined,
			want: T | undefined,
			markup?: (value: T) => [string, string]
		): boolean => {
			if (want === undefined) return true;
			if (is === want) same.push(leaf);
			else {
				different.push(leaf);
				if (direct && markup) set.set(...markup(want));
			}
			return is === want;
		};

		const borders: Borders = {};
		let differs = contested;
		SIDES.forEach((name, side) => {
			const want = this.wantedSides[number * 4 + side]!;
			if (want === INSIDE) return;
			borders[name] = this.lines[want] ?? null;
			differs = !say('lines', this.stated[number * 4 + side] === 1, true) || differs;
		});
		for (const name of ['diagonalDown', 'diagonalUp'] as const) {
			const wanted = look[name] ?? null;
			const stated = (kept('linework') ? own.borders[name] : undefined) ?? ground.diagonals[name] ?? null;
			if (sameLine(stated, wanted)) continue;
			different.push(name);
			borders[name] = wanted;
			differs = true;
		}
		if (differs && direct) set.set('w:tcBorders', writeBorders('w:tcBorders', borders, strict));

		const wanted = cellLayerOf(look);
		say(
			'fill',
			(kept('fill') ? own.fill : undefined) ?? ground.cell.fill ?? 'none',
			wanted.fill ?? (kept('fill') ? undefined : 'none'),
			(fill) => ['w:shd', writeShading(fill)]
		);
		const margins = { ...wanted.margins };
		for (const side of SIDES)
			if (
				say(
					MARGIN_FIELDS[side],
					(kept('margins') ? own.margins[side] : undefined) ?? ground.cell.margins[side],
					margins[side]
				)
			)
				delete margins[side];
		if (Object.keys(margins).length && direct)
			set.set('w:tcMar', writeMargins('w:tcMar', { ...(kept('margins') ? own.margins : {}), ...margins }, strict));
		say('v', (kept('alignment') ? own.v : undefined) ?? ground.cell.v ?? 'top', wanted.v, (v) => [
			'w:vAlign',
			writeVertical(v)
		]);
		const turned = (kept('alignment') ? own.rotate : undefined) ?? ground.cell.rotate ?? 0;
		if (turned !== (wanted.rotate ?? (kept('alignment') ? turned : 0)))
			say('rotate', turned, wanted.rotate ?? 0, (rotate) => ['w:textDirection', writeRotation(rotate, strict)]);
		return {
			markup: rewriteProperties(own.markup, reader.xml, 'w:tcPr', CELL_ORDER, this.goesFromCell, set),
			same,
			different
		};
	}

	private readonly goesFromCell = ({ name }: XmlNode): boolean => {
		const { carry } = this.job;
		return (
			name === 'w:cnfStyle' ||
			(carry.has('linework') && name === 'w:tcBorders') ||
			(carry.has('fill') && name === 'w:shd') ||
			(carry.has('margins') && name === 'w:tcMar') ||
			(carry.has('alignment') && (name === 'w:vAlign' || name === 'w:textDirection'))
		);
	};

	private patchText(cell: SourceCell, look: number, ground: CellGround): void {
		const { reader } = this.job;
		const content = readCellText(cell.node, reader);
		const emphasis = this.job.dropsEmphasis ? () => NO_FIELDS : emphasisOf(content);
		for (const paragraph of content) {
			for (const { node, context } of paragraph.runs) {
				const patched = this.runPatch(look, ground, context, emphasis(context));
				this.note(patched);
				placeProperties(this.edits, reader.xml.source, node, node.child('w:rPr'), patched.markup);
			}
			this.patchParagraph(paragraph, cell, look, ground);
		}
	}

	/** Which of a run's own settings the style takes over. */
	private goesFromRun(keep: ReadonlySet<keyof TextLayer>): (child: XmlNode) => boolean {
		if (!this.job.carry.has('text')) return () => false;
		if (keep.size === 0) return ({ name }) => TEXT_NAMES.has(name);
		const kept = new Set([...keep].flatMap((field) => TEXT_ELEMENTS[field]));
		return ({ name }) => TEXT_NAMES.has(name) && !kept.has(name);
	}

	/** A w:rPr that says what a run must say itself to look as wanted, over what table, paragraph and character style make of it. */
	private runPatch(
		lookNumber: number,
		ground: CellGround,
		context: RunContext,
		keep: ReadonlySet<keyof TextLayer>
	): Patched {
		const { carry, direct, reader } = this.job;
		const key = `${context.id},${this.lookIds[lookNumber]},${ground.id}${keep.size ? [...keep].join() : ''}`;
		return getOrMake(this.patchedRuns, key, () => {
			const wanted = textLayerOf(this.looks[lookNumber]!);
			const remaining = carry.has('text') ? directOnly(context.direct, keep, true) : context.direct;
			const effective = this.resolver.effectiveText(ground, { ...context, direct: remaining });
			const missing: TextLayer = {};
			const same: SeenLeaf[] = [];
			const different: SeenLeaf[] = [];
			for (const field of Object.keys(wanted) as (keyof TextLayer)[]) {
				if (keep.has(field)) continue;
				const leaf = TEXT_LEAF[field] ?? (field as SeenLeaf);
				const is = effective[field] ?? (field === 'underline' ? 'none' : field === 'tracking' ? 0 : undefined);
				if (is === wanted[field]) same.push(leaf);
				else {
					different.push(leaf);
					Object.assign(missing, { [field]: wanted[field] });
				}
			}
			const set = direct ? writeText(missing) : EMPTY;
			return {
				markup: rewriteProperties(context.markup, reader.xml, 'w:rPr', RUN_ORDER, this.goesFromRun(keep), set),
				same,
				different
			};
		});
	}

	private patchParagraph(
		{ node, context }: CellText[number],
		cell: SourceCell,
		lookNumber: number,
		ground: CellGround
	): void {
		const { reader, rows, changes } = this.job;
		const withNext = !changes && rows[cell.r]!.withNext;
		const look = this.looks[lookNumber]!;
		const decimalAt = look.h === 'decimal' ? this.decimalAt(cell, look) : 0;
		const key = `${context.id},${this.lookIds[lookNumber]},${ground.id},${withNext ? 1 : 0},${decimalAt}`;
		const patched = getOrMake(this.patchedParagraphs, key, () =>
			this.paragraphPatch(context, lookNumber, ground, withNext, decimalAt)
		);
		this.note(patched);
		placeProperties(this.edits, reader.xml.source, node, node.child('w:pPr'), patched.markup);
	}

	private paragraphPatch(
		context: ParagraphContext,
		lookNumber: number,
		ground: CellGround,
		withNext: boolean,
		decimalAt: number
	): Patched {
		const { carry, direct, reader } = this.job;
		const pPr = context.markup === '' ? undefined : reader.xml.fragment(context.markup);
		const wanted = paragraphLayerOf(this.looks[lookNumber]!);
		const remaining = { ...context.direct };
		if (carry.has('alignment')) delete remaining.h;
		if (carry.has('text')) delete remaining.lineHeight;
		const effective = this.resolver.effectiveParagraph(ground, context.styleId, remaining);
		const set = new Map<string, string>();
		const same: SeenLeaf[] = [];
		const different: SeenLeaf[] = [];
		if (wanted.h !== undefined) {
			if ((effective.h ?? 'start') === wanted.h) same.push('h');
			else {
				different.push('h');
				if (direct) for (const [name, xml] of writeAlignment(wanted.h, decimalAt)) set.set(name, xml);
			}
		}
		const lineDiffers = wanted.lineHeight !== undefined && effective.lineHeight !== wanted.lineHeight;
		if (wanted.lineHeight !== undefined) (lineDiffers ? different : same).push('lineHeight');
		const dropSpacing = carry.has('text') && context.direct.lineHeight !== undefined;
		if ((lineDiffers && direct) || dropSpacing) {
			const markup = lineSpacing(pPr?.child('w:spacing'), lineDiffers && direct ? wanted.lineHeight : undefined);
			if (markup) set.set('w:spacing', markup);
		}
		if (withNext && !pPr?.child('w:keepNext')) set.set('w:keepNext', '<w:keepNext/>');
		const mark = this.runPatch(lookNumber, ground, context.mark, NO_FIELDS).markup;
		if (mark !== '' && mark !== context.mark.markup) set.set('w:rPr', mark);
		const onlyDecimal = (child: XmlNode) =>
			child.children.every((tab) => tab.attribute('w:val') === 'decimal' || tab.attribute('w:val') === 'num');
		const remove = (child: XmlNode) =>
			child.name === 'w:cnfStyle' ||
			(child.name === 'w:rPr' && mark === '') ||
			(carry.has('alignment') && (child.name === 'w:jc' || (child.name === 'w:tabs' && onlyDecimal(child)))) ||
			(carry.has('fill') && child.name === 'w:shd') ||
			(dropSpacing && child.name === 'w:spacing');
		return {
			markup: rewriteProperties(context.markup, reader.xml, 'w:pPr', PARAGRAPH_ORDER, remove, set),
			same,
			different
		};
	}

	/** Where the decimal marks of a column line up: before its longest fraction, digits counted at a little over half an em. */
	private decimalAt(cell: SourceCell, look: Look): number {
		const { widths } = this.job.source;
		const width = widths.slice(cell.c, cell.c + cell.cols).reduce((sum, w) => sum + toTwips(w), 0);
		const margins = toTwips(look.marginStart ?? (0 as never)) + toTwips(look.marginEnd ?? (0 as never));
		const digit = (look.size ? toPoints(look.size) : 10) * 20 * 0.55;
		return Math.max(0, Math.round(width - margins - (this.decimals[cell.c] ?? 0) * digit));
	}
}
