<script lang="ts">
	import { type RowRole } from '$lib/core/roles/index.ts';
	import { COLUMN_KINDS, type ColumnKind } from '$lib/core/table/columns.ts';
	import type { Axis } from '$lib/core/work/lines.ts';
	import { roleTone, roleWords } from '../documents/roles.ts';
	import { refusedTo } from '../people/who.ts';
	import type { TableBench } from './bench.svelte.ts';
	import type { LineHandles } from './handles.svelte.ts';

	/** What stands beside a row or above a column: its number, by which it is selected and moved, its role or kind, and its edge. */
	interface Props {
		bench: TableBench;
		handles: LineHandles;
		axis: Axis;
		line: number;
		/** The roles that a row can be given; none for a column. */
		roles?: readonly RowRole[];
	}
	let { bench, handles, axis, line, roles = [] }: Props = $props();

	/** Why nothing of it can be changed. */
	const why = $derived(refusedTo('author'));
	const isRow = $derived(axis === 'rows');
	const role = $derived(bench.work.rows[isRow ? line : 0]!.role);
	const column = $derived(bench.work.columns[isRow ? 0 : line]!);
	const name = $derived(isRow ? '' : bench.table.columnInfo[line]!.name);
	const isIn = $derived(
		bench.selection.ranges.some(({ top, bottom, start, end }) =>
			isRow ? line >= top && line <= bottom : line >= start && line <= end
		)
	);
	const label = $derived(
		isRow
			? `Row ${line + 1}, ${roleWords(role)}: select, or drag to move`
			: `Column ${line + 1}${name ? `, “${name}”` : ''}: select, or drag to move`
	);
	const fitContent = () =>
		bench.setColumns(`column ${line + 1} fits its content`, handles.alongWith(axis, line), (one) => ({
			...one,
			width: undefined
		}));
</script>

<div class={[isRow ? 'row' : 'column', !isRow && !column.width && 'free']} data-head={axis} data-line={line}>
	<button
		type="button"
		class={['head', isIn && 'in', !isRow && bench.panel === 'figures' && bench.dependents.has(line) && 'dependent']}
		aria-label={label}
		onmousedown={(event) => event.preventDefault()}
		onpointerdown={(event) => handles.grab(event, axis, line)}
		onpointermove={(event) => handles.drag(event)}
		onpointerup={() => handles.drop()}
		onclick={(event) => event.detail === 0 && handles.select(axis, line, line)}
		>{line + 1}{!isRow && (column.formula || column.across) ? ' =' : ''}</button
	>
	{#if isRow}
		<select
			class={['role', roleTone(role)]}
			aria-label="Role of row {line + 1}"
			title={why}
			disabled={why !== undefined}
			value={role}
			onchange={(event) => bench.setRole(handles.alongWith(axis, line), event.currentTarget.value as RowRole)}
		>
			{#each roles.includes(role) ? roles : [role, ...roles] as one (one)}<option value={one}>{roleWords(one)}</option
				>{/each}
		</select>
	{:else}
		<select
			class="kind"
			aria-label="Kind of column {line + 1}"
			title={why}
			disabled={why !== undefined}
			value={column.kind}
			onchange={(event) => bench.setKind(handles.alongWith(axis, line), event.currentTarget.value as ColumnKind)}
		>
			{#each COLUMN_KINDS as one (one)}<option value={one}>{one}</option>{/each}
		</select>
	{/if}
	{#if !why}<i
			class="size"
			role="presentation"
			onpointerdown={(event) => handles.startSizing(event, axis, line)}
			onpointermove={(event) => handles.moveSizing(event)}
			onpointerup={() => handles.endSizing()}
			ondblclick={isRow ? undefined : fitContent}
		></i>{/if}
</div>

<style>
	.row {
		position: relative;
		display: flex;
		height: 100%;
		align-items: center;
		gap: 2px;
	}
	.column {
		position: relative;
		display: grid;
		min-width: 0;
	}
	.column.free {
		min-width: 72px;
	}
	.head {
		min-width: 26px;
		min-height: 24px;
		flex-shrink: 0;
		border-radius: 4px;
		color: var(--color-quiet);
		cursor: grab;
		font-size: 11px;
		touch-action: none;
	}
	.head:hover {
		background: var(--color-desk);
		color: var(--color-ink);
	}
	.head.in {
		background: var(--color-picked-wash);
		color: var(--color-picked);
		font-weight: 600;
	}
	.head.dependent {
		box-shadow: inset 0 -2px var(--color-accent);
	}
	.role,
	.kind {
		min-height: 24px;
		padding: 0 4px;
		border: 0;
		border-radius: 4px;
		background-image: none;
		font-size: 11px;
		line-height: 18px;
		appearance: none;
		text-overflow: ellipsis;
	}
	.role {
		width: 52px;
	}
	.role:not([class*='bg-']) {
		background-color: transparent;
	}
	.kind {
		min-width: 0;
		width: 100%;
		background-color: transparent;
		color: var(--color-quiet);
		text-align: center;
	}
	.role:hover,
	.kind:hover {
		background-color: var(--color-desk);
		color: var(--color-ink);
		opacity: 1;
	}
	.size {
		position: absolute;
		z-index: 4;
		touch-action: none;
	}
	.column .size {
		inset-block: 0;
		inset-inline-end: -5px;
		width: 10px;
		cursor: col-resize;
	}
	.row .size {
		bottom: -5px;
		inset-inline: 0;
		height: 10px;
		cursor: row-resize;
	}
	.size:hover {
		background: color-mix(in srgb, var(--color-picked) 30%, transparent);
	}
</style>
