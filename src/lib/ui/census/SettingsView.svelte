<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { CensusOf } from '$lib/server/census/among.ts';
	import type { Variation } from '$lib/server/census/read.ts';
	import Button from '../controls/Button.svelte';
	import RunDialog from '../documents/RunDialog.svelte';
	import { lyingBars } from './bars.ts';
	import Figure from './Figure.svelte';
	import TablesDialog from './TablesDialog.svelte';

	/** What tables set differently: each setting with what is in use of it, and the way to bring some of it to another. */
	let { found, of, query }: { found: readonly Variation[]; of: CensusOf; query: URLSearchParams } = $props();
	let at = $state('');
	const picked = $derived(found.find(({ setting }) => setting === at) ?? found[0]);
	let ticked = $state<string[]>([]);
	/** What the ticked are to be brought to; where nobody says, the most frequent of the others that is something. */
	let wanted = $state<string>();
	const others = $derived(picked?.values.filter(({ value, canBring }) => canBring && !ticked.includes(value)) ?? []);
	const to = $derived(
		others.find(({ value }) => value === wanted) ??
			others.find(({ value }) => value !== '"none"' && value !== 'null') ??
			others[0]
	);
	const tables = $derived(
		picked?.values.filter(({ value }) => ticked.includes(value)).reduce((sum, one) => sum + one.tables, 0) ?? 0
	);
	let bringing = $state(false);
	let listing = $state(false);
	const listed = $derived(
		new URLSearchParams([
			...query,
			['setting', picked?.setting ?? ''],
			...ticked.map((value) => ['value', value] as [string, string])
		])
	);
	function pick(setting: string) {
		at = setting;
		ticked = [];
		wanted = undefined;
	}
	const tick = (value: string) =>
		(ticked = ticked.includes(value) ? ticked.filter((one) => one !== value) : [...ticked, value]);
</script>

{#if !picked}
	<p class="font-title text-[22px]">Nothing varies: wherever tables have the same place, it looks the same.</p>
{:else}
	<p class="mb-4 max-w-3xl font-title text-[22px]" data-varies>
		{plural(found.length, 'setting varies', 'settings vary')}; most of all the {found[0]!.words}, in {found[0]!.all} ways.
	</p>
	<Figure
		title="How many ways there are"
		columns={[{ words: 'Setting' }, { words: 'Ways', isFigure: true }, { words: 'Tables', isFigure: true }]}
		rows={found.map(({ words, all, tables: count }) => [words, all, count])}
		height={Math.min(340, 70 + found.length * 24)}
		draw={lyingBars(
			found.slice(0, 12).map(({ words }) => words),
			[{ name: 'ways', ink: 'picked', values: found.slice(0, 12).map(({ all }) => all) }]
		)}
	>
		{#snippet first(row, words)}<button
				type="button"
				class={[
					'min-h-6 w-full truncate text-start hover:underline',
					picked.setting === found[row]!.setting && 'font-semibold text-picked'
				]}
				aria-pressed={picked.setting === found[row]!.setting}
				onclick={() => pick(found[row]!.setting)}>{words}</button
			>{/snippet}
	</Figure>
	<section class="card px-5 py-4" aria-label="The {picked.words}">
		<div class="mb-2 flex flex-wrap items-center gap-2">
			<h2 class="font-semibold first-letter:uppercase">{picked.words}</h2>
			<p class="text-quiet">
				{plural(picked.all, 'way')} in {plural(picked.tables, 'table')}{picked.all > picked.values.length
					? `; the ${picked.values.length} most frequent`
					: ''}
			</p>
			<span class="ms-auto flex items-center gap-2">
				<Button small disabled={!ticked.length} onclick={() => (listing = true)}>Which tables…</Button>
				{#if to && ticked.length}
					<label class="flex items-center gap-2"
						>Bring {pluralWord(ticked.length, 'it', 'these')} to
						<select
							class="field w-56"
							aria-label="What to bring them to"
							value={to.value}
							onchange={(event) => (wanted = event.currentTarget.value)}
						>
							{#each others as { value, words } (value)}<option {value}>{words}</option>{/each}
						</select></label
					>
				{/if}
				<Button needs="author" small disabled={!ticked.length || !to} onclick={() => (bringing = true)}
					>{ticked.length ? `Bring ${plural(tables, 'table')}…` : 'Tick what is to be brought'}</Button
				>
			</span>
		</div>
		<p class="mb-2 text-[12px] text-quiet">
			It is set on the cells themselves, over whatever the table wears. Where a house style says it, change the style
			instead.
		</p>
		<ul aria-label="What is in use">
			{#each picked.values as { value, words, ink, tables: count, documents } (value)}
				<li class="border-b border-hairline last:border-0">
					<label class="grid min-h-8 grid-cols-[20px_22px_minmax(0,220px)_minmax(0,1fr)_150px] items-center gap-2 py-1">
						<input
							type="checkbox"
							class="rounded-sm text-picked"
							checked={ticked.includes(value)}
							onchange={() => tick(value)}
						/>
						<span class={['h-4 w-4 rounded-xs', ink && 'border border-hairline']} style={ink ? `background:${ink}` : ''}
						></span>
						<span class="truncate">{words}</span>
						<span class="h-2.5 overflow-hidden rounded-full bg-desk" aria-hidden="true"
							><span class="block h-full bg-picked" style="width:{(100 * count) / picked.tables}%"></span></span
						>
						<span class="text-end text-quiet tabular-nums">{plural(count, 'table')}, {plural(documents, 'file')}</span>
					</label>
				</li>
			{/each}
		</ul>
	</section>
	{#if to}
		<RunDialog
			bind:open={bringing}
			title="Bring the {picked.words} to {to.words}"
			lead="Cells of these tables are set to it, where they show anything else."
			what={{
				...of,
				bring: { setting: picked.setting, value: to.value },
				among: { setting: picked.setting, values: ticked }
			}}
		/>
	{/if}
	<TablesDialog bind:open={listing} title="The {picked.words}" query={listed} />
{/if}
