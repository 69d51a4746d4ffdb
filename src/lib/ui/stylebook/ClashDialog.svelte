<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { pluralWord } from '$lib/core/words.ts';
	import type { StyleClash } from '$lib/server/styles/arriving.ts';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import type { ClashChoice } from '$lib/workbench/stylebook.ts';
	import Button from '../controls/Button.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import BeforeAfter from '../editions/BeforeAfter.svelte';
	import Dialog from '../shell/Dialog.svelte';

	/** Asks what becomes of styles that a file brings under names that the house has for others. */
	interface Props {
		open: boolean;
		file: string;
		clashes: readonly StyleClash[];
		house: House;
		/** Undefined: nothing of the file is taken in. */
		onchoose: (choices: Record<string, ClashChoice> | undefined) => void;
	}
	let { open = $bindable(), file, clashes, house, onchoose }: Props = $props();
	let chosen = $state<Record<string, ClashChoice>>({});
	const { table, content } = builtInSpecimen();
	const sample = excerpt(table, content, 7);
	const choiceOf = (name: string): ClashChoice => chosen[name] ?? 'both';
	const WORDS: readonly (readonly [ClashChoice, string])[] = [
		['both', 'keep both'],
		['ours', 'it is the same: keep ours'],
		['instead', 'put it in place of ours']
	];
	let isAnswered = false;
	function answer(choices: Record<string, ClashChoice> | undefined) {
		isAnswered = true;
		open = false;
		onchoose(choices);
	}
	$effect(() => {
		if (!open && !isAnswered) answer(undefined);
	});
</script>

<Dialog bind:open title="“{file}” brings {pluralWord(clashes.length, 'a name', 'names')} that the house has" wide>
	<ul class="-mx-1 flex max-h-[60vh] flex-col gap-5 overflow-y-auto px-1">
		{#each clashes as { name, ours, theirs } (name)}
			<li>
				<h3 class="mb-1.5 font-semibold">{name}</h3>
				<BeforeAfter
					excerpt={sample}
					before={flatten(ours)}
					after={flatten(theirs)}
					{house}
					words={['ours', `in “${file}”`]}
				/>
				<Segmented
					class="mt-2 gap-1!"
					label="What becomes of {name}"
					options={WORDS}
					value={choiceOf(name)}
					onchange={(choice) => (chosen = { ...chosen, [name]: choice })}
				/>
				<p class="mt-1 text-[12px] text-quiet">
					{#if choiceOf(name) === 'both'}
						The other one gets a number behind its name.
					{:else if choiceOf(name) === 'ours'}
						Styles of the file that build on it build on ours.
					{:else}
						Ours becomes that in one step, which its bench takes back. Documents wear what was published until an
						edition is.
					{/if}
				</p>
			</li>
		{/each}
	</ul>
	{#snippet answers()}
		<Button onclick={() => answer(undefined)}>Take nothing in</Button>
		<Button primary onclick={() => answer(Object.fromEntries(clashes.map(({ name }) => [name, choiceOf(name)])))}
			>Take them in</Button
		>
	{/snippet}
</Dialog>
