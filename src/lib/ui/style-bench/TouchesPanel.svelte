<script lang="ts">
	import { leavesOf } from '$lib/core/style/leaves.ts';
	import { leafWords, valueWords } from '$lib/core/style/words.ts';
	import { cellAt } from '$lib/core/table/grid.ts';
	import type { Bench } from './bench.svelte.ts';

	/** Rank VII: touches belong to tables and not to the style; here is what the specimens carry of them. */
	let { bench }: { bench: Bench } = $props();
	const touched = $derived(bench.specimens.filter(({ table }) => table.touches.length));
</script>

<div class="min-h-0 flex-1 overflow-y-auto px-4 py-4">
	<p class="text-quiet">
		Touches are one-off settings of single cells and edges. They belong to a table, overrule every part of the style,
		and are not of the style.
	</p>
	{#each touched as { key, from, title, table } (key)}
		<h3 class="mt-4 mb-1 font-semibold">{from} · {title}</h3>
		<ul>
			{#each table.touches as touch, i (i)}
				<li class="border-b border-hairline py-1 last:border-0">
					<button
						type="button"
						class="text-start hover:underline"
						onclick={() => (bench.picked = { key, cell: table.slots[touch.r * table.columns + touch.c]! })}
					>
						“{cellAt(table, touch.r, touch.c).text.trim().slice(0, 30) || 'empty cell'}”
					</button>
					<span class="text-[12px] text-quiet"
						>{[...leavesOf(touch.set)]
							.map(([path, value]) => `${leafWords(path)} ${valueWords(path, value)}`)
							.join(', ')}</span
					>
				</li>
			{/each}
		</ul>
	{:else}
		<p class="mt-3 text-quiet">No table on the sheet carries one.</p>
	{/each}
</div>
