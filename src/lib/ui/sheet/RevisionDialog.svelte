<script lang="ts">
	import type { Revision } from '$lib/core/schedule/placed.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	/** One more row of a revision table. */
	let {
		open = $bindable(),
		next,
		onadd
	}: { open: boolean; next: string; onadd: (revision: Revision) => void } = $props();
	let number = $state('');
	let date = $state('');
	let what = $state('');
	let who = $state('');
	$effect(() => {
		if (!open) return;
		number = next;
		date = new Date().toISOString().slice(0, 10);
		what = '';
	});
</script>

<Dialog bind:open title="Add a revision">
	<div class="grid grid-cols-2 gap-3">
		<label class="block">Number<input class="field mt-1 w-full" bind:value={number} /></label>
		<label class="block">Date<input class="field mt-1 w-full" type="date" bind:value={date} /></label>
	</div>
	<label class="block">What changed<input class="field mt-1 w-full" bind:value={what} /></label>
	<label class="block">By whom<input class="field mt-1 w-full" bind:value={who} /></label>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not yet</Button>
		<Button
			primary
			disabled={!number.trim() || !what.trim()}
			onclick={() => {
				open = false;
				onadd({ number: number.trim(), date, what: what.trim(), who: who.trim() });
			}}>Add revision {number}</Button
		>
	{/snippet}
</Dialog>
