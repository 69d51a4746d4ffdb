<script lang="ts">
	import { pluralWord } from '$lib/core/words.ts';
	import { leftOutWords } from '$lib/core/recognise/purpose/kinds.ts';
	import { partsInUse } from '$lib/workbench/parts.ts';
	import { without } from '$lib/workbench/table.ts';
	import Button from '../controls/Button.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import StyleDock from './StyleDock.svelte';
	import type { DocumentView } from './view.svelte.ts';

	/** What the tables of the scope are to wear, and what else can be done with the picked one. */
	interface Props {
		view: DocumentView;
		hasOneTable: boolean;
		onmatch: () => void;
		onlift: () => void;
		ontakeout: () => void;
	}
	let { view, hasOneTable, onmatch, onlift, ontakeout }: Props = $props();
	const leftWords = $derived(leftOutWords(view.leftOut.map((index) => view.purposeAt(index))));
	/** The parts that the picked table has, as switches. */
	const parts = $derived(
		partsInUse(view.pickedTable.roles).filter(
			({ name }) =>
				(name !== 'firstColumn' || view.pickedTable.firstColumns) &&
				(name !== 'lastColumn' || view.pickedTable.lastColumns)
		)
	);
</script>

<Segmented
	look="bar"
	class="mb-3.5"
	label="Scope"
	options={[
		['this', 'This table'],
		['alike', `Like it · ${view.alike.length}`],
		['ticked', `Ticked · ${view.ticked.length}`],
		['all', `All · ${view.whole.length}`]
	]}
	value={view.scope}
	onchange={(key) => (view.scope = key)}
/>
{#if view.scope === 'ticked' && view.ticked.length === 0}<p class="mb-3 text-quiet">
		Tick tables in the strip above the page.
	</p>{/if}
{#if view.scope === 'all' && view.leftOut.length}
	<p class="mb-3 text-quiet">
		{#if view.takesAll}The {leftWords} wear it, too.{:else}And {leftWords} left as {pluralWord(
				view.leftOut.length,
				'it is',
				'they are'
			)}.{/if}
		<button type="button" class="underline hover:text-ink" onclick={() => (view.takesAll = !view.takesAll)}
			>{view.takesAll ? 'Leave them out' : pluralWord(view.leftOut.length, 'Take it in', 'Take them in')}</button
		>
	</p>
{/if}
<StyleDock
	book={view.book}
	sample={view.sample}
	widths={view.entry.widths}
	chosen={view.chosen}
	partsOff={view.partsOff}
	carry={view.carry}
	{parts}
	onpoint={(style) => (view.pointed = style)}
	onchoose={(style) => (view.draft = { ...without(view.draft, 'cleared'), style })}
	onparts={(off) => (view.draft = { ...view.draft, partsOff: off })}
	oncarry={(aspects) => (view.draft = { ...view.draft, carry: aspects })}
/>
<h3 class="mt-4 mb-1.5 font-semibold" id="own">Of its own</h3>
<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="own">
	<button
		type="button"
		class={['chip', view.isCleared && 'on']}
		aria-pressed={view.isCleared}
		title="Takes every look off: no fill, no lines, plain text"
		onclick={() =>
			(view.draft = view.isCleared
				? without(view.draft, 'cleared')
				: { ...without(view.draft, 'style', 'partsOff', 'carry'), cleared: true })}>nothing but text</button
	>
	<button
		type="button"
		class={['chip', view.dropsEmphasis ? 'off' : 'on']}
		aria-pressed={!view.dropsEmphasis}
		title="Bold, italic and coloured words inside the cells"
		onclick={() => (view.draft = { ...view.draft, dropsEmphasis: !view.dropsEmphasis })}
		>emphasis inside the text</button
	>
</div>
<h3 class="mt-4 mb-1.5 font-semibold" id="model">Table {view.picked + 1}</h3>
<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="model">
	<Button
		small
		disabled={!view.wornStyle || view.isDirty || view.others.length === 0}
		title={view.wornStyle
			? 'The other tables of the scope get its style, parts in use and carry'
			: 'It wears no house style yet'}
		onclick={() => onmatch()}>Match {view.others.length} others to it…</Button
	>
	<Button small onclick={() => onlift()}>Lift a style from it…</Button>
	<Button small href="/documents/{view.id}/bench?table={view.picked}">Work on it…</Button>
	<Button small href="/documents/{view.id}/formats?table={view.picked}">See it in every format</Button>
	{#if !hasOneTable}
		<Button small onclick={() => ontakeout()}>Take it out…</Button>
	{/if}
</div>
{#if view.own.touches?.length}
	{@const count = view.own.touches!.length}
	<p class="mt-2 text-quiet">
		{count}
		{pluralWord(count, 'cell has', 'cells have')} touches of their own.
		<button type="button" class="underline hover:text-ink" onclick={() => view.dropTouches()}>Take them off</button>
	</p>
{/if}
{#if view.wornStyle && view.newest !== undefined}
	{@const { edition, pinned } = view.own}
	{@const isTrying = view.trying === view.own.style && !!view.wornStyle.unpublished}
	<h3 class="mt-4 mb-1.5 font-semibold" id="edition">Edition</h3>
	<p class="mb-1.5 text-quiet">
		{#if edition === view.newest}This table wears edition {edition}, the newest.{:else}This table wears edition {edition};
			edition {view.newest} is out.{/if}
		{#if isTrying}The page shows the draft now; nothing of that is kept.{/if}
	</p>
	<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="edition">
		<button type="button" class={['chip', !pinned && 'on']} aria-pressed={!pinned} onclick={() => view.pin(false)}
			>follows</button
		>
		<button type="button" class={['chip', pinned && 'on']} aria-pressed={!!pinned} onclick={() => view.pin(true)}
			>pinned to edition {edition}</button
		>
		{#if view.wornStyle.unpublished}<button
				type="button"
				class={['chip', isTrying && 'on']}
				aria-pressed={isTrying}
				title="Shows the tables of this document that wear it as the draft says; nothing is kept"
				onclick={() => view.tryDraft()}>try the draft</button
			>{/if}
		{#if edition !== view.newest}<Button small onclick={() => view.takeNewest()}>Take edition {view.newest}</Button
			>{/if}
	</div>
{/if}
