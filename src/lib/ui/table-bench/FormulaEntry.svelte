<script lang="ts">
	import { formulaFault, OPERATORS, type Formula } from '$lib/core/values/formula.ts';
	import { formulaText, parseFormula } from '$lib/core/values/formula-text.ts';
	import Button from '../controls/Button.svelte';
	import { keysOf } from '../controls/shortcuts.ts';

	/** A formula as it is typed, with the columns that it can name and the words that it is made of. */
	interface Props {
		label: string;
		formula: Formula | undefined;
		/** Columns that can be named. */
		names: readonly string[];
		placeholder: string;
		/** Undefined for none. */
		onset: (formula: Formula | undefined) => void;
	}
	let { label, formula, names, placeholder, onset }: Props = $props();

	/** What stands before a column or a list, and what is whole by itself. */
	const WORDS = ['sum of', 'mean of', 'least of', 'greatest of', 'how many of', 'total of', 'above'] as const;
	let text = $state('');
	let fault = $state('');
	let field: HTMLInputElement;
	$effect(() => {
		text = formula ? formulaText(formula) : '';
		fault = '';
	});
	const REST = /[^+−×÷*/();“”"]*$/;
	const last = $derived(
		REST.exec(text)![0]
			.replace(/^.*\bof\s+/, '')
			.trim()
			.toLowerCase()
	);
	/** Names of columns that go on with what was typed last. */
	const offered = $derived.by(() => {
		const isWhole = names.some((name) => name.toLowerCase() === last);
		return names.filter((name) => isWhole || name.toLowerCase().startsWith(last));
	});
	function put(word: string, isName: boolean) {
		const before = isName && last ? text.slice(0, text.toLowerCase().lastIndexOf(last)) : text;
		const written = isName ? formulaText([{ column: word }]) : word;
		text = `${before.trimEnd()}${before.trim() && !before.trimEnd().endsWith('(') ? ' ' : ''}${written} `;
		field.focus();
	}
	function take() {
		if (!text.trim()) return onset(undefined);
		try {
			const next = parseFormula(text, names);
			const wrong = formulaFault(next, names);
			if (wrong) throw new Error(wrong);
			fault = '';
			onset(next);
		} catch (error) {
			fault = (error as Error).message;
		}
	}
</script>

<input
	bind:this={field}
	class={['field w-full', fault && 'border-error!']}
	aria-label={label}
	aria-invalid={!!fault}
	{placeholder}
	bind:value={text}
	onchange={take}
	onkeydown={keysOf([{ keys: ['Enter'], run: take }])}
/>
{#if fault}<p class="pt-1 text-error">{fault}</p>{/if}
<div class="mt-1.5 flex flex-wrap gap-1" role="group" aria-label="Columns to name">
	{#each offered.slice(0, 12) as name (name)}<button type="button" class="chip" onclick={() => put(name, true)}
			>{name}</button
		>{/each}
</div>
<div class="mt-1 flex flex-wrap gap-1" role="group" aria-label="Operators">
	{#each [...OPERATORS, '(', ')'] as operator (operator)}<button
			type="button"
			class="chip min-w-8 justify-center"
			onclick={() => put(operator, false)}>{operator}</button
		>{/each}
</div>
<details class="mt-1">
	<summary class="text-quiet">More words: sum of, total of, above, round …</summary>
	<div class="mt-1 flex flex-wrap gap-1" role="group" aria-label="Words">
		{#each WORDS as word (word)}<button type="button" class="chip" onclick={() => put(word, false)}>{word}</button
			>{/each}
		<button type="button" class="chip" onclick={() => (text = `round (${text.trim()}; 2)`)}>round (…; 2)</button>
	</div>
	<p class="pt-1 text-[12px] text-quiet">
		“sum of Cost” is of the whole column, “sum of (A; B)” of this row; “above” is the cell above.
	</p>
</details>
<Button small class="mt-1.5" onclick={take}>Take it</Button>
