<script lang="ts">
	import { findingCalled } from '$lib/core/findings/index.ts';
	import { plural } from '$lib/core/words.ts';
	import type { loadFindings } from '$lib/server/census/read.ts';
	import { lyingBars } from './bars.ts';
	import { dayWords, overTime } from './days.ts';
	import Figure from './Figure.svelte';
	import TablesDialog from './TablesDialog.svelte';

	/** What should be looked at: by kind, over time, by document. */
	let { found, query }: { found: Awaited<ReturnType<typeof loadFindings>>; query: URLSearchParams } = $props();
	const { byKind, byDocument, days } = $derived(found);
	const known = $derived(days.filter(({ findings }) => findings !== null));
	const all = $derived(byKind.reduce((sum, { count }) => sum + count, 0));
	let listed = $state<string>();
	let listing = $state(false);
</script>

<p class="mb-4 max-w-3xl font-title text-[22px]" data-findings>
	{all ? `${plural(all, 'finding')}, of ${plural(byKind.length, 'kind')}.` : 'Nothing to look at.'}
</p>
{#if all}
	<Figure
		title="By kind"
		height={70 + byKind.length * 28}
		columns={[
			{ words: 'Finding' },
			{ words: 'Times', isFigure: true },
			{ words: 'Tables', isFigure: true },
			{ words: 'Files', isFigure: true }
		]}
		rows={byKind.map(({ kind, count, tables, documents }) => [findingCalled(kind), count, tables, documents])}
		draw={lyingBars(
			byKind.map(({ kind }) => findingCalled(kind)),
			[{ name: 'times', ink: 'warning', values: byKind.map(({ count }) => count) }]
		)}
	>
		{#snippet first(row, words)}<button
				type="button"
				class="min-h-6 w-full truncate text-start underline decoration-hairline hover:decoration-current"
				onclick={() => {
					listed = byKind[row]!.kind;
					listing = true;
				}}>{words}</button
			>{/snippet}
	</Figure>
	<Figure
		title="Findings over time"
		lead="Of the documents that are here now, at the end of each day on which one of them changed."
		columns={[{ words: 'Day' }, { words: 'Findings', isFigure: true }]}
		rows={known.toReversed().map(({ day, findings }) => [dayWords(day), findings!])}
		draw={overTime(known, 'findings', ({ findings }) => findings)}
	/>
	<Figure
		title="By document"
		columns={[{ words: 'Document' }, { words: 'Findings', isFigure: true }, { words: 'Tables', isFigure: true }]}
		rows={byDocument.map(({ name, count, tables }) => [name, count, tables])}
		height={Math.min(420, 70 + byDocument.length * 26)}
		draw={lyingBars(
			byDocument.slice(0, 14).map(({ name }) => name),
			[{ name: 'findings', ink: 'warning', values: byDocument.slice(0, 14).map(({ count }) => count) }]
		)}
	>
		{#snippet first(row, words)}<a class="hover:underline" href="/documents/{byDocument[row]!.id}">{words}</a>{/snippet}
	</Figure>
{/if}
<TablesDialog
	bind:open={listing}
	title={findingCalled(listed ?? '')}
	query={new URLSearchParams([...query, ['finding', listed ?? '']])}
/>
