<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { call } from '../api.ts';
	import { notify, notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import type { Desk } from './desk.svelte.ts';
	import Button from '../controls/Button.svelte';

	/** The picked schedule's definition and look for other drawings: each lists its own objects. */
	let { open = $bindable(), desk }: { open: boolean; desk: Desk } = $props();
	let ticked = $state<string[]>([]);
	let busy = $state(false);
	const toggle = (id: string) =>
		(ticked = ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id]);
	async function place() {
		busy = true;
		const { placed, own } = desk.tables[desk.picked]!;
		try {
			const { placed: done, refused } = await call('POST', '/api/drawings/reuse', {
				placed,
				state: own,
				drawings: ticked
			});
			if (done.length) notify(`“${desk.titleOf(desk.picked)}” stands in ${done.join(', ')} now.`);
			for (const { name, reason } of refused) notify(`“${name}”: ${reason}`, 'error');
			open = false;
			ticked = [];
		} catch (error) {
			notifyError(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open title="Put this schedule in other drawings">
	<p class="text-quiet">The same columns, order and look, at the same place; each drawing lists its own objects.</p>
	{#each desk.data.others as { id, name } (id)}
		<label class="flex items-center gap-2"
			><input
				type="checkbox"
				class="rounded-sm text-picked"
				checked={ticked.includes(id)}
				onchange={() => toggle(id)}
			/>{name}</label
		>
	{:else}<p>There is no other drawing in the house.</p>{/each}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={!ticked.length || busy} onclick={place}
			>{ticked.length ? `Place it in ${plural(ticked.length, 'drawing')}` : 'Choose a drawing'}</Button
		>
	{/snippet}
</Dialog>
