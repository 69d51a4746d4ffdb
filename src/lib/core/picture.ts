import { formatHex } from 'culori';
import quantize from 'quantize';
import type { Hex } from './colour.ts';

/** Pixels as a canvas gives them: RGBA, one byte each, row by row. */
export interface Pixels {
	readonly data: ArrayLike<number>;
	readonly width: number;
	readonly height: number;
}

const hex = (r: number, g: number, b: number): Hex =>
	formatHex({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 }).toUpperCase() as Hex;

/** The colour around a point: the mean of the opaque pixels at most `reach` away. Undefined where there is none. */
export function colourAt({ data, width, height }: Pixels, x: number, y: number, reach = 1): Hex | undefined {
	const sum = [0, 0, 0];
	let count = 0;
	for (let row = Math.max(0, y - reach); row <= Math.min(height - 1, y + reach); row++)
		for (let column = Math.max(0, x - reach); column <= Math.min(width - 1, x + reach); column++) {
			const at = (row * width + column) * 4;
			if (data[at + 3]! < 128) continue;
			for (let i = 0; i < 3; i++) sum[i]! += data[at + i]!;
			count++;
		}
	if (!count) return undefined;
	const [r, g, b] = sum.map((part) => Math.round(part / count)) as [number, number, number];
	return hex(r, g, b);
}

/** The main colours of a picture, most frequent first, at most `most` (modified median cut); transparent pixels do not count. */
export function mainColours({ data, width, height }: Pixels, most: number): Hex[] {
	const pixels: [number, number, number][] = [];
	for (let at = 0; at < width * height * 4; at += 4)
		if (data[at + 3]! >= 128) pixels.push([data[at]!, data[at + 1]!, data[at + 2]!]);
	if (!pixels.length) return [];
	const distinct = new Map(pixels.map((pixel) => [pixel.join(), pixel]));
	if (distinct.size <= most) {
		const count = (key: string) => pixels.filter((pixel) => pixel.join() === key).length;
		return [...distinct].sort(([a], [b]) => count(b) - count(a)).map(([, [r, g, b]]) => hex(r, g, b));
	}
	const found = quantize(pixels, Math.max(2, most));
	return found ? [...new Set(found.palette().map(([r, g, b]) => hex(r, g, b)))].slice(0, most) : [];
}
