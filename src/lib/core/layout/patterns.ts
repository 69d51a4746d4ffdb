import type { Line } from '../cascade/look.ts';
import { toPoints } from '../units.ts';

/** One stroke of a line, in points: how far aside of the line it runs, how thick it is, and its dashes and gaps. */
export interface LineStroke {
	readonly aside: number;
	readonly thick: number;
	readonly dashes?: readonly number[];
	/** How far it swings to both sides, where it is a wave. */
	readonly swing?: number;
}

/** Half of a wave is so long, in points. */
export const HALF_WAVE = 3;

/** The strokes that draw a line: `weight` is the whole thickness, gaps of a double or triple line included. */
export function lineStrokes({ pattern, weight }: Line): LineStroke[] {
	const whole = Math.max(0.1, toPoints(weight));
	const dashed = (...lengths: number[]): LineStroke[] => [
		{ aside: 0, thick: whole, dashes: lengths.map((length) => length * whole) }
	];
	switch (pattern) {
		case 'none':
			return [];
		case 'dashed':
			return dashed(3, 2);
		case 'dotted':
			return dashed(1, 1);
		case 'dash-dot':
			return dashed(3, 2, 1, 2);
		case 'double':
		case 'triple': {
			const parts = pattern === 'double' ? 3 : 5;
			const thick = Math.max(whole / parts, 0.25);
			return Array.from({ length: (parts + 1) / 2 }, (_, i) => ({
				aside: (2 * i + 0.5 - parts / 2) * thick,
				thick
			}));
		}
		case 'wavy':
			return [{ aside: 0, thick: Math.max(0.25, whole / 3), swing: Math.max(0.6, whole / 2) }];
		case 'solid':
			return [{ aside: 0, thick: whole }];
	}
}

type Point = readonly [x: number, y: number];

/** The path of one stroke of a line between two points, as SVG path data (also read by PDF); lengths in points. */
export function strokePath([ax, ay]: Point, [bx, by]: Point, { aside, swing }: LineStroke): string {
	const length = Math.hypot(bx - ax, by - ay) || 1;
	const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
	const at = (along: number, off: number) =>
		`${(ax + ux * along - uy * off).toFixed(3)} ${(ay + uy * along + ux * off).toFixed(3)}`;
	if (swing === undefined) return `M${at(0, aside)}L${at(length, aside)}`;
	let path = `M${at(0, 0)}`;
	for (let along = 0, side = 1; along < length; along += HALF_WAVE, side = -side) {
		const end = Math.min(along + HALF_WAVE, length);
		path += `Q${at((along + end) / 2, 2 * side * swing)} ${at(end, 0)}`;
	}
	return path;
}
