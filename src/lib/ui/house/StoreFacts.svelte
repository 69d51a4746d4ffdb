<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { Store } from '$lib/server/house/store.ts';

	/** How much the house keeps, what of it goes soon, and how much room is left where its operator set a limit. */
	let { store }: { store: Store } = $props();
	const units = ['bytes', 'kB', 'MB', 'GB', 'TB'];
	function size(bytes: number): string {
		const step = Math.min(units.length - 1, Math.floor(Math.log(Math.max(1, bytes)) / Math.log(1024)));
		const amount = bytes / 1024 ** step;
		return `${amount.toLocaleString('en-GB', { maximumFractionDigits: amount < 10 && step > 0 ? 1 : 0 })} ${units[step]}`;
	}
	const part = $derived(store.most === null ? 0 : store.bytes / store.most);
	/** From here on it is time to do something. */
	const NEARLY = 0.8;
</script>

<p>
	{plural(store.files, 'file')}, {size(store.bytes)}; {plural(store.steps.count, 'step')}, {size(store.steps.bytes)}.
	{#if store.removed.documents}
		{plural(store.removed.documents, 'removed document')}
		{pluralWord(store.removed.documents, 'goes', 'go')} for good within a day, {size(store.removed.bytes)} of files with
		{pluralWord(store.removed.documents, 'it', 'them')}.
	{/if}
</p>
{#if store.most !== null}
	<div class="mt-2 flex items-center gap-3">
		<span class="h-1.5 w-52 overflow-hidden rounded-full bg-desk"
			><span class={['block h-full', part < NEARLY ? 'bg-picked' : 'bg-error']} style="width:{100 * Math.min(1, part)}%"
			></span></span
		>
		<span class={part < NEARLY ? 'text-quiet' : 'text-error'}
			>{Math.round(100 * part)} % of the {size(store.most)} that this house may keep{part < NEARLY
				? ''
				: ': remove documents, or ask for more room'}</span
		>
	</div>
{/if}
