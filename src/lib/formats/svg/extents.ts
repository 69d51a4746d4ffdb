import svgpath from 'svgpath';
import {
	apply,
	fitViewBox,
	IDENTITY,
	isSomewhere,
	join,
	mapped,
	multiply,
	NOWHERE,
	parseNumbers,
	parseTransform,
	parseViewBox,
	type Extent,
	type Matrix
} from '../../core/layout/matrix.ts';
import type { XmlNode } from '../package/xml.ts';

const PER_UNIT: Readonly<Record<string, number>> = {
	'': 1,
	px: 1,
	mm: 96 / 25.4,
	cm: 960 / 25.4,
	in: 96,
	pt: 96 / 72,
	pc: 16,
	q: 24 / 25.4
};

/** A length of an attribute in user units; `whole` is what a percentage is of. */
export function userLength(text: string | undefined, whole = 0, otherwise = 0): number {
	const found = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
	if (!found) return otherwise;
	const value = Number(found[1]);
	return found[2] === '%' ? (value * whole) / 100 : value * (PER_UNIT[found[2]!.toLowerCase()] ?? 1);
}

/** What a reference leads to inside the file; nothing outside is ever looked at. */
export const referenceOf = (node: XmlNode): string | undefined => {
	const href = node.attribute('href') ?? node.attribute('xlink:href');
	return href?.startsWith('#') ? href.slice(1) : undefined;
};

/** Elements whose content is used elsewhere, or never drawn. */
export const NOT_DRAWN: ReadonlySet<string> = new Set([
	'svg:defs',
	'svg:symbol',
	'svg:clipPath',
	'svg:mask',
	'svg:pattern',
	'svg:marker',
	'svg:linearGradient',
	'svg:radialGradient',
	'svg:filter',
	'svg:metadata',
	'svg:style',
	'svg:script',
	'svg:title',
	'svg:desc',
	'svg:foreignObject'
]);

/** References lead on to references this deep at most. */
const DEEPEST = 12;

/** The map of a `use` onto what it uses: its transform, its place, and the fitting of a symbol's viewBox. */
export function useMatrix(use: XmlNode, target: XmlNode | undefined): Matrix {
	const x = userLength(use.attribute('x'));
	const y = userLength(use.attribute('y'));
	const placed = multiply(parseTransform(use.attribute('transform')), [1, 0, 0, 1, x, y]);
	const box =
		target && (target.name === 'svg:symbol' || target.name === 'svg:svg')
			? parseViewBox(target.attribute('viewBox'))
			: undefined;
	if (!box) return placed;
	const width = userLength(use.attribute('width') ?? target!.attribute('width'), box.width, box.width);
	const height = userLength(use.attribute('height') ?? target!.attribute('height'), box.height, box.height);
	return multiply(placed, fitViewBox(box, width, height, target!.attribute('preserveAspectRatio')));
}

/** The map of an element onto what stands in it, beside references. */
export function innerMatrix(node: XmlNode): Matrix {
	const own = parseTransform(node.attribute('transform'));
	if (node.name !== 'svg:svg') return own;
	const placed = multiply(own, [1, 0, 0, 1, userLength(node.attribute('x')), userLength(node.attribute('y'))]);
	const box = parseViewBox(node.attribute('viewBox'));
	if (!box) return placed;
	const width = userLength(node.attribute('width'), box.width, box.width);
	const height = userLength(node.attribute('height'), box.height, box.height);
	return multiply(placed, fitViewBox(box, width, height, node.attribute('preserveAspectRatio')));
}

/** How much a map stretches at most. */
const stretch = ([a, b, c, d]: Matrix): number => {
	const sum = (a * a + b * b + c * c + d * d) / 2;
	const det = a * d - b * c;
	return Math.sqrt(sum + Math.sqrt(Math.max(0, sum * sum - det * det)));
};

/** Finds how far elements reach, in the units that they stand in; strokes and text are left out of account. */
export class Extents {
	private readonly known = new Map<XmlNode, Extent>();
	constructor(private readonly byId: ReadonlyMap<string, XmlNode>) {}

	/** What an element draws, its own transform included. */
	of(node: XmlNode, depth = 0): Extent {
		if (depth > DEEPEST) return NOWHERE;
		if (node.name === 'svg:use') {
			const target = this.byId.get(referenceOf(node) ?? '');
			return target ? mapped(useMatrix(node, target), this.used(target, depth + 1)) : NOWHERE;
		}
		if (node.name === 'svg:g' || node.name === 'svg:svg' || node.name === 'svg:a' || node.name === 'svg:switch')
			return mapped(innerMatrix(node), this.inside(node, depth));
		return mapped(parseTransform(node.attribute('transform')), shapeExtent(node));
	}

	/** What is drawn where an element is used: a symbol's content, or the element with its own transform. */
	used(target: XmlNode, depth = 0): Extent {
		return target.name === 'svg:symbol' || target.name === 'svg:svg'
			? this.inside(target, depth)
			: this.of(target, depth);
	}

	/**
	 * What an element draws under a map. A turned rectangle reaches farther than what stands in it; round symbols are known
	 * by how far they reach from their middle.
	 */
	under(matrix: Matrix, node: XmlNode): Extent {
		const around = mapped(matrix, this.of(node));
		const target = node.name === 'svg:use' ? this.byId.get(referenceOf(node) ?? '') : undefined;
		if (!target || !isSomewhere(around)) return around;
		const whole = multiply(matrix, useMatrix(node, target));
		const own = target.name === 'svg:symbol' ? IDENTITY : innerMatrix(target);
		const reach = (this.reach(target) * stretch(own) + Math.hypot(own[4], own[5])) * stretch(whole);
		const { x, y } = apply(whole, 0, 0);
		return {
			x1: Math.max(around.x1, x - reach),
			y1: Math.max(around.y1, y - reach),
			x2: Math.min(around.x2, x + reach),
			y2: Math.min(around.y2, y + reach)
		};
	}

	private readonly reaches = new Map<XmlNode, number>();
	/** How far from its own origin anything in an element is, before its own transform. */
	private reach(node: XmlNode, depth = 0): number {
		if (depth > DEEPEST) return Infinity;
		let known = this.reaches.get(node);
		if (known === undefined) {
			this.reaches.set(node, Infinity);
			if (node.name === 'svg:circle') {
				const n = (name: string) => userLength(node.attribute(name));
				known = Math.hypot(n('cx'), n('cy')) + n('r');
			} else if (node.name === 'svg:use') {
				const target = this.byId.get(referenceOf(node) ?? '');
				const map = useMatrix(node, target);
				known = target ? this.reach(target, depth + 1) * stretch(map) + Math.hypot(map[4], map[5]) : 0;
			} else if (node.children.some((child) => !NOT_DRAWN.has(child.name)))
				known = node.children.reduce((most, child) => {
					if (NOT_DRAWN.has(child.name)) return most;
					const map = child.name === 'svg:use' ? IDENTITY : innerMatrix(child);
					return Math.max(most, this.reach(child, depth + 1) * stretch(map) + Math.hypot(map[4], map[5]));
				}, 0);
			else {
				const { x1, y1, x2, y2 } = shapeExtent(node);
				known = x1 > x2 ? 0 : Math.max(Math.hypot(x1, y1), Math.hypot(x2, y1), Math.hypot(x1, y2), Math.hypot(x2, y2));
			}
			this.reaches.set(node, known);
		}
		return known;
	}

	/** What stands in an element, before its own transform. A shape stands in itself. */
	inside(node: XmlNode, depth = 0): Extent {
		let known = this.known.get(node);
		if (!known) {
			known = node.children.length
				? node.children.reduce(
						(around, child) => (NOT_DRAWN.has(child.name) ? around : join(around, this.of(child, depth))),
						NOWHERE
					)
				: NOWHERE;
			if (!isSomewhere(known) && node.name !== 'svg:symbol')
				known = node.name === 'svg:use' ? this.of(node, depth) : shapeExtent(node);
			this.known.set(node, known);
		}
		return known;
	}
}

function shapeExtent(node: XmlNode): Extent {
	const n = (name: string) => userLength(node.attribute(name));
	const box = (x: number, y: number, width: number, height: number): Extent => ({
		x1: x,
		y1: y,
		x2: x + width,
		y2: y + height
	});
	switch (node.name) {
		case 'svg:rect':
		case 'svg:image':
			return box(n('x'), n('y'), n('width'), n('height'));
		case 'svg:circle':
			return box(n('cx') - n('r'), n('cy') - n('r'), 2 * n('r'), 2 * n('r'));
		case 'svg:ellipse':
			return box(n('cx') - n('rx'), n('cy') - n('ry'), 2 * n('rx'), 2 * n('ry'));
		case 'svg:line':
			return ofPoints([n('x1'), n('y1'), n('x2'), n('y2')]);
		case 'svg:polyline':
		case 'svg:polygon':
			return ofPoints(parseNumbers(node.attribute('points') ?? '') ?? []);
		case 'svg:path':
			return pathExtent(node.attribute('d') ?? '');
		case 'svg:text':
			return box(n('x'), n('y'), 0, 0);
		default:
			return NOWHERE;
	}
}

function ofPoints(numbers: readonly number[]): Extent {
	let around = NOWHERE;
	for (let i = 0; i + 1 < numbers.length; i += 2)
		around = join(around, { x1: numbers[i]!, y1: numbers[i + 1]!, x2: numbers[i]!, y2: numbers[i + 1]! });
	return around;
}

/** Where a Bézier curve turns back along one axis. */
function turns(p: readonly number[]): number[] {
	const within = (t: number) => t > 0 && t < 1;
	if (p.length === 3) {
		const t = (p[0]! - p[1]!) / (p[0]! - 2 * p[1]! + p[2]!);
		return within(t) ? [t] : [];
	}
	const a = -p[0]! + 3 * p[1]! - 3 * p[2]! + p[3]!;
	const b = 2 * (p[0]! - 2 * p[1]! + p[2]!);
	const c = p[1]! - p[0]!;
	if (Math.abs(a) < 1e-12) return Math.abs(b) < 1e-12 ? [] : [-c / b].filter(within);
	const root = Math.sqrt(b * b - 4 * a * c);
	return Number.isNaN(root) ? [] : [(-b + root) / (2 * a), (-b - root) / (2 * a)].filter(within);
}

function bezier(p: readonly number[], t: number): number {
	let points = [...p];
	while (points.length > 1) points = points.slice(1).map((value, i) => points[i]! * (1 - t) + value * t);
	return points[0]!;
}

/** How far a path reaches, curves by where they turn. One that is not valid reaches as far as it is. */
function pathExtent(d: string): Extent {
	let around = NOWHERE;
	const add = (x: number, y: number) => (around = join(around, { x1: x, y1: y, x2: x, y2: y }));
	svgpath(d)
		.abs()
		.unarc()
		.unshort()
		.iterate((segment, _i, x, y) => {
			const [command, ...n] = segment as unknown as [string, ...number[]];
			if (command === 'H') add(n[0]!, y);
			else if (command === 'V') add(x, n[0]!);
			else if (command === 'C' || command === 'Q') {
				const xs = [x, ...n.filter((_, k) => k % 2 === 0)];
				const ys = [y, ...n.filter((_, k) => k % 2 === 1)];
				for (const t of [1, ...turns(xs), ...turns(ys)]) add(bezier(xs, t), bezier(ys, t));
			} else if (n.length === 2) add(n[0]!, n[1]!);
		});
	return around;
}
