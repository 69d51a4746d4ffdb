<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve } from '$lib/core/cascade/resolve.ts';
	import type { FlatStyle } from '$lib/core/style/inherit.ts';
	import type { Emu } from '$lib/core/units.ts';
	import TableGrid from '../table/TableGrid.svelte';
	import type { Excerpt } from '$lib/workbench/excerpt.ts';

	/** A small live rendering of a table in a style: the real thing, scaled. */
	let {
		style,
		house,
		sample,
		widths,
		scale = 0.42,
		height = 84
	}: {
		style: FlatStyle;
		house: House;
		sample: Excerpt;
		widths?: readonly Emu[];
		scale?: number;
		height?: number;
	} = $props();
	const appearance = $derived(appearanceOf(resolve(sample.table, style, house)));
</script>

<div class="on-paper overflow-hidden bg-sheet p-2" style="height:{height}px" aria-hidden="true" inert>
	<div style="width:{100 / scale}%;transform:scale({scale});transform-origin:0 0">
		<TableGrid grid={sample.table} {appearance} content={sample.content} {widths} fill />
	</div>
</div>
