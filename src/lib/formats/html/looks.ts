import { BLACK, type Hex } from '../../core/colour.ts';
import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { LinePattern } from '../../core/style/types.ts';
import { emu, type Emu } from '../../core/units.ts';
import type { Computed, PageStyles } from './cascade.ts';
import { parentOf, type Element } from './dom.ts';
import type { HtmlGrid } from './grid.ts';
import { borderPx, over, toColour, toPx } from './properties.ts';

const EMU_PER_PX = 9_525;
const toEmu = (px: number): Emu => emu(Math.round(px * EMU_PER_PX));
/** What line height 1 of a style is in CSS. */
export const LINE = 1.25;

export const inkOf = (computed: Computed): Hex => toColour(computed.get('color') ?? '#000', BLACK)?.hex ?? BLACK;
const sizeOf = (computed: Computed): number => Number(computed.get('font-size') ?? 16);

/** The weight a computed value stands for; `bolder` and `lighter` by what they stand in (CSS Fonts 4 §2.2.1). */
export function weightOf(element: Element, styles: PageStyles): number {
	const value = styles.computed(element).get('font-weight') ?? '400';
	if (value === 'bold') return 700;
	if (value === 'normal') return 400;
	if (value !== 'bolder' && value !== 'lighter') return Number(value) || 400;
	// An inherited `bolder` belongs to the element that first said it.
	let said = element;
	for (let up = parentOf(said); up && styles.computed(up).get('font-weight') === value; up = parentOf(up)) said = up;
	const parent = parentOf(said);
	const outer = parent ? weightOf(parent, styles) : 400;
	return value === 'bolder' ? (outer < 600 ? 700 : 900) : outer < 600 ? 100 : outer < 800 ? 400 : 700;
}

export const underlineOf = (computed: Computed): 'none' | 'single' | 'double' =>
	/underline/.test(computed.get('text-decoration-line') ?? '')
		? computed.get('text-decoration-style') === 'double'
			? 'double'
			: 'single'
		: 'none';

const H: Record<string, Look['h']> = {
	left: 'start',
	start: 'start',
	center: 'middle',
	middle: 'middle',
	'-webkit-center': 'middle',
	right: 'end',
	end: 'end',
	justify: 'justify'
};
const CASES: Record<string, Look['case']> = { uppercase: 'upper', lowercase: 'lower', capitalize: 'title' };

function lineHeight(computed: Computed): number | undefined {
	const value = computed.get('line-height');
	if (value === undefined || value === 'normal') return undefined;
	const plain = Number(value);
	const factor = Number.isFinite(plain)
		? plain
		: (toPx(value, sizeOf(computed), sizeOf(computed)) ?? 0) / sizeOf(computed);
	return factor > 0 ? factor / LINE : undefined;
}

const background = (computed: Computed) => toColour(computed.get('background-color') ?? 'transparent', inkOf(computed));

/** Whether an element has a background of its own, be it faint. */
export const hasBackground = (element: Element, styles: PageStyles): boolean =>
	(background(styles.computed(element))?.opacity ?? 0) > 0;

/** Whether an element has a border on some side, or keeps one from showing there. */
export const hasBorder = (element: Element, styles: PageStyles): boolean =>
	['top', 'right', 'bottom', 'left'].some(
		(side) => (styles.computed(element).get(`border-${side}-style`) ?? 'none') !== 'none'
	);

/** The look of a cell as a browser shows it; backgrounds of row, section and table lie under its own. */
function cellLook(element: Element, styles: PageStyles): Look {
	const computed = styles.computed(element);
	const size = sizeOf(computed);
	let fill: Hex | undefined;
	const layers: Element[] = [];
	for (let node: Element | undefined = element; node; node = parentOf(node)) {
		layers.unshift(node);
		if (node.name === 'table') break;
	}
	for (const layer of layers) {
		const colour = background(styles.computed(layer));
		if (colour && colour.opacity > 0) fill = over(colour, fill);
	}
	const tracking = computed.get('letter-spacing');
	const height = lineHeight(computed);
	const mode = computed.get('writing-mode');
	const vertical = computed.get('vertical-align');
	const padding = (side: string) => toEmu(toPx(computed.get(`padding-${side}`) ?? '0', size, 0) ?? 0);
	const family = computed
		.get('font-family')
		?.split(',')[0]
		?.trim()
		.replace(/^["']|["']$/g, '');
	return {
		fill: fill ?? 'none',
		...(family && { family }),
		size: toEmu(size),
		weight: weightOf(element, styles),
		italic: /italic|oblique/.test(computed.get('font-style') ?? ''),
		underline: underlineOf(computed),
		case:
			computed.get('font-variant-caps') === 'small-caps'
				? 'small-caps'
				: (CASES[computed.get('text-transform') ?? ''] ?? 'none'),
		tracking: toEmu(tracking && tracking !== 'normal' ? (toPx(tracking, size) ?? 0) : 0),
		...(height !== undefined && { lineHeight: height }),
		ink: inkOf(computed),
		h: H[computed.get('text-align') ?? 'start'] ?? 'start',
		v: vertical === 'top' || vertical === 'baseline' ? 'top' : vertical === 'bottom' ? 'bottom' : 'middle',
		rotate: mode === 'vertical-rl' ? 90 : mode === 'sideways-lr' || mode === 'vertical-lr' ? 270 : 0,
		marginTop: padding('top'),
		marginEnd: padding('right'),
		marginBottom: padding('bottom'),
		marginStart: padding('left')
	};
}

const PATTERN: Record<string, LinePattern> = { dashed: 'dashed', dotted: 'dotted', double: 'double' };
/** Which of two equally wide borders shows (CSS 2.2 §17.6.2.1), first wins. */
const STRENGTH = ['double', 'solid', 'dashed', 'dotted', 'ridge', 'outset', 'groove', 'inset'];

interface Border {
	readonly width: number;
	readonly style: string;
	readonly ink: Hex;
}

function borderOf(computed: Computed, side: string): Border | undefined {
	const style = computed.get(`border-${side}-style`) ?? 'none';
	if (style === 'none') return undefined;
	const width = borderPx(computed.get(`border-${side}-width`) ?? 'medium', sizeOf(computed));
	const ink = toColour(computed.get(`border-${side}-color`) ?? 'currentcolor', inkOf(computed));
	if (style !== 'hidden' && (width === 0 || !ink || ink.opacity === 0)) return undefined;
	return { width, style, ink: over(ink ?? { hex: BLACK, opacity: 1 }, undefined) };
}

/** The border that shows of those that meet at an edge, the strongest claim first where they are equal. */
function winner(candidates: readonly (Border | undefined)[]): Line | null {
	let best: Border | undefined;
	for (const border of candidates) {
		if (!border) continue;
		if (border.style === 'hidden') return null;
		if (
			!best ||
			border.width > best.width ||
			(border.width === best.width && STRENGTH.indexOf(border.style) < STRENGTH.indexOf(best.style))
		)
			best = border;
	}
	return best ? { pattern: PATTERN[best.style] ?? 'solid', weight: toEmu(best.width), ink: best.ink } : null;
}

/** How a table shows in a page. */
export function pageAppearance({ node, grid, rows, cells }: HtmlGrid, styles: PageStyles): Appearance {
	const looks = new Interned<Look>();
	const lines = new Interned<Line | null>();
	const known = new Map<string, number>();
	const lookOf = new Map<string, number>();
	const cellLooks = cells.map((element, i) => {
		if (!element) return looks.add({});
		// Cells with the same computed style in rows and sections with the same one look the same.
		const { node: row, section } = rows[grid.cells[i]!.r]!;
		const key = [element, row, section].map((one) => one && styles.idOf(styles.computed(one))).join(' ');
		let index = lookOf.get(key);
		if (index === undefined) lookOf.set(key, (index = looks.add(cellLook(element, styles))));
		return index;
	});
	const collapses = styles.computed(node).get('border-collapse') === 'collapse';
	const border = (element: Element | undefined, side: string) => element && borderOf(styles.computed(element), side);
	const cell = (r: number, c: number) =>
		r < 0 || c < 0 || r >= grid.rows || c >= grid.columns ? -1 : grid.slots[r * grid.columns + c]!;
	const outer = (r: number, side: 'top' | 'bottom') => {
		if (!collapses || r < 0 || r >= rows.length) return [];
		const { node: row, section } = rows[r]!;
		const beside = rows[side === 'top' ? r - 1 : r + 1];
		return [border(row, side), ...(beside?.section === section ? [] : [border(section, side)])];
	};
	const edge = (candidates: readonly (Border | undefined)[]) => {
		const key = JSON.stringify(candidates);
		let index = known.get(key);
		if (index === undefined) known.set(key, (index = lines.add(winner(candidates))));
		return index;
	};
	const across = new Int32Array((grid.rows + 1) * grid.columns).fill(-1);
	for (let r = 0; r <= grid.rows; r++)
		for (let c = 0; c < grid.columns; c++) {
			const [above, below] = [cell(r - 1, c), cell(r, c)];
			if (above === below) continue;
			across[r * grid.columns + c] = edge([
				border(cells[above], 'bottom'),
				border(cells[below], 'top'),
				...outer(r - 1, 'bottom'),
				...outer(r, 'top'),
				...(r === 0 ? [border(node, 'top')] : r === grid.rows ? [border(node, 'bottom')] : [])
			]);
		}
	const down = new Int32Array(grid.rows * (grid.columns + 1)).fill(-1);
	for (let r = 0; r < grid.rows; r++)
		for (let c = 0; c <= grid.columns; c++) {
			const [before, after] = [cell(r, c - 1), cell(r, c)];
			if (before === after) continue;
			const sides = c === 0 ? 'left' : c === grid.columns ? 'right' : undefined;
			down[r * (grid.columns + 1) + c] = edge([
				border(cells[before], 'right'),
				border(cells[after], 'left'),
				...(sides && collapses ? [border(rows[r]!.node, sides), border(rows[r]!.section, sides)] : []),
				...(sides ? [border(node, sides)] : [])
			]);
		}
	return { cellLook: Int32Array.from(cellLooks), looks: looks.items, across, down, lines: lines.items };
}
