<script lang="ts">
	import type { Bands } from '$lib/core/style/types.ts';

	/** The cycle of stripes: how many rows (columns) each has; any number of them. */
	let {
		bands,
		rowSizes,
		columnSizes,
		restart,
		onset
	}: {
		bands: Bands | undefined;
		rowSizes: readonly number[];
		columnSizes: readonly number[];
		restart: boolean;
		onset: (bands: Bands) => void;
	} = $props();

	const setRows = (rows: Bands['rows']) => onset({ ...bands, rows: { ...bands?.rows, ...rows } });
	const setColumns = (sizes: number[]) => onset({ ...bands, columns: { sizes } });
	const size = (value: number) => Math.min(1000, Math.max(1, Math.round(value) || 1));
</script>

{#snippet cycle(words: string, sizes: readonly number[], set: (sizes: number[]) => void)}
	<div class="mb-2">
		<p class="mb-1 text-quiet">{words} stripes, how many in each</p>
		<div class="flex flex-wrap items-center gap-1">
			{#each sizes as count, i (i)}
				<input
					class="field w-12"
					type="number"
					min="1"
					max="1000"
					aria-label="{words} stripe {i + 1}"
					value={count}
					onchange={(event) =>
						set(sizes.map((other, at) => (at === i ? size(event.currentTarget.valueAsNumber) : other)))}
				/>
			{/each}
			<button type="button" class="button small" onclick={() => set([...sizes, 1])}>+ stripe</button>
			{#if sizes.length > 1}<button type="button" class="button small" onclick={() => set(sizes.slice(0, -1))}
					>− stripe</button
				>{/if}
		</div>
	</div>
{/snippet}

<section class="mb-3 border-b border-hairline pb-2" aria-label="Cycle">
	<h3 class="mb-1 font-semibold">Cycle</h3>
	{@render cycle('Row', rowSizes, (sizes) => setRows({ sizes }))}
	{@render cycle('Column', columnSizes, setColumns)}
	<label class="flex items-center gap-2"
		><input
			type="checkbox"
			class="rounded-sm text-picked"
			checked={restart}
			onchange={(event) => setRows({ restartAtGroups: event.currentTarget.checked })}
		/>Row stripes begin anew at each group</label
	>
</section>
