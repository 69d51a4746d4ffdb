<script lang="ts">
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve } from '$lib/core/cascade/resolve.ts';
	import type { House } from '$lib/core/house.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import { thumbnailOf } from '$lib/workbench/thumbnail.ts';
	import Button from '../controls/Button.svelte';
	import InView from '../shell/InView.svelte';
	import TablePicture from '../stylebook/TablePicture.svelte';
	import type { DocumentView } from './view.svelte.ts';

	/** All tables of a document at once, small: as they came, and as they are or would be; ticked by hand or by likeness. */
	interface Props {
		view: DocumentView;
		house: House;
		where: (index: number) => string;
		/** Shows a table on the page. */
		onopen: (index: number) => void;
	}
	let { view, house, where, onopen }: Props = $props();
	const HEIGHT = 118;
	const scoped = $derived(new Set(view.scoped));
	const ticked = $derived(new Set(view.ticked));

	function pictures(index: number) {
		const entry = view.tables[index]!;
		const { state, style } = view.shown(index);
		const table = stateTable(entry, state);
		const before = thumbnailOf('', table, entry.appearance, entry.widths);
		if (!style) return { before };
		const appearance = appearanceOf(resolve(table, style, house), entry.appearance);
		return { before, after: thumbnailOf('', table, appearance, entry.widths) };
	}
	function tickThese(indices: readonly number[]) {
		view.ticked = [...indices];
		view.scope = 'ticked';
	}
	const here = $derived(view.tables.filter(() => true));
	const all = $derived(view.all);
</script>

<div class="mb-3 flex flex-wrap items-center gap-2">
	<Button small onclick={() => tickThese(all)}>Tick all {all.length}</Button>
	<Button small disabled={!ticked.size} onclick={() => tickThese([])}>Tick none</Button>
	<Button small onclick={() => tickThese(view.alike)}
		>Tick those like table {view.picked + 1} ({view.alike.length})</Button
	>
	<span class="ms-auto text-quiet">{ticked.size} ticked; what is outlined takes what you choose at the side</span>
</div>
<ul class="grid grid-cols-[repeat(auto-fill,minmax(240px,1fr))] items-start gap-4" aria-label="All tables">
	{#each here as { index, place } (index)}
		{@const title = place.caption ?? place.heading ?? where(index)}
		<li
			class={['card overflow-hidden', scoped.has(index) && 'border-picked! ring-1 ring-picked']}
			aria-label="Table {index + 1}"
		>
			<div class="flex items-center gap-2 border-b border-hairline px-3 py-1.5">
				<input
					type="checkbox"
					class="h-4 w-4 shrink-0 rounded-sm text-picked"
					aria-label="Tick table {index + 1}, {title}"
					checked={ticked.has(index)}
					onchange={() => view.tick(index)}
				/>
				<button
					type="button"
					class={['min-h-6 min-w-0 flex-1 truncate text-start', view.picked === index && 'font-semibold text-picked']}
					aria-pressed={view.picked === index}
					title="{title}: {where(index)}"
					onclick={() => view.pick(index)}><strong class="tabular-nums">{index + 1}</strong> {title}</button
				>
				<button
					type="button"
					class="min-h-6 shrink-0 text-[12px] text-quiet hover:text-ink hover:underline"
					aria-label="Show table {index + 1} on the page"
					onclick={() => onopen(index)}>on the page</button
				>
			</div>
			<InView height={2 * HEIGHT + 41}>
				{@const { before, after } = pictures(index)}
				<TablePicture picture={before} height={HEIGHT} />
				<p class="border-y border-hairline px-3 py-0.5 text-[12px] text-quiet">
					{after ? `as it came · below: ${view.isDirty || view.pointed ? 'as it would be' : 'as it is'}` : 'as it came'}
				</p>
				{#if after}<TablePicture picture={after} height={HEIGHT} />{/if}
			</InView>
		</li>
	{/each}
</ul>
