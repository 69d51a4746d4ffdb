import { LEAF_WORDS } from '../read-back.ts';
import { Tally, type LostLeaf } from '../tally.ts';
import type { Appearance, Look } from '../../core/cascade/look.ts';
import type { Aspect } from '../../core/style/types.ts';
import { toPoints, toTwips, type Emu } from '../../core/units.ts';
import { decimalMarkOf } from '../../core/values/parse.ts';
import type { Edits, XmlNode } from '../package/xml.ts';
import { placeProperties, rewriteProperties } from './containers.ts';
import { sayableEdge } from './layers.ts';
import {
	getOrMake,
	isRightToLeft,
	resolverOf,
	type CellGround,
	type LookResolver,
	type PropertyReader,
	type RunContext
} from './looks.ts';
import { behindText } from './appearance.ts';
import { emphasisOf, evenText, NO_EMPHASIS, NO_FIELDS, readCellText } from './cell-text.ts';
import {
	PropertyPatcher,
	widthMarkup,
	type KnownPatches,
	type Manner,
	type PatchCache,
	type PropertyMarkup,
	type Settings
} from './property-markup.ts';
import { readBorders } from './properties/borders.ts';
import { lostLeaves, sayableLook } from './properties/fields.ts';
import { gapBetween } from './properties/paragraph.ts';
import { readMargins, ROW_ORDER, TABLE_ORDER } from './properties/cell.ts';
import { readShading } from './properties/shading.ts';
import { readOnOff, type TextLayer } from './properties/text.ts';
import { writeTableLook, type TableLook } from './regions.ts';
import { WantedSides } from './sides.ts';
import type { StyleSheet } from './styles.ts';
import { paragraphsOf, runsOf, type SourceCell, type SourceGrid } from './tables.ts';

/** What one table is to look like, and how much of it a living style says already. */
export interface PatchJob extends Manner {
	readonly source: SourceGrid;
	readonly reader: PropertyReader;
	/** The document's styles, the new living ones among them. */
	readonly sheet: StyleSheet;
	/** The look wanted, whether this format can say it or not. */
	readonly wanted: Appearance;
	/** The living style that the table is to wear; undefined leaves the file's own and says all directly. */
	readonly styleId: string | undefined;
	/** The file's own table style goes, and no other comes. */
	readonly clears: boolean;
	/** The emphasis inside the text goes. */
	readonly dropsEmphasis: boolean;
	/** Widths that the columns take, in EMU; empty leaves them. */
	readonly widths: readonly Emu[];
	readonly look: TableLook;
	readonly rows: readonly { readonly header: boolean; readonly together: boolean; readonly withNext: boolean }[];
	/** Only these cells are changed, by index, and no row; undefined: all are. */
	readonly changes: ReadonlySet<number> | undefined;
	/** Shared by the tables of one document. */
	readonly cache: PatchCache;
}

const EMPTY: ReadonlyMap<string, string> = new Map();

/** Rewrites one table's own markup so that it looks as wanted; all edits go to `edits`. */
export function patchTable(job: PatchJob, edits: Edits): Tally {
	return new TablePatch(job, edits).run();
}

class TablePatch {
	private readonly tally = new Tally();
	/** How many property elements say each of these. */
	private readonly uses = new Map<Settings, number>();
	private readonly resolver: LookResolver;
	private readonly patcher: PropertyPatcher;
	private readonly known: (ground: CellGround, look: Look) => KnownPatches;
	private readonly decimals: number[];
	private readonly looks: readonly Look[];
	private readonly lostPerLook: readonly (readonly LostLeaf[])[];
	/** The w:tc's in document order, and what holds for each before its own formatting. */
	private readonly cells: readonly SourceCell[];
	private readonly grounds: readonly CellGround[];
	private readonly sides: WantedSides;

	constructor(
		private readonly job: PatchJob,
		private readonly edits: Edits
	) {
		const { source, sheet, carry, styleId, look, wanted, reader } = job;
		const tblPr = source.node.child('w:tblPr');
		// What stays of the table's own properties once those that the style carries are gone.
		const kept = (name: string, aspect: Aspect) => (carry.has(aspect) ? undefined : tblPr?.child(name));
		this.resolver = resolverOf(sheet, {
			styleId: styleId ?? (job.clears ? undefined : tblPr?.child('w:tblStyle')?.attribute('w:val')),
			look,
			borders: readBorders(kept('w:tblBorders', 'linework'), sheet.theme),
			margins: readMargins(kept('w:tblCellMar', 'margins')),
			fill: readShading(kept('w:shd', 'fill'), sheet.theme),
			isRight: isRightToLeft(source.node, sheet)
		});
		this.patcher = new PropertyPatcher(reader, this.resolver, job, job.cache.settings);
		this.known = job.cache.of(job);
		this.looks = wanted.looks.map(sayableLook);
		this.lostPerLook = wanted.looks.map(lostLeaves);
		this.decimals = this.fractionDigits();
		const { rows, columns } = source.grid;
		this.cells = source.rows.flatMap(({ cells }) => cells);
		this.grounds = this.cells.map((cell) => this.resolver.ground(cell, rows, columns));
		const lines = wanted.lines.map(sayableEdge);
		const keepsLines = !carry.has('linework');
		this.sides = new WantedSides(source, this.cells, this.grounds, wanted, lines, keepsLines ? reader : undefined);
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
		this.patchWidths();
		// WordprocessingML has no shadow of a table.
		if (wanted.shadow) this.tally.lose('tableShadow', LEAF_WORDS.tableShadow, 1);
		const lookOf = new Int32Array(this.cells.length).fill(-1);
		source.sources.forEach((cells, index) => {
			if (changes && !changes.has(index)) return;
			const look = wanted.cellLook[index]!;
			for (const { leaf, what } of this.lostPerLook[look]!) this.tally.lose(leaf, what, 1);
			for (const { number } of cells) lookOf[number] = look;
		});
		source.rows.forEach(({ cells }, r) => {
			if (!changes) this.patchRow(r);
			for (const cell of cells) {
				const look = lookOf[cell.number]!;
				if (look >= 0) this.patchCell(cell, this.looks[look]!);
			}
		});
		this.countUses();
		return this.tally;
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

	// What follows is done for every cell, paragraph and run: what was made before is found without making anything.
	private patchCell(cell: SourceCell, look: Look): void {
		const { reader, widths, cache } = this.job;
		const { number, node } = cell;
		const ground = this.grounds[number]!;
		const known = this.known(ground, look);
		const tcPr = node.child('w:tcPr');
		const own = reader.cell(tcPr);
		const isContested = this.sides.isContested(number);
		const width = widths.length ? widths.slice(cell.c, cell.c + cell.cols) : widths;
		let key = this.sides.key(number, isContested, cache.lineId);
		if (width.length) key = `${key} ${width.join()}`;
		// What is behind the words stays where the fill is the file's, and shows over the cell's own.
		const behind = this.job.carry.has('fill') ? undefined : behindText(this.resolver, reader, ground, node);
		if (behind) key = `${key} ${behind}`;
		let byKey = known.cells.get(own);
		if (!byKey) known.cells.set(own, (byKey = new Map()));
		let patched = byKey.get(key);
		if (!patched) {
			patched = this.patcher.cell(own, look, ground, { of: this.sides, number, isContested }, width, behind);
			byKey.set(key, patched);
		}
		this.use(patched, node, tcPr);
		this.patchText(cell, look, ground, known);
	}

	/** Puts a patched property element in its place. */
	private use({ settings, markup }: PropertyMarkup, parent: XmlNode, old: XmlNode | undefined): void {
		this.uses.set(settings, (this.uses.get(settings) ?? 0) + 1);
		placeProperties(this.edits, this.job.reader.xml.source, parent, old, markup);
	}

	private patchText(cell: SourceCell, look: Look, ground: CellGround, known: KnownPatches): void {
		const { reader, dropsEmphasis } = this.job;
		const emphasis = evenText(cell.node, reader)
			? NO_EMPHASIS
			: emphasisOf(readCellText(cell.node, reader), { drops: dropsEmphasis });
		const withNext = !this.job.changes && this.job.rows[cell.r]!.withNext;
		const decimalAt = look.h === 'decimal' ? this.decimalAt(cell, look) : 0;
		const paragraphs = paragraphsOf(cell.node);
		const setsGap = paragraphs.length > 1 && this.hasOtherGap(paragraphs, look, ground);
		for (const [at, paragraph] of paragraphs.entries()) {
			const place = !setsGap ? 0 : at === 0 ? 1 : 2;
			const key = (decimalAt * 2 + (withNext ? 1 : 0)) * 3 + place;
			const pPr = paragraph.child('w:pPr');
			const context = reader.paragraph(pPr);
			let byKey = known.paragraphs.get(context);
			if (!byKey) known.paragraphs.set(context, (byKey = new Map()));
			let patched = byKey.get(key);
			if (!patched) {
				const mark = this.runPatch(context.mark, look, ground, known, NO_FIELDS).markup;
				patched = this.patcher.paragraph(context, look, ground, { withNext, decimalAt, mark, place });
				byKey.set(key, patched);
			}
			this.use(patched, paragraph, pPr);
			for (const run of runsOf(paragraph)) {
				const rPr = run.child('w:rPr');
				const own = reader.run(rPr, context.styleId);
				this.use(this.runPatch(own, look, ground, known, emphasis(own)), run, rPr);
			}
		}
	}

	/** Whether the paragraphs of a cell stand further apart, or nearer, than its look says. */
	private hasOtherGap(paragraphs: readonly XmlNode[], { paragraphGap }: Look, ground: CellGround): boolean {
		if (paragraphGap === undefined) return false;
		const layers = paragraphs.slice(0, 2).map((node) => {
			const { styleId, direct } = this.job.reader.paragraph(node.child('w:pPr'));
			return this.resolver.effectiveParagraph(ground, styleId, direct);
		});
		return gapBetween(layers[0]!, layers[1]!) !== paragraphGap;
	}

	private runPatch(
		context: RunContext,
		look: Look,
		ground: CellGround,
		known: KnownPatches,
		keep: ReadonlySet<keyof TextLayer>
	): PropertyMarkup {
		if (keep.size > 0) {
			const byKept = getOrMake(known.emphasised, context, () => new Map<string, PropertyMarkup>());
			return getOrMake(byKept, [...keep].join(), () => this.patcher.run(context, look, ground, keep));
		}
		let patched = known.runs.get(context);
		if (!patched) known.runs.set(context, (patched = this.patcher.run(context, look, ground, keep)));
		return patched;
	}

	/** Where the decimal marks of a column line up: before its longest fraction, digits counted at a little over half an em. */
	private decimalAt(cell: SourceCell, look: Look): number {
		const { widths } = this.job.source;
		const width = widths.slice(cell.c, cell.c + cell.cols).reduce((sum, w) => sum + toTwips(w), 0);
		const margins = toTwips(look.marginStart ?? (0 as never)) + toTwips(look.marginEnd ?? (0 as never));
		const digit = (look.size ? toPoints(look.size) : 10) * 20 * 0.55;
		const fraction = (this.decimals[cell.c] ?? 0) * digit;
		// Tabs count from where a line starts; digits run to the right in any script.
		return Math.max(0, Math.round(this.resolver.isRight ? fraction : width - margins - fraction));
	}
}
