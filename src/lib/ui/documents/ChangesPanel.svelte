<script lang="ts">
	import { LEAF_WORDS } from '$lib/formats/read-back.ts';
	import { touched, type LookChange } from '$lib/workbench/changes.ts';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** How before and after are compared on the page. */
	export type Comparing = 'off' | 'wipe' | 'side' | 'changed';
	let {
		comparing = $bindable(),
		changes,
		index
	}: { comparing: Comparing; changes: readonly LookChange[]; index: number } = $props();
	const WAYS = [
		['off', 'Not at all'],
		['wipe', 'Wipe'],
		['side', 'Side by side'],
		['changed', 'Only what changed']
	] as const;
	const isInk = (text: string) => /#[0-9A-F]{6}$/i.test(text);
	const MOST = 60;
	let whole = $state(false);
</script>

<h3 class="mb-1.5 font-semibold" id="comparing">Compare on the page</h3>
<Segmented class="mb-4" labelledby="comparing" options={WAYS} value={comparing} onchange={(way) => (comparing = way)} />
<h3 class="mb-1 font-semibold">What changes in table {index + 1}</h3>
{#snippet value(text: string)}
	{#if isInk(text)}<span
			class="me-1 inline-block h-3 w-3 rounded-xs border border-hairline align-[-2px]"
			style="background:{text.slice(-7)}"
		></span>{/if}{text}
{/snippet}
{#if changes.length === 0}
	<p class="text-quiet">Nothing: it looks as its file says. Point at a style, or choose one.</p>
{:else}
	<ul data-changes>
		{#each changes.slice(0, whole ? undefined : MOST) as { leaf, where, from, to, count }, i (i)}
			<li class="border-b border-hairline py-1.5 last:border-0">
				<span class="font-medium">{LEAF_WORDS[leaf]}</span>
				<span class="text-quiet">· {where}</span>
				<span class="float-end text-[12px] text-quiet tabular-nums">{touched({ leaf, count })}</span>
				<span class="block">{@render value(from)} → {@render value(to)}</span>
			</li>
		{/each}
	</ul>
	{#if !whole && changes.length > MOST}
		<Button small class="mt-2" onclick={() => (whole = true)}>Show all {changes.length}</Button>
	{/if}
{/if}
