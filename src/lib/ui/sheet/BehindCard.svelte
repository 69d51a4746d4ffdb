<script lang="ts">
	import type { Desk } from './desk.svelte.ts';
	import Button from '../controls/Button.svelte';

	/** Says on the sheet that schedules are behind their drawing, and what changed. */
	let { desk, onopen, onaway }: { desk: Desk; onopen: (index: number) => void; onaway: () => void } = $props();
	const MOST = 4;
	const behind = $derived(
		desk.data.behind.flatMap(({ changes }, index) =>
			changes.length ? [{ index, title: desk.titleOf(index), changes }] : []
		)
	);
</script>

<section
	class="card absolute right-5 bottom-5 max-h-[60%] w-72 overflow-y-auto px-4 py-3 shadow-lg"
	aria-label="Schedules that are behind the drawing"
>
	<h2 class="font-semibold">
		The drawing is newer than {behind.length === 1
			? `its ${behind[0]!.title.toLowerCase()}`
			: `${behind.length} of its tables`}
	</h2>
	{#each behind as { index, title, changes } (index)}
		<h3 class="mt-2 text-quiet">{title}</h3>
		<dl class="grid grid-cols-[1fr_auto] gap-x-3">
			{#each changes.slice(0, MOST) as change (change.id)}
				{#if change.kind === 'changed'}
					<dt class="truncate text-warning-text">{change.words.split(' · ')[0]} · {change.column}</dt>
					<dd class="tabular-nums">{change.was || '–'} → {change.is || '–'}</dd>
				{:else}
					<dt class={['truncate', change.kind === 'added' ? 'text-picked' : 'text-error']}>{change.words}</dt>
					<dd>{change.kind === 'added' ? 'new' : 'gone'}</dd>
				{/if}
			{/each}
		</dl>
		{#if changes.length > MOST}<p class="text-quiet">and {changes.length - MOST} more</p>{/if}
		<Button small class="mt-1.5" onclick={() => onopen(index)}>Look at it</Button>
	{/each}
	<Button small class="mt-3" onclick={onaway}>Later</Button>
</section>
