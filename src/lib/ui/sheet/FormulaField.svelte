<script lang="ts">
	import { OPERATORS, type Formula, type Operand, type Operator } from '$lib/core/values/formula.ts';
	import Button from '../controls/Button.svelte';

	/** A formula built by choosing columns, numbers and operators, in turns. */
	let { formula, columns, onset }: { formula: Formula; columns: readonly string[]; onset: (formula: Formula) => void } =
		$props();
	const set = (i: number, term: Operand | Operator) => onset(formula.map((old, k) => (k === i ? term : old)));
	const more = () => onset([...formula, '×', columns[0] ? { column: columns[0] } : { number: '1' }]);
	const choose = (i: number, value: string) => set(i, value === '#' ? { number: '1' } : { column: value.slice(1) });
</script>

<div class="flex flex-wrap items-center gap-1" role="group" aria-label="Formula">
	{#each formula as term, i (i)}
		{#if typeof term === 'string'}
			<select
				class="field w-14"
				aria-label="Operator"
				value={term}
				onchange={(event) => set(i, event.currentTarget.value as Operator)}
			>
				{#each OPERATORS as operator (operator)}<option value={operator}>{operator}</option>{/each}
			</select>
		{:else}
			<select
				class="field max-w-28"
				aria-label="Column or number"
				value={'column' in term ? `:${term.column}` : '#'}
				onchange={(event) => choose(i, event.currentTarget.value)}
			>
				{#each columns as column (column)}<option value=":{column}">{column}</option>{/each}
				<option value="#">a number</option>
			</select>
			{#if 'number' in term}<input
					class="field w-16"
					aria-label="Number"
					value={term.number}
					onchange={(event) => set(i, { number: event.currentTarget.value.trim() || '0' })}
				/>{/if}
		{/if}
	{/each}
	<Button small onclick={more}>further…</Button>
	{#if formula.length > 2}<Button small onclick={() => onset(formula.slice(0, -2))}>less</Button>{/if}
</div>
