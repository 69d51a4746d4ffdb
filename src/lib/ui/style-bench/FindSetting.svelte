<script lang="ts">
	import { findSettings, allSettings, type Setting } from '$lib/core/style/find.ts';
	import { partsOfRank } from '$lib/workbench/parts.ts';
	import { settingsAt } from '$lib/core/style/edit.ts';
	import { leavesOf } from '$lib/core/style/leaves.ts';
	import { valueWords } from '$lib/core/style/words.ts';
	import List from '../controls/List.svelte';
	import Button from '../controls/Button.svelte';
	import Dialog from '../shell/Dialog.svelte';
	import type { Bench } from './bench.svelte.ts';

	/** Finds a setting of any part by its words, and leads to its field. */
	let {
		open = $bindable(),
		bench,
		onfound
	}: { open: boolean; bench: Bench; onfound: (setting: Setting) => void } = $props();
	let typed = $state('');
	const MOST = 40;
	const settings = $derived(allSettings(([1, 2, 3, 4, 5] as const).flatMap((rank) => partsOfRank(rank, bench.flat))));
	const found = $derived(findSettings(settings, typed, MOST));
	async function choose(setting: Setting | undefined) {
		if (!setting) return;
		open = false;
		typed = '';
		// While the dialog is on its way out, nothing behind it can have the focus.
		while (document.querySelector('dialog[open]')) await new Promise(requestAnimationFrame);
		onfound(setting);
	}
	const said = ({ part, leaf }: Setting) => {
		const value = leavesOf(settingsAt(bench.draft.definition, part)).get(leaf.path);
		return value === undefined ? '' : valueWords(leaf.path, value);
	};
</script>

<Dialog bind:open title="Find a setting">
	<input
		class="field w-full"
		type="search"
		aria-label="Part and setting"
		placeholder="head size"
		bind:value={typed}
		onkeydown={(event) => {
			if (event.key === 'Enter') void choose(found[0]);
		}}
		{@attach (input) => input.focus()}
	/>
	<div class="mt-3 h-64 overflow-y-auto">
		<List
			label="Settings"
			items={found}
			key={({ part, leaf }) => `${part} ${leaf.path}`}
			chosen={undefined}
			onchoose={choose}
			itemClass={() => 'flex w-full min-h-7 items-baseline gap-3 rounded px-2 py-0.5 text-start hover:bg-desk'}
		>
			{#snippet item(setting)}
				<span class="flex-1">{setting.words}</span><span class="text-[12px] text-picked">{said(setting)}</span>
			{/snippet}
		</List>
		{#if !found.length}<p class="text-quiet">
				{typed.trim()
					? `No part has a setting of these words: “${typed.trim()}”.`
					: 'Words of a part and of what it sets, in any order. Enter leads to the first.'}
			</p>{/if}
	</div>
	{#snippet answers()}<Button onclick={() => (open = false)}>Close</Button>{/snippet}
</Dialog>
