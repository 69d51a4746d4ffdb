<script lang="ts">
	import type { Side } from '$lib/core/table/grid.ts';
	import { anchorOf } from '$lib/core/work/table.ts';
	import { edgeHome } from '$lib/core/work/edges.ts';
	import { lineAt, type Edge } from '$lib/core/work/touches.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import type { TableBench } from './bench.svelte.ts';

	/** Lies over the table in linework mode: edges are clicked, or dragged along. */
	let { bench, drawn }: { bench: TableBench; drawn: DrawnRows } = $props();
	let layer: HTMLElement;
	let gathered = $state.raw<ReadonlyMap<string, Edge>>(new Map());
	let pointed = $state.raw<Edge>();
	let isGathering = false;

	const columns = $derived(bench.work.columns.length);
	const rows = $derived(bench.work.rows.length);
	const keyOf = ({ r, c, side }: Edge) => {
		const home = edgeHome(r, c, side);
		return `${home.r},${home.c},${home.side}`;
	};

	/** The edge that is nearest to a point: sides of the slot there that are not inside a joined cell. */
	function edgeAt(x: number, y: number): Edge | undefined {
		const sheet = layer.closest('[data-work-sheet]')!;
		const column = [...sheet.querySelectorAll<HTMLElement>('[data-head=columns]')]
			.map((head) => ({ box: head.parentElement!.getBoundingClientRect(), index: Number(head.dataset.line) }))
			.find(({ box }) => x >= box.left - 6 && x <= box.right + 6);
		const cells = sheet.querySelectorAll<HTMLElement>('[role=row]');
		let row: { top: number; bottom: number; index: number } | undefined;
		for (const one of cells) {
			const index = Number(one.getAttribute('aria-rowindex')) - 1;
			const boxes = [...one.querySelectorAll<HTMLElement>('[data-cell]')]
				.map((cell) => ({ cell: bench.table.cells[Number(cell.dataset.cell)]!, box: cell.getBoundingClientRect() }))
				.filter(({ cell }) => cell.rows === 1);
			const box = boxes[0]?.box;
			if (box && y >= box.top - 6 && y <= box.bottom + 6) {
				row = { top: box.top, bottom: box.bottom, index };
				if (y <= box.bottom) break;
			}
		}
		if (!column || !row) return undefined;
		const { index: c, box } = column;
		const { index: r, top, bottom } = row;
		const here = anchorOf(bench.work, r, c);
		const isEdge = (side: Side) =>
			side === 'top'
				? r === here.r
				: side === 'bottom'
					? r === here.r + here.rows - 1
					: side === 'start'
						? c === here.c
						: c === here.c + here.cols - 1;
		const isRight = bench.work.dir === 'rtl';
		const [side] = (
			[
				['top', Math.abs(y - top)],
				['bottom', Math.abs(bottom - y)],
				[isRight ? 'end' : 'start', Math.abs(x - box.left)],
				[isRight ? 'start' : 'end', Math.abs(box.right - x)]
			] as [Side, number][]
		)
			.filter(([one]) => isEdge(one))
			.sort((a, b) => a[1] - b[1])[0] ?? [undefined];
		return side && { r, c, side };
	}
	function gather(event: PointerEvent) {
		const edge = edgeAt(event.clientX, event.clientY);
		pointed = edge;
		if (isGathering && edge && !gathered.has(keyOf(edge))) gathered = new Map([...gathered, [keyOf(edge), edge]]);
	}
	function end() {
		if (!isGathering) return;
		isGathering = false;
		const edges = [...gathered.values()];
		gathered = new Map();
		bench.draw(edges);
	}
	const stateOf = (edge: Edge) => {
		const line = lineAt(bench.work, edge);
		return !line ? undefined : line.pattern === 'none' ? 'none' : 'set';
	};
	/** Edges whose state is to be seen, those of drawn rows. */
	const touched = $derived(
		drawn.rows.flatMap((r) =>
			bench.work.rows[r]!.cells.flatMap((slot, c) =>
				slot.lines
					? (Object.keys(slot.lines) as Side[]).map((side) => ({ r, c, side, state: stateOf({ r, c, side })! }))
					: []
			)
		)
	);
	const area = ({ r, c }: Edge) => `${drawn.line(r) + 1} / ${c + 1} / auto / auto`;
	const offered = $derived([...gathered.values(), ...(pointed && !gathered.has(keyOf(pointed)) ? [pointed] : [])]);
</script>

<div
	bind:this={layer}
	class="edges"
	role="presentation"
	onpointerdown={(event) => {
		if (event.button !== 0) return;
		event.preventDefault();
		event.stopPropagation();
		layer.setPointerCapture(event.pointerId);
		isGathering = true;
		gathered = new Map();
		gather(event);
	}}
	onpointermove={gather}
	onpointerup={end}
	onpointercancel={() => {
		isGathering = false;
		gathered = new Map();
	}}
	onpointerleave={() => (pointed = undefined)}
>
	{#each drawn.rows as r (r)}
		{#if r < rows}{#each { length: columns }, c (c)}<i
					class="slot"
					style="grid-area:{drawn.line(r) + 1} / {c + 1} / auto / auto"
				></i>{/each}{/if}
	{/each}
	{#each touched as edge (keyOf(edge))}<i
			class={['edge', edge.side, edge.state]}
			data-edge={keyOf(edge)}
			style="grid-area:{area(edge)}"
		></i>{/each}
	{#each offered as edge (keyOf(edge))}<i class={['edge', edge.side, 'offered']} style="grid-area:{area(edge)}"
		></i>{/each}
</div>

<style>
	.edges {
		position: relative;
		z-index: 6;
		display: grid;
		grid-area: 1 / 1 / -1 / -1;
		grid-template-columns: subgrid;
		grid-template-rows: subgrid;
		cursor: crosshair;
		pointer-events: auto;
		touch-action: none;
	}
	i {
		pointer-events: none;
	}
	.slot {
		outline: 1px dotted color-mix(in srgb, var(--color-picked) 55%, transparent);
	}
	.edge {
		position: relative;
	}
	.edge::before {
		position: absolute;
		border: 0 solid var(--color-accent);
		content: '';
	}
	.top::before,
	.bottom::before {
		inset-inline: 0;
		border-top-width: 4px;
	}
	.top::before {
		top: -2px;
	}
	.bottom::before {
		bottom: -2px;
	}
	.start::before,
	.end::before {
		inset-block: 0;
		border-inline-start-width: 4px;
	}
	.start::before {
		inset-inline-start: -2px;
	}
	.end::before {
		inset-inline-end: -2px;
	}
	.none::before {
		border-style: dashed;
		border-color: var(--color-error);
	}
	.offered::before {
		border-color: var(--color-mark);
	}
</style>
