<script lang="ts">
	import type { DecimalMark } from '$lib/core/values/parse.ts';
	import { withMark } from '$lib/core/work/marks.ts';
	import MarkChoice from '../table/MarkChoice.svelte';
	import { listed, pluralWord } from '$lib/core/words.ts';
	import { columnsIn, type Formula } from '$lib/core/values/formula.ts';
	import { formulaText } from '$lib/core/values/formula-text.ts';
	import { SUMMARIES, SUMMARY_WORDS, type Summary } from '$lib/core/values/summary.ts';
	import { columnNames } from '$lib/core/work/names.ts';
	import { filled, typed, workedColumns } from '$lib/core/work/cells.ts';
	import { linesOf } from '$lib/core/work/selection.ts';
	import { sortRows, type SortKey } from '$lib/core/work/sort.ts';
	import { anchorOf, asTyped, cellOf, tidy, withCells } from '$lib/core/work/table.ts';
	import type { TableBench } from './bench.svelte.ts';
	import { guard } from '$lib/core/work/locks.ts';
	import FormulaEntry from './FormulaEntry.svelte';
	import Button from '../controls/Button.svelte';

	/** What cells are worked out from, sums that are wrong, filling and sorting. */
	let { bench }: { bench: TableBench } = $props();
	const focus = $derived(bench.selection.focus);
	const column = $derived(bench.work.columns[focus.c]!);
	const names = $derived(columnNames(bench.work));
	const nameOf = (c: number) => names[c] || `column ${c + 1}`;
	const isBody = $derived(bench.work.rows[focus.r]!.role === 'body');

	/* formulas of the column and of the cell */
	const setFormula = (formula: Formula | undefined) => {
		const c = focus.c;
		bench.setColumns(
			formula ? `${nameOf(c)} is ${formulaText(formula)}` : `${nameOf(c)} is typed`,
			new Set([c]),
			(one) => ({ ...one, formula, ...(formula && { across: undefined }) })
		);
	};
	const cell = $derived(cellOf(bench.work, focus.r, focus.c));
	const setOwn = (formula: Formula | undefined) => {
		const place = anchorOf(bench.work, focus.r, focus.c);
		bench.edit(
			formula ? `row ${place.r + 1}, ${nameOf(place.c)} is ${formulaText(formula)}` : 'typed again',
			(work) => {
				guard(work, [place], 'content');
				return withCells(work, [place], (one) => tidy({ ...asTyped(one), content: undefined, formula }));
			}
		);
	};
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
			withCells(work, places, (cell) =>
				cell.total === how && !cell.formula
					? cell
					: tidy({ ...cell, content: undefined, formula: undefined, total: how })
			)
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
		const run = (over: boolean) =>
			bench.edit(`filled ${direction}${asSeries ? ', going on' : ''}`, (work) =>
				filled(work, range, direction, given, asSeries, { over })
			);
		const columns = workedColumns(bench.work, bench.cells);
		if (!columns.length) return run(false);
		const called = listed(columns.map((c) => `“${nameOf(c)}”`));
		bench.ask(`${called} ${pluralWord(columns.length, 'is', 'are')} worked out, and you fill over it.`, [
			['Fill over it: it is typed from then on', () => run(true)],
			['Do not fill', () => undefined]
		]);
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
			<button type="button" class="block min-h-6 text-start hover:underline" onclick={() => bench.select(r, c)}
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
			<button type="button" class="block min-h-6 text-start hover:underline" onclick={() => bench.select(r, c)}
				>{nameOf(c)}, row {r + 1}: {why}</button
			>
		{/each}
	</section>
{/if}
<section class="mb-4" aria-label="Column">
	<h3 class="mb-1 font-semibold">Each row of “{nameOf(focus.c)}”</h3>
	<FormulaEntry
		label="Formula of the column"
		formula={column.formula}
		names={names.filter((_, c) => c !== focus.c)}
		placeholder="typed by hand; or name columns: Price × Count"
		onset={setFormula}
	/>
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
	<h3 class="mb-1 font-semibold">This cell alone</h3>
	{#if !isBody}
		<div class="mb-1.5 flex flex-wrap gap-1" role="group" aria-label="Of its column">
			<button
				type="button"
				class={['chip', !total && !cell.formula && 'on']}
				aria-pressed={!total && !cell.formula}
				onclick={() => setTotal(undefined)}>typed</button
			>
			{#each SUMMARIES as how (how)}<button
					type="button"
					class={['chip', total === how && 'on']}
					aria-pressed={total === how}
					onclick={() => setTotal(how)}>{SUMMARY_WORDS[how]}</button
				>{/each}
		</div>
	{/if}
	<details open={!!cell.formula}>
		<summary>{cell.formula ? 'It has a formula of its own' : 'A formula of its own'}</summary>
		<div class="pt-1">
			<FormulaEntry
				label="Formula of the cell"
				formula={cell.formula}
				{names}
				placeholder="for this cell alone: total of Cost × 19 %"
				onset={setOwn}
			/>
		</div>
	</details>
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
