<script lang="ts">
	import { combinationOf, membersOf, type Combination, type Test } from '$lib/core/style/conditions.ts';
	import { comparison, COMPARISONS, type Comparison } from '$lib/core/style/comparisons.ts';
	import type { Condition } from '$lib/core/style/types.ts';
	import { ROLES } from '$lib/core/roles/index.ts';
	import { COLUMN_KINDS } from '$lib/core/table/columns.ts';
	import Self from './ConditionEditor.svelte';
	import NumberField from '../controls/NumberField.svelte';
	import Button from '../controls/Button.svelte';

	/** A condition built from plain choices: what it speaks of, how it compares, and in which rows; or several, combined. */
	interface Props {
		condition: Condition;
		columns: readonly string[];
		onset: (condition: Condition) => void;
		/** Takes it out of the combination that it stands in. */
		onremove?: (() => void) | undefined;
		depth?: number;
	}
	let { condition, columns, onset, onremove, depth = 0 }: Props = $props();

	const combination = $derived(combinationOf(condition));
	const members = $derived(membersOf(condition));
	const test = $derived(condition as Test);
	const COMBINATIONS: Record<Combination, string> = { all: 'all of these', any: 'any of these', not: 'not this' };

	/** What a combination gets as its next condition: about the same, and met until a value is typed. */
	const next = $derived.by((): Condition => {
		const like = (combination ? (members.find((member) => !combinationOf(member)) as Test | undefined) : test) ?? test;
		const { column, kind } = like;
		const about = column !== undefined ? { column } : kind !== undefined ? { kind } : { any: true as const };
		return { ...about, ...(like.rows && { rows: like.rows }), is: '!=', value: '' } as Condition;
	});
	function combine(how: Combination, list: readonly Condition[]): Condition {
		if (how === 'not') return { not: list[0] ?? next };
		return (how === 'all' ? { all: [...list] } : { any: [...list] }) as Condition;
	}
	const setMembers = (list: readonly Condition[]) =>
		list.length === 1 && combination !== 'not' && depth > 0
			? onset(list[0]!)
			: list.length
				? onset(combine(combination!, list))
				: onremove?.();

	function about(value: string) {
		const { column: _c, kind: _k, any: _a, ...rest } = test;
		const [what, name = ''] = [value.slice(0, value.indexOf(':')), value.slice(value.indexOf(':') + 1)];
		const subject = what === 'kind' ? { kind: name } : what === 'column' ? { column: name } : { any: true };
		onset({ ...subject, ...rest } as Condition);
	}
	const subject = $derived(
		test.column !== undefined ? `column:${test.column}` : test.kind !== undefined ? `kind:${test.kind}` : 'any:'
	);
	function compare(is: Comparison) {
		const { value, ...rest } = test;
		const operands = comparison(is).operands;
		const old = Array.isArray(value) ? value : value === undefined ? [] : [value];
		onset({
			...rest,
			is,
			...(operands === 'one' && { value: old[0] ?? '' }),
			...(operands === 'count' && { value: Number(old[0]) || 1 }),
			...(operands === 'two' && { value: [old[0] ?? '', old[1] ?? ''] }),
			...(operands === 'list' && { value: old })
		} as Condition);
	}
	/** What is typed as a plain number is one: "0", "-12.5"; everything else stays text and is read by the table's own marks. */
	const typed = (text: string): string | number =>
		/^-?\d+(\.\d+)?$/.test(text.trim()) && !/^-?0\d/.test(text.trim()) ? Number(text) : text.trim();
	const values = $derived(Array.isArray(test.value) ? test.value : [test.value ?? '']);
	const setValue = (i: number, text: string) =>
		onset({
			...test,
			value:
				comparison(test.is).operands === 'two'
					? [0, 1].map((at) => (at === i ? typed(text) : (values[at] ?? '')))
					: typed(text)
		} as Condition);
	function toggleRow(row: string) {
		const rows = test.rows ?? ['body'];
		const next = rows.includes(row) ? rows.filter((other) => other !== row) : [...rows, row];
		const { rows: _, ...rest } = test;
		onset((next.length === 0 || next.join() === 'body' ? rest : { ...rest, rows: next }) as Condition);
	}
</script>

{#if combination}
	<div class={['rounded-lg border border-hairline px-2.5 py-2', depth % 2 ? 'bg-paper' : 'bg-desk']}>
		<div class="flex items-center gap-2">
			<select
				class="field"
				aria-label="How they combine"
				value={combination}
				onchange={(event) => onset(combine(event.currentTarget.value as Combination, members))}
			>
				{#each Object.entries(COMBINATIONS) as [how, words] (how)}<option value={how}>{words}</option>{/each}
			</select>
			{#if onremove}<button
					type="button"
					class="ms-auto p-1 text-quiet hover:text-error"
					aria-label="Take these out"
					onclick={onremove}>×</button
				>{/if}
		</div>
		<div class="mt-2 flex flex-col gap-2">
			{#each members as member, i (i)}
				<Self
					condition={member}
					{columns}
					depth={depth + 1}
					onset={(next) => setMembers(members.map((other, at) => (at === i ? next : other)))}
					onremove={combination === 'not' ? onremove : () => setMembers(members.filter((_, at) => at !== i))}
				/>
			{/each}
		</div>
		{#if combination !== 'not'}
			<Button small class="mt-2" onclick={() => setMembers([...members, next])}>+ condition</Button>
		{/if}
	</div>
{:else}
	<div class="flex flex-col gap-1.5 rounded-lg border border-hairline bg-sheet px-2.5 py-2">
		<div class="flex gap-1.5">
			<select
				class="field min-w-0 flex-1"
				aria-label="What it is about"
				value={subject}
				onchange={(event) => about(event.currentTarget.value)}
			>
				<option value="any:">a cell of any column</option>
				<optgroup label="Column kinds"
					>{#each COLUMN_KINDS as kind (kind)}<option value="kind:{kind}">a cell of {kind} columns</option
						>{/each}</optgroup
				>
				<optgroup label="Columns by name">
					{#each columns as name (name)}<option value="column:{name}">column “{name}”</option>{/each}
					{#if test.column !== undefined && !columns.includes(test.column)}<option value="column:{test.column}"
							>column “{test.column}”</option
						>{/if}
				</optgroup>
			</select>
			{#if onremove}<button
					type="button"
					class="p-1 text-quiet hover:text-error"
					aria-label="Take this condition out"
					onclick={onremove}>×</button
				>{/if}
		</div>
		<select
			class="field w-full"
			aria-label="How it compares"
			value={test.is}
			onchange={(event) => compare(event.currentTarget.value as Comparison)}
		>
			{#each COMPARISONS as { is, words } (is)}<option value={is}>{words}</option>{/each}
		</select>
		{#if comparison(test.is).operands === 'one'}
			<input
				class="field w-full"
				aria-label="Value"
				value={String(values[0] ?? '')}
				onchange={(event) => setValue(0, event.currentTarget.value)}
			/>
		{:else if comparison(test.is).operands === 'count'}
			<NumberField
				class="w-24"
				label="How many"
				least={1}
				isWhole
				value={Number(test.value ?? 1)}
				onset={(value) => onset({ ...test, value } as Condition)}
			/>
		{:else if comparison(test.is).operands === 'two'}
			<div class="flex items-center gap-2">
				<input
					class="field min-w-0 flex-1"
					aria-label="From"
					value={String(values[0] ?? '')}
					onchange={(event) => setValue(0, event.currentTarget.value)}
				/>
				and
				<input
					class="field min-w-0 flex-1"
					aria-label="To"
					value={String(values[1] ?? '')}
					onchange={(event) => setValue(1, event.currentTarget.value)}
				/>
			</div>
		{:else if comparison(test.is).operands === 'list'}
			<textarea
				class="field w-full"
				rows="2"
				aria-label="Values, one a line"
				placeholder="one a line"
				value={values.filter((value) => value !== '').join('\n')}
				onchange={(event) =>
					onset({
						...test,
						value: event.currentTarget.value
							.split('\n')
							.filter((line) => line.trim())
							.map(typed)
					} as Condition)}></textarea>
		{/if}
		<div class="flex flex-wrap items-center gap-1" role="group" aria-label="In which rows">
			<span class="text-[12px] text-quiet">in</span>
			{#each ROLES as { family: row } (row)}
				{@const on = (test.rows ?? ['body']).includes(row)}
				<button type="button" class={['chip px-2!', on && 'on']} aria-pressed={on} onclick={() => toggleRow(row)}
					>{row}</button
				>
			{/each}
		</div>
		<div class="flex gap-1.5">
			{#if depth < 6}
				{#if depth === 0}
					<Button small onclick={() => onset(combine('all', [condition, next]))}>and…</Button>
					<Button small onclick={() => onset(combine('any', [condition, next]))}>or…</Button>
				{:else}
					<Button small onclick={() => onset(combine('any', [condition, next]))}>any of…</Button>
				{/if}
				<Button small onclick={() => onset(combine('not', [condition]))}>not</Button>
			{/if}
		</div>
	</div>
{/if}
