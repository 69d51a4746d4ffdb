<script lang="ts">
	import type { DecimalMark } from '$lib/core/values/parse.ts';
	import { withMark } from '$lib/core/work/marks.ts';
	import MarkChoice from '../table/MarkChoice.svelte';
	import { pluralWord } from '$lib/core/words.ts';
	import { columnsIn, formulaFault, OPERATORS } from '$lib/core/values/formula.ts';
	import { formulaText, parseFormula } from '$lib/core/values/formula-text.ts';
	import { SUMMARIES, type Summary } from '$lib/core/values/summary.ts';
	import { columnNames } from '$lib/core/work/names.ts';
	import { filled, typed } from '$lib/core/work/cells.ts';
	import { linesOf } from '$lib/core/work/selection.ts';
	import { sortRows, type SortKey } from '$lib/core/work/sort.ts';
	import { cellOf, tidy, withCells } from '$lib/core/work/table.ts';
	import type { TableBench } from './bench.svelte.ts';
	import { keysOf } from '../controls/shortcuts.ts';
	import Button from '../controls/Button.svelte';

	/** What cells are worked out from, sums that are wrong, filling and sorting. */
	let { bench }: { bench: TableBench } = $props();
	const focus = $derived(bench.selection.focus);
	const column = $derived(bench.work.columns[focus.c]!);
	const names = $derived(columnNames(bench.work));
	const nameOf = (c: number) => names[c] || `column ${c + 1}`;
	const isBody = $derived(bench.work.rows[focus.r]!.role === 'body');
	const SUMMARY_WORDS: Record<Summary, string> = {
		sum: 'sum',
		mean: 'mean',
		count: 'how many',
		least: 'least',
		greatest: 'greatest'
	};

	/* the column's formula */
	let text = $state('');
	let fault = $state('');
	$effect(() => {
		text = column.formula ? formulaText(column.formula) : '';
		fault = '';
	});
	let field: HTMLInputElement;
	const others = $derived(names.filter((name, c) => name && c !== focus.c));
	/** Names of columns that go on with what was typed last. */
	const offered = $derived.by(() => {
		const last = /[^+−×÷*/()“”"]*$/.exec(text)![0].trim().toLowerCase();
		const isWhole = others.some((name) => name.toLowerCase() === last);
		return others.filter((name) => isWhole || name.toLowerCase().startsWith(last));
	});
	function put(word: string, isName: boolean) {
		const cut = isName ? text.replace(/[^+−×÷*/()“”"]*$/, '') : text;
		const written = isName ? formulaText([{ column: word }]) : word;
		text = `${cut.trimEnd()}${cut.trim() && !cut.trimEnd().endsWith('(') ? ' ' : ''}${written} `;
		field.focus();
	}
	function takeFormula() {
		if (!text.trim()) {
			bench.setColumns(`${nameOf(focus.c)} is typed`, new Set([focus.c]), (one) => ({ ...one, formula: undefined }));
			return;
		}
		try {
			const formula = parseFormula(text, others);
			const wrong = formulaFault(formula, others);
			if (wrong) throw new Error(wrong);
			fault = '';
			const c = focus.c;
			bench.setColumns(`${nameOf(c)} is ${formulaText(formula)}`, new Set([c]), (one) => ({
				...one,
				formula,
				across: undefined
			}));
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	const setAcross = (across: Summary | undefined) => {
		const c = focus.c;
		bench.setColumns(
			across ? `${nameOf(c)} is the ${SUMMARY_WORDS[across]} of its row` : `${nameOf(c)} is typed`,
			new Set([c]),
			(one) => ({
				...one,
				across,
				formula: undefined
			})
		);
	};

	/* totals */
	const total = $derived(cellOf(bench.work, focus.r, focus.c).total);
	const setTotal = (how: Summary | undefined) => {
		const places = bench.cells.filter(({ r }) => bench.work.rows[r]!.role !== 'body');
		bench.edit(how ? `${SUMMARY_WORDS[how]} of the column` : 'typed again', (work) =>
			withCells(work, places, (cell) => (cell.total === how ? cell : tidy({ ...cell, content: undefined, total: how })))
		);
	};

	/* filling */
	const fill = (direction: 'down' | 'across', asSeries: boolean) => {
		const { range } = bench;
		const isDown = direction === 'down';
		const [from, to] = isDown ? [range.top, range.bottom] : [range.start, range.end];
		// Cells that are filled already, from the beginning, say how it goes on.
		const isEmpty = (i: number) => !cellOf(bench.work, isDown ? i : range.top, isDown ? range.start : i).text.trim();
		let given = 1;
		if (asSeries) while (from + given < to && !isEmpty(from + given)) given++;
		bench.edit(`filled ${direction}${asSeries ? ', going on' : ''}`, (work) =>
			filled(work, range, direction, given, asSeries)
		);
	};

	/** Cells that have a figure which leaves rows out, and those that have none. */
	const partial = $derived(bench.problems.filter(({ isPartial }) => isPartial));
	const missing = $derived(bench.problems.filter(({ isPartial }) => !isPartial));

	const MARKS = { '.': 'point', ',': 'comma' } as const;
	const sayMark = (mark: DecimalMark) =>
		bench.edit(`figures with a decimal ${MARKS[mark]}`, (work) => withMark(work, mark));

	/* sorting */
	let keys = $state<{ column: number; order: SortKey['order'] }[]>([]);
	const sort = () =>
		bench.edit(`sorted by ${keys.map(({ column: c }) => nameOf(c)).join(', ')}`, (work) =>
			sortRows(work, keys, bench.house.locale)
		);
	const isFillable = $derived({
		down: linesOf([bench.range], 'rows').size > 1,
		across: linesOf([bench.range], 'columns').size > 1
	});
</script>

{#snippet markChoice()}
	<MarkChoice mark={bench.work.mark} doubt={bench.doubt} isSaid={bench.work.isMarkSaid ?? false} onmark={sayMark} />
{/snippet}

{#if bench.doubt !== undefined}<div class="mb-4">{@render markChoice()}</div>{/if}
{#if bench.wrong.length}
	<section class="mb-4 rounded-lg border border-hairline bg-warning-wash px-3 py-2" aria-label="Wrong sums">
		<h3 class="font-semibold text-warning-text">
			{pluralWord(bench.wrong.length, 'A sum is', `${bench.wrong.length} sums are`)} wrong
		</h3>
		{#each bench.wrong as { r, c, should, off } (`${r},${c}`)}
			<div class="flex flex-wrap items-center gap-1.5 py-1">
				<button type="button" class="text-start hover:underline" onclick={() => bench.select(r, c)}
					>{nameOf(c)}, row {r + 1}: off by {off}</button
				>
				<Button small onclick={() => bench.edit(`sum mended in row ${r + 1}`, (work) => typed(work, r, c, should))}
					>Put {should}</Button
				>
				<Button
					small
					onclick={() =>
						bench.edit(`sum of ${nameOf(c)} worked out`, (work) =>
							withCells(work, [{ r, c }], (cell) => ({ ...cell, total: 'sum' }))
						)}>Work it out</Button
				>
			</div>
		{/each}
	</section>
{/if}
{#if partial.length}
	<section class="mb-4 rounded-lg border border-hairline bg-warning-wash px-3 py-2" aria-label="Partial figures">
		<h3 class="font-semibold text-warning-text">
			{pluralWord(partial.length, 'One figure is', `${partial.length} figures are`)} to be taken with care
		</h3>
		{#each partial.slice(0, 6) as { r, c, why } (`${r},${c}`)}
			<button type="button" class="block text-start hover:underline" onclick={() => bench.select(r, c)}
				>{nameOf(c)}, row {r + 1}: {why}</button
			>
		{/each}
	</section>
{/if}
{#if missing.length}
	<section class="mb-4 rounded-lg border border-hairline bg-error-wash px-3 py-2" aria-label="Without a figure">
		<h3 class="font-semibold text-error">
			{pluralWord(missing.length, 'One cell has', `${missing.length} cells have`)} no figure
		</h3>
		{#each missing.slice(0, 6) as { r, c, why } (`${r},${c}`)}
			<button type="button" class="block text-start hover:underline" onclick={() => bench.select(r, c)}
				>{nameOf(c)}, row {r + 1}: {why}</button
			>
		{/each}
	</section>
{/if}
<section class="mb-4" aria-label="Column">
	<h3 class="mb-1 font-semibold">Each row of “{nameOf(focus.c)}”</h3>
	<input
		bind:this={field}
		class={['field w-full', fault && 'border-error!']}
		aria-label="Formula of the column"
		aria-invalid={!!fault}
		placeholder="typed by hand; or name columns: Price × Count"
		bind:value={text}
		onchange={takeFormula}
		onkeydown={keysOf([{ keys: ['Enter'], run: takeFormula }])}
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
		<Button small onclick={takeFormula}>Take it</Button>
	</div>
	<div class="mt-2 flex flex-wrap items-center gap-1" role="group" aria-label="From its row">
		<span class="text-quiet">or of its row</span>
		{#each SUMMARIES as how (how)}<button
				type="button"
				class={['chip', column.across === how && 'on']}
				aria-pressed={column.across === how}
				onclick={() => setAcross(column.across === how ? undefined : how)}>{SUMMARY_WORDS[how]}</button
			>{/each}
	</div>
	{#if column.formula}<p class="pt-1 text-[12px] text-quiet">
			Comes from {columnsIn(column.formula)
				.map((name) => `“${name}”`)
				.join(', ')}.
		</p>{/if}
	{#if bench.dependents.size}<p class="pt-1 text-[12px] text-quiet">
			{[...bench.dependents].map((c) => `“${nameOf(c)}”`).join(', ')}
			{pluralWord(bench.dependents.size, 'comes', 'come')} from this column.
		</p>{/if}
</section>
<section class="mb-4" aria-label="Total">
	<h3 class="mb-1 font-semibold">This cell of the column</h3>
	{#if isBody}<p class="text-quiet">Cells of header, group, subtotal and total rows can tell of their column.</p>{:else}
		<div class="flex flex-wrap gap-1" role="group" aria-label="Of its column">
			<button type="button" class={['chip', !total && 'on']} aria-pressed={!total} onclick={() => setTotal(undefined)}
				>typed</button
			>
			{#each SUMMARIES as how (how)}<button
					type="button"
					class={['chip', total === how && 'on']}
					aria-pressed={total === how}
					onclick={() => setTotal(how)}>{SUMMARY_WORDS[how]}</button
				>{/each}
		</div>
	{/if}
</section>
<section class="mb-4" aria-label="Fill">
	<h3 class="mb-1 font-semibold">Fill the selection</h3>
	<div class="flex flex-wrap gap-1.5">
		<Button small disabled={!isFillable.down} onclick={() => fill('down', false)}>Copy down</Button>
		<Button small disabled={!isFillable.down} onclick={() => fill('down', true)}>Go on down</Button>
		<Button small disabled={!isFillable.across} onclick={() => fill('across', false)}>Copy across</Button>
		<Button small disabled={!isFillable.across} onclick={() => fill('across', true)}>Go on across</Button>
	</div>
</section>
<section class="mb-4" aria-label="Sort">
	<h3 class="mb-1 font-semibold">Sort the body</h3>
	{#each keys as key, i (i)}
		<div class="mb-1 flex items-center gap-1.5">
			<select class="field min-w-0 flex-1" aria-label="Column to sort by, {i + 1}" bind:value={key.column}>
				{#each names as _, c (c)}<option value={c}>{nameOf(c)}</option>{/each}
			</select>
			<select class="field" aria-label="Order {i + 1}" bind:value={key.order}>
				<option value="rising">rising</option><option value="falling">falling</option>
			</select>
			<Button small aria-label="Leave out" onclick={() => (keys = keys.filter((_, k) => k !== i))}>×</Button>
		</div>
	{/each}
	<div class="flex gap-1.5">
		<Button small onclick={() => (keys = [...keys, { column: focus.c, order: 'rising' }])}
			>{keys.length ? 'then by…' : `By “${nameOf(focus.c)}”`}</Button
		>
		<Button small disabled={!keys.length} onclick={sort}>Sort</Button>
	</div>
	<p class="pt-1 text-[12px] text-quiet">Headers, groups, subtotals and totals stay where they are.</p>
</section>
{#if bench.doubt === undefined}
	<section class="mb-4" aria-label="Decimal mark">
		<h3 class="mb-1 font-semibold">How figures are read</h3>
		{@render markChoice()}
	</section>
{/if}
