<script lang="ts">
	import { pluralWord } from '$lib/core/words.ts';
	import { invalidateAll } from '$app/navigation';
	import type { Lifted } from '$lib/core/lift/lift.ts';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { describeStyle } from '$lib/core/style/sentence.ts';
	import type { StepInfo } from '$lib/server/history.ts';
	import type { DocumentState } from '$lib/workbench/state.ts';
	import { call } from '../api.ts';
	import { notify, notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	type Saved = { step: number; version: number; steps: StepInfo[]; state: DocumentState };
	/** A style from a table as it looks in its file: what it says, what is left over, and a name for it. */
	let {
		open = $bindable(),
		id,
		table,
		place,
		version,
		isWorn,
		onworn,
		onlifted
	}: {
		open: boolean;
		id: string;
		/** Index of the table. */
		table: number;
		place: string;
		version: number;
		/** Whether it wears a house style already: lifted is how it looks in its file. */
		isWorn: boolean;
		onworn: (saved: Saved) => void;
		/** Once the style is in the Stylebook. */
		onlifted?: () => void;
	} = $props();
	let lifted = $state.raw<Lifted>();
	let failed = $state<string>();
	let name = $state('');
	let wear = $state(true);

	$effect(() => {
		if (!open) return;
		lifted = undefined;
		failed = undefined;
		name = `From table ${table + 1}`;
		call('GET', `/api/documents/${id}/lift?table=${table}`).then(
			(result) => (lifted = result),
			(error: Error) => (failed = error.message)
		);
	});

	async function take() {
		try {
			const made = await call('POST', `/api/documents/${id}/lift`, {
				table,
				name,
				wear,
				version
			});
			open = false;
			await invalidateAll();
			if (made.step) onworn(made.step);
			onlifted?.();
			notify(`“${made.name}” is in the Stylebook${wear ? `, and table ${table + 1} wears it` : ''}.`);
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<Dialog bind:open title="Lift a style from table {table + 1}">
	<p class="text-quiet">{place}</p>
	{#if failed}
		<p class="rounded-lg bg-error-wash px-4 py-3 text-error" role="alert">{failed}</p>
	{:else if !lifted}
		<p class="text-quiet">Finding the fewest settings that say how it looks…</p>
	{:else}
		<p data-lifted>
			<strong>{lifted.settings} settings</strong> say
			<strong>{(lifted.reproduced * 100).toFixed(lifted.reproduced === 1 ? 0 : 1)} %</strong> of how this table looks{isWorn
				? ' in its file'
				: ''}.
			{lifted.touches.length === 0
				? 'Nothing is left over.'
				: `${lifted.touches.length} ${pluralWord(lifted.touches.length, 'cell has', 'cells have')} something of their own, kept as touches of the table.`}
		</p>
		<p class="text-[14px] text-quiet italic" style="font-family:'Source Serif 4'">
			{describeStyle(flatten(lifted.style))}
		</p>
	{/if}
	<label class="block"
		>Name of the style<input class="field mt-1 w-full" aria-label="Name of the style" bind:value={name} /></label
	>
	<label class="flex items-center gap-2"
		><input type="checkbox" class="rounded-sm text-picked" bind:checked={wear} />The table wears it from now on{isWorn
			? ', and looks again as it came'
			: '; nothing changes to the eye'}</label
	>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={!lifted || !name.trim()} onclick={take}>Lift it</Button>
	{/snippet}
</Dialog>
