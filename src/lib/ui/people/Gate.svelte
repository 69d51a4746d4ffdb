<script lang="ts">
	import type { Snippet } from 'svelte';
	import Mark from '$lib/ui/shell/Mark.svelte';

	/** A page before the house: nothing of it is shown yet. */
	let { title, lead, children }: { title: string; lead?: string; children: Snippet } = $props();
</script>

<svelte:head><title>{title} · Heptarch</title></svelte:head>
<main class="flex flex-1 flex-col items-center overflow-y-auto px-5 py-12">
	<div class="card w-full max-w-[420px] bg-paper px-8 py-8">
		<div class="mb-4 text-picked"><Mark /></div>
		<h1 class="font-title text-[24px] leading-tight font-semibold">{title}</h1>
		{#if lead}<p class="mt-2 text-quiet">{lead}</p>{/if}
		<div class="mt-6">{@render children()}</div>
	</div>
</main>
