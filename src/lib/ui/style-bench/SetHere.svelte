<script lang="ts">
	import { percentWords } from '$lib/core/properties/property.ts';
	import { fromPoints } from '$lib/core/units.ts';
	import { isHeader } from '$lib/core/roles/index.ts';
	import { settingsAt } from '$lib/core/style/edit.ts';
	import { leavesOf } from '$lib/core/style/leaves.ts';
	import type { Side } from '$lib/core/table/grid.ts';
	import { fillPairs, hereAt, leavesOfPair, type Voice } from '$lib/workbench/here.ts';
	import { placedAt } from '../controls/placed.ts';
	import { rovingBar } from '../controls/roving.ts';
	import { keysOf } from '../controls/shortcuts.ts';
	import Segmented from '../controls/Segmented.svelte';
	import { lineStyle } from '../table/paint.ts';
	import type { Bench } from './bench.svelte.ts';
	import type { Shown } from './sheet.svelte.ts';

	/** What is set most often, beside the picked cell: said by the part that rules it, so that every such cell has it. */
	let { bench, shown, onclose }: { bench: Bench; shown: Shown; onclose: () => void } = $props();

	const picked = $derived(bench.picked!);
	const cell = $derived(shown.specimen.table.cells[picked.cell]!);
	const here = $derived(hereAt(shown.resolved, bench.flat, cell.r, cell.c));
	const isHead = $derived(isHeader(shown.specimen.table.roles[cell.r]!));
	const pairs = $derived(
		fillPairs(bench.inks, bench.flat.parts.get('ground')?.get('text.ink')?.value as string | undefined)
	);

	const inks = $derived(pairs.length / 2);
	/** Strong ones in rows of this many, then pale ones in the same places. */
	const columns = $derived(Math.max(1, Math.ceil(inks / Math.ceil(inks / 8))));

	/** Who says what, where another than the first is chosen. */
	let speakers = $state({ fill: 0, line: 0, alignment: 0 });
	let side = $state<Side>('top');
	$effect(() => {
		side = picked.side ?? (isHead ? 'bottom' : 'top');
		speakers = { fill: 0, line: 0, alignment: 0 };
	});
	const fill = $derived(here.fill[speakers.fill] ?? here.fill[0]!);
	const lines = $derived(here.lines[side]);
	const line = $derived(lines[speakers.line] ?? lines[0]);
	const alignment = $derived(here.alignment[speakers.alignment] ?? here.alignment[0]!);

	const SIDES = [
		['top', 'above'],
		['bottom', 'below'],
		['start', 'before'],
		['end', 'after']
	] as const;
	const LINES = [
		['thin', 'solid', '0.18mm'],
		['plain', 'solid', '0.35mm'],
		['thick', 'solid', '1mm'],
		['double', 'double', '1mm']
	] as const;
	const ALIGNMENTS = [
		['start', 'at the start'],
		['middle', 'in the middle'],
		['end', 'at the end'],
		['decimal', 'on the mark']
	] as const;
	const inkOfLines = $derived(bench.pen.draws === 'line' ? bench.pen.ink : Object.keys(bench.inks)[0]!);
	const said = ({ parts }: Voice, path: string) => leavesOf(settingsAt(bench.draft.definition, parts[0]!)).get(path);

	const noFill = (ink: 'none' | undefined) =>
		bench.say(
			fill.parts,
			[
				['fill.ink', ink],
				['fill.tint', undefined],
				['text.ink', undefined]
			],
			ink ? 'no fill' : 'fill not set'
		);
	function drawn(pattern: string | undefined, weight?: string) {
		if (!line) return;
		const path = `lines.${line.place}`;
		bench.say(
			line.parts,
			[
				[`${path}.pattern`, pattern],
				[`${path}.weight`, weight],
				[`${path}.ink`, weight && inkOfLines]
			],
			'line'
		);
	}

	/** Picked by key: the focus goes along. */
	function arrived(card: HTMLElement) {
		if (anchor()?.matches(':focus-visible')) card.querySelector<HTMLElement>('[role=toolbar] button')?.focus();
	}
	const anchor = () =>
		document.querySelector<HTMLElement>(`[data-specimen="${CSS.escape(picked.key)}"] [data-cell="${picked.cell}"]`);
	/** It stands over the property sheet, as high as the cell: the tables stay free. */
	const beside = () => {
		const of = anchor();
		const sheet = document.querySelector('[aria-label="Property sheet"]');
		if (!of || !sheet) return undefined;
		return {
			contextElement: of,
			getBoundingClientRect() {
				const { top, bottom, height } = of.getBoundingClientRect();
				const { left } = sheet.getBoundingClientRect();
				return { x: left, y: top, left, right: left, top, bottom, width: 0, height };
			}
		};
	};
	function close() {
		const cell = anchor();
		onclose();
		cell?.focus();
	}
	const keys = keysOf([{ keys: ['Escape'], run: close }]);
</script>

<svelte:window
	onpointerdown={({ target }) => {
		if (!(target as Element).closest('[data-set-here], [data-specimen]')) onclose();
	}}
/>

{#snippet who(name: keyof typeof speakers, what: string, voices: readonly Voice[])}
	<select class="field min-w-0 flex-1 py-0!" aria-label="Who says the {what}" bind:value={speakers[name]}>
		{#each voices as { words }, i (words)}<option value={i}>{words}</option>{/each}
	</select>
{/snippet}

{#key `${picked.key} ${picked.cell}`}
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
	<div
		popover="manual"
		role="group"
		aria-label="Set it here"
		data-set-here
		class="inset-auto start-0 top-0 m-0 w-[318px] overflow-y-auto rounded-lg border border-hairline bg-sheet p-3 text-[13px] text-ink shadow-lg"
		{@attach placedAt(beside, 'right-start')}
		{@attach arrived}
		onkeydown={keys}
	>
		<div class="flex items-center gap-2">
			<span class="w-14 text-quiet">Fill</span>
			{@render who('fill', 'fill', here.fill)}
			<button
				type="button"
				class="grid h-6 w-6 place-items-center rounded text-quiet hover:bg-paper hover:text-ink"
				aria-label="Close"
				onclick={close}>×</button
			>
		</div>
		<div class="mt-1.5" role="toolbar" aria-label="Fill, with text that reads on it" {@attach rovingBar}>
			<div class="grid gap-1" style="grid-template-columns:repeat({columns}, 1fr)">
				{#each pairs as pair, i (`${pair.ink} ${pair.tint}`)}
					{@const isOn = said(fill, 'fill.ink') === pair.ink && Number(said(fill, 'fill.tint') ?? 1) === pair.tint}
					{@const words = `${pair.ink}${pair.tint === 1 ? '' : ` at ${percentWords(pair.tint)}`}, text ${pair.text ?? 'as the ground has it'}`}
					<button
						type="button"
						class={['h-7 rounded border', isOn ? 'border-picked ring-2 ring-picked' : 'border-hairline']}
						style="background:{pair.fill};color:{pair.textColour}{i === inks ? ';grid-column-start:1' : ''}"
						aria-pressed={isOn}
						aria-label={words}
						title={words}
						onclick={() => bench.say(fill.parts, leavesOfPair(pair), 'fill and text ink')}>Aa</button
					>
				{/each}
			</div>
			<div class="mt-1.5 flex gap-1.5">
				<button type="button" class="chip" onclick={() => noFill('none')}>none</button>
				<button type="button" class="chip" onclick={() => noFill(undefined)}>not set</button>
			</div>
		</div>

		{#if line}
			<div class="mt-3 flex items-center gap-2 border-t border-hairline pt-2.5">
				<span class="w-14 text-quiet">Line</span>
				{@render who('line', 'line', lines)}
			</div>
			<Segmented
				look="chips"
				class="mt-1.5"
				label="Which line"
				options={SIDES}
				value={side}
				onchange={(to) => (side = to)}
			/>
			<div class="mt-1.5 flex gap-1" role="toolbar" aria-label="Line" {@attach rovingBar}>
				{#each LINES as [words, pattern, weight] (words)}
					{@const isOn =
						said(line, `lines.${line.place}.pattern`) === pattern &&
						said(line, `lines.${line.place}.weight`) === weight}
					<button
						type="button"
						class={[
							'on-paper grid h-7 flex-1 items-center rounded border bg-sheet px-1.5',
							isOn ? 'border-picked ring-2 ring-picked' : 'border-hairline'
						]}
						aria-pressed={isOn}
						aria-label={words}
						title={words}
						onclick={() => drawn(pattern, weight)}
						><i
							class="block"
							style={lineStyle(
								{
									pattern,
									weight: fromPoints(words === 'thin' ? 0.75 : words === 'plain' ? 1.5 : 3),
									ink: '#2B2233'
								},
								'across',
								1
							)}
						></i></button
					>
				{/each}
				<button type="button" class="chip" onclick={() => drawn('none')}>none</button>
				<button type="button" class="chip" onclick={() => drawn(undefined)}>untouched</button>
			</div>
		{/if}

		<div class="mt-3 flex items-center gap-2 border-t border-hairline pt-2.5">
			<span class="w-14 text-quiet">Text</span>
			{@render who('alignment', 'alignment', here.alignment)}
		</div>
		<div class="mt-1.5 flex flex-wrap gap-1.5" role="toolbar" aria-label="Text stands" {@attach rovingBar}>
			{#each ALIGNMENTS as [value, words] (value)}
				{@const isOn = said(alignment, 'align.h') === value}
				<button
					type="button"
					class={['chip', isOn && 'on']}
					aria-pressed={isOn}
					onclick={() => bench.say(alignment.parts, [['align.h', isOn ? undefined : value]], `text ${words}`)}
					>{words}</button
				>
			{/each}
		</div>
	</div>
{/key}
