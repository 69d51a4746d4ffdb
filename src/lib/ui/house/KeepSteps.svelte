<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { MOST_KEPT_DAYS } from '$lib/workbench/house.ts';
	import { call } from '../api.ts';
	import Button from '../controls/Button.svelte';
	import { parseNumber } from '../controls/fields.ts';
	import TypedField from '../controls/TypedField.svelte';
	import { notify, notifyError } from '../notices.svelte.ts';
	import { refusedTo } from '../people/who.ts';
	import Dialog from '../shell/Dialog.svelte';

	/** For how many days steps are kept, null for good; where steps would go, the keeper is asked first. */
	let { days }: { days: number | null } = $props();
	const why = $derived(refusedTo('keeper'));
	/** What is asked: to keep steps of so many days, and how many that drops. */
	let asked = $state<{ readonly days: number; readonly steps: number }>();
	let isAsking = $state(false);

	async function set(to: number | null) {
		isAsking = false;
		try {
			await call('PUT', '/api/house/keeping', { days: to });
			notify(to === null ? 'Steps are kept for good.' : `Steps are kept for ${plural(to, 'day')}.`);
		} catch (error) {
			notifyError(error);
		}
		await invalidate('heptarch:house');
	}
	async function ask(to: number) {
		try {
			const { steps } = await call('GET', `/api/house/keeping?days=${to}`);
			if (!steps) return await set(to);
			asked = { days: to, steps };
			isAsking = true;
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<div class="mt-2 flex items-baseline gap-3">
	<span>Steps are kept for</span>
	<div class="w-24">
		<!-- A question that was left without an answer leaves the field as it was. -->
		{#key isAsking}
			<TypedField
				label="Days for which steps are kept"
				text={days === null ? '' : String(days)}
				placeholder="good"
				inputmode="numeric"
				disabled={why !== undefined}
				title={why}
				parse={(text) => parseNumber(text, { least: 1, most: MOST_KEPT_DAYS, isWhole: true })}
				onset={ask}
				onclear={() => set(null)}
			/>
		{/key}
	</div>
	<span class="text-quiet"
		>{days === null
			? 'until you write a number of days'
			: 'days; older ones go for good, but where something stands, however old'}</span
	>
</div>

{#if asked}
	<Dialog bind:open={isAsking} title="Keep steps for {plural(asked.days, 'day')}?">
		<p>
			{plural(asked.steps, 'step')}
			{pluralWord(asked.steps, 'is', 'are')} older and {pluralWord(asked.steps, 'goes', 'go')} for good within the hour, with
			files that only they stand on. Where documents, styles and the house stand stays, and what undo of a younger step goes
			back to.
		</p>
		{#snippet answers()}
			<Button onclick={() => (isAsking = false)}>Leave it as it is</Button>
			<Button primary needs="keeper" onclick={() => set(asked!.days)}>Let older ones go</Button>
		{/snippet}
	</Dialog>
{/if}
