import { BLACK, type Hex } from '../../core/colour.ts';
import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { LinePattern } from '../../core/style/types.ts';
import { readLook } from '../sayable.ts';
import type { Computed, PageStyles } from './cascade.ts';
import { borderPx, over, toColour } from './css.ts';
import type { Element } from './dom.ts';
import { columnElements, type HtmlGrid } from './grid.ts';
import { mirrored } from '../sides.ts';
import { fillingInside, inkOf } from './properties/fill.ts';
import { HTML_FIELDS } from './properties/index.ts';
import { gapOf } from './properties/paragraph-gap.ts';
import { fromPx, isRightToLeft, sizeOf } from './properties/property.ts';
import { readShadow } from './properties/shadow.ts';

/** Whether an element has a border on some side, or keeps one from showing there. */
export const hasBorder = (element: Element, styles: PageStyles): boolean =>
	['top', 'right', 'bottom', 'left'].some(
		(side) => (styles.computed(element).get(`border-${side}-style`) ?? 'none') !== 'none'
	);

/** The look of a cell as a browser shows it. */
function cellLook(element: Element, styles: PageStyles, columns: readonly Element[], isRight: boolean): Look {
	const cell = { element, styles, computed: styles.computed(element), columns, isRight };
	const look = readLook((field) => HTML_FIELDS[field].read(cell));
	return isRight ? mirrored(look) : look;
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
	return best ? { pattern: PATTERN[best.style] ?? 'solid', weight: fromPx(best.width), ink: best.ink } : null;
}

/** How a table shows in a page. */
export function pageAppearance(read: HtmlGrid, styles: PageStyles): Appearance {
	const { node, grid, rows, cells } = read;
	const isRight = isRightToLeft(styles.computed(node));
	const columns = columnElements(read);
	const looks = new Interned<Look>();
	const lines = new Interned<Line | null>();
	const known = new Map<string, number>();
	const lookOf = new Map<string, number>();
	const cellLooks = cells.map((element, i) => {
		if (!element) return looks.add({});
		// Cells with the same computed style in rows and sections with the same one look the same.
		const { node: row, section } = rows[grid.cells[i]!.r]!;
		const own = columns[grid.cells[i]!.c] ?? [];
		const key = [
			...[element, row, section, ...own].map((one) => one && styles.idOf(styles.computed(one))),
			gapOf(element, styles),
			fillingInside(element, styles)
				.map((one) => styles.idOf(styles.computed(one)))
				.join('+')
		].join(' ');
		let index = lookOf.get(key);
		if (index === undefined) lookOf.set(key, (index = looks.add(cellLook(element, styles, own, isRight))));
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
	const [first, last] = isRight ? ['right', 'left'] : ['left', 'right'];
	const down = new Int32Array(grid.rows * (grid.columns + 1)).fill(-1);
	for (let r = 0; r < grid.rows; r++)
		for (let c = 0; c <= grid.columns; c++) {
			const [before, after] = [cell(r, c - 1), cell(r, c)];
			if (before === after) continue;
			const sides = c === 0 ? first : c === grid.columns ? last : undefined;
			down[r * (grid.columns + 1) + c] = edge([
				border(cells[before], last),
				border(cells[after], first),
				...(sides && collapses ? [border(rows[r]!.node, sides), border(rows[r]!.section, sides)] : []),
				...(sides ? [border(node, sides)] : [])
			]);
		}
	const own = styles.computed(node);
	const shadow = readShadow(own.get('box-shadow'), own);
	return {
		cellLook: Int32Array.from(cellLooks),
		looks: looks.items,
		across,
		down,
		lines: lines.items,
		...(shadow && { shadow })
	};
}
