<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { isListed, type ScheduleRows } from '$lib/core/schedule/rows.ts';
	import Button from '../controls/Button.svelte';

	/** The cells of a table on the sheet: what is typed by hand, and what is written over what the drawing says. */
	let { rows, onset }: { rows: ScheduleRows; onset: (rows: ScheduleRows, words: string) => void } = $props();
	const MOST = 200;
	const listed = $derived(rows.rows.filter(isListed));
	function type(key: string, c: number, text: string) {
		const column = rows.columns[c]!;
		onset(
			{
				...rows,
				rows: rows.rows.map((row) => {
					if (row.key !== key) return row;
					const cells = row.cells.map((cell, i) => {
						if (i !== c) return cell;
						const { over, ...rest } = cell;
						if (column.typed || !row.objects.length) return { ...rest, text };
						const said = over ?? cell.text;
						return text === said ? { ...rest, text } : { ...rest, text, over: said };
					});
					return { ...row, cells };
				})
			},
			`${column.name}: ${text || 'empty'}`
		);
	}
	const remove = (key: string) => onset({ ...rows, rows: rows.rows.filter((row) => row.key !== key) }, 'row taken out');
</script>

<p class="mb-2 text-quiet">What is typed here stays with its row, whatever happens to the drawing.</p>
<ul class="space-y-2" aria-label="Rows of the table">
	{#each listed.slice(0, MOST) as row, r (row.key)}
		<li class="card px-2.5 py-1.5">
			{#each rows.columns as { name, typed }, c (name)}
				{@const cell = row.cells[c]!}
				{#if cell.symbol === undefined}
					<label class="flex items-center gap-2"
						><span class="w-20 shrink-0 truncate text-quiet">{name}</span><input
							class={[
								'min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 hover:border-hairline focus:border-hairline focus:bg-sheet',
								(typed || cell.over !== undefined) && 'font-semibold'
							]}
							aria-label="{name}, row {r + 1}"
							value={cell.text}
							placeholder={typed ? 'type here' : ''}
							onchange={(event) => type(row.key, c, event.currentTarget.value)}
						/></label
					>
					{#if cell.over !== undefined}<p class="ps-22 text-warning-text">
							written over “{cell.over}”
							<button type="button" class="underline" onclick={() => type(row.key, c, cell.over!)}
								>take that again</button
							>
						</p>{/if}
				{/if}
			{/each}
			{#if !row.objects.length}<Button small class="mt-1" onclick={() => remove(row.key)}>Take this row out</Button
				>{/if}
		</li>
	{/each}
</ul>
{#if listed.length > MOST}<p class="mt-2 text-quiet">The first {MOST} of {plural(listed.length, 'row')}.</p>{/if}
