<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { kindWords } from '$lib/formats/kinds.ts';
	import type { loadShare } from '$lib/server/census/read.ts';
	import { addressOf } from '../documents/kinds.ts';
	import { lyingBars } from './bars.ts';
	import { dayWords, overTime, share } from './days.ts';
	import Figure from './Figure.svelte';

	/** How much of the house is in house styles. */
	let { found }: { found: Awaited<ReturnType<typeof loadShare>> } = $props();
	const { byKind, byDocument, byPerson, editions, days } = $derived(found);
	const tables = $derived(byKind.reduce((sum, one) => sum + one.tables, 0));
	const styled = $derived(byKind.reduce((sum, one) => sum + one.styled, 0));
	const behind = $derived(editions.reduce((sum, one) => sum + (one.edition < one.newest ? one.tables : 0), 0));
	const byStyle = $derived(
		[...new Set(editions.map(({ id }) => id))].map((id) => {
			const own = editions.filter((one) => one.id === id);
			const of = (isNewest: boolean) =>
				own.filter((one) => (one.edition === one.newest) === isNewest).reduce((sum, one) => sum + one.tables, 0);
			return { name: own[0]!.name, newest: of(true), older: of(false) };
		})
	);
	interface Shared {
		readonly words: string;
		readonly documents: number;
		readonly tables: number;
		readonly styled: number;
	}
	const rest = (one: { tables: number; styled: number }) => one.tables - one.styled;
</script>

<p class="mb-4 max-w-3xl font-title text-[22px]" data-share>
	{styled} of {plural(tables, 'table')}
	{pluralWord(styled, 'wears', 'wear')} a house style, {share(styled, tables)} %{behind
		? `; ${behind} of them ${pluralWord(behind, 'is', 'are')} behind the newest edition`
		: ''}.
</p>

{#snippet shares(title: string, of: string, list: readonly Shared[], lead?: string)}
	<Figure
		{title}
		{lead}
		height={90 + list.length * 26}
		columns={[
			{ words: of },
			{ words: 'Files', isFigure: true },
			{ words: 'Tables', isFigure: true },
			{ words: 'In style', isFigure: true },
			{ words: '%', isFigure: true }
		]}
		rows={list.map((one) => [one.words, one.documents, one.tables, one.styled, share(one.styled, one.tables)])}
		draw={lyingBars(
			list.map(({ words }) => words),
			[
				{ name: 'in a house style', ink: 'picked', values: list.map(({ styled }) => styled) },
				{ name: 'not', ink: 'hairline', values: list.map(rest) }
			]
		)}
	/>
{/snippet}
{@render shares(
	'By kind of file',
	'Kind',
	byKind.map((one) => ({ ...one, words: kindWords(one.kind) }))
)}
{#if byPerson.length > 1}
	{@render shares(
		'By person',
		'Person',
		byPerson.map((one) => ({ ...one, words: one.name ?? 'nobody said who' })),
		'By who worked on the document last.'
	)}
{/if}

<Figure
	title="Over time"
	lead="Of the documents that are here now, at the end of each day on which one of them changed."
	columns={[
		{ words: 'Day' },
		{ words: 'Tables', isFigure: true },
		{ words: 'In style', isFigure: true },
		{ words: '%', isFigure: true }
	]}
	rows={days.toReversed().map((day) => [dayWords(day.day), day.tables, day.styled, share(day.styled, day.tables)])}
	draw={overTime(days, '% in a house style', (day) => share(day.styled, day.tables), 100)}
/>

{#if editions.length}
	<Figure
		title="By edition"
		height={90 + byStyle.length * 26}
		lead="What a table wears stays until a newer edition is rolled out."
		columns={[
			{ words: 'Style' },
			{ words: 'Edition', isFigure: true },
			{ words: 'Newest', isFigure: true },
			{ words: 'Tables', isFigure: true }
		]}
		rows={editions.map(({ name, edition, newest, tables: count }) => [name, edition, newest, count])}
		draw={lyingBars(
			byStyle.map(({ name }) => name),
			[
				{ name: 'newest edition', ink: 'picked', values: byStyle.map(({ newest }) => newest) },
				{ name: 'behind', ink: 'hairline', values: byStyle.map(({ older }) => older) }
			]
		)}
	>
		{#snippet first(row, words)}<a class="hover:underline" href="/stylebook/{editions[row]!.id}/editions">{words}</a
			>{/snippet}
	</Figure>
{/if}

<Figure
	title="By document"
	lead="Those with most tables in no house style stand first."
	columns={[
		{ words: 'Document' },
		{ words: 'Tables', isFigure: true },
		{ words: 'In style', isFigure: true },
		{ words: 'Looks', isFigure: true }
	]}
	rows={byDocument.map((one) => [one.name, one.tables, one.styled, one.looks])}
	height={Math.min(460, 90 + byDocument.length * 26)}
	draw={lyingBars(
		byDocument.slice(0, 14).map(({ name }) => name),
		[
			{ name: 'in a house style', ink: 'picked', values: byDocument.slice(0, 14).map((one) => one.styled) },
			{ name: 'not', ink: 'hairline', values: byDocument.slice(0, 14).map(rest) }
		]
	)}
>
	{#snippet first(row, words)}<a class="hover:underline" href={addressOf(byDocument[row]!)}>{words}</a>{/snippet}
</Figure>
