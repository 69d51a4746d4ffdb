import type { Sprites } from '$lib/formats/svg/sprites.ts';
import PaintWorker from '$lib/workers/painter.ts?worker';
import type { Area, Order, Painted } from '$lib/workers/painter.ts';
import { BASE } from './drawing.ts';

const SMALLEST = 16;
const LARGEST = 512;
/** What is painted reaches beyond the window by so much of it, so that panning has something to show. */
const BEYOND = 0.5;

/** Paints the objects of a large drawing in a worker, onto a canvas that lies on the sheet. */
export class Painter {
	private readonly worker = new PaintWorker();
	private readonly images: HTMLImageElement[] = [];
	/** Millimetres that a picture is across, at most. */
	private readonly reach: number[];
	/** Pixels that pictures have across now. */
	private sizes: number[] = [];
	private next = 0;
	private isBusy = false;
	private wanted: { area: Area; scale: number; hidden: readonly number[] } | undefined;
	private painted: { area: Area; scale: number; hidden: string } | undefined;

	private constructor(
		private readonly canvas: HTMLCanvasElement,
		private readonly sprites: Sprites
	) {
		this.reach = sprites.pictures.map(() => 0);
		const { placed, pictures } = sprites;
		for (let i = 0; i < placed.length; i += 8) {
			const { x1, y1, x2, y2 } = pictures[placed[i]!]!.extent;
			const stretch = Math.max(Math.hypot(placed[i + 2]!, placed[i + 3]!), Math.hypot(placed[i + 4]!, placed[i + 5]!));
			this.reach[placed[i]!] = Math.max(this.reach[placed[i]!]!, Math.max(x2 - x1, y2 - y1) * stretch);
		}
		this.worker.onmessage = ({ data }: MessageEvent<Painted>) => this.show(data);
		this.tell({ placed: Float64Array.from(placed), extents: pictures.map(({ extent }) => extent) });
	}

	/** Opens the pictures of the symbols; as images they neither run nor load anything. */
	static async open(canvas: HTMLCanvasElement, sprites: Sprites): Promise<Painter> {
		const painter = new Painter(canvas, sprites);
		for (const { markup } of sprites.pictures) {
			const image = new Image();
			image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(markup)}`;
			// A symbol that cannot be shown leaves its objects out, no more.
			await image.decode().catch(() => undefined);
			painter.images.push(image);
		}
		return painter;
	}

	private tell(order: Order, transfer: Transferable[] = []): void {
		this.worker.postMessage(order, transfer);
	}

	/** Gives the worker pictures as large as they show at a scale, where it has none that are near it. */
	private resize(scale: number): void {
		const wanted = this.reach.map((mm) =>
			Math.min(LARGEST, Math.max(SMALLEST, 2 ** Math.ceil(Math.log2(mm * scale * 1.2 + 1))))
		);
		if (wanted.every((size, i) => size === this.sizes[i])) return;
		this.sizes = wanted;
		const pictures = this.images.map((image, i) => {
			const canvas = new OffscreenCanvas(wanted[i]!, wanted[i]!);
			if (image.naturalWidth) canvas.getContext('2d')!.drawImage(image, 0, 0, wanted[i]!, wanted[i]!);
			return canvas.transferToImageBitmap();
		});
		this.tell({ pictures }, pictures);
	}

	/** Asks for a stretch of the sheet; the newest wish only, however fast they come. */
	paint(window: Area, scale: number, hidden: readonly number[]): void {
		const isThere =
			this.painted &&
			this.painted.hidden === hidden.join() &&
			this.painted.scale === scale &&
			this.painted.area.x <= window.x &&
			this.painted.area.y <= window.y &&
			this.painted.area.x + this.painted.area.width >= window.x + window.width &&
			this.painted.area.y + this.painted.area.height >= window.y + window.height;
		if (isThere) return;
		const area = {
			x: window.x - window.width * BEYOND,
			y: window.y - window.height * BEYOND,
			width: window.width * (1 + 2 * BEYOND),
			height: window.height * (1 + 2 * BEYOND)
		};
		this.wanted = { area, scale, hidden };
		this.go();
	}
	private go(): void {
		if (this.isBusy || !this.wanted) return;
		const { area, scale, hidden } = this.wanted;
		this.wanted = undefined;
		this.isBusy = true;
		this.resize(scale);
		this.painted = { area, scale, hidden: hidden.join() };
		this.tell({ id: this.next++, area, scale, hidden });
	}
	private show({ area, bitmap }: Painted): void {
		const { canvas } = this;
		canvas.width = bitmap.width;
		canvas.height = bitmap.height;
		canvas.getContext('bitmaprenderer')!.transferFromImageBitmap(bitmap);
		Object.assign(canvas.style, {
			left: `${area.x * BASE}px`,
			top: `${area.y * BASE}px`,
			width: `${area.width * BASE}px`,
			height: `${area.height * BASE}px`
		});
		canvas.dataset.painted = String(this.sprites.placed.length / 8);
		this.isBusy = false;
		this.go();
	}

	end(): void {
		this.worker.terminate();
	}
}
