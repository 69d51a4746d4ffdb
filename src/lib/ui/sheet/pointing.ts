import type { ShownObjects } from '$lib/formats/svg/shown.ts';

export interface Spot {
	readonly x: number;
	readonly y: number;
}
export interface Box extends Spot {
	readonly width: number;
	readonly height: number;
}
/** Lines that edges snap to, across and down. */
export interface Lines {
	readonly x: readonly number[];
	readonly y: readonly number[];
}

export const isInside = ({ x, y }: Spot, box: Box): boolean =>
	x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height;

/** The edge that is nearest to a line, and how far it is from there; undefined where none is nearer than `near`. */
function nearest(edges: readonly number[], lines: readonly number[], near: number) {
	let best: { by: number; line: number } | undefined;
	for (const edge of edges)
		for (const line of lines)
			if (Math.abs(line - edge) < (best ? Math.abs(best.by) : near)) best = { by: line - edge, line };
	return best;
}

/** Where a box goes whose edges are near some lines, and the lines that it snapped to. */
export function snapped(
	{ x, y, width, height }: Box,
	lines: Lines,
	near: number
): Spot & { readonly on: Partial<Spot> } {
	const across = nearest([x, x + width], lines.x, near);
	const down = nearest([y, y + height], lines.y, near);
	return {
		x: x + (across?.by ?? 0),
		y: y + (down?.by ?? 0),
		on: { ...(across && { x: across.line }), ...(down && { y: down.line }) }
	};
}

/** The index of the smallest object at a place, or within `slack` of it; −1 for none. */
export function objectAt({ extents }: Pick<ShownObjects, 'extents'>, { x, y }: Spot, slack: number): number {
	let best = -1;
	let least = Infinity;
	for (let i = 0, k = 0; k < extents.length; i++, k += 4) {
		const [x1, y1, x2, y2] = [extents[k]!, extents[k + 1]!, extents[k + 2]!, extents[k + 3]!];
		if (x < x1 - slack || y < y1 - slack || x > x2 + slack || y > y2 + slack) continue;
		const area = (x2 - x1) * (y2 - y1);
		if (area <= least) [best, least] = [i, area];
	}
	return best;
}

/** Smaller objects are outlined as if they were so large, in millimetres from their middle. */
const LEAST = 0.6;

/** A ring around each object that is lit, as the data of one path. */
export function rings({ extents }: Pick<ShownObjects, 'extents'>, isLit: (index: number) => boolean): string {
	let path = '';
	for (let i = 0; 4 * i < extents.length; i++) {
		if (!isLit(i)) continue;
		const [x1, y1, x2, y2] = [extents[4 * i]!, extents[4 * i + 1]!, extents[4 * i + 2]!, extents[4 * i + 3]!];
		const [rx, ry] = [Math.max((x2 - x1) / 2, LEAST), Math.max((y2 - y1) / 2, LEAST)];
		path += `M${(x1 + x2) / 2 - rx} ${(y1 + y2) / 2}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0Z`;
	}
	return path;
}

/** Hidden layers with those that stand in them, by their indices; layers stand in the order of the file. */
export function hiddenWithin(layers: readonly { readonly depth: number }[], hidden: ReadonlySet<number>): number[] {
	let under = Infinity;
	return layers.flatMap(({ depth }, index) => {
		if (depth <= under) under = hidden.has(index) ? depth : Infinity;
		return depth > under || hidden.has(index) ? [index] : [];
	});
}
