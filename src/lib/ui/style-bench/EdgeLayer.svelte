<script lang="ts">
	import { edgeParts, type Resolved } from '$lib/core/cascade/resolve.ts';
	import type { LinePlace } from '$lib/core/style/types.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import type { Bench } from './bench.svelte.ts';

	/**
	 * Lies over a specimen in linework mode: its edges can be clicked, dragged along or lassoed. An edge of the chosen part
	 * stands for a line of that part, wherever it runs.
	 */
	let { bench, resolved, drawn }: { bench: Bench; resolved: Resolved; drawn: DrawnRows } = $props();

	interface Run {
		readonly across: boolean;
		readonly at: number;
		readonly from: number;
		readonly to: number;
		/** Which line of the chosen part it is; undefined for edges of other parts. */
		readonly place: LinePlace | undefined;
		readonly edge: number;
	}
	const structure = $derived(resolved.structure);
	/** The chosen part's line for each edge signature; an edge that two stripes share counts as the later one's top. */
	const placeOf = $derived(
		structure.edges.map((_, index) => {
			const own = edgeParts(structure, index).filter(({ part }) => part.name === bench.place);
			return (own.find(({ place }) => place === 'top' || place === 'start') ?? own[0])?.place;
		})
	);
	const runs = $derived.by(() => {
		const { rows, columns } = structure.table;
		const found: Run[] = [];
		const collect = (across: boolean, runsCount: number, width: number, index: (run: number, i: number) => number) => {
			const edges = across ? structure.across : structure.down;
			for (let at = 0; at < runsCount; at++) {
				let from = 0;
				for (let i = 1; i <= width; i++) {
					const edge = edges[index(at, from)]!;
					const next = i < width ? edges[index(at, i)]! : -2;
					const same = next >= 0 && edge >= 0 && placeOf[next] === placeOf[edge] && (placeOf[edge] || next === edge);
					if (same) continue;
					if (edge >= 0) found.push({ across, at, from, to: i, place: placeOf[edge], edge });
					from = i;
				}
			}
		};
		collect(true, rows + 1, columns, (r, c) => r * columns + c);
		collect(false, columns + 1, rows, (c, r) => r * (columns + 1) + c);
		return found;
	});

	let layer: HTMLElement;
	let gathering = $state<{ x: number; y: number; along: boolean }>();
	let gathered = $state.raw<ReadonlySet<number>>(new Set());
	let lasso = $state<{ left: number; top: number; width: number; height: number }>();
	const under = (x: number, y: number) => {
		const index = (document.elementFromPoint(x, y) as HTMLElement | null)?.dataset.run;
		return index === undefined ? undefined : Number(index);
	};
	const placesOf = (indices: Iterable<number>) => new Set([...indices].flatMap((index) => runs[index]?.place ?? []));

	function down(event: PointerEvent) {
		if (event.button !== 0) return;
		event.preventDefault();
		const hit = under(event.clientX, event.clientY);
		gathering = { x: event.clientX, y: event.clientY, along: hit !== undefined };
		gathered = new Set(hit === undefined ? [] : [hit]);
		layer.setPointerCapture(event.pointerId);
	}
	function move(event: PointerEvent) {
		if (!gathering) return;
		if (gathering.along) {
			const hit = under(event.clientX, event.clientY);
			if (hit !== undefined && !gathered.has(hit)) gathered = new Set([...gathered, hit]);
			return;
		}
		const box = layer.getBoundingClientRect();
		const [left, right] = [gathering.x, event.clientX].sort((a, b) => a - b) as [number, number];
		const [top, bottom] = [gathering.y, event.clientY].sort((a, b) => a - b) as [number, number];
		if (right - left < 4 && bottom - top < 4) return;
		lasso = { left: left - box.left, top: top - box.top, width: right - left, height: bottom - top };
		gathered = new Set(
			[...layer.querySelectorAll<HTMLElement>('[data-run]')].flatMap((element) => {
				const rect = element.getBoundingClientRect();
				const meets = rect.left < right && rect.right > left && rect.top < bottom && rect.bottom > top;
				return meets ? [Number(element.dataset.run)] : [];
			})
		);
	}
	function up() {
		if (!gathering) return;
		const places = placesOf(gathered);
		const [first] = gathered;
		if (places.size) bench.draw(places);
		else if (first !== undefined) bench.offerEdge(resolved, runs[first]!.edge);
		drop();
	}
	/** Nothing of what is being gathered is drawn. */
	function drop() {
		gathering = undefined;
		lasso = undefined;
		gathered = new Set();
	}
	/** While something is gathered, Escape means that and nothing else. */
	function escape(event: KeyboardEvent) {
		if (!gathering || event.key !== 'Escape') return;
		event.stopPropagation();
		drop();
	}
	const last = (run: Run) => run.at === (run.across ? structure.table.rows : structure.table.columns);
	const isDrawn = ({ across, at, from, to }: Run) =>
		across ? drawn.isDrawn(Math.min(at, structure.table.rows - 1)) : drawn.isAnyDrawn(from, to);
	const area = (run: Run) => {
		const at = Math.min(run.at, (run.across ? structure.table.rows : structure.table.columns) - 1);
		return run.across
			? `${drawn.line(at) + 1} / ${run.from + 1} / auto / ${run.to + 1}`
			: `${drawn.line(run.from) + 1} / ${at + 1} / span ${drawn.span(run.from, run.to)} / auto`;
	};
</script>

<svelte:window onkeydowncapture={escape} />
<div
	bind:this={layer}
	class="edges"
	role="presentation"
	onpointerdown={down}
	onpointermove={move}
	onpointerup={up}
	onpointercancel={drop}
>
	{#each runs as run, i (i)}
		{#if isDrawn(run)}
			<i
				data-run={i}
				data-line={run.place}
				class={[
					run.across ? 'across' : 'down',
					last(run) && 'last',
					run.place ? bench.lineStates[run.place] : 'foreign',
					gathered.has(i) && 'gathered'
				]}
				style="grid-area:{area(run)}"
			></i>
		{/if}
	{/each}
	{#if lasso}<div
			class="lasso"
			style="left:{lasso.left}px;top:{lasso.top}px;width:{lasso.width}px;height:{lasso.height}px"
		></div>{/if}
</div>

<style>
	.edges {
		position: relative;
		display: grid;
		grid-area: 1 / 1 / -1 / -1;
		grid-template-columns: subgrid;
		grid-template-rows: subgrid;
		cursor: crosshair;
		pointer-events: auto;
		touch-action: none;
	}
	i {
		position: relative;
	}
	i::before {
		position: absolute;
		inset: 0;
		margin: auto;
		content: '';
	}
	.across {
		height: 11px;
		align-self: start;
		translate: 0 -50%;
	}
	.across.last {
		align-self: end;
		translate: 0 50%;
	}
	.down {
		z-index: 1;
		width: 11px;
		justify-self: start;
		translate: -50% 0;
	}
	.down.last {
		justify-self: end;
		translate: 50% 0;
	}
	.across::before {
		height: 0;
		border-top: 2px dotted transparent;
	}
	.down::before {
		width: 0;
		border-left: 2px dotted transparent;
	}
	.set::before {
		border-color: var(--color-accent);
		border-style: solid;
		border-width: 3px 0 0;
	}
	.down.set::before {
		border-width: 0 0 0 3px;
	}
	.none::before {
		border-color: var(--color-error);
		border-style: dashed;
	}
	.untouched::before {
		border-color: var(--color-picked);
	}
	i:hover::before,
	.gathered::before {
		border-color: var(--color-mark);
		border-style: solid;
	}
	.lasso {
		position: absolute;
		border: 1px dashed var(--color-accent);
		background: color-mix(in srgb, var(--color-accent) 8%, transparent);
		pointer-events: none;
	}
</style>
