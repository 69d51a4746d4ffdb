<script lang="ts">
	import { tick } from 'svelte';
	import { leafDefinition, PROPERTIES } from '$lib/core/properties/index.ts';
	import type { Leaf, Section } from '$lib/core/properties/property.ts';
	import { LINE_PLACES, type LinePlace } from '$lib/core/style/types.ts';
	import { linePlaceWords } from '$lib/core/style/words.ts';
	import FormatSample from './FormatSample.svelte';
	import LeafField from './fields/LeafField.svelte';
	import PlaceField from './fields/PlaceField.svelte';
	import type { PropertyOwner } from './owner.ts';
	import Segmented from '../controls/Segmented.svelte';

	/**
	 * Every property of the chosen part, or of the selected cells, with where its value comes from. `onpush` moves one to the
	 * base; `ofRows` leaves out what concerns whole rows on a page.
	 */
	let {
		bench,
		onpush,
		ofRows = true
	}: { bench: PropertyOwner; onpush?: (path: string) => void; ofRows?: boolean } = $props();
	let line = $state<LinePlace>('top');
	let isLinked = $state(false);

	/** The leaves under a heading, in the order of the definitions. */
	const leavesIn = (section: Section): Leaf[] =>
		PROPERTIES.filter((one) => one.section === section).flatMap(({ leaves }) => leaves);
	const MARGINS = leavesIn('Margins');
	const SHADOWS = PROPERTIES.filter(({ section }) => section === 'Shadow').map(({ leaves }) => leaves);
	/** Which leaves of a format matter to which kinds of figures. */
	const FIGURES = ['money', 'quantity', 'count', 'percent'];
	const MATTERS: Record<string, readonly string[]> = {
		'format.currency': ['money'],
		'format.unit': ['quantity'],
		'format.date': ['date'],
		'format.decimals': FIGURES,
		'format.grouping': FIGURES,
		'format.negative': FIGURES,
		'format.zero': FIGURES
	};
	/** Whether something of a shadow is said, but not what it is drawn in. */
	const isInkless = (shadow: readonly Leaf[]): boolean => {
		const isSaid = ({ path }: Leaf) => ![undefined, 'none'].includes(bench.source(path).value as string);
		const inks = shadow.filter(({ path }) => path.endsWith('.ink'));
		return shadow.some(isSaid) && !inks.some(isSaid);
	};
	const formatKind = $derived(String(bench.source('format.kind').value));
	const formats = $derived(
		leavesIn('Figures and dates').filter(({ path }) => path === bench.sought || MATTERS[path]?.includes(formatKind))
	);
	const place = $derived(bench.place);
	/** Letters that fit beside where a value comes from. */
	const LONG = 15;

	let sheet: HTMLElement;
	/** Shows a leaf that is looked for, and gives its field the focus. */
	$effect(() => {
		const { sought } = bench;
		if (sought === undefined) return;
		const [, edge] = /^lines\.(\w+)\./.exec(sought) ?? [];
		if (edge) line = edge as LinePlace;
		if (sought.startsWith('margin.')) isLinked = false;
		void tick().then(() => {
			const field = sheet.querySelector<HTMLElement>(`[data-leaf="${sought}"] :is(input, select, button)`);
			field?.scrollIntoView({ block: 'center' });
			field?.focus();
			bench.sought = undefined;
		});
	});
</script>

{#snippet leaf(path: string, label: string, group: string)}
	{@const { value, isSet, from, part, isInherited } = bench.source(path)}
	<div
		class={[
			'grid items-start gap-x-2 border-b border-hairline py-1 last:border-0',
			// A long name has the width of the sheet, and where it comes from stands beneath.
			String(value ?? '').length > LONG
				? 'grid-cols-[72px_minmax(0,1fr)] *:nth-3:col-start-2 *:nth-3:justify-self-end'
				: 'grid-cols-[72px_minmax(0,1fr)_92px]'
		]}
		data-leaf={path}
	>
		<span class="pt-1 text-quiet">{label}</span>
		<LeafField
			{path}
			label="{group}: {label.toLowerCase()}"
			{value}
			{isSet}
			inks={bench.inks}
			roles={bench.roles}
			locale={bench.house.locale}
			onset={(next) => bench.set(path, next)}
		/>
		{#if isSet}
			<span class="flex items-center justify-end gap-0.5">
				{#if bench.base && onpush && !place.startsWith('rule:')}
					<button
						type="button"
						class="move"
						title="Push up: say it in {bench.base.definition.name} instead, for all that build on it"
						aria-label="{group}: push {label.toLowerCase()} up to {bench.base.definition.name}"
						onclick={() => onpush(path)}>↥</button
					>
				{/if}
				<button
					type="button"
					class="group min-h-7 truncate text-end text-[12px] font-semibold text-picked"
					title="Unset: let it come from elsewhere"
					aria-label="{group}: {label.toLowerCase()} is set here; unset it"
					onclick={() => bench.set(path, undefined)}
				>
					<span class="group-hover:hidden group-focus-visible:hidden">{from}</span><span
						class="hidden group-hover:inline group-focus-visible:inline">unset ×</span
					>
				</button>
			</span>
		{:else if isInherited}
			<span class="flex min-w-0 items-center justify-end gap-0.5">
				<button
					type="button"
					class="move"
					title="Freeze: say it here too, whatever {from} says later"
					aria-label="{group}: freeze {label.toLowerCase()} here"
					onclick={() => bench.set(path, value)}>❄</button
				>
				<span class="truncate pt-0.5 text-end text-[12px] text-quiet" title="comes from {from}">{from}</span>
			</span>
		{:else if part}
			<button
				type="button"
				class="min-h-7 truncate text-end text-[12px] text-quiet hover:text-ink hover:underline"
				title="comes from {from}; go there"
				onclick={() => bench.choose(part)}>{from}</button
			>
		{:else}
			<span class="truncate pt-1.5 text-end text-[12px] text-quiet">{from}</span>
		{/if}
	</div>
{/snippet}

{#snippet leaves(all: readonly Leaf[], group: string)}
	{#each all as { path, label } (path)}{@render leaf(path, label, group)}{/each}
{/snippet}

<div bind:this={sheet}>
	{#key place}
		<section class="mb-3" aria-label="Fill">
			<h3 class="mb-0.5 font-semibold">Fill</h3>
			{@render leaves(leavesIn('Fill'), 'Fill')}
		</section>
		<section class="mb-3" aria-label="Text">
			<h3 class="mb-0.5 font-semibold">Text</h3>
			{@render leaves(leavesIn('Text'), 'Text')}
		</section>
		<section class="mb-3" aria-label="Alignment">
			<h3 class="mb-0.5 font-semibold">Alignment</h3>
			<PlaceField
				h={bench.source('align.h').value}
				v={bench.source('align.v').value}
				onset={(leaves) => bench.setAll(leaves, 'alignment')}
			/>
			{@render leaves(leavesIn('Alignment'), 'Alignment')}
		</section>
		<section class="mb-3" aria-label="Margins">
			<h3 class="mb-0.5 flex items-center font-semibold">
				Margins
				<label class="ms-auto flex items-center gap-1.5 text-[12px] font-normal text-quiet"
					><input type="checkbox" class="h-3.5 w-3.5 rounded-sm text-picked" bind:checked={isLinked} />all four alike</label
				>
			</h3>
			{#if isLinked}
				{@const first = bench.source('margin.top')}
				<div class="grid grid-cols-[72px_minmax(0,1fr)_92px] items-start gap-x-2 py-1">
					<span class="pt-1 text-quiet">Around</span>
					<LeafField
						path="margin.top"
						label="Margins: all four"
						value={first.value}
						isSet={first.isSet}
						inks={bench.inks}
						roles={bench.roles}
						locale={bench.house.locale}
						onset={(value) =>
							bench.setAll(
								MARGINS.map(({ path }) => [path, value] as const),
								'margins'
							)}
					/>
				</div>
			{:else}
				{@render leaves(MARGINS, 'Margins')}
			{/if}
		</section>
		<section class="mb-3" aria-label="Lines">
			<h3 class="mb-1.5 font-semibold">Lines</h3>
			<Segmented
				class="mb-1 gap-1!"
				label="Which lines"
				options={LINE_PLACES.map((name) => [name, linePlaceWords(name)] as const)}
				value={line}
				onchange={(name) => (line = name)}
				hint={(name) => `${linePlaceWords(name)} of ${bench.words}: ${bench.lineStates[name]}`}
				optionClass={(name) => [
					bench.lineStates[name] === 'set' && 'font-semibold text-ink!',
					bench.lineStates[name] === 'none' && 'off'
				]}
			>
				{#snippet option(name, words)}<i class={['edge', bench.lineStates[name]]}></i>{words}{/snippet}
			</Segmented>
			{@render leaves(
				leavesIn('Lines').filter(({ path }) => path.startsWith(`lines.${line}.`)),
				`Line ${linePlaceWords(line)}`
			)}
		</section>
		<section class="mb-3" aria-label="Figures and dates">
			<h3 class="mb-0.5 font-semibold">Figures and dates</h3>
			{@render leaves([leafDefinition('format.kind')!, ...formats], 'Format')}
			<FormatSample {bench} />
		</section>
		{#each SHADOWS as shadow (shadow[0]!.path)}
			{@const words = shadow[0]!.words.split(',')[0]!}
			{#if !shadow[0]!.only || shadow[0]!.only === place}
				<section class="mb-3" aria-label={words}>
					<h3 class="mb-0.5 font-semibold first-letter:uppercase">{words}</h3>
					{@render leaves(shadow, words)}
					{#if isInkless(shadow)}<p class="mt-1 text-[12px] text-quiet">It shows once it has an ink.</p>{/if}
				</section>
			{/if}
		{/each}
		{#if ofRows}<section class="mb-3" aria-label="Pages">
				<h3 class="mb-0.5 font-semibold">Pages</h3>
				{@render leaves(leavesIn('Pages'), 'Pages')}
			</section>{/if}
	{/key}
</div>

<style>
	.edge {
		display: inline-block;
		width: 14px;
		border-top: 1px dotted var(--color-quiet);
	}
	.edge.set {
		border-top: 2px solid var(--color-picked);
	}
	.edge.none {
		border-top: 2px dashed var(--color-error);
	}
	.move {
		width: 24px;
		height: 26px;
		flex-shrink: 0;
		border-radius: 6px;
		color: var(--color-quiet);
	}
	.move:hover,
	.move:focus-visible {
		background: var(--color-desk);
		color: var(--color-ink);
	}
</style>
