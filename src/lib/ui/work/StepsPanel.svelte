<script lang="ts">
	import type { TableBench } from './bench.svelte.ts';

	/** Every step of the work, newest first; any of them can be gone to. */
	let { bench }: { bench: TableBench } = $props();
	const steps = $derived(bench.entries.map(({ label }, at) => ({ label, at })).toReversed());
</script>

<section aria-label="Steps">
	<h3 class="mb-1 font-semibold">Steps</h3>
	<ol>
		{#each steps as { label, at } (at)}
			<li>
				<button
					type="button"
					class={[
						'w-full rounded px-2 py-1 text-start hover:bg-desk',
						at === bench.at && 'bg-picked-wash font-semibold text-picked',
						at > bench.at && 'text-quiet line-through'
					]}
					aria-current={at === bench.at ? 'step' : undefined}
					onclick={() => bench.goTo(at)}>{label}</button
				>
			</li>
		{/each}
	</ol>
</section>
