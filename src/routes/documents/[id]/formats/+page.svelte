<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { pluralWord, plural } from '$lib/core/words.ts';
	import { goto } from '$app/navigation';
	import type { FormatView } from '$lib/server/documents/writing.ts';
	import { textAt } from '$lib/core/table/grid.ts';
	import ReadBackSheet from '$lib/ui/documents/ReadBackSheet.svelte';
	import PageView from '$lib/ui/print/PageView.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import TableGrid from '$lib/ui/table/TableGrid.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const WORDS: Record<FormatView['kind'], string> = {
		docx: 'DOCX, word-processed',
		odt: 'ODT, open text',
		html: 'HTML, web page',
		pdf: 'PDF, page',
		csv: 'CSV, rows'
	};
	let opened = $state<FormatView['kind']>();
	const ROWS = 8;
	const rows = $derived(
		Array.from({ length: Math.min(ROWS, data.grid.rows) }, (_, r) =>
			Array.from({ length: data.grid.columns }, (_, c) => textAt(data.grid, r, c)).join(', ')
		)
	);
	/** Only the part of a page that the table takes, so that it is as large as its neighbours. */
	function cropped({ page }: FormatView) {
		if (!page) return undefined;
		const bottom = Math.max(...page.lines.map(({ y2 }) => y2), ...page.texts.slice(0, -2).map(({ y }) => y));
		return { ...page, height: Math.min(page.height, bottom + 360_000) };
	}
	function summary({ kind, differences, lostWhat }: FormatView): string {
		if (kind === 'csv') return 'Rows have no looks.';
		if (kind === 'pdf') return 'Drawn as it is to look.';
		const lost = Object.keys(lostWhat);
		const said = differences
			? `${differences} ${pluralWord(differences, 'setting reads', 'settings read')} otherwise.`
			: 'Reads back as intended.';
		return lost.length ? `${said} Not sayable: ${lost.join(', ')}.` : said;
	}
</script>

<svelte:head><title>{data.name}, table {data.index + 1} in every format · Heptarch</title></svelte:head>
<Shortcuts list={[]} />

<TopBar title={data.name}>
	{#snippet facts()}
		<span class="chip">table {data.index + 1} of {data.tables}</span>
		<span class="chip">{data.style ? `in ${data.style}` : 'as it came'}</span>
	{/snippet}
	{#snippet actions()}
		<label class="flex items-center gap-2"
			>Table
			<select
				class="field w-20"
				aria-label="Table"
				value={data.index}
				onchange={(event) => goto(`?table=${event.currentTarget.value}`, { replaceState: true, keepFocus: true })}
			>
				{#each { length: data.tables } as _, i (i)}<option value={i}>{i + 1}</option>{/each}
			</select>
		</label>
		<Button href="/documents/{data.id}">Back to the document</Button>
	{/snippet}
</TopBar>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<main tabindex="0" class="min-h-0 flex-1 overflow-auto bg-desk/40 px-6 py-5" aria-label="The table in every format">
	<p class="mb-4 text-quiet">
		Each is a file that was written and read again by its own format’s rules; what stands here is what that file says.
	</p>
	<div class="grid grid-cols-2 gap-5">
		{#each [{ kind: 'wanted' as const }, ...data.views] as view (view.kind)}
			<section
				class="on-paper min-w-0 rounded-lg border border-hairline bg-sheet"
				aria-label={view.kind === 'wanted' ? 'As it is to look' : WORDS[view.kind]}
			>
				<header class="flex items-baseline gap-3 border-b border-hairline px-4 py-2">
					<h2 class="font-semibold">{view.kind === 'wanted' ? 'As it is to look' : WORDS[view.kind]}</h2>
					<p class={['text-[13px]', view.kind !== 'wanted' && view.differences ? 'text-error' : 'text-quiet']}>
						{view.kind === 'wanted'
							? `${plural(data.grid.rows, 'row')} × ${plural(data.grid.columns, 'column')}`
							: summary(view)}
					</p>
				</header>
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<div class="max-h-80 overflow-auto p-4" role="region" aria-label="Its cells" tabindex="0">
					{#if view.kind === 'wanted'}
						<TableGrid
							grid={data.grid}
							appearance={data.wanted}
							content={data.content}
							widths={data.widths}
							zoom={0.72}
							label="As it is to look"
						/>
					{:else if view.appearance}
						<TableGrid
							grid={data.grid}
							appearance={view.appearance}
							content={data.content}
							widths={data.widths}
							zoom={0.72}
							label={WORDS[view.kind]}
						/>
					{:else if view.page}
						<PageView page={cropped(view)!} label="The table on its page" />
					{:else}
						<pre class="font-mono text-[12px] leading-relaxed whitespace-pre-wrap">{rows.join('\n')}{data.grid.rows >
							ROWS
								? '\n…'
								: ''}</pre>
					{/if}
				</div>
				{#if view.kind !== 'wanted'}
					<footer class="flex items-center gap-2 border-t border-hairline px-4 py-2">
						{#if view.leaves.length}<Button
								small
								aria-expanded={opened === view.kind}
								onclick={() => (opened = opened === view.kind ? undefined : view.kind)}>By leaf</Button
							>{/if}
						<Button
							small
							class="ms-auto"
							href="/api/documents/{data.id}/file?as={view.kind}&tables={data.index}"
							download>Take this table as {view.kind.toUpperCase()}</Button
						>
					</footer>
					{#if opened === view.kind}<div class="px-4 pb-3"><ReadBackSheet accounts={[view.leaves]} /></div>{/if}
				{/if}
			</section>
		{/each}
	</div>
</main>
