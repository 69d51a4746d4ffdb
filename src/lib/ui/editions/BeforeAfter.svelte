<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { appearanceOf, type Appearance } from '$lib/core/cascade/look.ts';
	import { resolve } from '$lib/core/cascade/resolve.ts';
	import type { FlatStyle } from '$lib/core/style/inherit.ts';
	import type { Emu } from '$lib/core/units.ts';
	import type { Excerpt } from '$lib/workbench/excerpt.ts';
	import TableGrid from '../table/TableGrid.svelte';

	/** One table in two styles, side by side. A side without a style shows nothing. */
	interface Props {
		excerpt: Excerpt;
		before: FlatStyle | undefined;
		after: FlatStyle | undefined;
		house: House;
		/** The house of the other side, where it is another one. */
		houseAfter?: House;
		words: readonly [before: string, after: string];
		widths?: readonly Emu[];
		/** What lies under aspects that are not carried. */
		kept?: Appearance;
	}
	let { excerpt, before, after, house, houseAfter = house, words, widths, kept }: Props = $props();
	const look = (style: FlatStyle | undefined, house: House) =>
		style &&
		appearanceOf(
			resolve(excerpt.table, style, house),
			excerpt.table.cells.length === kept?.cellLook.length ? kept : undefined
		);
</script>

<div class="grid grid-cols-2 gap-3">
	{#each [before, after] as style, i (i)}
		{@const appearance = look(style, i ? houseAfter : house)}
		<figure class="min-w-0">
			<figcaption class="mb-1 text-[12px] text-quiet">{words[i]}</figcaption>
			<div class="on-paper overflow-hidden rounded border border-hairline bg-sheet p-2" inert aria-hidden="true">
				{#if appearance}<TableGrid
						grid={excerpt.table}
						{appearance}
						content={excerpt.content}
						{widths}
						zoom={0.62}
						fill
					/>{/if}
			</div>
		</figure>
	{/each}
</div>
