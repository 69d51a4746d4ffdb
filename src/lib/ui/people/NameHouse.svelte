<script lang="ts">
	import { untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import { Once } from './once.svelte.ts';
	import { refusedTo } from './who.ts';

	/** What the house is called; its keeper changes that. */
	let { name }: { name: string } = $props();
	let wanted = $state(untrack(() => name));
	const once = new Once();
	const why = $derived(refusedTo('keeper'));

	async function set() {
		if (await once.do(() => call('PUT', '/api/house/name', { name: wanted }))) await invalidateAll();
	}
</script>

<form
	class="flex items-center gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void set();
	}}
>
	<label class="flex items-center gap-3"
		>The house is called<input
			class="field w-80"
			maxlength="100"
			required
			disabled={why !== undefined}
			title={why}
			bind:value={wanted}
		/></label
	>
	<Button type="submit" needs="keeper" disabled={once.isBusy || wanted.trim() === name}>Take this name</Button>
	{#if once.fault}<p class="text-error" role="alert">{once.fault}</p>{/if}
</form>
