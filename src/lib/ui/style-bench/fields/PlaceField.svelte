<script lang="ts">
	import type { LeafValue } from '$lib/core/style/types.ts';

	/** Alignment at one glance: nine places in a cell, justified, and on the decimal mark. */
	let {
		h,
		v,
		onset
	}: {
		h: LeafValue | undefined;
		v: LeafValue | undefined;
		onset: (leaves: [path: string, value: LeafValue][]) => void;
	} = $props();
	const across = ['start', 'middle', 'end'] as const;
	const down = ['top', 'middle', 'bottom'] as const;
	const words = (x: string, y: string) =>
		x === 'middle' && y === 'middle'
			? 'in the middle'
			: `${y === 'middle' ? 'half-way down' : `at the ${y}`}, ${x === 'middle' ? 'centred' : `to the ${x}`}`;
</script>

<div class="flex items-center gap-3 py-1">
	<div
		class="grid grid-cols-3 overflow-hidden rounded-md border border-hairline bg-sheet"
		role="group"
		aria-label="Place in the cell"
	>
		{#each down as y (y)}
			{#each across as x (x)}
				{@const on = (h ?? 'start') === x && (v ?? 'top') === y}
				<button
					type="button"
					class={['grid h-6 w-8 place-items-center hover:bg-desk', on && 'bg-picked-wash']}
					aria-pressed={on}
					aria-label="Text {words(x, y)}"
					title={words(x, y)}
					onclick={() =>
						onset([
							['align.h', x],
							['align.v', y]
						])}
				>
					<i class={['block h-1 w-3 rounded-full', on ? 'bg-picked' : 'bg-hairline']}></i>
				</button>
			{/each}
		{/each}
	</div>
	<div class="flex flex-col items-start gap-1.5">
		<button
			type="button"
			class={['chip', h === 'decimal' && 'on']}
			aria-pressed={h === 'decimal'}
			onclick={() => onset([['align.h', 'decimal']])}>on the decimal mark</button
		>
		<button
			type="button"
			class={['chip', h === 'justify' && 'on']}
			aria-pressed={h === 'justify'}
			onclick={() => onset([['align.h', 'justify']])}>justified</button
		>
	</div>
</div>
