<script lang="ts">
	import { LINE_PLACES, type LeafValue, type LinePlace } from '$lib/core/style/types.ts';
	import LeafField from './fields/LeafField.svelte';

	/** Where a leaf's value comes from, for one part: set here, from a base style, from a weaker part, or from nobody. */
	export interface LeafSource {
		readonly value: LeafValue | undefined;
		readonly isSet: boolean;
		readonly from: string;
	}
	interface Props {
		part: string;
		source: (path: string) => LeafSource;
		inks: Readonly<Record<string, string>>;
		roles: readonly string[];
		onset: (path: string, value: LeafValue | undefined) => void;
	}
	let { part, source, inks, roles, onset }: Props = $props();
	let place = $state<LinePlace>('top');

	const groups: { title: string; leaves: [path: string, label: string][] }[] = [
		{
			title: 'Fill',
			leaves: [
				['fill.ink', 'Ink'],
				['fill.tint', 'Tint'],
				['fill.opacity', 'Opacity']
			]
		},
		{
			title: 'Text',
			leaves: [
				['text.role', 'Type role'],
				['text.family', 'Family'],
				['text.size', 'Size'],
				['text.weight', 'Weight'],
				['text.italic', 'Slant'],
				['text.underline', 'Underline'],
				['text.case', 'Case'],
				['text.tracking', 'Tracking'],
				['text.lineHeight', 'Line height'],
				['text.ink', 'Ink']
			]
		},
		{
			title: 'Alignment',
			leaves: [
				['align.h', 'Across'],
				['align.v', 'Down'],
				['rotate', 'Rotation']
			]
		},
		{
			title: 'Margins',
			leaves: [
				['margin.top', 'Above'],
				['margin.bottom', 'Below'],
				['margin.start', 'Before'],
				['margin.end', 'After']
			]
		}
	];
	const places: Record<LinePlace, string> = {
		top: 'above',
		bottom: 'below',
		start: 'before',
		end: 'after',
		betweenRows: 'between rows',
		betweenColumns: 'between columns',
		diagonalDown: 'diagonal down',
		diagonalUp: 'diagonal up'
	};
	const placeState = (name: LinePlace) => {
		const { value, isSet } = source(`lines.${name}.pattern`);
		return !isSet ? 'untouched' : value === 'none' ? 'none' : 'set';
	};
</script>

{#snippet leaf(path: string, label: string, group: string)}
	{@const { value, isSet, from } = source(path)}
	<div class="grid grid-cols-[76px_minmax(0,1fr)_82px] items-start gap-x-2 border-b border-hairline py-1 last:border-0">
		<span class="pt-1 text-quiet">{label}</span>
		<LeafField
			{path}
			label="{group}: {label.toLowerCase()}"
			{value}
			{isSet}
			{inks}
			{roles}
			onset={(next) => onset(path, next)}
		/>
		{#if isSet}
			<button
				type="button"
				class="group min-h-7 truncate text-end text-[12px] font-semibold text-picked"
				title="Unset: let it come from elsewhere"
				aria-label="{group}: {label.toLowerCase()} is set here; unset it"
				onclick={() => onset(path, undefined)}
			>
				<span class="group-hover:hidden group-focus-visible:hidden">set here</span><span
					class="hidden group-hover:inline group-focus-visible:inline">unset ×</span
				>
			</button>
		{:else}
			<span class="truncate pt-1.5 text-end text-[12px] text-quiet" title={from}>{from}</span>
		{/if}
	</div>
{/snippet}

{#key part}
	{#each groups as { title, leaves } (title)}
		<section class="mb-3" aria-label={title}>
			<h3 class="mb-0.5 font-semibold">{title}</h3>
			{#each leaves as [path, label] (path)}{@render leaf(path, label, title)}{/each}
		</section>
	{/each}
	<section aria-label="Lines">
		<h3 class="mb-1.5 font-semibold">Lines</h3>
		<div class="mb-1 flex flex-wrap gap-1" role="radiogroup" aria-label="Which lines">
			{#each LINE_PLACES as name (name)}
				{@const is = placeState(name)}
				<button
					type="button"
					role="radio"
					aria-checked={place === name}
					class={[
						'chip',
						place === name && 'border-picked! text-picked!',
						is === 'set' && 'font-semibold text-ink!',
						is === 'none' && 'off'
					]}
					title={is}
					onclick={() => (place = name)}
				>
					<i class={['edge', is]}></i>{places[name]}
				</button>
			{/each}
		</div>
		{@render leaf(`lines.${place}.pattern`, 'Pattern', `Line ${places[place]}`)}
		{@render leaf(`lines.${place}.weight`, 'Weight', `Line ${places[place]}`)}
		{@render leaf(`lines.${place}.ink`, 'Ink', `Line ${places[place]}`)}
	</section>
{/key}

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
</style>
