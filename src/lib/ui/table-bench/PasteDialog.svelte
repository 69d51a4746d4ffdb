<script lang="ts">
	import { listed, plural } from '$lib/core/words.ts';
	import type { Clip } from '$lib/core/work/cells.ts';
	import Button from '../controls/Button.svelte';
	import List from '../controls/List.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import Dialog from '../shell/Dialog.svelte';
	import type { Arriving } from './arriving.ts';
	import { arrivingFrom } from './clipboard.ts';

	/**
	 * What comes in, before it is in: which of several tables, what of it stays behind, joined cells or plain ones. What
	 * comes whole and alone goes in at once.
	 */
	let { onpaste }: { onpaste: (clip: Clip) => void } = $props();
	let tables = $state.raw<readonly Arriving[]>([]);
	let open = $state(false);
	let at = $state(0);
	let joins = $state<'joined' | 'plain'>('joined');

	/** Takes what is on the clipboard. Throws where there is nothing to paste. */
	export function arrive(data: DataTransfer): void {
		tables = arrivingFrom(data);
		at = 0;
		joins = 'joined';
		const [first, ...others] = tables;
		if (!first) throw new Error('There is nothing to paste: the clipboard holds no cells and no text.');
		if (others.length || first.collides || first.left.length) open = true;
		else onpaste(first.clip);
	}
	const table = $derived(tables[at]!);
	const clip = $derived(joins === 'plain' ? table.plain : table.clip);
	const sizeOf = ({ clip: { cells } }: Arriving) =>
		`${plural(cells.length, 'row')}, ${plural(cells[0]!.length, 'column')}`;
	/** So much of it is shown. */
	const [ROWS, COLUMNS] = [7, 6];
	const shown = $derived(clip.cells.slice(0, ROWS).map((row) => row.slice(0, COLUMNS)));
	const rest = $derived([clip.cells.length - shown.length, clip.cells[0]!.length - shown[0]!.length] as const);
</script>

{#if tables.length}
	<Dialog bind:open title={tables.length > 1 ? 'Which table is pasted?' : 'Paste it so?'} wide>
		{#if tables.length > 1}
			<List
				label="Tables on the clipboard"
				items={tables.map((_, i) => i)}
				key={String}
				chosen={String(at)}
				onchoose={(i) => (at = i)}
				class="mb-3 flex max-h-40 flex-col gap-0.5 overflow-y-auto"
				itemClass={(_, isOn) => [
					'flex gap-3 rounded px-3 py-1.5 text-start',
					isOn ? 'bg-picked-wash' : 'hover:bg-paper'
				]}
			>
				{#snippet item(i)}<strong class="min-w-0 flex-1 truncate">{tables[i]!.title || `table ${i + 1}`}</strong><span
						class="shrink-0 text-quiet">{sizeOf(tables[i]!)}</span
					>{/snippet}
			</List>
		{/if}
		<div class="overflow-x-auto rounded-lg border border-hairline">
			<table class="w-full border-collapse text-[12.5px]" data-arriving>
				<tbody>
					{#each shown as row, r (r)}
						<tr>
							{#each row as cell, c (c)}
								{#if cell}
									<td
										class="max-w-44 truncate border border-hairline px-2 py-1"
										rowspan={Math.min(cell.rows ?? 1, shown.length - r)}
										colspan={Math.min(cell.cols ?? 1, row.length - c)}>{cell.text}</td
									>
								{/if}
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		<p class="mt-1.5 text-[12.5px] text-quiet">
			{sizeOf(table)}{#if rest[0] || rest[1]}; the first {plural(shown.length, 'row')} and {plural(
					shown[0]!.length,
					'column'
				)} are shown{/if}.
		</p>
		{#if table.left.length}
			<p class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">
				{listed([...table.left])}
				{table.left.length === 1 && /^1 /.test(table.left[0]!) ? 'does' : 'do'} not come along.
			</p>
		{/if}
		{#if table.collides}
			<p class="mt-3 mb-1.5">Joined cells reach over each other here. What becomes of them?</p>
			<Segmented
				label="Joined cells"
				options={[
					['joined', 'each ends where another begins'],
					['plain', 'plain cells, nothing joined']
				]}
				value={joins}
				onchange={(to) => (joins = to)}
			/>
		{/if}
		{#snippet answers()}
			<Button onclick={() => (open = false)}>Not now</Button>
			<Button
				primary
				onclick={() => {
					open = false;
					onpaste(clip);
				}}>Paste {plural(clip.cells.length * clip.cells[0]!.length, 'cell')} here</Button
			>
		{/snippet}
	</Dialog>
{/if}
