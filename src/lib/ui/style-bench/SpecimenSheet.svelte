<script lang="ts">
	import type { Side } from '$lib/core/table/grid.ts';
	import { lowContrast } from '$lib/core/cascade/contrast.ts';
	import type { Resolved } from '$lib/core/cascade/resolve.ts';
	import { shownContent } from '$lib/workbench/figures.ts';
	import TableGrid from '../table/TableGrid.svelte';
	import { refusedTo } from '../people/who.ts';
	import type { Bench } from './bench.svelte.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import EdgeLayer from './EdgeLayer.svelte';
	import SetHere from './SetHere.svelte';
	import type { Shown } from './sheet.svelte.ts';

	/** The style on several tables at once, as it will be seen on screen, on paper, in grey or by other eyes. */
	let { bench, onwhole }: { bench: Bench; onwhole: (key: string) => void } = $props();

	const spotlight = $derived(bench.spotlit && !bench.isDrawing ? bench.place : undefined);
	const rules = ({ structure }: Resolved, cell: number, place: string) => {
		const { table, cellSignature, signatures } = structure;
		const { r, c } = table.cells[cell]!;
		return signatures[cellSignature[r * table.columns + c]!]!.parts.some(({ name }) => name === place);
	};
	const isPaper = $derived(bench.view === 'paper');
	const low = $derived(
		new Map(
			bench.shown.map(({ specimen, appearance }) => [
				specimen.key,
				lowContrast(specimen.table.cells, appearance).reduce((sum, { cells }) => sum + cells, 0)
			])
		)
	);
	const pick = (key: string, cell: number, side?: Side) => {
		bench.picked = { key, cell, ...(side && { side }) };
		bench.isTracing = true;
		bench.isSettingHere =
			!bench.isDrawing && !bench.isAsTheyCame && !bench.isLookingAtTheirs && refusedTo('designer') === undefined;
	};
	const pickedShown = $derived(bench.shown.find(({ specimen }) => specimen.key === bench.picked?.key));
</script>

<!-- What people with one kind of cone missing see: Machado, Oliveira and Fernandes 2009, severity 1, on linear RGB. -->
<svg class="absolute h-0 w-0" aria-hidden="true">
	<filter id="see-protan" color-interpolation-filters="linearRGB"
		><feColorMatrix
			values="0.152286 1.052583 -0.204868 0 0 0.114503 0.786281 0.099216 0 0 -0.003882 -0.048116 1.051998 0 0 0 0 0 1 0"
		/></filter
	>
	<filter id="see-deutan" color-interpolation-filters="linearRGB"
		><feColorMatrix
			values="0.367322 0.860646 -0.227968 0 0 0.280085 0.672501 0.047413 0 0 -0.01182 0.04294 0.968881 0 0 0 0 0 1 0"
		/></filter
	>
	<filter id="see-tritan" color-interpolation-filters="linearRGB"
		><feColorMatrix
			values="1.255528 -0.076749 -0.178779 0 0 -0.078411 0.930809 0.147602 0 0 0.004733 0.691367 0.3039 0 0 0 0 0 1 0"
		/></filter
	>
</svg>

{#snippet card({ specimen, resolved, appearance }: Shown)}
	{@const { key, from, title, table, content, widths, before, outOf } = specimen}
	<section
		class={[
			'on-paper min-w-0',
			isPaper
				? 'mx-auto mb-6 w-[794px] max-w-full border border-hairline bg-sheet px-[76px] py-14 shadow-md'
				: [
						'card overflow-hidden px-4 py-3 shadow-xs [contain-intrinsic-block-size:auto_300px] [content-visibility:auto]',
						table.columns > 4 && 'col-span-2'
					]
		]}
		aria-label="{from}, {title}"
		data-specimen={key}
	>
		<h3 class={['mb-2.5 flex gap-2 text-[12px] text-quiet', isPaper && 'sr-only']}>
			<span class="truncate">{from} · {title}</span>
			{#if outOf}<button type="button" class="shrink-0 underline hover:text-ink" onclick={() => onwhole(key)}
					>all {outOf} rows</button
				>{/if}
			<span class="ms-auto shrink-0"
				>{#if low.get(key)}<span class="text-warning-text">{low.get(key)} hard to read · </span>{/if}{table.cells
					.length} cells</span
			>
		</h3>
		{#snippet edges(drawn: DrawnRows)}<EdgeLayer {bench} {resolved} {drawn} />{/snippet}
		<TableGrid
			grid={table}
			appearance={bench.isAsTheyCame && before ? before : appearance}
			content={shownContent(resolved, content, bench.house.locale)}
			{widths}
			zoom={isPaper ? 1 : 0.92}
			fill
			guides={!isPaper}
			spotlight={spotlight && !isPaper ? (cell) => rules(resolved, cell, spotlight) : undefined}
			picked={bench.picked?.key === key ? bench.picked.cell : undefined}
			pickedSide={bench.picked?.key === key ? bench.picked.side : undefined}
			onpick={(cell, side) => pick(key, cell, side)}
			overlay={bench.isDrawing && !isPaper ? edges : undefined}
			label="{from}, {title}"
		/>
	</section>
{/snippet}

<div
	class={[!isPaper && 'grid grid-flow-dense grid-cols-2 items-start gap-4']}
	style={bench.view === 'greyscale'
		? 'filter:grayscale(1)'
		: ['protan', 'deutan', 'tritan'].includes(bench.view)
			? `filter:url(#see-${bench.view})`
			: ''}
	data-view={bench.view}
>
	{#each bench.shown as shown (shown.specimen.key)}{@render card(shown)}{/each}
</div>
{#if pickedShown && bench.isSettingHere && !bench.isDrawing && !bench.isAsTheyCame && !bench.isLookingAtTheirs}
	<SetHere {bench} shown={pickedShown} onclose={() => (bench.isSettingHere = false)} />
{/if}
