<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import type { Reached } from '$lib/workbench/reach.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import Button from '../controls/Button.svelte';
	import BeforeAfter from '../editions/BeforeAfter.svelte';
	import Dialog from '../shell/Dialog.svelte';

	/** What one click is about to change in several styles: which, how many tables wear them, and each before and after. */
	interface Props {
		open: boolean;
		title: string;
		/** What is changed beside styles, a line each. */
		lines?: readonly string[];
		reached: readonly Reached[];
		house: { readonly before: House; readonly after: House };
		/** What the button that does it says. */
		does: string;
		ondo: () => void;
	}
	let { open = $bindable(), title, lines = [], reached, house, does, ondo }: Props = $props();
	const { table, content } = builtInSpecimen();
	const sample = excerpt(table, content, 8);
	const tables = $derived(reached.reduce((sum, { worn }) => sum + worn.tables, 0));
	let looked = $state<string>();
	const shown = $derived(reached.find(({ id }) => id === looked) ?? reached[0]);
</script>

<Dialog bind:open {title} wide>
	{#if lines.length}
		<ul class="mb-3 max-h-40 overflow-y-auto" aria-label="What is changed">
			{#each lines as line (line)}<li>{line}</li>{/each}
		</ul>
	{/if}
	{#if reached.length}
		<p>
			{plural(reached.length, 'style')}
			{reached.length === 1 ? 'looks' : 'look'} different then{tables
				? `; ${plural(tables, 'table')} ${pluralWord(tables, 'wears', 'wear')} ${reached.length === 1 ? 'it' : 'them'}`
				: ''}.
			{#if tables}
				<span class="text-quiet">Documents wear editions, so nothing in them changes until one is published.</span>
			{/if}
		</p>
		<ul class="my-2 flex flex-wrap gap-1.5" aria-label="Styles that are reached">
			{#each reached as one (one.id)}
				<li>
					<button
						type="button"
						class={['chip', one === shown && 'on']}
						aria-pressed={one === shown}
						onclick={() => (looked = one.id)}
						>{one.name}{one.worn.tables ? ` · ${plural(one.worn.tables, 'table')}` : ''}</button
					>
				</li>
			{/each}
		</ul>
		{#if shown}
			<BeforeAfter
				excerpt={sample}
				before={shown.before}
				after={shown.after}
				house={house.before}
				houseAfter={house.after}
				words={[`${shown.name} now`, 'and then']}
			/>
		{/if}
	{:else}
		<p class="text-quiet">No style looks different for it.</p>
	{/if}
	<p class="mt-3 text-quiet">Ctrl+Z takes all of it back, in every style.</p>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Leave it</Button>
		<Button
			primary
			onclick={() => {
				open = false;
				ondo();
			}}>{does}</Button
		>
	{/snippet}
</Dialog>
