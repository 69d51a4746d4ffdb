import { sameLine } from '../../core/properties/line.ts';
import type { SeenLeaf } from '../read-back.ts';
import type { Hex } from '../../core/colour.ts';
import type { Look } from '../../core/cascade/look.ts';
import type { Aspect } from '../../core/style/types.ts';
import { toTwips, type Emu } from '../../core/units.ts';
import type { XmlNode } from '../package/xml.ts';
import { rewriteProperties } from './containers.ts';
import { cellLayerOf, paragraphLayerOf, textLayerOf } from './layers.ts';
import {
	getOrMake,
	type CellContext,
	type CellGround,
	type LookResolver,
	type ParagraphContext,
	type PropertyReader,
	type RunContext
} from './looks.ts';
import { directOnly } from './cell-text.ts';
import { writeBorders, type Borders } from './properties/borders.ts';
import { CELL_ORDER, writeMargins, writeRotation, writeVertical } from './properties/cell.ts';
import { writeShading } from './properties/shading.ts';
import { PARAGRAPH_ORDER, spacing, writeAlignment } from './properties/paragraph.ts';
import { RUN_ORDER, TEXT_ELEMENTS, writeText, type TextLayer } from './properties/text.ts';
import { SIDES } from '../../core/table/grid.ts';
import { acrossFrom } from '../sides.ts';
import type { WantedSides } from './sides.ts';

/** Settings of a property element that were said already, and the others; one object for the same settings. */
export interface Settings {
	readonly same: readonly SeenLeaf[];
	readonly different: readonly SeenLeaf[];
}

/** What a property element becomes, and which settings that says. */
export interface PropertyMarkup {
	readonly markup: string;
	readonly settings: Settings;
}

/** How tables are patched. */
export interface Manner {
	readonly carry: ReadonlySet<Aspect>;
	/** Whether what the style cannot say may be said directly. */
	readonly direct: boolean;
	/** Whether borders are written: a table that keeps its look has its own, unless some are touched. */
	readonly hasLines: boolean;
	readonly strict: boolean;
}

/** Patches made already for cells that are to look the same where table and style say the same of them. */
export class KnownPatches {
	readonly cells = new Map<CellContext, Map<number | string, PropertyMarkup>>();
	/** By what else they depend on: where decimals line up, and whether the row keeps with the next. */
	readonly paragraphs = new Map<ParagraphContext, Map<number, PropertyMarkup>>();
	readonly runs = new Map<RunContext, PropertyMarkup>();
	/** Of runs that keep some of their own settings, which the key names. */
	readonly emphasised = new Map<RunContext, Map<string, PropertyMarkup>>();
}

/** Property elements patched already: the same markup, in cells that are to look the same, comes out the same. */
export class PatchCache {
	private readonly kinds = new Map<string, Map<CellGround, Map<Look, KnownPatches>>>();
	private readonly lines = new Map<object, number>();
	private readonly settingsBy = new Map<string, Settings>();

	/** Of all tables that are patched in one manner. */
	of({ carry, direct, hasLines }: Manner): (ground: CellGround, look: Look) => KnownPatches {
		const kind = `${[...carry].join()} ${direct} ${hasLines}`;
		const known = getOrMake(this.kinds, kind, () => new Map<CellGround, Map<Look, KnownPatches>>());
		return (ground, look) => {
			let byLook = known.get(ground);
			if (!byLook) known.set(ground, (byLook = new Map()));
			let patches = byLook.get(look);
			if (!patches) byLook.set(look, (patches = new KnownPatches()));
			return patches;
		};
	}
	readonly settings = (same: readonly SeenLeaf[], different: readonly SeenLeaf[]): Settings =>
		getOrMake(this.settingsBy, `${same.join()} ${different.join()}`, () => ({ same, different }));
	/** A number from 1 for a line. */
	readonly lineId = (line: object): number => {
		let id = this.lines.get(line);
		if (id === undefined) this.lines.set(line, (id = this.lines.size + 1));
		return id;
	};
}

/** Fields of run properties that are called otherwise among looks. */
const TEXT_LEAF: Partial<Record<keyof TextLayer, SeenLeaf>> = { bold: 'weight', caps: 'case', smallCaps: 'case' };
const MARGIN_FIELDS = { top: 'marginTop', bottom: 'marginBottom', start: 'marginStart', end: 'marginEnd' } as const;
const EMPTY: ReadonlyMap<string, string> = new Map();
const NO_SPACE = 0 as Emu;

/** Whether what is behind words, or behind their paragraph, hides the fill of a look. */
const hides = (behind: Hex | 'none' | undefined, { fill }: Look): boolean =>
	behind !== undefined && behind !== 'none' && behind !== fill;

/** What a paragraph is beside its look. */
interface ParagraphPlace {
	readonly withNext: boolean;
	/** Where decimals line up, in twips. */
	readonly decimalAt: number;
	/** What the properties of its mark become. */
	readonly mark: string;
	/** Says the space between paragraphs: as the first of its cell (1), or as one that follows (2); 0 as it is. */
	readonly place: 0 | 1 | 2;
}

export const widthMarkup = (name: string, widths: readonly Emu[]) =>
	`<${name} w:w="${toTwips(widths.reduce<number>((sum, width) => sum + width, 0) as Emu)}" w:type="dxa"/>`;

/** Rewrites property elements so that what stands in them makes a cell look as wanted. */
export class PropertyPatcher {
	/** What the style takes over of what runs say of themselves. */
	private readonly taken: ReadonlySet<keyof TextLayer>;
	constructor(
		private readonly reader: PropertyReader,
		private readonly resolver: LookResolver,
		private readonly manner: Manner,
		private readonly settings: PatchCache['settings']
	) {
		const fields = Object.keys(TEXT_ELEMENTS) as (keyof TextLayer)[];
		this.taken = new Set(fields.filter((field) => manner.carry.has(field === 'behind' ? 'fill' : 'text')));
	}

	/** A w:tcPr that says what table and style do not say of the cell already; `behind`: what shows behind its words, and stays. */
	cell(
		own: CellContext,
		look: Look,
		ground: CellGround,
		sides: { readonly of: WantedSides; readonly number: number; readonly isContested: boolean },
		width: readonly Emu[],
		behind: Hex | undefined
	): PropertyMarkup {
		const { reader } = this;
		const { carry, strict, direct, hasLines } = this.manner;
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

		if (hasLines) {
			const borders: Borders = {};
			let differs = sides.isContested;
			SIDES.forEach((name, side) => {
				const line = sides.of.line(sides.number, side);
				if (line === undefined) return;
				borders[name] = line;
				differs = !say('lines', sides.of.isStated(sides.number, side), true) || differs;
			});
			for (const name of ['diagonalDown', 'diagonalUp'] as const) {
				const wanted = look[name] ?? null;
				const said = kept('linework') ? own.borders[name] : undefined;
				if (said !== undefined) borders[name] = said;
				if (sameLine(said ?? ground.diagonals[name] ?? null, wanted)) continue;
				different.push(name);
				borders[name] = wanted;
				differs = true;
			}
			if (differs && direct) set.set('w:tcBorders', writeBorders('w:tcBorders', borders, strict));
		}

		const wanted = cellLayerOf(look);
		say(
			'fill',
			behind ?? (kept('fill') ? own.fill : undefined) ?? ground.cell.fill ?? 'none',
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
			settings: this.settings(same, different)
		};
	}

	private readonly goesFromCell = ({ name }: XmlNode): boolean => {
		const { carry } = this.manner;
		return (
			name === 'w:cnfStyle' ||
			(carry.has('linework') && name === 'w:tcBorders') ||
			(carry.has('fill') && name === 'w:shd') ||
			(carry.has('margins') && name === 'w:tcMar') ||
			(carry.has('alignment') && (name === 'w:vAlign' || name === 'w:textDirection'))
		);
	};

	/** Which of a run's own settings the style takes over. */
	private goesFromRun(keep: ReadonlySet<keyof TextLayer>): (child: XmlNode) => boolean {
		const names = new Set([...this.taken].flatMap((field) => (keep.has(field) ? [] : TEXT_ELEMENTS[field])));
		return ({ name }) => names.has(name);
	}

	/** A w:rPr that says what a run must say itself to look as wanted, over what table, paragraph and character style make of it. */
	run(context: RunContext, look: Look, ground: CellGround, keep: ReadonlySet<keyof TextLayer>): PropertyMarkup {
		const { carry, direct } = this.manner;
		const wanted = textLayerOf(look);
		const gone = keep.size ? new Set([...this.taken].filter((field) => !keep.has(field))) : this.taken;
		const remaining = directOnly(context.direct, gone, false);
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
		if (carry.has('fill') && !keep.has('behind') && hides(effective.behind, look)) {
			different.push('fill');
			missing.behind = 'none';
		}
		const set = direct ? writeText(missing) : EMPTY;
		return {
			markup: rewriteProperties(context.markup, this.reader.xml, 'w:rPr', RUN_ORDER, this.goesFromRun(keep), set),
			settings: this.settings(same, different)
		};
	}

	/** A w:pPr. */
	paragraph(
		context: ParagraphContext,
		look: Look,
		ground: CellGround,
		{ withNext, decimalAt, mark, place }: ParagraphPlace
	): PropertyMarkup {
		const { reader } = this;
		const { carry, direct } = this.manner;
		const pPr = context.markup === '' ? undefined : reader.xml.fragment(context.markup);
		const wanted = paragraphLayerOf(look);
		const remaining = { ...context.direct };
		if (carry.has('alignment')) delete remaining.h;
		if (carry.has('text')) delete remaining.lineHeight;
		if (carry.has('fill')) delete remaining.behind;
		const effective = this.resolver.effectiveParagraph(ground, context.styleId, remaining);
		const set = new Map<string, string>();
		const same: SeenLeaf[] = [];
		const different: SeenLeaf[] = [];
		if (wanted.h !== undefined) {
			const h = acrossFrom(wanted.h, !!effective.isRight !== this.resolver.isRight);
			if ((effective.h ?? 'start') === h) same.push('h');
			else {
				different.push('h');
				if (direct) for (const [name, xml] of writeAlignment(h, decimalAt)) set.set(name, xml);
			}
		}
		const lineDiffers = wanted.lineHeight !== undefined && effective.lineHeight !== wanted.lineHeight;
		if (wanted.lineHeight !== undefined) (lineDiffers ? different : same).push('lineHeight');
		const dropSpacing = carry.has('text') && context.direct.lineHeight !== undefined;
		const setsGap = place > 0;
		if (setsGap) different.push('paragraphGap');
		if ((lineDiffers && direct) || dropSpacing || (setsGap && direct)) {
			const kept = dropSpacing || lineDiffers ? undefined : context.direct.lineHeight;
			const lineHeight = lineDiffers && direct ? wanted.lineHeight : kept;
			const gap = setsGap && direct ? { before: place === 1 ? NO_SPACE : look.paragraphGap!, after: NO_SPACE } : {};
			const markup = spacing(pPr?.child('w:spacing'), { ...(lineHeight !== undefined && { lineHeight }), ...gap });
			if (markup) set.set('w:spacing', markup);
		}
		if (carry.has('fill') && hides(effective.behind, look)) {
			different.push('fill');
			if (direct) set.set('w:shd', writeShading('none'));
		}
		if (withNext && !pPr?.child('w:keepNext')) set.set('w:keepNext', '<w:keepNext/>');
		if (mark !== '' && mark !== context.mark.markup) set.set('w:rPr', mark);
		const onlyDecimal = (child: XmlNode) => child.children.every((tab) => tab.attribute('w:val') === 'decimal');
		const remove = (child: XmlNode) =>
			child.name === 'w:cnfStyle' ||
			(child.name === 'w:rPr' && mark === '') ||
			(carry.has('alignment') && (child.name === 'w:jc' || (child.name === 'w:tabs' && onlyDecimal(child)))) ||
			(carry.has('fill') && child.name === 'w:shd') ||
			(setsGap && child.name === 'w:contextualSpacing') ||
			(dropSpacing && child.name === 'w:spacing');
		return {
			markup: rewriteProperties(context.markup, reader.xml, 'w:pPr', PARAGRAPH_ORDER, remove, set),
			settings: this.settings(same, different)
		};
	}
}
