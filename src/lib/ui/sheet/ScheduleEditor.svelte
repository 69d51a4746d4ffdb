<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import ConditionEditor from '../style-bench/ConditionEditor.svelte';
	import {
		SOURCE_WORDS,
		withoutColumn,
		type ColumnSource,
		type ScheduleColumn,
		type ScheduleDefinition,
		type SourceName,
		isFilterOnRows
	} from '$lib/core/schedule/definition.ts';
	import { headingFor } from '$lib/core/schedule/propose.ts';
	import { COLUMN_KINDS } from '$lib/core/table/columns.ts';
	import type { PlacedSource } from '$lib/core/schedule/placed.ts';
	import type { Condition } from '$lib/core/style/types.ts';
	import type { Desk } from './desk.svelte.ts';
	import FormulaField from './FormulaField.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** What a schedule lists and how: kinds, columns, order, groups, filter. Every change is shown on the sheet at once. */
	type Source = Extract<PlacedSource, { from: 'objects' }>;
	interface Props {
		desk: Desk;
		source: Source;
		onsource: (source: Source) => void;
		/** A column is called otherwise, wherever it is named; what was typed in it stays with it. */
		onrename: (from: string, to: string) => void;
	}
	let { desk, source, onsource, onrename }: Props = $props();
	const { definition } = $derived(source);
	const onset = (next: ScheduleDefinition) => onsource({ ...source, definition: next });

	const change = (part: Partial<ScheduleDefinition>) => onset({ ...definition, ...part });
	const without = (key: 'where' | 'groupBy' | 'sort' | 'kinds') => {
		const { [key]: _gone, ...rest } = definition;
		onset(rest as ScheduleDefinition);
	};
	const kinds = $derived(desk.data.kinds);
	const isListed = (kind: string) => !definition.kinds || definition.kinds.includes(kind);
	function toggleKind(kind: string) {
		const all = kinds.map((one) => one.kind);
		const now = definition.kinds ?? all;
		const next = now.includes(kind) ? now.filter((one) => one !== kind) : [...now, kind];
		if (all.every((one) => next.includes(one))) without('kinds');
		else if (next.length) change({ kinds: next });
	}
	const attributes = $derived([
		...new Set(kinds.filter(({ kind }) => isListed(kind)).flatMap((one) => one.attributes.map(({ name }) => name)))
	]);
	const names = $derived(definition.columns.map(({ name }) => name));
	let open = $state(-1);

	const setColumn = (c: number, column: ScheduleColumn) =>
		change({ columns: definition.columns.map((old, i) => (i === c ? column : old)) });
	function rename(c: number, name: string) {
		const next = name.trim();
		if (next && !names.includes(next)) onrename(names[c]!, next);
	}
	function move(c: number, by: -1 | 1) {
		const to = c + by;
		if (to < 0 || to >= definition.columns.length) return;
		const columns = [...definition.columns];
		[columns[c], columns[to]] = [columns[to]!, columns[c]!];
		open = open === c ? to : open;
		change({ columns });
	}
	function remove(c: number) {
		open = -1;
		onset(withoutColumn(definition, names[c]!));
	}
	function setKind(c: number, kind: string) {
		const { kind: _old, ...rest } = definition.columns[c]!;
		setColumn(c, (kind ? { ...rest, kind } : rest) as ScheduleColumn);
	}
	const free = (wanted: string): string => {
		let name = wanted;
		for (let i = 2; names.includes(name); i++) name = `${wanted} ${i}`;
		return name;
	};
	const NAMES: Partial<Record<SourceName, string>> = {
		count: 'No.',
		kind: 'Object',
		symbol: 'Symbol',
		layer: 'Layer',
		drawing: 'Drawing',
		x: 'x m',
		y: 'y m',
		computed: 'Worked out',
		typed: 'Remark'
	};
	function sourceFor(value: string): ColumnSource {
		const at = value.indexOf(':');
		const from = (at < 0 ? value : value.slice(0, at)) as SourceName;
		if (from === 'attribute' || from === 'sum') return { from, attribute: value.slice(at + 1) };
		if (from === 'computed') {
			// What is counted or summed is a number for sure.
			const { name } = definition.columns.find(adds) ?? definition.columns[0]!;
			return { from, formula: [{ column: name }, '×', { number: '1' }] };
		}
		return { from } as ColumnSource;
	}
	const nameFor = (source: ColumnSource) =>
		'attribute' in source ? headingFor(source.attribute) : (NAMES[source.from] ?? 'Column');
	function add(value: string) {
		const source = sourceFor(value);
		open = definition.columns.length;
		change({ columns: [...definition.columns, { ...source, name: free(nameFor(source)) } as ScheduleColumn] });
	}
	const valueOf = (column: ScheduleColumn) =>
		'attribute' in column ? `${column.from}:${column.attribute}` : column.from;
	const wordsOf = (column: ScheduleColumn) =>
		column.from === 'attribute'
			? column.attribute
			: column.from === 'sum'
				? `sum of ${column.attribute}`
				: SOURCE_WORDS[column.from];
	const flag = (c: number, key: 'hidden' | 'turned' | 'total', on: boolean) =>
		setColumn(c, { ...definition.columns[c]!, [key]: on });
	const adds = (column: ScheduleColumn) => column.total ?? (column.from === 'count' || column.from === 'sum');

	let dragging = $state(-1);
	function dropOn(c: number) {
		if (dragging < 0 || dragging === c) return;
		const columns = [...definition.columns];
		const [moved] = columns.splice(dragging, 1);
		columns.splice(c, 0, moved!);
		open = -1;
		dragging = -1;
		change({ columns });
	}
	const sort = $derived(definition.sort ?? []);
	const setSort = (next: NonNullable<ScheduleDefinition['sort']>) =>
		next.length ? change({ sort: next }) : without('sort');
	const listed = $derived(source.with ?? []);
	function toggleOther(other: { id: string; name: string }) {
		const next = listed.some(({ id }) => id === other.id)
			? listed.filter(({ id }) => id !== other.id)
			: [...listed, other];
		const { with: _with, ...rest } = source;
		onsource(next.length ? { ...rest, with: next } : rest);
	}
</script>

{#snippet sources(value: string, onchoose: (value: string) => void, label: string, first?: string)}
	<select
		class="field w-full"
		aria-label={label}
		{value}
		onchange={(event) => {
			const chosen = event.currentTarget.value;
			if (first !== undefined) event.currentTarget.value = '';
			if (chosen) onchoose(chosen);
		}}
	>
		{#if first !== undefined}<option value="">{first}</option>{/if}
		<optgroup label="What objects say">
			{#each attributes as attribute (attribute)}<option value="attribute:{attribute}">{attribute}</option>{/each}
		</optgroup>
		<optgroup label="What they are and where">
			{#each ['kind', 'symbol', 'layer', 'drawing', 'x', 'y'] as const as from (from)}<option value={from}
					>{SOURCE_WORDS[from]}</option
				>{/each}
		</optgroup>
		<optgroup label="Of all in a row">
			<option value="count">{SOURCE_WORDS.count}</option>
			{#each attributes as attribute (attribute)}<option value="sum:{attribute}">sum of {attribute}</option>{/each}
		</optgroup>
		<optgroup label="Besides">
			<option value="computed">{SOURCE_WORDS.computed}</option>
			<option value="typed">{SOURCE_WORDS.typed}</option>
		</optgroup>
	</select>
{/snippet}

<label class="block"
	><span class="mb-1 block font-semibold">Title</span>
	<input
		class="field w-full"
		value={definition.title}
		onchange={(event) => change({ title: event.currentTarget.value })}
	/></label
>

<h3 class="mt-4 mb-1 font-semibold">Rows</h3>
<Segmented
	label="Rows"
	options={[
		['merged', 'one for all that say the same'],
		['each', 'one for each object']
	]}
	value={definition.rows}
	onchange={(rows) => change({ rows })}
/>
<details class="mt-2">
	<summary class="text-quiet"
		>of {definition.kinds
			? `${plural(definition.kinds.length, 'kind')} of ${kinds.length}`
			: `all ${kinds.length} kinds`}{listed.length ? `, in ${listed.length + 1} drawings` : ''}</summary
	>
	<div class="mt-1 flex flex-wrap gap-1" role="group" aria-label="Kinds that are listed">
		{#each kinds as { kind, name } (kind)}
			<button
				type="button"
				aria-pressed={isListed(kind)}
				class={['chip px-2!', isListed(kind) && 'on']}
				onclick={() => toggleKind(kind)}>{name}</button
			>
		{/each}
	</div>
	{#if desk.data.others.length}
		<p class="mt-2 text-quiet">and of these drawings, too:</p>
		{#each desk.data.others as other (other.id)}
			<label class="flex items-center gap-2"
				><input
					type="checkbox"
					class="rounded-sm text-picked"
					checked={listed.some(({ id }) => id === other.id)}
					onchange={() => toggleOther(other)}
				/><span class="truncate">{other.name}</span></label
			>
		{/each}
	{/if}
</details>

<h3 class="mt-4 mb-1 font-semibold">Columns</h3>
<ul class="space-y-1" aria-label="Columns of the schedule">
	{#each definition.columns as column, c (column.name)}
		<li
			class={['card', column.hidden && 'opacity-70', dragging === c && 'opacity-40']}
			draggable={open !== c}
			ondragstart={() => (dragging = c)}
			ondragend={() => (dragging = -1)}
			ondragover={(event) => event.preventDefault()}
			ondrop={() => dropOn(c)}
		>
			<button
				type="button"
				class="flex w-full items-center gap-2 px-2.5 py-1 text-start"
				aria-expanded={open === c}
				onclick={() => (open = open === c ? -1 : c)}
				><span class="cursor-grab text-quiet" aria-hidden="true">⋮⋮</span><span class="min-w-0 flex-1 truncate"
					>{column.name}{#if column.hidden}<span class="text-quiet">, hidden</span>{/if}</span
				><span class="truncate text-quiet">{wordsOf(column)}</span></button
			>
			{#if open === c}
				<div class="space-y-1.5 border-t border-hairline px-2.5 py-2">
					<input
						class="field w-full"
						aria-label="Name of the column"
						value={column.name}
						onchange={(event) => rename(c, event.currentTarget.value)}
					/>
					{@render sources(
						valueOf(column),
						(value) => {
							const { name, hidden, turned, width, kind } = column;
							setColumn(c, {
								...sourceFor(value),
								name,
								...(hidden && { hidden }),
								...(turned && { turned }),
								...(width && { width }),
								...(kind && { kind })
							} as ScheduleColumn);
						},
						'Where it comes from'
					)}
					{#if column.from === 'computed'}
						<FormulaField
							formula={column.formula}
							columns={names.filter((name) => name !== column.name)}
							onset={(formula) => setColumn(c, { ...column, formula })}
						/>
					{/if}
					<select
						class="field w-full"
						aria-label="Kind of the column"
						value={column.kind ?? ''}
						onchange={(event) => setKind(c, event.currentTarget.value)}
					>
						<option value="">the kind that its cells show</option>
						{#each COLUMN_KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
					</select>
					<div class="flex flex-wrap gap-1">
						<button
							type="button"
							aria-pressed={!column.hidden}
							class={['chip px-2!', !column.hidden && 'on']}
							onclick={() => flag(c, 'hidden', !column.hidden)}>shown</button
						>
						<button
							type="button"
							aria-pressed={!!column.turned}
							class={['chip px-2!', column.turned && 'on']}
							onclick={() => flag(c, 'turned', !column.turned)}>heading upwards</button
						>
						<button
							type="button"
							aria-pressed={adds(column)}
							class={['chip px-2!', adds(column) && 'on']}
							onclick={() => flag(c, 'total', !adds(column))}>added up</button
						>
					</div>
					<div class="flex gap-1">
						<Button small disabled={c === 0} onclick={() => move(c, -1)}>Earlier</Button>
						<Button small disabled={c === definition.columns.length - 1} onclick={() => move(c, 1)}>Later</Button>
						<Button small disabled={definition.columns.length === 1} onclick={() => remove(c)}>Take out</Button>
					</div>
				</div>
			{/if}
		</li>
	{/each}
</ul>
<div class="mt-1.5">{@render sources('', add, 'Add a column', 'Add a column…')}</div>

<h3 class="mt-4 mb-1 font-semibold">Order</h3>
{#each sort as { by, order }, i (i)}
	<div class="mb-1 flex gap-1">
		<select
			class="field min-w-0 flex-1"
			aria-label="Sorted by"
			value={by}
			onchange={(event) => setSort(sort.map((one, k) => (k === i ? { ...one, by: event.currentTarget.value } : one)))}
		>
			{#each names as name (name)}<option value={name}>{name}</option>{/each}
		</select>
		<Button
			small
			onclick={() =>
				setSort(sort.map((one, k) => (k === i ? { by, order: order === 'rising' ? 'falling' : 'rising' } : one)))}
			>{order}</Button
		>
		<Button small aria-label="Not by {by}" onclick={() => setSort(sort.filter((_, k) => k !== i))}>×</Button>
	</div>
{/each}
<Button
	small
	disabled={sort.length >= names.length}
	onclick={() =>
		setSort([...sort, { by: names.find((name) => !sort.some(({ by }) => by === name))!, order: 'rising' }])}
	>{sort.length ? 'then by…' : 'Sort by a column…'}</Button
>

<h3 class="mt-4 mb-1 font-semibold">Groups and sums</h3>
<select
	class="field w-full"
	aria-label="Grouped by"
	value={definition.groupBy ?? ''}
	onchange={(event) =>
		event.currentTarget.value ? change({ groupBy: event.currentTarget.value }) : without('groupBy')}
>
	<option value="">no groups</option>
	{#each names as name (name)}<option value={name}>a group for every {name}</option>{/each}
</select>
<div class="mt-1.5 flex flex-wrap gap-1.5">
	{#if definition.groupBy !== undefined}<button
			type="button"
			aria-pressed={!!definition.subtotals}
			class={['chip', definition.subtotals && 'on']}
			onclick={() => change({ subtotals: !definition.subtotals })}>subtotals</button
		>{/if}
	<button
		type="button"
		aria-pressed={!!definition.total}
		class={['chip', definition.total && 'on']}
		onclick={() => change({ total: !definition.total })}>total</button
	>
</div>

<h3 class="mt-4 mb-1 font-semibold">Only some</h3>
{#if definition.where}
	<p class="mb-1 text-quiet">
		{isFilterOnRows(definition)
			? 'Of the rows, after objects that say the same are one.'
			: 'Of the objects, before those that say the same are one row.'}
	</p>
	<ConditionEditor
		condition={definition.where}
		columns={names}
		onset={(where: Condition) => change({ where })}
		onremove={() => without('where')}
	/>
	<Button small class="mt-1" onclick={() => without('where')}>List all again</Button>
{:else}
	<Button small onclick={() => change({ where: { column: names[0]!, is: '!=', value: '' } as Condition })}
		>Only objects that…</Button
	>
{/if}
