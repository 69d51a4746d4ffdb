<script lang="ts">
	import type { Bands } from '$lib/core/style/types.ts';
	import NumberField from '../controls/NumberField.svelte';
	import Button from '../controls/Button.svelte';

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
</script>

{#snippet cycle(words: string, sizes: readonly number[], set: (sizes: number[]) => void)}
	<div class="mb-2">
		<p class="mb-1 text-quiet">{words} stripes, how many in each</p>
		<div class="flex flex-wrap items-center gap-1">
			{#each sizes as count, i (i)}
				<NumberField
					class="w-12"
					label="{words} stripe {i + 1}"
					least={1}
					most={1000}
					isWhole
					value={count}
					onset={(next) => set(sizes.map((other, at) => (at === i ? next : other)))}
				/>
			{/each}
			<Button small onclick={() => set([...sizes, 1])}>+ stripe</Button>
			{#if sizes.length > 1}<Button small onclick={() => set(sizes.slice(0, -1))}>− stripe</Button>{/if}
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
