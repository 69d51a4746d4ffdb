<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import type { Snippet } from 'svelte';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve, type Resolved } from '$lib/core/cascade/resolve.ts';
	import type { FlatStyle } from '$lib/core/style/inherit.ts';
	import { type RowRole } from '$lib/core/roles/index.ts';
	import { COLUMN_KINDS, type ColumnKind } from '$lib/core/table/columns.ts';
	import { withoutEmphasis } from '$lib/core/table/content.ts';
	import type { DocumentTable } from '$lib/formats/document.ts';
	import { changedCells } from '$lib/workbench/changes.ts';
	import type { TableState } from '$lib/workbench/state.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import { refusedTo } from '../people/who.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import TableGrid from '../table/TableGrid.svelte';
	import { roleTone, rolesToChoose, roleWords } from './roles.ts';
	import Self from './DocumentTable.svelte';
	import SideBySide from './SideBySide.svelte';

	interface Props {
		entry: DocumentTable;
		tables: readonly DocumentTable[];
		/** State and style of any table of the document, as it is to be shown. */
		shown: (index: number) => { state: TableState; style: FlatStyle | undefined };
		house: House;
		isPicked?: boolean;
		pickedCell?: number | undefined;
		wipe?: number | undefined;
		/** Shows it as it was and as it is to be next to each other, or dims what stays as it was. */
		compare?: 'side' | 'changed' | undefined;
		/** What it is called as it is to be. */
		afterWords?: string;
		overlay?: Snippet<[DrawnRows]> | undefined;
		/** Only the file's own look, for the lower layer of the wipe. */
		asInFile?: boolean;
		onpick?: (cell: number, resolved: Resolved | undefined) => void;
		/** A table inside a cell that is picked, and its cell. */
		inner?: { readonly table: number; readonly cell: number | undefined } | undefined;
		/** A cell of a table inside a cell was picked. */
		oninner?: (table: number, cell: number, resolved: Resolved | undefined) => void;
		onrole?: (r: number, role: RowRole) => void;
		onkind?: (c: number, kind: ColumnKind) => void;
		onreason?: (words: string | undefined) => void;
	}
	let {
		entry,
		tables,
		shown,
		house,
		isPicked = false,
		pickedCell,
		wipe,
		compare,
		afterWords = 'after',
		overlay,
		asInFile = false,
		onpick,
		inner,
		oninner,
		onrole,
		onkind,
		onreason
	}: Props = $props();

	const now = $derived(shown(entry.index));
	const table = $derived(stateTable(entry, now.state));
	const resolved = $derived(now.style && !asInFile ? resolve(table, now.style, house) : undefined);
	const appearance = $derived(resolved ? appearanceOf(resolved, entry.appearance) : entry.appearance);
	const content = $derived(now.state.dropsEmphasis && !asInFile ? withoutEmphasis(entry.content) : entry.content);
	const widths = $derived(now.state.widths?.length && !asInFile ? now.state.widths : entry.widths);
	const changed = $derived(compare === 'changed' ? changedCells(table, entry.appearance, appearance) : undefined);
	const roles = $derived(rolesToChoose(table.roles));
	/** Why nothing of it can be corrected. */
	const why = $derived(refusedTo('author'));
	/** Choices stand only in the row that somebody is at: a long table has many rows. */
	let pointed = $state<number>();
	function point(r: number) {
		pointed = r;
		onreason?.(rowReason(r));
	}
	const rowReason = (r: number) =>
		`${roleWords(table.roles[r]!)}: ${entry.recognition.rows[r]!.is === table.roles[r] ? entry.recognition.rows[r]!.reasons.join('; ') : 'you said so'}`;
	const columnReason = (c: number) =>
		`${table.columnInfo[c]!.name ? `“${table.columnInfo[c]!.name}”` : `column ${c + 1}`} is ${table.columnInfo[c]!.kind}: ${entry.recognition.columns[c]!.is === table.columnInfo[c]!.kind ? entry.recognition.columns[c]!.reasons.join('; ') : 'you said so'}`;
</script>

{#snippet rowGutter(r: number)}
	<select
		class={['gutter max-w-[78px] rounded', roleTone(table.roles[r]!)]}
		aria-label="Role of row {r + 1} of table {entry.index + 1}"
		title={rowReason(r)}
		value={table.roles[r]}
		disabled={why !== undefined}
		onchange={(event) => onrole?.(r, event.currentTarget.value as RowRole)}
		onpointerenter={() => point(r)}
		onpointerleave={() => onreason?.(undefined)}
		onfocus={() => point(r)}
		onblur={() => onreason?.(undefined)}
	>
		{#each pointed === r ? roles : [table.roles[r]!] as role (role)}<option value={role}>{roleWords(role)}</option
			>{/each}
	</select>
{/snippet}
{#snippet columnGutter(c: number)}
	<select
		class={['gutter min-h-6! w-full text-quiet', c < table.firstColumns && 'font-semibold']}
		aria-label="Kind of column {c + 1} of table {entry.index + 1}"
		title={columnReason(c)}
		value={table.columnInfo[c]!.kind}
		disabled={why !== undefined}
		onchange={(event) => onkind?.(c, event.currentTarget.value as ColumnKind)}
		onpointerenter={() => onreason?.(columnReason(c))}
		onpointerleave={() => onreason?.(undefined)}
		onfocus={() => onreason?.(columnReason(c))}
		onblur={() => onreason?.(undefined)}
	>
		{#each COLUMN_KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
	</select>
{/snippet}
{#snippet nested(index: number, layer: 'before' | 'after')}
	{@const isAfter = layer === 'after'}
	<div class={['my-1', isAfter && inner?.table === index && 'rounded-xs ring-2 ring-picked']}>
		<Self
			entry={tables[index]!}
			{tables}
			{shown}
			{house}
			asInFile={!isAfter}
			isPicked={isAfter && inner?.table === index}
			pickedCell={inner?.cell}
			{inner}
			{oninner}
			{...isAfter && oninner ? { onpick: (cell, resolved) => oninner(index, cell, resolved) } : {}}
		/>
	</div>
{/snippet}

{#if compare === 'side'}
	<SideBySide
		grid={table}
		before={entry.appearance}
		after={appearance}
		content={entry.content}
		contentAfter={content}
		{widths}
		words={['as it came', afterWords]}
	/>
{:else}
	<TableGrid
		grid={table}
		{appearance}
		before={wipe === undefined ? undefined : entry.appearance}
		{wipe}
		{content}
		{widths}
		spotlight={changed && ((cell) => changed.has(cell))}
		guides
		picked={isPicked ? pickedCell : undefined}
		onpick={onpick ? (cell) => onpick(cell, resolved) : undefined}
		label="Table {entry.index + 1}{entry.place.caption ? `, ${entry.place.caption}` : ''}"
		rowGutter={isPicked && onrole ? rowGutter : undefined}
		columnGutter={isPicked && onkind ? columnGutter : undefined}
		{nested}
		{overlay}
	/>
{/if}

<style>
	.gutter {
		min-height: 20px;
		padding: 0 6px;
		border: 0;
		background-image: none;
		font-family: var(--font-sans);
		font-size: 11px;
		line-height: 18px;
		appearance: none;
		text-overflow: ellipsis;
	}
	.gutter:not([class*='bg-']) {
		background-color: transparent;
	}
	.gutter:focus-visible {
		outline: 2px solid var(--color-picked);
		box-shadow: none;
	}
</style>
