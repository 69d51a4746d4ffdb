import type { Appearance, Line, Look } from '../../core/cascade/look.ts';
import type { Aspect } from '../../core/style/types.ts';
import { toPoints, toTwips } from '../../core/units.ts';
import { decimalMarkOf } from '../../core/values/parse.ts';
import type { Edits, XmlNode } from '../package/xml.ts';
import { editProperties } from './containers.ts';
import { cellLayerOf, paragraphLayerOf, sayableEdge, sayableLook, textLayerOf } from './layers.ts';
import { emphasisOf, LookResolver, readCellText, type CellGround, type CellText, type RunContext } from './looks.ts';
import { writeBorders, type Borders } from './properties/borders.ts';
import { CELL_ORDER, readCell, ROW_ORDER, TABLE_ORDER, writeMargins, writeRotation, writeShading, writeVertical } from './properties/cell.ts';
import { lineSpacing, PARAGRAPH_ORDER, writeAlignment } from './properties/paragraph.ts';
import { readOnOff, RUN_ORDER, TEXT_ELEMENTS, writeText, type TextLayer } from './properties/text.ts';
import { writeTableLook, type TableLook } from './regions.ts';
import type { StyleSheet } from './styles.ts';
import type { SourceCell, SourceGrid } from './tables.ts';

/** What one table is to look like, and how much of it a living style says already. */
export interface PatchJob {
	readonly source: SourceGrid;
	readonly text: string;
	readonly sheet: StyleSheet;
	readonly strict: boolean;
	/** The look wanted, as this format can say it or not. */
	readonly wanted: Appearance;
	readonly carry: ReadonlySet<Aspect>;
	/** The living style that the table is to wear; undefined leaves the file's own and says all directly. */
	readonly styleId: string | undefined;
	readonly look: TableLook;
	/** Whether what the style cannot say may be said directly. */
	readonly direct: boolean;
	readonly rows: readonly { readonly header: boolean; readonly together: boolean; readonly withNext: boolean }[];
}

/** How many settings (cells × fields, and sides of cells) travel which way. */
export interface PatchCount {
	living: number;
	direct: number;
	lost: number;
	/** What is lost, in words. */
	reasons: Map<string, number>;
}

const TEXT_NAMES: ReadonlySet<string> = new Set(Object.values(TEXT_ELEMENTS).flat());
const SIDES = ['top', 'bottom', 'start', 'end'] as const;
const EMPTY: ReadonlyMap<string, string> = new Map();
const never = () => false;

/** Rewrites one table's own markup so that it looks as wanted; all edits go to `edits`. */
export function patchTable(job: PatchJob, edits: Edits): PatchCount {
	return new TablePatch(job, edits).run();
}

class TablePatch {
	private readonly count: PatchCount = { living: 0, direct: 0, lost: 0, reasons: new Map() };
	private readonly resolver: LookResolver;
	private readonly decimals: number[];
	private readonly looks: readonly Look[];
	private readonly lines: readonly (Line | null)[];
	private readonly lostPerLook: readonly (readonly (keyof Look)[])[];

	constructor(
		private readonly job: PatchJob,
		private readonly edits: Edits
	) {
		const { source, sheet, carry, styleId, look, wanted } = job;
		const tblPr = source.node.child('w:tblPr');
		// What stays of the table's own properties once those that the style carries are gone.
		const kept = (name: string, aspect: Aspect) => (carry.has(aspect) ? undefined : tblPr?.child(name));
		this.resolver = LookResolver.of(sheet, styleId ?? tblPr?.child('w:tblStyle')?.attribute('w:val'), look, kept('w:tblBorders', 'linework'), kept('w:tblCellMar', 'margins'), source.grid.rows, source.grid.columns);
		const sayable = wanted.looks.map(sayableLook);
		this.looks = sayable.map(({ look }) => look);
		this.lostPerLook = sayable.map(({ lost }) => lost);
		this.lines = wanted.lines.map(sayableEdge);
		this.decimals = this.fractionDigits();
	}

	/** The most digits after the decimal mark in each column. */
	private fractionDigits(): number[] {
		const { grid } = this.job.source;
		const mark = decimalMarkOf(grid.cells.map(({ text }) => text));
		const digits = Array<number>(grid.columns).fill(0);
		for (const { c, cols, text } of grid.cells) {
			if (cols > 1) continue;
			const at = text.lastIndexOf(mark);
			const tail = at >= 0 && /\d/.test(text) ? text.length - at : (/\d(\D*)$/.exec(text)?.[1]!.length ?? 0);
			digits[c] = Math.max(digits[c]!, tail);
		}
		return digits;
	}

	run(): PatchCount {
		const { source } = this.job;
		this.patchTableProperties();
		source.rows.forEach((_, r) => this.patchRow(r));
		source.sources.forEach((cells, index) => {
			const look = this.looks[this.job.wanted.cellLook[index]!]!;
			for (const field of this.lostPerLook[this.job.wanted.cellLook[index]!]!) this.lose(field);
			cells.forEach((cell, i) => this.patchCell(cell, look, i === 0));
		});
		return this.count;
	}

	private lose(what: string): void {
		this.count.lost++;
		this.count.reasons.set(what, (this.count.reasons.get(what) ?? 0) + 1);
	}

	private patchTableProperties(): void {
		const { source, text, carry, styleId, look } = this.job;
		const set = new Map<string, string>();
		if (styleId !== undefined) {
			set.set('w:tblStyle', `<w:tblStyle w:val="${styleId}"/>`);
			set.set('w:tblLook', writeTableLook(look));
		}
		const remove = ({ name }: XmlNode) =>
			(carry.has('linework') && (name === 'w:tblBorders' || name === 'w:tblCellSpacing')) ||
			(carry.has('margins') && name === 'w:tblCellMar') ||
			(carry.has('fill') && name === 'w:shd');
		editProperties(this.edits, text, source.node, 'w:tblPr', TABLE_ORDER, remove, set);
	}

	private patchRow(r: number): void {
		const { source, text, carry, rows } = this.job;
		const { node } = source.rows[r]!;
		const wanted = rows[r]!;
		const set = new Map<string, string>();
		const trPr = node.child('w:trPr');
		const has = (name: string) => readOnOff(trPr?.child(name)) ?? false;
		if (wanted.header && !has('w:tblHeader')) set.set('w:tblHeader', '<w:tblHeader/>');
		if (wanted.together && !has('w:cantSplit')) set.set('w:cantSplit', '<w:cantSplit/>');
		const remove = ({ name }: XmlNode) =>
			name === 'w:cnfStyle' || (name === 'w:tblHeader' && !wanted.header) || (carry.has('linework') && name === 'w:tblCellSpacing');
		editProperties(this.edits, text, node, 'w:trPr', ROW_ORDER, remove, set);
		const exceptions = ({ name }: XmlNode) =>
			(carry.has('linework') && (name === 'w:tblBorders' || name === 'w:tblCellSpacing')) ||
			(carry.has('margins') && name === 'w:tblCellMar') ||
			(carry.has('fill') && name === 'w:shd');
		editProperties(this.edits, text, node, 'w:tblPrEx', TABLE_ORDER, exceptions, EMPTY);
	}

	/** The line that the whole of one side of a w:tc is to show; undefined where its segments differ. */
	private sideOf(cell: SourceCell, side: (typeof SIDES)[number]): Line | null | undefined | 'inside' {
		const { wanted, source } = this.job;
		const { columns } = source.grid;
		const { r, c, cols } = cell;
		let edges: number[];
		if (side === 'top' || side === 'bottom') {
			const row = side === 'top' ? r : r + 1;
			edges = Array.from({ length: cols }, (_, i) => wanted.across[row * columns + c + i]!);
		} else edges = [wanted.down[r * (columns + 1) + (side === 'start' ? c : c + cols)]!];
		if (edges.every((edge) => edge < 0)) return 'inside';
		const lines = edges.filter((edge) => edge >= 0).map((edge) => this.lines[edge]!);
		const first = lines[0] ?? null;
		return lines.every((line) => sameLine(line, first)) ? first : undefined;
	}

	private patchCell(cell: SourceCell, look: Look, isTop: boolean): void {
		const { sheet, text, carry, strict, direct } = this.job;
		const ground = this.resolver.ground(cell);
		const tcPr = cell.node.child('w:tcPr');
		const own = readCell(tcPr, sheet.theme);
		const kept = (aspect: Aspect) => !carry.has(aspect);
		const set = new Map<string, string>();
		const note = (same: boolean) => (same ? this.count.living++ : direct ? this.count.direct++ : this.lose('living style only'));

		const borders: Borders = {};
		let differs = false;
		for (const side of SIDES) {
			const wanted = this.sideOf(cell, side);
			if (wanted === 'inside') continue;
			const stated = (kept('linework') ? own.borders[side] : undefined) ?? ground.sides[side] ?? null;
			const line = wanted === undefined ? null : wanted;
			const same = sameLine(stated, line) && wanted !== undefined;
			note(same);
			if (!same) differs = true;
			borders[side] = line;
		}
		// The neighbour may state something else here: say all four sides wherever one has to be said.
		if (!differs && this.neighboursDiffer(cell)) differs = true;
		for (const name of ['diagonalDown', 'diagonalUp'] as const) {
			const wanted = look[name] ?? null;
			const stated = (kept('linework') ? own.borders[name] : undefined) ?? ground.diagonals[name] ?? null;
			if (sameLine(stated, wanted)) continue;
			note(false);
			borders[name] = wanted;
			differs = true;
		}
		if (differs && direct) set.set('w:tcBorders', writeBorders('w:tcBorders', borders, strict));

		const wanted = cellLayerOf(look);
		const fill = wanted.fill ?? (kept('fill') ? undefined : 'none');
		if (fill !== undefined) {
			const same = ((kept('fill') ? own.fill : undefined) ?? ground.cell.fill ?? 'none') === fill;
			note(same);
			if (!same && direct) set.set('w:shd', writeShading(fill));
		}
		const margins = { ...wanted.margins };
		for (const side of SIDES) {
			if (margins[side] === undefined) continue;
			const same = ((kept('margins') ? own.margins[side] : undefined) ?? ground.cell.margins[side]) === margins[side];
			note(same);
			if (same) delete margins[side];
		}
		if (Object.keys(margins).length && direct) set.set('w:tcMar', writeMargins('w:tcMar', { ...(kept('margins') ? own.margins : {}), ...margins }, strict));
		if (wanted.v !== undefined) {
			const same = ((kept('alignment') ? own.v : undefined) ?? ground.cell.v ?? 'top') === wanted.v;
			note(same);
			if (!same && direct) set.set('w:vAlign', writeVertical(wanted.v));
		}
		const rotate = wanted.rotate ?? (kept('alignment') ? undefined : 0);
		if (rotate !== undefined && rotate !== ((kept('alignment') ? own.rotate : undefined) ?? ground.cell.rotate ?? 0)) {
			note(false);
			if (direct) set.set('w:textDirection', writeRotation(rotate, strict));
		}
		const remove = ({ name }: XmlNode) =>
			name === 'w:cnfStyle' ||
			(carry.has('linework') && name === 'w:tcBorders') ||
			(carry.has('fill') && name === 'w:shd') ||
			(carry.has('margins') && name === 'w:tcMar') ||
			(carry.has('alignment') && (name === 'w:vAlign' || name === 'w:textDirection'));
		editProperties(this.edits, text, cell.node, 'w:tcPr', CELL_ORDER, remove, set);
		if (isTop) this.patchText(cell, look, ground, note);
	}

	/** Whether the cells on the other side of this one's edges state something else than is wanted, so that both sides must be said. */
	private neighboursDiffer(cell: SourceCell): boolean {
		const { source } = this.job;
		const opposite = { top: 'bottom', bottom: 'top', start: 'end', end: 'start' } as const;
		const { r, c, cols } = cell;
		const beside: [(typeof SIDES)[number], SourceCell[]][] = [
			['top', (source.rows[r - 1]?.cells ?? []).filter((other) => other.c < c + cols && other.c + other.cols > c)],
			['bottom', (source.rows[r + 1]?.cells ?? []).filter((other) => other.c < c + cols && other.c + other.cols > c)],
			['start', (source.rows[r]?.cells ?? []).filter((other) => other.c + other.cols === c)],
			['end', (source.rows[r]?.cells ?? []).filter((other) => other.c === c + cols)]
		];
		return beside.some(([side, others]) => {
			const own = this.sideOf(cell, side);
			if (own === 'inside') return false;
			return others.some((other) => {
				const wanted = this.sideOf(other, opposite[side]);
				if (wanted === 'inside') return false;
				return wanted === undefined || !sameLine(this.resolver.ground(other).sides[opposite[side]] ?? null, wanted);
			});
		});
	}

	private patchText(cell: SourceCell, look: Look, ground: CellGround, note: (same: boolean) => void): void {
		const { sheet } = this.job;
		const content = readCellText(cell.node, sheet);
		const emphasis = emphasisOf(content);
		for (const paragraph of content.paragraphs) {
			for (const run of paragraph.runs) {
				const keep = emphasis(run);
				const set = this.runProperties(look, ground, run.context, keep, note);
				editProperties(this.edits, this.job.text, run.node, 'w:rPr', RUN_ORDER, this.goesFromRun(run.context, keep), set);
			}
			this.patchParagraph(paragraph, cell, look, ground, note);
		}
	}

	/** Which of a run's own settings the style takes over. */
	private goesFromRun(context: RunContext, keep: ReadonlySet<keyof TextLayer>): (child: XmlNode) => boolean {
		if (!this.job.carry.has('text')) return never;
		const kept = new Set([...keep].flatMap((field) => TEXT_ELEMENTS[field]));
		return ({ name }) => TEXT_NAMES.has(name) && !kept.has(name);
	}

	/** What a run must say itself to look as wanted, over what table, paragraph and character style make of it. */
	private runProperties(look: Look, ground: CellGround, context: RunContext, keep: ReadonlySet<keyof TextLayer>, note: (same: boolean) => void) {
		const wanted = textLayerOf(look);
		const carried = this.job.carry.has('text');
		const remaining: TextLayer = carried
			? (Object.fromEntries(Object.entries(context.direct).filter(([field]) => keep.has(field as keyof TextLayer))) as TextLayer)
			: context.direct;
		const effective = this.resolver.text(ground, { ...context, direct: remaining });
		const missing: TextLayer = {};
		for (const field of Object.keys(wanted) as (keyof TextLayer)[]) {
			if (keep.has(field)) continue;
			const is = effective[field] ?? (field === 'underline' ? 'none' : field === 'tracking' ? 0 : undefined);
			const same = is === wanted[field];
			note(same);
			if (!same) Object.assign(missing, { [field]: wanted[field] });
		}
		return this.job.direct ? writeText(missing) : EMPTY;
	}

	private patchParagraph(paragraph: CellText['paragraphs'][number], cell: SourceCell, look: Look, ground: CellGround, note: (same: boolean) => void): void {
		const { carry, direct, text, rows } = this.job;
		const { node, styleId, mark } = paragraph;
		const pPr = node.child('w:pPr');
		const wanted = paragraphLayerOf(look);
		const remaining = { ...paragraph.direct };
		if (carry.has('alignment')) delete remaining.h;
		if (carry.has('text')) delete remaining.lineHeight;
		const effective = this.resolver.paragraph(ground, styleId, remaining);
		const set = new Map<string, string>();
		if (wanted.h !== undefined) {
			const same = (effective.h ?? 'start') === wanted.h;
			note(same);
			if (!same && direct) for (const [name, xml] of writeAlignment(wanted.h, this.decimalAt(cell, look))) set.set(name, xml);
		}
		const spacing = pPr?.child('w:spacing');
		const hasLine = paragraph.direct.lineHeight !== undefined;
		const lineDiffers = wanted.lineHeight !== undefined && effective.lineHeight !== wanted.lineHeight;
		if (wanted.lineHeight !== undefined) note(!lineDiffers);
		const dropSpacing = carry.has('text') && hasLine;
		if ((lineDiffers && direct) || dropSpacing) {
			const markup = lineSpacing(spacing, lineDiffers && direct ? wanted.lineHeight : undefined);
			if (markup) set.set('w:spacing', markup);
		}
		if (rows[cell.r]!.withNext && !pPr?.child('w:keepNext')) set.set('w:keepNext', '<w:keepNext/>');
		const markProperties = pPr?.child('w:rPr');
		const markSet = this.runProperties(look, ground, mark, new Set(), () => undefined);
		if (!markProperties && markSet.size) set.set('w:rPr', `<w:rPr>${[...markSet].sort(([a], [b]) => RUN_ORDER.indexOf(a) - RUN_ORDER.indexOf(b)).map(([, xml]) => xml).join('')}</w:rPr>`);
		const onlyDecimal = (child: XmlNode) => child.children.every((tab) => tab.attribute('w:val') === 'decimal' || tab.attribute('w:val') === 'num');
		const remove = (child: XmlNode) =>
			child.name === 'w:cnfStyle' ||
			(carry.has('alignment') && (child.name === 'w:jc' || (child.name === 'w:tabs' && onlyDecimal(child)))) ||
			(carry.has('fill') && child.name === 'w:shd') ||
			(dropSpacing && child.name === 'w:spacing');
		if (markProperties && pPr) editProperties(this.edits, text, pPr, 'w:rPr', RUN_ORDER, this.goesFromRun(mark, new Set()), markSet);
		editProperties(this.edits, text, node, 'w:pPr', PARAGRAPH_ORDER, (child) => child !== markProperties && remove(child), set);
	}

	/** Where the decimal marks of a column line up: before its longest fraction, digits counted at half an em. */
	private decimalAt(cell: SourceCell, look: Look): number {
		const { widths } = this.job.source;
		const width = widths.slice(cell.c, cell.c + cell.cols).reduce((sum, w) => sum + toTwips(w), 0);
		const margins = toTwips(look.marginStart ?? (0 as never)) + toTwips(look.marginEnd ?? (0 as never));
		const digit = (look.size ? toPoints(look.size) : 10) * 20 * 0.55;
		return Math.max(0, Math.round(width - margins - (this.decimals[cell.c] ?? 0) * digit));
	}
}

export function sameLine(a: Line | null | undefined, b: Line | null | undefined): boolean {
	if (!a || !b) return !a && !b;
	return a.pattern === b.pattern && a.weight === b.weight && a.ink === b.ink;
}
