<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { isLeftOut, PURPOSE_WORDS, purposeName, PURPOSES, type Purpose } from '$lib/core/recognise/purpose/kinds.ts';
	import { recognisedAs } from '$lib/core/recognise/recognise.ts';
	import { type RowRole } from '$lib/core/roles/index.ts';
	import { COLUMN_KINDS, type ColumnKind } from '$lib/core/table/columns.ts';
	import type { Table } from '$lib/core/table/grid.ts';
	import type { DocumentTable } from '$lib/formats/document.ts';
	import { rolesToChoose, roleWords } from './roles.ts';
	import { markBy, markOfTable, markVotes, type DecimalMark } from '$lib/core/values/parse.ts';
	import MarkChoice from '../table/MarkChoice.svelte';
	import NumberField from '../controls/NumberField.svelte';
	import Button from '../controls/Button.svelte';

	/** What every row and column of the picked table is, why, and the way to correct it. */
	interface Props {
		entry: DocumentTable;
		table: Table;
		where: string;
		/** What somebody said that it is for. */
		purpose: Purpose | undefined;
		onpurpose: (purpose: Purpose) => void;
		/** The decimal mark of the house. */
		usual: DecimalMark;
		onmark: (mark: DecimalMark) => void;
		onrole: (r: number, role: RowRole) => void;
		onkind: (c: number, kind: ColumnKind) => void;
		onends: (which: 'firstColumns' | 'lastColumns', count: number) => void;
	}
	let { entry, table, where, purpose, onpurpose, usual, onmark, onrole, onkind, onends }: Props = $props();
	const guessed = $derived(entry.recognition.purpose);
	const judged = $derived(purpose ? recognisedAs(entry.table, entry.recognition, purpose) : entry.recognition);
	const roles = $derived(rolesToChoose(table.roles));
	const label = (r: number) =>
		table.cells
			.find((cell) => cell.r === r && cell.text.trim())
			?.text.trim()
			.slice(0, 28) ?? 'empty row';
	const mark = $derived(markOfTable(table, usual));
	const doubt = $derived(table.mark ? undefined : markBy(markVotes(table.cells.map(({ text }) => text)), usual).doubt);
	const sure = (confidence: number) => (confidence >= 0.9 ? 'sure' : confidence >= 0.7 ? 'fairly sure' : 'a guess');
	let whole = $state(false);
	const rows = $derived(
		whole
			? table.roles.map((_, r) => r)
			: table.roles.flatMap((role, r) => (role !== 'body' || r < 6 || table.rows <= 16 ? [r] : []))
	);
</script>

<p class="mb-3 text-quiet">
	{where}{#if entry.place.caption}, captioned “{entry.place.caption}”{/if}.
</p>
<h3 class="mb-1 font-semibold">What it is for</h3>
<div class="mb-4 flex items-start gap-2">
	<p class="min-w-0 flex-1 text-[12px] text-quiet">
		{purpose && purpose !== guessed.is
			? `you said so; it looked like ${purposeName(guessed.is)}`
			: `${sure(guessed.confidence)}: ${guessed.reasons.join('; ')}`}{#if isLeftOut(purpose ?? guessed.is)}. It is left
			as it is where all tables get a style.{/if}
	</p>
	<select
		class="field w-26"
		aria-label="What the table is for"
		value={purpose ?? guessed.is}
		onchange={(event) => onpurpose(event.currentTarget.value as Purpose)}
	>
		{#each PURPOSES as option (option)}<option value={option} title={PURPOSE_WORDS[option]}>{option}</option>{/each}
	</select>
</div>
<h3 class="mb-1 font-semibold">Columns</h3>
<ul>
	{#each table.columnInfo as { kind, name }, c (c)}
		{@const guess = judged.columns[c]!}
		<li class="flex items-start gap-2 border-b border-hairline py-1.5 last:border-0">
			<div class="min-w-0 flex-1">
				<p class="truncate font-medium">{name || `column ${c + 1}`}</p>
				<p class="text-[12px] text-quiet">
					{guess.is === kind
						? `${sure(guess.confidence)}: ${guess.reasons.join('; ')}`
						: `you said so; it looked like ${guess.is}`}
				</p>
			</div>
			<select
				class="field w-26"
				aria-label="Kind of column {c + 1}"
				value={kind}
				onchange={(event) => onkind(c, event.currentTarget.value as ColumnKind)}
			>
				{#each COLUMN_KINDS as option (option)}<option value={option}>{option}</option>{/each}
			</select>
		</li>
	{/each}
</ul>
<div class="my-2 flex gap-5">
	{#each [['firstColumns', 'First columns'], ['lastColumns', 'Last columns']] as const as [which, words] (which)}
		<label class="flex items-center gap-2">
			{words}
			<NumberField
				class="w-14"
				label="{words} columns"
				least={0}
				most={table.columns}
				isWhole
				value={table[which]}
				title={judged[which].reasons.join('; ')}
				onset={(count) => onends(which, count)}
			/>
		</label>
	{/each}
</div>
<h3 class="mt-4 mb-1 font-semibold">Figures</h3>
<MarkChoice {mark} {doubt} isSaid={table.mark !== undefined} {onmark} />
<h3 class="mt-4 mb-1 font-semibold">Rows</h3>
<ul>
	{#each rows as r (r)}
		{@const guess = judged.rows[r]!}
		<li class="flex items-start gap-2 border-b border-hairline py-1.5 last:border-0">
			<div class="min-w-0 flex-1">
				<p class="truncate font-medium">{r + 1} · {label(r)}</p>
				<p class="text-[12px] text-quiet">
					{guess.is === table.roles[r]
						? `${sure(guess.confidence)}: ${guess.reasons.join('; ')}`
						: `you said so; it looked like ${roleWords(guess.is)}`}
				</p>
			</div>
			<select
				class="field w-26"
				aria-label="Role of row {r + 1}"
				value={table.roles[r]}
				onchange={(event) => onrole(r, event.currentTarget.value as RowRole)}
			>
				{#each roles as role (role)}<option value={role}>{roleWords(role)}</option>{/each}
			</select>
		</li>
	{/each}
</ul>
{#if rows.length < table.rows}<Button small class="mt-2" onclick={() => (whole = true)}
		>Show all {plural(table.rows, 'row')}</Button
	>{/if}
