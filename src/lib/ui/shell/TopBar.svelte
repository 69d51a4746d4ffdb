<script lang="ts">
	import type { Snippet } from 'svelte';
	import Others from '../live/Others.svelte';

	/** Title, facts about it, and what can be done; the one primary action of the screen stands last. */
	let { title, facts, actions }: { title: string | Snippet; facts?: Snippet; actions?: Snippet } = $props();
</script>

<header class="flex min-h-[54px] items-center gap-3 border-b border-hairline bg-paper px-5 py-2">
	{#if typeof title === 'string'}
		<h1 class="truncate font-title text-[22px] leading-tight font-semibold">{title}</h1>
	{:else}
		{@render title()}
	{/if}
	<Others />
	<div class="flex min-w-0 shrink-1000 items-center gap-2 overflow-hidden">{@render facts?.()}</div>
	<div class="ms-auto flex shrink-0 items-center gap-2">{@render actions?.()}</div>
</header>
