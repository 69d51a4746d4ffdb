<script lang="ts">
	import { TEXT_HEIGHTS } from '$lib/core/layout/plotted.ts';
	import { CORNERS, pointFor, type Corner, type PlacedTable } from '$lib/core/schedule/placed.ts';
	import type { Reading } from '$lib/core/schedule/table.ts';
	import type { DrawnOut } from '$lib/server/drawings/drawings.ts';
	import Segmented from '../controls/Segmented.svelte';
	import NumberField from '../controls/NumberField.svelte';
	import Button from '../controls/Button.svelte';

	/** Where a table stands on the sheet, which way it reads and how large it plots. */
	interface Props {
		placed: PlacedTable;
		drawn: DrawnOut | undefined;
		onset: (placed: PlacedTable, words: string) => void;
		onreads: (reads: Reading) => void;
		onremove?: (() => void) | undefined;
	}
	let { placed, drawn, onset, onreads, onremove }: Props = $props();
	const CORNER_WORDS: Record<Corner, string> = {
		'top-start': 'top left corner',
		'top-end': 'top right corner',
		'bottom-start': 'bottom left corner',
		'bottom-end': 'bottom right corner'
	};
	/** Another corner, and the table stays where it is. */
	function hangBy(corner: Corner) {
		onset(
			{ ...placed, corner, ...(drawn && { at: pointFor(corner, drawn, drawn) }) },
			`held by its ${CORNER_WORDS[corner]}`
		);
	}
	const place = (axis: 'x' | 'y', value: number) => onset({ ...placed, at: { ...placed.at, [axis]: value } }, 'moved');
	function widen(name: string, value: number | undefined) {
		const { [name]: _old, ...rest } = placed.widths ?? {};
		onset({ ...placed, widths: value ? { ...rest, [name]: value } : rest }, `width of ${name}`);
	}
	const height = (value: string) => {
		const { textHeight: _old, ...rest } = placed;
		onset(
			value ? { ...rest, textHeight: Number(value) } : rest,
			value ? `text at ${value} mm` : 'text as the style says'
		);
	};
	const rounded = (value: number) => Math.round(value * 100) / 100;
</script>

<h3 class="mb-1 font-semibold">It stands</h3>
<select
	class="field w-full"
	aria-label="Held by"
	value={placed.corner}
	onchange={(event) => hangBy(event.currentTarget.value as Corner)}
>
	{#each CORNERS as corner (corner)}<option value={corner}>with its {CORNER_WORDS[corner]}</option>{/each}
</select>
<div class="mt-1.5 flex items-center gap-2">
	<label class="flex items-center gap-1"
		>at <NumberField
			class="w-20"
			label="Millimetres from the left"
			unit="mm"
			value={rounded(placed.at.x)}
			onset={(value) => place('x', value)}
		/></label
	>
	<label class="flex items-center gap-1"
		>, <NumberField
			class="w-20"
			label="Millimetres from the top"
			unit="mm"
			value={rounded(placed.at.y)}
			onset={(value) => place('y', value)}
		/> mm</label
	>
</div>
{#if drawn}<p class="mt-1 text-quiet">{rounded(drawn.width)} × {rounded(drawn.height)} mm on paper</p>{/if}

<h3 class="mt-4 mb-1 font-semibold">It reads</h3>
<Segmented
	label="It reads"
	options={[
		['down', 'downwards from its header'],
		['up', 'upwards, header at the foot']
	]}
	value={placed.reads}
	onchange={onreads}
/>

<h3 class="mt-4 mb-1 font-semibold">Text plots at</h3>
<select
	class="field w-full"
	aria-label="Height of capitals"
	value={String(placed.textHeight ?? '')}
	onchange={(event) => height(event.currentTarget.value)}
>
	<option value=""
		>what the style says{drawn?.facts.body && !placed.textHeight ? `: ${drawn.facts.body} mm` : ''}</option
	>
	{#each TEXT_HEIGHTS as mm (mm)}<option value={String(mm)}>{mm} mm capitals (ISO 3098)</option>{/each}
	{#if placed.textHeight && !TEXT_HEIGHTS.some((mm) => mm === placed.textHeight)}<option
			value={String(placed.textHeight)}>{placed.textHeight} mm</option
		>{/if}
</select>
<label class="mt-2 flex items-center gap-2"
	><input
		type="checkbox"
		class="rounded-sm text-picked"
		checked={!!placed.seriesLines}
		onchange={(event) => onset({ ...placed, seriesLines: event.currentTarget.checked }, 'line widths')}
	/>lines in the nearest width of ISO 128</label
>

<h3 class="mt-4 mb-1 font-semibold">Column widths, mm</h3>
<div class="grid grid-cols-[1fr_auto] items-center gap-x-2 gap-y-1">
	{#each placed.rows.columns as { name }, c (name)}
		<span class="truncate">{name}</span>
		<NumberField
			class="w-24"
			label="Width of {name} in millimetres; empty: as wide as its content"
			placeholder={drawn ? String(rounded(Math.abs(drawn.lefts[c + 1]! - drawn.lefts[c]!))) : 'fitted'}
			least={1}
			unit="mm"
			value={placed.widths?.[name]}
			onset={(value) => widen(name, value)}
			onclear={() => widen(name, undefined)}
		/>
	{/each}
</div>
{#each drawn?.facts.warnings ?? [] as { kind, words } (kind)}
	<p class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">{words}</p>
{/each}
{#if drawn?.facts.warnings.some(({ kind }) => kind === 'small')}
	<Button small class="mt-1.5" onclick={() => height('2.5')}>Plot its text at 2.5 mm</Button>
{/if}
{#if onremove}<Button class="mt-5" onclick={onremove}>Take it off the sheet</Button>{/if}
