<script lang="ts">
	import { TEXT_HEIGHTS } from '$lib/core/layout/plotted.ts';
	import { CORNERS, pointFor, type Corner, type PlacedTable } from '$lib/core/schedule/placed.ts';
	import type { Reading } from '$lib/core/schedule/table.ts';
	import type { DrawnOut } from '$lib/server/drawings/drawings.ts';

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
	const number = (event: Event) => Number((event.currentTarget as HTMLInputElement).value);
	/** Another corner, and the table stays where it is. */
	function hangBy(corner: Corner) {
		onset(
			{ ...placed, corner, ...(drawn && { at: pointFor(corner, drawn, drawn) }) },
			`held by its ${CORNER_WORDS[corner]}`
		);
	}
	const place = (axis: 'x' | 'y', value: number) =>
		Number.isFinite(value) && onset({ ...placed, at: { ...placed.at, [axis]: value } }, 'moved');
	function widen(name: string, value: number) {
		const { [name]: _old, ...rest } = placed.widths ?? {};
		onset({ ...placed, widths: value >= 1 ? { ...rest, [name]: value } : rest }, `width of ${name}`);
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
		>at <input
			class="field w-20"
			type="number"
			step="any"
			aria-label="Millimetres from the left"
			value={rounded(placed.at.x)}
			onchange={(event) => place('x', number(event))}
		/></label
	>
	<label class="flex items-center gap-1"
		>, <input
			class="field w-20"
			type="number"
			step="any"
			aria-label="Millimetres from the top"
			value={rounded(placed.at.y)}
			onchange={(event) => place('y', number(event))}
		/> mm</label
	>
</div>
{#if drawn}<p class="mt-1 text-quiet">{rounded(drawn.width)} × {rounded(drawn.height)} mm on paper</p>{/if}

<h3 class="mt-4 mb-1 font-semibold">It reads</h3>
<div class="flex flex-wrap gap-1.5" role="radiogroup" aria-label="It reads">
	{#each [['down', 'downwards from its header'], ['up', 'upwards, header at the foot']] as const as [reads, words] (reads)}
		<button
			type="button"
			role="radio"
			aria-checked={placed.reads === reads}
			class={['chip', placed.reads === reads && 'on']}
			onclick={() => onreads(reads)}>{words}</button
		>
	{/each}
</div>

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
		<input
			class="field w-24"
			type="number"
			min="0"
			step="any"
			aria-label="Width of {name} in millimetres; empty: as wide as its content"
			placeholder={drawn ? String(rounded(drawn.lefts[c + 1]! - drawn.lefts[c]!)) : 'fitted'}
			value={placed.widths?.[name] ?? ''}
			onchange={(event) => widen(name, number(event))}
		/>
	{/each}
</div>
{#each drawn?.facts.warnings ?? [] as { kind, words } (kind)}
	<p class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">{words}</p>
{/each}
{#if drawn?.facts.warnings.some(({ kind }) => kind === 'small')}
	<button type="button" class="button small mt-1.5" onclick={() => height('2.5')}>Plot its text at 2.5 mm</button>
{/if}
{#if onremove}<button type="button" class="button mt-5" onclick={onremove}>Take it off the sheet</button>{/if}
