<script lang="ts">
	import { explainEdge, explainLeaf, explainTrace, rankNumeral } from '$lib/core/cascade/explain.ts';
	import { traceCell, traceEdge, type Decided, type Resolved } from '$lib/core/cascade/resolve.ts';
	import { cellAt, type Side } from '$lib/core/table/grid.ts';
	import { partWords } from '$lib/core/style/parts.ts';
	import { leafWords, valueWords } from '$lib/core/style/words.ts';

	/** The trace of one cell: a sentence, then each leaf with who set it and whom that overruled. */
	let {
		resolved,
		r,
		c,
		side,
		onjump,
		onclose
	}: {
		resolved: Resolved;
		r: number;
		c: number;
		/** The edge of the cell that is asked about; the cell itself where there is none. */
		side?: Side | undefined;
		onjump?: ((part: string) => void) | undefined;
		onclose: () => void;
	} = $props();

	const cell = $derived(cellAt(resolved.structure.table, r, c));
	const trace = $derived(new Map([...traceCell(resolved, r, c)].sort(([, [a]], [, [b]]) => b!.rank - a!.rank)));
	const sides: { side: Side; words: string }[] = [
		{ side: 'top', words: 'line above' },
		{ side: 'bottom', words: 'line below' },
		{ side: 'start', words: 'line before' },
		{ side: 'end', words: 'line after' }
	];
	const at = (which: Side) =>
		traceEdge(
			resolved,
			which === 'bottom' ? cell.r + cell.rows - 1 : cell.r,
			which === 'end' ? cell.c + cell.cols - 1 : cell.c,
			which
		);
	const edge = $derived(side && at(side));
	const claimants = $derived(
		side === 'top' || side === 'start' ? ['the cell before', 'this cell'] : ['this cell', 'the cell after']
	);
	const lines = $derived(
		sides.flatMap(({ side, words }) => {
			const edge = at(side);
			if (!edge?.result.line) return [];
			const { line, part, rank } = edge.result;
			const said = edge.claims.flatMap((claim) => [...claim.values()].flat());
			const others = [
				...new Map(said.filter((decided) => decided.part !== part).map((decided) => [decided.part, decided])).values()
			];
			return [
				{
					words,
					value: line.pattern === 'none' ? 'none' : `${line.pattern} ${line.weight}${line.ink ? ` ${line.ink}` : ''}`,
					part: part!,
					rank: rank!,
					others
				}
			];
		})
	);
</script>

{#snippet setter(decided: Pick<Decided, 'part' | 'rank'>, value: string, overruled: boolean)}
	<button
		type="button"
		class={['chip py-0!', overruled ? 'off' : 'text-ink!']}
		disabled={!onjump}
		onclick={() => onjump?.(decided.part)}
	>
		{rankNumeral(decided.rank)}
		{partWords(decided.part)} · {value}
	</button>
{/snippet}

<section class="max-h-36 shrink-0 overflow-y-auto border-t border-hairline bg-picked-wash px-5 py-3" aria-label="Trace">
	<div class="flex items-baseline gap-5">
		<strong class="shrink-0 text-[14px] text-picked">{cell.text.trim().slice(0, 40) || 'empty cell'}</strong>
		<p class="flex-1">
			{#if edge && side}<strong>{sides.find((one) => one.side === side)!.words}:</strong>
				{explainEdge(edge)}{:else}{explainTrace(trace, lines)}{/if}
		</p>
		<button type="button" class="shrink-0 text-quiet hover:text-ink" onclick={onclose}>T closes</button>
	</div>
	{#if edge}
		<dl class="mt-2 grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1">
			{#each edge.claims as claim, i (i)}
				<dt class="text-quiet">{edge.claims.length === 2 ? claimants[i] : 'this cell'} claims</dt>
				<dd class="flex flex-wrap items-center gap-1.5">
					{#each [...claim] as [property, decided] (property)}
						<span class="text-quiet">{property}</span>
						{#each decided as entry, at (entry.part)}{@render setter(entry, String(entry.value), at > 0)}{/each}
					{:else}nothing{/each}
				</dd>
			{/each}
		</dl>
	{:else}
		<dl class="mt-2 grid grid-cols-[auto_1fr_auto_1fr] items-center gap-x-4 gap-y-1">
			{#each lines as { words, value, part, rank, others } (words)}
				<dt class="text-quiet">{words}</dt>
				<dd class="flex flex-wrap items-center gap-1.5">
					{@render setter({ part, rank }, value, false)}
					{#if others.length}<span class="text-quiet">overrules</span
						>{#each others as entry (entry.part)}{@render setter(entry, String(entry.value), true)}{/each}{/if}
				</dd>
			{/each}
			{#each [...trace] as [path, decided] (path)}
				<dt class="text-quiet" title={explainLeaf(path, decided)}>{leafWords(path)}</dt>
				<dd class="flex flex-wrap items-center gap-1.5">
					{@render setter(decided[0]!, valueWords(path, decided[0]!.value), false)}
					{#if decided.length > 1}<span class="text-quiet">overrules</span
						>{#each decided.slice(1) as entry (entry.part)}{@render setter(
								entry,
								valueWords(path, entry.value),
								true
							)}{/each}{/if}
				</dd>
			{/each}
		</dl>
	{/if}
</section>
