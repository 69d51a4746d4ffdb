<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { pluralWord } from '$lib/core/words.ts';
	import { compareStyles } from '$lib/core/style/compare.ts';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { partWords } from '$lib/core/style/parts.ts';
	import type { Style } from '$lib/core/style/types.ts';
	import type { Emu } from '$lib/core/units.ts';
	import type { Excerpt } from '$lib/workbench/excerpt.ts';
	import BeforeAfter from './BeforeAfter.svelte';

	/** Two editions (or one and the draft) next to each other: in pictures and setting by setting. */
	interface Props {
		versions: readonly { readonly key: string; readonly words: string; readonly style: Style }[];
		excerpt: Excerpt;
		widths?: readonly Emu[];
		house: House;
	}
	let { versions, excerpt, widths, house }: Props = $props();
	let left = $state<string>();
	let right = $state<string>();
	const from = $derived(versions.find(({ key }) => key === left) ?? versions[1] ?? versions[0]!);
	const to = $derived(versions.find(({ key }) => key === right) ?? versions[0]!);
	const flats = $derived([flatten(from.style), flatten(to.style)] as const);
	const differences = $derived(compareStyles(...flats));
</script>

<section class="card px-4 py-3" aria-label="Compare">
	<div class="mb-2 flex items-center gap-2">
		<h2 class="font-semibold">Compare</h2>
		<select
			class="field"
			aria-label="Compare this"
			value={from.key}
			onchange={(event) => (left = event.currentTarget.value)}
		>
			{#each versions as { key, words } (key)}<option value={key}>{words}</option>{/each}
		</select>
		<span class="text-quiet">with</span>
		<select
			class="field"
			aria-label="Compare with"
			value={to.key}
			onchange={(event) => (right = event.currentTarget.value)}
		>
			{#each versions as { key, words } (key)}<option value={key}>{words}</option>{/each}
		</select>
		<span class="ms-auto text-quiet"
			>{differences.length} {pluralWord(differences.length, 'setting differs', 'settings differ')}</span
		>
	</div>
	<BeforeAfter
		{excerpt}
		before={flats[0]}
		after={flats[1]}
		{house}
		words={[from.words, to.words]}
		{...widths && { widths }}
	/>
	{#if differences.length}
		<table class="mt-3 w-full text-[12.5px]" aria-label="What differs">
			<thead class="text-start text-quiet"
				><tr
					><th class="py-1 text-start font-normal">Part</th><th class="text-start font-normal">Setting</th><th
						class="text-start font-normal">{from.words}</th
					><th class="text-start font-normal">{to.words}</th></tr
				></thead
			>
			<tbody>
				{#each differences as { place, what, before, after } (`${place} ${what}`)}
					<tr class="border-t border-hairline"
						><td class="py-1">{partWords(place)}</td><td>{what}</td><td>{before ?? 'not set'}</td><td
							>{after ?? 'not set'}</td
						></tr
					>
				{/each}
			</tbody>
		</table>
	{:else}
		<p class="mt-2 text-quiet">They say the same.</p>
	{/if}
</section>
