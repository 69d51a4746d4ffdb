/** An affine map, x' = ax + cy + e, y' = bx + dy + f (CSS Transforms 1, §12). */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];
export interface Point {
	readonly x: number;
	readonly y: number;
}
/** A rectangle along the axes by two corners; x1 ≤ x2, y1 ≤ y2. */
export interface Extent {
	readonly x1: number;
	readonly y1: number;
	readonly x2: number;
	readonly y2: number;
}

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** First `inner`, then `outer`. */
export const multiply = (outer: Matrix, inner: Matrix): Matrix => [
	outer[0] * inner[0] + outer[2] * inner[1],
	outer[1] * inner[0] + outer[3] * inner[1],
	outer[0] * inner[2] + outer[2] * inner[3],
	outer[1] * inner[2] + outer[3] * inner[3],
	outer[0] * inner[4] + outer[2] * inner[5] + outer[4],
	outer[1] * inner[4] + outer[3] * inner[5] + outer[5]
];

export const apply = (m: Matrix, x: number, y: number): Point => ({
	x: m[0] * x + m[2] * y + m[4],
	y: m[1] * x + m[3] * y + m[5]
});

/** The map back; undefined for one that flattens everything to a line or a point. */
export function invert([a, b, c, d, e, f]: Matrix): Matrix | undefined {
	const det = a * d - b * c;
	if (!Number.isFinite(det) || det === 0) return undefined;
	return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

const move = (x: number, y = 0): Matrix => [1, 0, 0, 1, x, y];
const radians = (degrees: number) => (degrees * Math.PI) / 180;

const FUNCTIONS: Record<string, (n: readonly number[]) => Matrix | undefined> = {
	matrix: (n) => (n.length === 6 ? (n as unknown as Matrix) : undefined),
	translate: (n) => (n.length === 1 || n.length === 2 ? move(n[0]!, n[1] ?? 0) : undefined),
	scale: (n) => (n.length === 1 || n.length === 2 ? [n[0]!, 0, 0, n[1] ?? n[0]!, 0, 0] : undefined),
	rotate: (n) => {
		if (n.length !== 1 && n.length !== 3) return undefined;
		const [angle, x = 0, y = 0] = n as [number, number?, number?];
		const [sin, cos] = [Math.sin(radians(angle)), Math.cos(radians(angle))];
		return multiply(move(x, y), multiply([cos, sin, -sin, cos, 0, 0], move(-x, -y)));
	},
	skewX: (n) => (n.length === 1 ? [1, 0, Math.tan(radians(n[0]!)), 1, 0, 0] : undefined),
	skewY: (n) => (n.length === 1 ? [1, Math.tan(radians(n[0]!)), 0, 1, 0, 0] : undefined)
};

/** The last one that was read: an element's own is asked for several times in a row. */
let last: { readonly text: string; readonly matrix: Matrix } | undefined;

/** Reads a `transform` attribute (SVG 1.1 §7.6). One that is not valid maps nothing, as in browsers. */
export function parseTransform(text: string | undefined): Matrix {
	if (!text) return IDENTITY;
	if (last?.text !== text) last = { text, matrix: readTransform(text) };
	return last.matrix;
}

function readTransform(text: string): Matrix {
	if (!text.trim()) return IDENTITY;
	let whole = IDENTITY;
	const one = /\s*([a-zA-Z]+)\s*\(([^)]*)\)\s*,?/y;
	while (one.lastIndex < text.length) {
		const found = one.exec(text);
		if (!found) return /^\s*$/.test(text.slice(one.lastIndex || 0)) ? whole : IDENTITY;
		const numbers = parseNumbers(found[2]!);
		const matrix = numbers && FUNCTIONS[found[1]!]?.(numbers);
		if (!matrix) return IDENTITY;
		whole = multiply(whole, matrix);
		if (one.lastIndex >= text.length || !text.slice(one.lastIndex).trim()) return whole;
	}
	return whole;
}

/** Numbers with spaces or commas between them; undefined where something else stands there. */
export function parseNumbers(text: string): number[] | undefined {
	// Nearly always they are plainly apart; else "1-2" and "1.5.5" are two numbers each.
	const plain = text.trim().split(/[\s,]+/);
	const quick = plain.map(Number);
	if (plain[0] !== '' && quick.every((number) => number === number) && plain.every((piece) => /^[\d.+-]/.test(piece)))
		return quick;
	const numbers = text.match(/[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?/g) ?? [];
	const rest = text.replace(/[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?/g, '').trim();
	return /[^\s,]/.test(rest) ? undefined : numbers.map(Number);
}

export const NOWHERE: Extent = { x1: Infinity, y1: Infinity, x2: -Infinity, y2: -Infinity };
export const isSomewhere = ({ x1, x2 }: Extent): boolean => x1 <= x2;

export const join = (a: Extent, b: Extent): Extent => ({
	x1: Math.min(a.x1, b.x1),
	y1: Math.min(a.y1, b.y1),
	x2: Math.max(a.x2, b.x2),
	y2: Math.max(a.y2, b.y2)
});

/** The smallest rectangle around a mapped one. */
export function mapped(m: Matrix, { x1, y1, x2, y2 }: Extent): Extent {
	if (x1 > x2) return NOWHERE;
	return [apply(m, x1, y1), apply(m, x2, y1), apply(m, x1, y2), apply(m, x2, y2)].reduce(
		(around, { x, y }) => join(around, { x1: x, y1: y, x2: x, y2: y }),
		NOWHERE
	);
}

/** Whether two rectangles have more than an edge in common. */
export const overlaps = (a: Extent, b: Extent): boolean => a.x1 < b.x2 && b.x1 < a.x2 && a.y1 < b.y2 && b.y1 < a.y2;

export interface ViewBox {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** A `viewBox`; undefined where it is missing, has no area or is not valid (SVG 1.1 §7.7: then it says nothing). */
export function parseViewBox(text: string | undefined): ViewBox | undefined {
	const numbers = text === undefined ? undefined : parseNumbers(text);
	if (numbers?.length !== 4) return undefined;
	const [x, y, width, height] = numbers as [number, number, number, number];
	return width > 0 && height > 0 ? { x, y, width, height } : undefined;
}

/** From a viewBox's units to a rectangle of `width` × `height` at (0, 0), by `preserveAspectRatio` (SVG 1.1 §7.8). */
export function fitViewBox(box: ViewBox, width: number, height: number, ratio = 'xMidYMid meet'): Matrix {
	let [sx, sy] = [width / box.width, height / box.height];
	const words = ratio.trim().split(/\s+/);
	if (words[0] === 'none') return [sx, 0, 0, sy, -box.x * sx, -box.y * sy];
	const align = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(words[0] ?? '') ?? ['', 'Mid', 'Mid'];
	sx = sy = words[1] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
	const share = { Min: 0, Mid: 0.5, Max: 1 } as Record<string, number>;
	return [
		sx,
		0,
		0,
		sy,
		-box.x * sx + (width - box.width * sx) * share[align[1]!]!,
		-box.y * sy + (height - box.height * sy) * share[align[2]!]!
	];
}
