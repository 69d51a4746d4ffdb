<script lang="ts">
	import { goto, invalidate } from '$app/navigation';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { kindWords } from '$lib/formats/kinds.ts';
	import FindingsView from '$lib/ui/census/FindingsView.svelte';
	import LooksView from '$lib/ui/census/LooksView.svelte';
	import SettingsView from '$lib/ui/census/SettingsView.svelte';
	import ShareView from '$lib/ui/census/ShareView.svelte';
	import { CENSUS_VIEWS, type CensusView } from '$lib/ui/census/views.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import TabPanel from '$lib/ui/controls/TabPanel.svelte';
	import Tabs from '$lib/ui/controls/Tabs.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';

	let { data } = $props();
	const of = $derived(data.of);
	/** What of the address says which documents the census is of. */
	const query = $derived(
		new URLSearchParams([
			...(of.kind ? [['kind', of.kind] as [string, string]] : []),
			...(of.documents ? [['documents', of.documents.join()] as [string, string]] : [])
		])
	);
	function show(view: CensusView, kind: string | undefined) {
		const next = new URLSearchParams({ view });
		if (kind) next.set('kind', kind);
		if (of.documents) next.set('documents', of.documents.join());
		void goto(`?${next.toString()}`, { keepFocus: true, noScroll: true });
	}
	// What is still being counted arrives by itself.
	$effect(() => {
		if (!data.facts.waiting) return;
		const timer = setTimeout(() => void invalidate('heptarch:census'), 1_500);
		return () => clearTimeout(timer);
	});
</script>

<svelte:head><title>Census · Heptarch</title></svelte:head>
<Shortcuts list={[]} />
<TopBar title="Census">
	{#snippet facts()}
		<span class="chip"
			>{plural(data.facts.tables, 'table')} in {plural(data.facts.documents, 'document')}{of.documents
				? ', chosen'
				: ''}</span
		>
		{#if data.facts.layout}<span class="text-quiet">{plural(data.facts.layout, 'layout table')} left out</span>{/if}
		{#if data.facts.waiting}<span class="chip on" aria-live="polite"
				>{plural(data.facts.waiting, 'document')} still being counted</span
			>{/if}
	{/snippet}
	{#snippet actions()}
		{#if of.documents}<Button href="/census?view={data.view}">All documents</Button>{/if}
		<select
			class="field w-44"
			aria-label="Kind of document"
			value={of.kind ?? ''}
			onchange={(event) => show(data.view, event.currentTarget.value || undefined)}
		>
			<option value="">every kind</option>
			{#each data.facts.kinds as kind (kind)}<option value={kind}>{kindWords(kind)}</option>{/each}
		</select>
		<Button href="/house/policy">Policy…</Button>
	{/snippet}
</TopBar>

<Tabs
	look="line"
	class="px-5"
	label="What of the census"
	id="census"
	tabs={CENSUS_VIEWS.map(({ view, words }) => [view, words] as const)}
	chosen={data.view}
	onchoose={(view) => show(view, of.kind)}
/>
<main class="min-h-0 flex-1 overflow-y-auto px-5 py-4" aria-label="Census">
	<TabPanel id="census" chosen={data.view}>
		{#if data.facts.documents === 0}
			<div class="mx-auto mt-16 max-w-lg text-center">
				<p class="font-title text-[24px]">Nothing to count yet</p>
				<p class="mt-2 mb-4 text-quiet">
					Add documents, and here stands how consistent they are: what wears a house style, how many looks there are,
					and which settings vary.
				</p>
				<Button primary href="/documents">Add documents…</Button>
			</div>
		{:else}
			{#if data.facts.faults.length}
				<details class="mb-4 rounded-lg bg-warning-wash px-4 py-2">
					<summary class="text-warning-text"
						>{plural(data.facts.faults.length, 'document')} could not be counted and {pluralWord(
							data.facts.faults.length,
							'is',
							'are'
						)} not part of this</summary
					>
					<ul class="mt-2">
						{#each data.facts.faults as { id, name, why } (id)}<li>
								<a class="underline" href="/documents/{id}">{name}</a>: {why}
							</li>{/each}
					</ul>
				</details>
			{/if}
			{#if data.share}<ShareView found={data.share} />
			{:else if data.looks}<LooksView found={data.looks} {of} {query} styles={data.styles} />
			{:else if data.settings}<SettingsView found={data.settings} {of} {query} />
			{:else if data.findings}<FindingsView found={data.findings} {query} />{/if}
		{/if}
	</TabPanel>
</main>
