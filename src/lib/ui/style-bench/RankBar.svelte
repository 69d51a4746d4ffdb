<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { computeLook, computedLine, type Look } from '$lib/core/cascade/look.ts';
	import { inkHex, resolveParts } from '$lib/core/cascade/resolve.ts';
	import type { FlatStyle } from '$lib/core/style/inherit.ts';
	import { parsePart, RANKS, type Rank } from '$lib/core/style/parts.ts';
	import type { LinePattern } from '$lib/core/style/types.ts';
	import type { Table } from '$lib/core/table/grid.ts';
	import { cellStyle, lineStyle } from '../table/paint.ts';
	import Tabs from '../controls/Tabs.svelte';

	/** Seven segments, one a rank: what it is called, how much it sets, and a miniature of that. */
	interface Props {
		style: FlatStyle;
		house: House;
		carrier: Table;
		chosen: Rank;
		/** Touches on the tables of the sheet: how many, in how many tables. */
		touches: { readonly count: number; readonly tables: number };
		onchoose: (rank: Rank) => void;
	}
	let { style, house, carrier, chosen, touches, onchoose }: Props = $props();

	const counts = $derived.by(() => {
		const counts = Array<number>(8).fill(0);
		for (const [name, leaves] of style.parts) counts[parsePart(name)!.rank]! += leaves.size;
		counts[6] = style.rules.length;
		return counts;
	});
	const ink = (name: string | undefined) => inkHex(name, style, house);
	const look = (...parts: string[]): Look =>
		computeLook(resolveParts(style, house, carrier, ['ground', ...parts]).leaves, ink);
	const css = (...parts: string[]) =>
		cellStyle(
			{
				...look(...parts),
				marginTop: undefined,
				marginBottom: undefined,
				marginStart: undefined,
				marginEnd: undefined
			} as Look,
			0.72
		);
	const ruleCss = (name: string) =>
		cellStyle(
			computeLook(
				new Map([
					...resolveParts(style, house, carrier, ['ground']).leaves,
					...[...style.rules.find((rule) => rule.name === name)!.leaves].map(
						([path, { value, style: from }]) => [path, { value, rank: 6, part: `rule:${name}`, style: from }] as const
					)
				]),
				ink
			),
			0.72
		).replace(/padding:[^;]*;/, '');
	const fill = (...parts: string[]) => {
		const { fill } = look(...parts);
		return fill && fill !== 'none' ? fill : 'transparent';
	};
	function line(part: string, place: 'top' | 'bottom'): string {
		const said = resolveParts(style, house, carrier, []).statements(part);
		const pattern = said.get(`lines.${place}.pattern`)?.value as LinePattern | undefined;
		if (!pattern) return 'display:none;';
		const weight = said.get(`lines.${place}.weight`)?.value;
		const own = said.get(`lines.${place}.ink`)?.value ?? look(part).ink;
		return lineStyle(
			computedLine(
				{
					pattern,
					...(weight !== undefined && { weight: String(weight) }),
					...(own !== undefined && { ink: String(own) })
				},
				ink
			)!,
			'across',
			1
		);
	}
</script>

<Tabs
	look="plain"
	class="grid grid-cols-7 border-b border-hairline bg-desk"
	label="Ranks"
	id="rank"
	tabs={RANKS.map(({ rank, name }) => [rank, name] as const)}
	{chosen}
	{onchoose}
	tabClass={(rank, isOn) => [
		'flex min-w-0 flex-col items-stretch gap-1.5 border-e border-b-3 border-e-hairline px-2.5 pt-2 pb-2 text-start last:border-e-0',
		isOn ? 'border-b-picked bg-sheet' : 'border-b-transparent hover:bg-paper',
		rank >= 6 && 'text-quiet'
	]}
>
	{#snippet tab(rank, name, isOn)}
		<span class="flex items-baseline gap-2"
			><span class={['font-title font-semibold', isOn && 'text-picked']}>{RANKS[rank - 1]!.numeral}</span><span
				class={['truncate', isOn && 'font-semibold text-picked']}>{name}</span
			><span class="ms-auto shrink-0 text-[12px] text-quiet"
				>{rank === 7 ? 'per table' : `${counts[rank]} ${rank === 6 ? pluralWord(counts[6]!, 'rule') : 'set'}`}</span
			></span
		>
		<span class="mini on-paper" aria-hidden="true">
			{#if rank === 1}
				<span class="flex flex-1 items-center justify-between px-2" style="{css()}flex-direction:row"
					><span>Ag 123</span><span>{style.parts.get('ground')?.get('text.size')?.value ?? ''}</span></span
				>
			{:else if rank === 2}
				<span class="grid flex-1 grid-rows-4"
					>{#each [1, 2, 1, 2] as k, i (i)}<span
							style="background:{style.bands.rowSizes.length >= k ? fill(`rowBand:${k}`) : 'transparent'}"
						></span>{/each}</span
				>
			{:else if rank === 3}
				<span class="flex flex-1 items-center gap-3 px-2"
					><span class="flex-1" style={css('firstColumn')}>Ab</span><span style={css('columns:count')}>1 204</span><span
						style={css('columns:money')}>€ 3.10</span
					></span
				>
			{:else if rank === 4}
				<span class="flex flex-1 flex-col justify-between"
					><span class="px-1.5" style="{css('header')}text-align:start">Header</span><span
						><i style="display:block;{line('total', 'top')}"></i><span
							class="block px-1.5"
							style="{css('total')}text-align:start">Total</span
						></span
					></span
				>
			{:else if rank === 5}
				<span class="grid flex-1 grid-cols-[1fr_2fr_1fr] grid-rows-2"
					><span style="background:{fill('firstColumn', 'header', 'corner:header-first')}"></span><span></span><span
						style="background:{fill('lastColumn', 'header', 'corner:header-last')}"
					></span><span style="background:{fill('firstColumn', 'total', 'corner:total-first')}"></span><span
					></span><span style="background:{fill('lastColumn', 'total', 'corner:total-last')}"></span></span
				>
			{:else if rank === 6}
				{@const rule = style.rules.find(({ off }) => !off)}
				{#if rule}
					<span class="flex flex-1 items-center gap-2 px-2"
						><span>−412</span><span class="text-quiet">→</span><span class="px-1" style={ruleCss(rule.name)}>−412</span
						><span class="truncate text-quiet">{rule.name}</span></span
					>
				{:else}<span class="flex flex-1 items-center px-2 text-[11px] text-quiet">no rule</span>{/if}
			{:else}
				<span class="flex flex-1 items-center px-2 text-[11px] text-quiet"
					>{touches.count ? `${touches.count} in ${plural(touches.tables, 'table')}` : 'none here'}<span
						class="ms-auto self-end font-bold text-picked">//</span
					></span
				>
			{/if}
		</span>
	{/snippet}
</Tabs>

<style>
	.mini {
		display: flex;
		height: 30px;
		overflow: hidden;
		border: 1px solid var(--color-hairline);
		background: var(--color-sheet);
		color: var(--color-ink);
		font-size: 10px;
	}
</style>
