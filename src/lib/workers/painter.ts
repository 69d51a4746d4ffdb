import type { Extent } from '../core/layout/matrix.ts';

/** A stretch of a sheet in millimetres. */
export interface Area {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** What the painter is told: the objects once, pictures of their symbols in some size, and what to paint. */
export type Order =
	| { readonly placed: Float64Array<ArrayBuffer>; readonly extents: readonly Extent[] }
	| { readonly pictures: readonly ImageBitmap[] }
	| {
			readonly id: number;
			readonly area: Area;
			/** Pixels a millimetre. */
			readonly scale: number;
			/** Layers that are hidden, those inside hidden ones included. */
			readonly hidden: readonly number[];
	  };

export interface Painted {
	readonly id: number;
	readonly area: Area;
	readonly bitmap: ImageBitmap;
}

const STRIDE = 8;
let placed = new Float64Array();
let extents: readonly Extent[] = [];
let pictures: readonly ImageBitmap[] = [];

function paint(area: Area, scale: number, hidden: ReadonlySet<number>): ImageBitmap {
	const canvas = new OffscreenCanvas(Math.ceil(area.width * scale), Math.ceil(area.height * scale));
	const context = canvas.getContext('2d')!;
	for (let i = 0; i < placed.length; i += STRIDE) {
		const picture = placed[i]!;
		if (hidden.has(placed[i + 1]!)) continue;
		const [a, b, c, d, e, f] = [
			placed[i + 2]!,
			placed[i + 3]!,
			placed[i + 4]!,
			placed[i + 5]!,
			placed[i + 6]!,
			placed[i + 7]!
		];
		const { x1, y1, x2, y2 } = extents[picture]!;
		// No corner is farther from the origin's place than this.
		const reach =
			Math.max(Math.hypot(x1, y1), Math.hypot(x2, y2), Math.hypot(x1, y2), Math.hypot(x2, y1)) *
			Math.max(Math.hypot(a, b), Math.hypot(c, d));
		if (e + reach < area.x || e - reach > area.x + area.width || f + reach < area.y || f - reach > area.y + area.height)
			continue;
		context.setTransform(a * scale, b * scale, c * scale, d * scale, (e - area.x) * scale, (f - area.y) * scale);
		context.drawImage(pictures[picture]!, x1, y1, x2 - x1, y2 - y1);
	}
	return canvas.transferToImageBitmap();
}

addEventListener('message', ({ data }: MessageEvent<Order>) => {
	if ('placed' in data) ({ placed, extents } = data);
	else if ('pictures' in data) {
		for (const old of pictures) old.close();
		pictures = data.pictures;
	} else {
		const bitmap = paint(data.area, data.scale, new Set(data.hidden));
		postMessage({ id: data.id, area: data.area, bitmap } satisfies Painted, { transfer: [bitmap] });
	}
});
