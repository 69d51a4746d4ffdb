<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { partsInUse } from '$lib/workbench/parts.ts';
	import { goto } from '$app/navigation';
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
	import { call } from '../api.ts';
	import { notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import PartsAndCarry from './PartsAndCarry.svelte';
	import Button from '../controls/Button.svelte';

	/** A style for every table of some documents, with parts and carry if they are to be the same for all. */
	let {
		open = $bindable(),
		documents,
		styles
	}: {
		open: boolean;
		documents: readonly { readonly id: string; readonly tables: number }[];
		styles: readonly { readonly id: string; readonly name: string }[];
	} = $props();
	const PARTS = partsInUse();
	let style = $state('');
	let isSame = $state(false);
	let partsOff = $state.raw<string[]>([]);
	let carry = $state.raw<readonly Aspect[]>(ASPECTS);
	const tables = $derived(documents.reduce((sum, one) => sum + one.tables, 0));
	const chosen = $derived(style || (styles[0]?.id ?? ''));

	async function start() {
		try {
			await call('POST', '/api/runs', {
				style: chosen,
				documents: documents.map(({ id }) => id),
				...(isSame && { partsOff, carry })
			});
			open = false;
			await goto('/runs');
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<Dialog bind:open title="Give {plural(documents.length, 'document')} a style">
	<p>
		Every table in them, {tables} in all, wears the style from then on. The run goes on in the background and can be taken
		back as a whole.
	</p>
	<label class="block"
		>Style
		<select
			class="field mt-1 w-full"
			aria-label="Style of the run"
			value={chosen}
			onchange={(event) => (style = event.currentTarget.value)}
		>
			{#each styles as { id, name } (id)}<option value={id}>{name}</option>{/each}
		</select>
	</label>
	<label class="flex items-center gap-2"
		><input type="checkbox" class="rounded-sm text-picked" bind:checked={isSame} />the same parts and carry for all of
		them, in the place of each table’s own</label
	>
	{#if isSame}
		<div>
			<PartsAndCarry
				parts={PARTS}
				{partsOff}
				{carry}
				onparts={(off) => (partsOff = off)}
				oncarry={(aspects) => (carry = aspects)}
			/>
		</div>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={!chosen} onclick={start}>Start the run</Button>
	{/snippet}
</Dialog>
