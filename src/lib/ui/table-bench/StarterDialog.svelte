<script lang="ts">
	import { fresh } from '$lib/core/work/begin.ts';
	import { tidy } from '$lib/core/work/table.ts';
	import { call } from '../api.ts';
	import { notify, notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import type { TableBench } from './bench.svelte.ts';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** Keeps the table as a starter: with its content, style, touches and sizes. */
	let {
		open = $bindable(),
		bench,
		name: called,
		documentName
	}: { open: boolean; bench: TableBench; name: string; documentName: string | undefined } = $props();
	let name = $state('');
	let category = $state('');
	let description = $state('');
	let isHouse = $state(true);
	let follows = $state(true);
	let known = $state.raw<readonly { name: string; category: string; description: string }[]>([]);
	$effect(() => {
		if (!open) return;
		name ||= called;
		call('GET', '/api/starters').then(
			(list) => (known = list),
			() => undefined
		);
	});
	const same = $derived(known.find((one) => one.name === name.trim()));
	const edition = $derived(bench.wears.edition);

	async function keep() {
		try {
			await call('POST', '/api/starters', {
				name,
				category,
				description,
				work: fresh(bench.work),
				wears: tidy({ ...bench.wears, cleared: undefined, pinned: follows ? undefined : true }),
				...(!isHouse && { document: bench.id })
			});
			open = false;
			notify(`“${name.trim()}” is ${same ? 'replaced' : 'kept'} among the starters.`);
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<Dialog bind:open title="Keep it as a starter">
	<label class="mb-2 block"
		>Name <input class="field w-full" aria-label="Name of the starter" bind:value={name} /></label
	>
	{#if same}<p class="mb-2 text-warning-text">There is a starter of this name; it will hold this table instead.</p>{/if}
	<label class="mb-2 block"
		>Category <input class="field w-full" aria-label="Category" list="starter-categories" bind:value={category} />
		<datalist id="starter-categories"
			>{#each [...new Set(known.map((one) => one.category))] as one (one)}<option value={one}></option>{/each}</datalist
		></label
	>
	<label class="mb-3 block"
		>What it is for <textarea class="field w-full" rows="2" aria-label="What it is for" bind:value={description}
		></textarea></label
	>
	{#if documentName}
		<Segmented
			class="mb-2"
			label="Who can use it"
			options={[
				[true, 'for the whole house'],
				[false, `only for ${documentName}`]
			]}
			value={isHouse}
			onchange={(is) => (isHouse = is)}
		/>
	{/if}
	{#if edition}
		<Segmented
			label="Which edition"
			options={[
				[true, 'follows its style'],
				[false, `pinned to edition ${edition}`]
			]}
			value={follows}
			onchange={(does) => (follows = does)}
		/>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={!name.trim()} onclick={keep}>{same ? 'Replace it' : 'Keep it'}</Button>
	{/snippet}
</Dialog>
