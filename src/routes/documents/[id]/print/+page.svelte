<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { goto } from '$app/navigation';
	import { PAPERS, type PaperName } from '$lib/core/layout/paper.ts';
	import PageView from '$lib/ui/print/PageView.svelte';
	import InView from '$lib/ui/shell/InView.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const PAPER_WORDS: Record<PaperName, string> = { A3: 'A3', A4: 'A4', A5: 'A5', letter: 'US letter' };
	const address = (paper: PaperName, across: boolean) =>
		new URLSearchParams({
			paper,
			...(across && { across: '1' }),
			...(data.only && { tables: data.only.join(',') })
		}).toString();
	const change = (paper: PaperName, across: boolean) =>
		goto(`?${address(paper, across)}`, { replaceState: true, noScroll: true, keepFocus: true });
	const WIDTH = 620;
	const width = $derived(data.paper.across ? WIDTH * Math.SQRT2 : WIDTH);
	const height = $derived(data.pages[0] ? (width * data.pages[0].height) / data.pages[0].width : 0);
</script>

<svelte:head><title>{data.name}, pages · Heptarch</title></svelte:head>
<Shortcuts list={[]} />

<TopBar title={data.name}>
	{#snippet facts()}
		<span class="chip">{plural(data.pages.length, 'page')}</span>
		{#if data.only}<span class="chip"
				>only {pluralWord(data.only.length, `table ${data.only[0]! + 1}`, `${data.only.length} tables`)}</span
			>{/if}
	{/snippet}
	{#snippet actions()}
		<label class="flex items-center gap-2"
			>Paper
			<select
				class="field w-28"
				aria-label="Paper"
				value={data.paper.name}
				onchange={(event) => change(event.currentTarget.value as PaperName, data.paper.across)}
			>
				{#each Object.keys(PAPERS) as PaperName[] as name (name)}<option value={name}>{PAPER_WORDS[name]}</option
					>{/each}
			</select>
		</label>
		<Button aria-pressed={data.paper.across} onclick={() => change(data.paper.name, !data.paper.across)}
			>{data.paper.across ? 'On its long side' : 'Upright'}</Button
		>
		<Button href="/documents/{data.id}">Back to the document</Button>
		<Button primary href="/api/documents/{data.id}/file?as=pdf&{address(data.paper.name, data.paper.across)}" download
			>Take the PDF</Button
		>
	{/snippet}
</TopBar>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<main tabindex="0" class="min-h-0 flex-1 overflow-auto bg-desk px-6 py-6" aria-label="Pages">
	{#each data.remarks as remark (remark)}<p class="mx-auto mb-4 text-warning-text" style="max-width:{width}px">
			{remark}
		</p>{/each}
	{#each data.pages as page, i (i)}
		<div class="mx-auto mb-6" style="width:{width}px;max-width:100%">
			<InView {height}><PageView {page} label="Page {i + 1} of {data.pages.length}" /></InView>
		</div>
	{/each}
</main>
