<script lang="ts">
	import type { Appearance } from '$lib/core/cascade/look.ts';
	import type { CellContent } from '$lib/core/table/content.ts';
	import type { Grid } from '$lib/core/table/grid.ts';
	import type { Emu } from '$lib/core/units.ts';
	import TableGrid from '../table/TableGrid.svelte';

	/** One table as it was and as it is to be, next to each other and scaled alike. */
	let {
		grid,
		before,
		after,
		content,
		contentAfter,
		widths,
		words
	}: {
		grid: Grid;
		before: Appearance;
		after: Appearance;
		content: readonly (readonly CellContent[])[];
		contentAfter: readonly (readonly CellContent[])[];
		widths: readonly Emu[];
		words: readonly [before: string, after: string];
	} = $props();
	const ZOOM = 0.56;
</script>

<div class="grid grid-cols-2 gap-4" data-side-by-side>
	{#each [before, after] as appearance, i (i)}
		<figure class="min-w-0">
			<figcaption class="mb-1 font-sans text-[11px] text-quiet">{words[i]}</figcaption>
			<TableGrid
				{grid}
				{appearance}
				content={i ? contentAfter : content}
				{widths}
				zoom={ZOOM}
				guides
				fill
				label={words[i]}
			/>
		</figure>
	{/each}
</div>
