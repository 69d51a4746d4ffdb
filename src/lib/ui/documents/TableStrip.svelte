<script lang="ts">
	import { rovingBar } from '../controls/roving.ts';
	import type { Snippet } from 'svelte';
	import type { Stretch } from '$lib/workbench/stretch.ts';
	import type { DocumentTable } from '$lib/formats/document.ts';

	/** The tables of the document by number: one picked, some ticked, those of the scope marked. */
	let {
		tables,
		stretch,
		picked,
		ticked,
		scoped,
		where,
		onpick,
		ontick,
		children
	}: {
		/** Those that are shown. */
		tables: readonly DocumentTable[];
		/** Which part of the document they are. */
		stretch: Stretch;
		picked: number;
		ticked: readonly number[];
		scoped: readonly number[];
		where: (index: number) => string;
		onpick: (index: number) => void;
		ontick: (index: number) => void;
		children: Snippet;
	} = $props();
	const inScope = $derived(new Set(scoped));
	const isTicked = $derived(new Set(ticked));
</script>

<div class="flex min-h-10 items-center gap-2 border-b border-hairline bg-desk px-5 py-1.5">
	<span class="me-1 text-quiet">Tables</span>
	<div
		class="flex min-w-0 flex-1 gap-1.5 overflow-x-auto p-0.5"
		role="toolbar"
		aria-label="Tables of the document"
		{@attach rovingBar}
	>
		{#each tables as { index, place } (index)}
			<span
				class={[
					'flex shrink-0 items-center rounded-md border bg-sheet',
					picked === index ? 'border-2 border-picked' : 'border-hairline',
					inScope.has(index) && 'bg-picked-wash'
				]}
			>
				<button
					type="button"
					class="max-w-44 min-h-6 min-w-8 truncate ps-2 pe-1 font-medium"
					aria-pressed={picked === index}
					title={where(index)}
					onclick={() => onpick(index)}
					>{index + 1}{#if picked === index && place.caption}<span class="ms-1.5 font-normal text-quiet"
							>{place.caption}</span
						>{/if}</button
				>
				<input
					type="checkbox"
					class="mx-1.5 h-3.5 w-3.5 rounded-sm border-hairline text-picked"
					aria-label="Tick table {index + 1}"
					checked={isTicked.has(index)}
					onchange={() => ontick(index)}
				/>
			</span>
		{/each}
	</div>
	{#if stretch.before !== null || stretch.after !== null}
		<nav class="flex shrink-0 items-center gap-1.5" aria-label="Parts of the document">
			{#if stretch.before !== null}<a class="chip" href="?at={stretch.before}" aria-label="The part before">‹</a>{/if}
			<span class="text-quiet tabular-nums"
				>{stretch.first + 1}–{stretch.last + 1} of {stretch.of.toLocaleString('en-GB')}</span
			>
			{#if stretch.after !== null}<a class="chip" href="?at={stretch.after}" aria-label="The part after">›</a>{/if}
		</nav>
	{/if}
	{@render children()}
</div>
