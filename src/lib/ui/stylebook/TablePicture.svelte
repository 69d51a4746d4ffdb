<script lang="ts">
	import type { CellContent } from '$lib/core/table/content.ts';
	import { openThumbnail, type Thumbnail } from '$lib/workbench/thumbnail.ts';
	import TableGrid from '../table/TableGrid.svelte';

	/** The head of a table as it looks, small. */
	let { picture, scale = 0.5, height = 132 }: { picture: Thumbnail; scale?: number; height?: number } = $props();
	const { grid, appearance } = $derived(openThumbnail(picture));
	const content = $derived(grid.cells.map(({ text }): CellContent[] => [{ runs: [{ text }] }]));
</script>

<div class="on-paper overflow-hidden bg-sheet p-2" style="height:{height}px" aria-hidden="true" inert>
	<div style="width:{100 / scale}%;transform:scale({scale});transform-origin:0 0">
		<TableGrid {grid} {appearance} {content} widths={picture.widths} fill />
	</div>
</div>
