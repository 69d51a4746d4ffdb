<script lang="ts">
	import { untrack } from 'svelte';
	import { pointFor, topLeft } from '$lib/core/schedule/placed.ts';
	import type { PlacedTable } from '$lib/core/schedule/placed.ts';
	import { call } from '../api.ts';
	import { notifyError } from '../notices.svelte.ts';
	import { refusedTo } from '../people/who.ts';
	import type { Desk } from './desk.svelte.ts';
	import { BASE, drawingFrom, fitToSheet, rulerStep, tablesElement, type Parsed } from './drawing.ts';
	import { Painter } from './painter.ts';
	import { hiddenWithin, isInside, objectAt, rings, snapped, type Box, type Spot } from './pointing.ts';
	import Ruler from './Ruler.svelte';

	/** The sheet itself: pan, zoom, what is picked and lit, and tables under the pointer. Lengths are millimetres of paper. */
	let { desk, zoom = $bindable(1) }: { desk: Desk; zoom?: number } = $props();

	let frame: HTMLElement;
	let host: HTMLElement;
	let size = $state({ width: 0, height: 0 });
	/** Where the sheet's corner is in the frame, in pixels, and how many pixels a millimetre is. */
	let view = $state.raw({ x: 0, y: 0, scale: 1 });
	let moving = $state(false);
	let phase = $state<'loading' | 'shown'>('loading');
	/** Where the pointer is on the sheet. */
	let pointer = $state.raw<Spot>();
	/** A table or a column's edge on its way. */
	let dragged = $state.raw<
		| { kind: 'table'; index: number; dx: number; dy: number; snapped: Partial<Spot> }
		| { kind: 'column'; index: number; column: number; dx: number }
	>();

	const sheet = $derived(desk.data.sheet);
	$effect(() => {
		zoom = view.scale / (96 / 25.4);
	});

	// The drawing stands in a tree of its own: its style sheets reach nothing else of the page.
	let shadow: ShadowRoot | undefined;
	const sheets: Record<'drawing' | 'tables' | 'ghost', readonly CSSStyleSheet[]> = {
		drawing: [],
		tables: [],
		ghost: []
	};
	const adopt = () => (shadow!.adoptedStyleSheets = Object.values(sheets).flat());
	function put(what: keyof typeof sheets, parsed: Parsed, where: 'prepend' | 'append'): SVGSVGElement {
		const root = document.importNode(parsed.root, true);
		sheets[what] = parsed.sheets;
		adopt();
		shadow![where](root);
		return root;
	}
	let drawing: SVGSVGElement | undefined = $state.raw();
	/** The drawing is fetched again where another file takes its place, and only then. */
	const file = $derived(`${desk.data.id} ${desk.data.state.drawing?.file ?? ''}`);
	$effect(() => {
		const id = file.split(' ')[0]!;
		let isGone = false;
		shadow ??= host.attachShadow({ mode: 'open' });
		call('GET', `/api/drawings/${id}/shown`)
			.then(async ({ text, sprites }) => {
				if (isGone) return;
				drawing?.remove();
				const root = put('drawing', drawingFrom(text), 'prepend');
				drawing = root;
				painter?.end();
				canvas?.remove();
				canvas = sprites ? document.createElement('canvas') : undefined;
				if (canvas) {
					canvas.style.position = 'absolute';
					root.after(canvas);
				}
				painter = canvas && sprites ? await Painter.open(canvas, sprites) : undefined;
				phase = 'shown';
			})
			.catch((error: Error) => !isGone && notifyError(error));
		return () => (isGone = true);
	});
	$effect(() => {
		if (drawing) fitToSheet(drawing, sheet);
	});
	$effect(() => {
		if (!drawing) return;
		for (const layer of drawing.querySelectorAll<SVGElement>('[data-shown-layer]'))
			layer.style.display = desk.hidden.has(Number(layer.dataset.shownLayer)) ? 'none' : '';
	});
	// The many objects of a large drawing are painted where the window is, once it rests or has moved on.
	let canvas: HTMLCanvasElement | undefined;
	let painter: Painter | undefined = $state.raw();
	$effect(() => () => painter?.end());
	const PAUSE = 150;
	let pausing: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		if (painter && size.width && view && desk.hidden) pausing ??= setTimeout(paintNow, PAUSE);
	});
	function paintNow() {
		pausing = undefined;
		const { x, y, scale } = view;
		const window = { x: -x / scale, y: -y / scale, width: size.width / scale, height: size.height / scale };
		painter?.paint(window, scale, hiddenWithin(desk.data.layers, desk.hidden));
	}
	let tables: SVGSVGElement | undefined;
	const shownTables = $derived([
		...desk.data.drawn.map((drawn, index) => ({
			id: drawn.id,
			markup: (desk.draft?.index === index && desk.draftDrawn ? desk.draftDrawn : drawn).markup,
			draft: false
		})),
		...(desk.draft && desk.draft.index === undefined && desk.draftDrawn && !desk.placing
			? [{ id: 'draft', markup: desk.draftDrawn.markup, draft: true }]
			: [])
	]);
	/** The draft on its way at the pointer. */
	let ghost: SVGSVGElement | undefined;
	$effect(() => {
		if (!shadow) return;
		tables?.remove();
		tables = put('tables', tablesElement(shownTables, sheet), 'append');
	});
	$effect(() => {
		const drawn = desk.placing ? desk.draftDrawn : undefined;
		if (!shadow || !drawn) return;
		const next = put('ghost', tablesElement([{ id: 'ghost', markup: drawn.markup, draft: true }], sheet), 'append');
		next.style.pointerEvents = 'none';
		ghost = next;
		return () => {
			next.remove();
			sheets.ghost = [];
			adopt();
			ghost = undefined;
		};
	});
	$effect(() => {
		const drawn = desk.draftDrawn;
		const to = at;
		if (ghost && drawn && to)
			ghost.style.transform = `translate(${(to.x - drawn.x) * BASE}px, ${(to.y - drawn.y) * BASE}px)`;
	});

	/** Where the top left corner of the draft is while it hangs at the pointer. */
	const at = $derived.by(() => {
		if (!desk.placing || !desk.draftDrawn || !desk.draft) return undefined;
		const point = pointer ?? { x: sheet.width / 2, y: sheet.height / 2 };
		const { width, height } = desk.draftDrawn;
		return snap({ ...topLeft({ at: point, corner: desk.draft.placed.corner }, desk.draftDrawn), width, height }, -1);
	});

	/** Nearer than this, in pixels, an edge snaps. */
	const NEAR = 7;
	const snap = (box: Box, except: number) => snapped(box, desk.snapLines(except), NEAR / view.scale);

	const MARGIN = 28;
	export function fit(box = { x: 0, y: 0, width: sheet.width, height: sheet.height }): void {
		if (!size.width) return;
		const scale = Math.min((size.width - 2 * MARGIN) / box.width, (size.height - 2 * MARGIN) / box.height);
		view = {
			scale: clamp(scale),
			x: (size.width - box.width * clamp(scale)) / 2 - box.x * clamp(scale),
			y: (size.height - box.height * clamp(scale)) / 2 - box.y * clamp(scale)
		};
	}
	export function fitTable(index: number): void {
		const drawn = desk.drawnAt(index);
		if (!drawn) return;
		const around = 12;
		fit({
			x: drawn.x - around,
			y: drawn.y - around,
			width: drawn.width + 2 * around,
			height: drawn.height + 2 * around
		});
	}
	export function zoomBy(factor: number, px = size.width / 2, py = size.height / 2): void {
		const scale = clamp(view.scale * factor);
		const real = scale / view.scale;
		view = { scale, x: px - (px - view.x) * real, y: py - (py - view.y) * real };
		touched();
	}
	export function panBy(dx: number, dy: number): void {
		view = { ...view, x: view.x + dx, y: view.y + dy };
		touched();
	}
	const clamp = (scale: number) => Math.min(Math.max(scale, 0.02), 200);
	let isFitted = false;
	$effect(() => {
		if (size.width && !isFitted) {
			isFitted = true;
			untrack(() => fit());
		}
	});

	/** While the view moves, what is painted is moved as a whole; it is painted sharp once it rests. */
	let resting: ReturnType<typeof setTimeout> | undefined;
	function touched() {
		moving = true;
		clearTimeout(resting);
		resting = setTimeout(() => (moving = false), 180);
	}

	const onSheet = (event: { clientX: number; clientY: number }) => {
		const box = frame.getBoundingClientRect();
		return {
			x: (event.clientX - box.left - view.x) / view.scale,
			y: (event.clientY - box.top - view.y) / view.scale
		};
	};
	function wheel(event: WheelEvent) {
		event.preventDefault();
		const unit = event.deltaMode === 1 ? 16 : 1;
		if (event.shiftKey) return panBy(-(event.deltaX || event.deltaY) * unit, 0);
		const box = frame.getBoundingClientRect();
		zoomBy(Math.exp(-event.deltaY * unit * 0.0016), event.clientX - box.left, event.clientY - box.top);
	}

	const tableAt = (point: Spot) => desk.data.drawn.findLastIndex((_, index) => isInside(point, desk.drawnAt(index)!));

	let press:
		{ x: number; y: number; view: typeof view; table: number; column: number; moved: boolean; id: number } | undefined;
	function pointerdown(event: PointerEvent) {
		if (event.button > 1) return;
		const point = onSheet(event);
		// Who may move nothing shoves the whole sheet.
		const grabs = refusedTo('author') === undefined;
		const column = grabs ? Number((event.target as HTMLElement).dataset.column ?? -1) : -1;
		press = {
			x: event.clientX,
			y: event.clientY,
			view,
			table: grabs && event.button === 0 && !desk.placing ? tableAt(point) : -1,
			column,
			moved: false,
			id: event.pointerId
		};
		frame.setPointerCapture(event.pointerId);
	}
	function pointermove(event: PointerEvent) {
		pointer = onSheet(event);
		if (!press) return;
		const [dx, dy] = [event.clientX - press.x, event.clientY - press.y];
		if (!press.moved && Math.hypot(dx, dy) < 4) return;
		press.moved = true;
		if (press.column >= 0) {
			dragged = { kind: 'column', index: desk.picked, column: press.column, dx: dx / view.scale };
		} else if (press.table >= 0 && press.table === desk.picked && desk.draft?.index === undefined) {
			const drawn = desk.drawnAt(press.table)!;
			const { x, y, width, height } = drawn;
			const moved = snap({ x: x + dx / view.scale, y: y + dy / view.scale, width, height }, press.table);
			dragged = {
				kind: 'table',
				index: press.table,
				dx: moved.x - drawn.x,
				dy: moved.y - drawn.y,
				snapped: moved.on
			};
		} else {
			view = { ...press.view, x: press.view.x + dx, y: press.view.y + dy };
			touched();
		}
	}
	function pointerup(event: PointerEvent) {
		const pressed = press;
		press = undefined;
		if (!pressed) return;
		if (dragged) return void drop();
		if (pressed.moved || event.button !== 0) return;
		const point = onSheet(event);
		if (desk.placing) return setDown();
		const table = tableAt(point);
		if (table >= 0) {
			if (desk.picked !== table) {
				desk.drop();
				desk.picked = table;
			}
			return;
		}
		const object = desk.objects ? objectAt(desk.objects, point, 3 / view.scale) : -1;
		desk.object = object;
		if (object >= 0 && desk.picked < 0) desk.lit = [desk.objects!.kinds[desk.objects!.kind[object]!]!];
	}
	async function drop() {
		const what = dragged!;
		const drawn = desk.drawnAt(what.index)!;
		const { placed } = desk.tables[what.index]!;
		const title = desk.titleOf(what.index);
		if (what.kind === 'table') {
			const corner = { x: drawn.x + what.dx, y: drawn.y + what.dy };
			await desk.change(what.index, `${title} moved`, ({ placed: now }) => ({
				placed: { ...now, at: tidy(pointFor(now.corner, corner, drawn)) }
			}));
		} else {
			const { name } = placed.rows.columns[what.column]!;
			const width = Math.max(
				2,
				Math.abs(drawn.lefts[what.column + 1]! - drawn.lefts[what.column]!) + (drawn.lefts[0] ? -what.dx : what.dx)
			);
			await desk.change(what.index, `${title}: width of ${name}`, ({ placed: now }) => ({
				placed: { ...now, widths: { ...now.widths, [name]: Math.round(width * 10) / 10 } }
			}));
		}
		dragged = undefined;
	}
	const tidy = ({ x, y }: { x: number; y: number }) => ({ x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 });

	/** Sets the draft down where it hangs. */
	export function setDown(): void {
		const { draft, draftDrawn } = desk;
		if (!draft || !draftDrawn || !at) return;
		const placed: PlacedTable = { ...draft.placed, at: tidy(pointFor(draft.placed.corner, at, draftDrawn)) };
		desk.draft = { ...draft, placed };
		void desk.keepDraft(`${placed.rows.rows.find(({ role }) => role === 'title')?.cells[0]?.text || 'table'} placed`);
	}

	/** Objects that light up, as one outline each. */
	const litPath = $derived.by(() => {
		const { objects, lit, object, picked } = desk;
		if (!objects) return '';
		const kinds = new Set(lit.map((kind) => objects.kinds.indexOf(kind)));
		return rings(objects, (i) => i === object || (picked < 0 && kinds.has(objects.kind[i]!)));
	});
	/** The row of the picked table that lists the clicked object. */
	const litRows = $derived.by(() => {
		const { objects, object } = desk;
		if (!objects || object < 0) return [];
		return desk.rowsOf(objects.keys[object]!).flatMap(({ index, row }) => {
			const drawn = desk.drawnAt(index);
			if (!drawn) return [];
			const shown = desk.standingKeys(index);
			const r = shown.indexOf(row);
			return r < 0
				? []
				: [
						{ x: drawn.x, y: drawn.y + drawn.tops[r]!, width: drawn.width, height: drawn.tops[r + 1]! - drawn.tops[r]! }
					];
		});
	});
	const pickedBox = $derived(desk.picked >= 0 ? desk.drawnAt(desk.picked) : undefined);
	const draftBox = $derived(
		desk.draft && desk.draft.index === undefined && !desk.placing ? desk.draftDrawn : undefined
	);
	const px = (pixels: number) => pixels / view.scale;
	const shift = $derived(dragged?.kind === 'table' ? dragged : { dx: 0, dy: 0, snapped: {} as Partial<Spot> });
	const snapOn = $derived(at?.on ?? shift.snapped);
	$effect(() => {
		const index = dragged?.kind === 'table' ? dragged.index : -1;
		if (!tables) return;
		[...tables.children].forEach((group, i) => {
			(group as SVGGElement).style.translate = i === index ? `${shift.dx}px ${shift.dy}px` : '';
		});
	});
</script>

<div class="relative min-h-0 min-w-0 flex-1 overflow-hidden bg-desk">
	<Ruler
		along="x"
		offset={view.x}
		scale={view.scale}
		length={size.width}
		step={rulerStep(view.scale)}
		mark={pointer?.x}
	/>
	<Ruler
		along="y"
		offset={view.y}
		scale={view.scale}
		length={size.height}
		step={rulerStep(view.scale)}
		mark={pointer?.y}
	/>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div
		bind:this={frame}
		bind:clientWidth={size.width}
		bind:clientHeight={size.height}
		class={[
			'absolute inset-0 top-5 left-5 touch-none overflow-hidden outline-offset-[-3px]',
			desk.placing ? 'cursor-crosshair' : dragged ? 'cursor-grabbing' : 'cursor-default'
		]}
		role="application"
		tabindex="0"
		aria-label="Sheet: arrow keys pan or move the picked table, plus and minus zoom, 0 shows the whole sheet"
		data-sheet
		onwheel={wheel}
		onpointerdown={pointerdown}
		onpointermove={pointermove}
		onpointerup={pointerup}
		onpointercancel={() => {
			press = undefined;
			dragged = undefined;
		}}
		onpointerleave={() => (pointer = undefined)}
	>
		<div
			class="on-paper absolute top-0 left-0 origin-top-left bg-white shadow-md ring-1 ring-hairline"
			style="width:{sheet.width * BASE}px;height:{sheet.height *
				BASE}px;transform:translate({view.x}px,{view.y}px) scale({view.scale / BASE});will-change:{moving
				? 'transform'
				: 'auto'}"
		>
			<div bind:this={host} class="absolute inset-0"></div>
		</div>
		<svg class="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
			<g transform="translate({view.x} {view.y}) scale({view.scale})">
				{#if litPath}<path
						d={litPath}
						class="fill-accent/10 stroke-accent"
						stroke-width={px(2)}
						data-lit={desk.lit.join(' ')}
					/>{/if}
				{#each litRows as row, i (i)}<rect
						{...row}
						class="fill-accent/10 stroke-accent"
						stroke-width={px(1.5)}
					/>{/each}
				{#if draftBox}<rect
						x={draftBox.x - px(4)}
						y={draftBox.y - px(4)}
						width={draftBox.width + px(8)}
						height={draftBox.height + px(8)}
						class="fill-none stroke-accent"
						stroke-width={px(1.5)}
						stroke-dasharray="{px(6)} {px(4)}"
					/>{/if}
				{#if pickedBox}
					<rect
						x={pickedBox.x + shift.dx - px(4)}
						y={pickedBox.y + shift.dy - px(4)}
						width={pickedBox.width + px(8)}
						height={pickedBox.height + px(8)}
						class="fill-none stroke-picked"
						stroke-width={px(1.5)}
						stroke-dasharray="{px(6)} {px(4)}"
					/>
					{#each pickedBox.lefts.slice(1) as left, c (c)}
						{@const x = pickedBox.x + left + (dragged?.kind === 'column' && dragged.column <= c ? dragged.dx : 0)}
						<path
							d="M{x} {pickedBox.y - px(11)}v{px(9)}"
							class="pointer-events-auto cursor-ew-resize stroke-picked"
							stroke-width={px(4)}
							stroke-linecap="round"
							data-column={c}
						/>
						{#if dragged?.kind === 'column' && dragged.column === c}<path
								d="M{x} {pickedBox.y}v{pickedBox.height}"
								class="stroke-picked"
								stroke-width={px(1)}
							/>{/if}
					{/each}
				{/if}
				{#if snapOn.x !== undefined}<path
						d="M{snapOn.x} {-5000}V10000"
						class="stroke-accent"
						stroke-width={px(1)}
					/>{/if}
				{#if snapOn.y !== undefined}<path d="M-5000 {snapOn.y}H10000" class="stroke-accent" stroke-width={px(1)} />{/if}
			</g>
		</svg>
		{#if phase === 'loading'}<p class="absolute inset-0 grid place-items-center text-quiet" role="status">
				Opening the drawing…
			</p>{/if}
	</div>
	<div class="absolute top-0 left-0 h-5 w-5 border-e border-b border-hairline bg-paper"></div>
</div>
