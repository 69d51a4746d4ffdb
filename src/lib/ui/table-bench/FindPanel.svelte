<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { found, replaced } from '$lib/core/work/cells.ts';
	import { everything } from '$lib/core/work/selection.ts';
	import type { TableBench } from './bench.svelte.ts';
	import { keysOf } from '../controls/shortcuts.ts';
	import Button from '../controls/Button.svelte';

	/** Finds text in the table, or in what is selected of it, and puts other text in its place. */
	let { bench, onshow }: { bench: TableBench; onshow: () => unknown } = $props();
	let text = $state('');
	let by = $state('');
	let isCaseKept = $state(false);
	let isWhole = $state(false);
	const search = $derived({ text, isCaseKept, isWhole });
	const range = $derived(bench.cells.length > 1 ? bench.range : everything(bench.work));
	const isPart = $derived(bench.cells.length > 1);
	/** What is selected is searched; going from place to place selects one cell only, and still goes through all. */
	let held = $state.raw<typeof range>();
	const area = $derived(held ?? range);
	const places = $derived(found(bench.work, area, search));
	let at = $state(-1);
	$effect(() => {
		bench.lit = new Set(places.map(({ r, c }) => `${r},${c}`));
		return () => (bench.lit = new Set());
	});
	function go(by: 1 | -1) {
		if (!places.length) return;
		held = area;
		at = (at + by + places.length) % places.length;
		const { r, c } = places[at]!;
		bench.select(r, c);
		onshow();
	}
	const one = () => {
		const place = places[Math.max(at, 0)];
		if (!place) return;
		held = area;
		bench.select(place.r, place.c);
		bench.edit(`“${text}” replaced`, (work) => replaced(work, [place], search, by));
		at = Math.min(at, places.length - 1);
	};
	const all = () => {
		const count = places.length;
		bench.edit(`“${text}” replaced in ${plural(count, 'cell')}`, (work) => replaced(work, places, search, by));
	};
</script>

<section aria-label="Find">
	<h3 class="mb-1 font-semibold">Find {isPart || held ? 'in the selection' : 'in the table'}</h3>
	<input
		class="field w-full"
		aria-label="Text to find"
		data-find
		bind:value={text}
		oninput={() => {
			at = -1;
			held = undefined;
		}}
		onkeydown={keysOf([
			{ keys: ['Enter'], run: () => go(1) },
			{ keys: ['Shift+Enter'], run: () => go(-1) }
		])}
	/>
	<div class="mt-1.5 flex flex-wrap gap-1.5">
		<button
			type="button"
			class={['chip', isCaseKept && 'on']}
			aria-pressed={isCaseKept}
			onclick={() => (isCaseKept = !isCaseKept)}>capitals count</button
		>
		<button type="button" class={['chip', isWhole && 'on']} aria-pressed={isWhole} onclick={() => (isWhole = !isWhole)}
			>whole cells only</button
		>
	</div>
	<p class="py-1.5 text-quiet" aria-live="polite">
		{text ? `${plural(places.length, 'cell')}${at >= 0 ? `, this is ${at + 1}` : ''}` : ' '}
	</p>
	<div class="flex gap-1.5">
		<Button small disabled={!places.length} onclick={() => go(-1)}>Before</Button>
		<Button small disabled={!places.length} onclick={() => go(1)}>Next</Button>
	</div>
	<label class="mt-3 block text-quiet"
		>Put in its place <input class="field w-full" bind:value={by} aria-label="Text to put in its place" /></label
	>
	<div class="mt-1.5 flex gap-1.5">
		<Button small disabled={!places.length} onclick={one}>Replace this</Button>
		<Button small disabled={!places.length} onclick={all}>Replace {plural(places.length, 'cell')}</Button>
	</div>
</section>
