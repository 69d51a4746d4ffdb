<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Appearance } from '$lib/core/cascade/look.ts';
	import type { Grid, Side, Table } from '$lib/core/table/grid.ts';
	import { toPixels, type Emu } from '$lib/core/units.ts';
	import { fractionsOf } from './fractions.ts';
	import { DrawnRows, GUTTER } from './rows.svelte.ts';
	import TableLayer, { type ContentOf, type Semantics } from './TableLayer.svelte';

	/**
	 * Draws a table from its resolved look: cards, specimens and documents all use this, so that what is seen is what is
	 * written. With `before`, a second layer shares its tracks and `wipe` (0–1) says how much of it shows.
	 */
	interface Props {
		grid: Grid & Pick<Table, 'dir'>;
		appearance: Appearance;
		before?: Appearance | undefined;
		wipe?: number;
		content?: ContentOf | undefined;
		widths?: readonly Emu[] | undefined;
		zoom?: number;
		guides?: boolean;
		spotlight?: ((cell: number) => boolean) | undefined;
		picked?: number | undefined;
		/** Which side of the picked cell is picked, where it is an edge. */
		pickedSide?: Side | undefined;
		/** A cell was picked; with a side where the pointer was on its edge. */
		onpick?: ((cell: number, side?: Side) => void) | undefined;
		label?: string;
		/** What stands beside each row and above each column. */
		rowGutter?: Snippet<[number]> | undefined;
		columnGutter?: Snippet<[number]> | undefined;
		nested?: Snippet<[number, 'before' | 'after']> | undefined;
		/** Lies over the table, gutters left out. */
		overlay?: Snippet<[DrawnRows]> | undefined;
		/** Fill the width there is instead of the table's own. */
		fill?: boolean;
		/** Where a table is worked on: the tracks of its columns as CSS has them, the least heights of its rows in pixels, and what its cells are to assistive technology. */
		columnTracks?: string | undefined;
		/** Where each column begins, and where the last one ends, in pixels: then only columns near the window are drawn. */
		columnEdges?: readonly number[] | undefined;
		leastHeight?: ((row: number) => number | undefined) | undefined;
		semantics?: Semantics | undefined;
		/** Letters from the decimal mark on, by column; counted where they are not given. */
		fractions?: readonly number[] | undefined;
		/** What a row is known by, wherever it stands. */
		rowKey?: ((row: number) => number) | undefined;
	}
	let {
		grid,
		appearance,
		before,
		wipe = 0,
		content,
		widths,
		zoom = 1,
		guides = false,
		spotlight,
		picked,
		pickedSide,
		onpick,
		label,
		rowGutter,
		columnGutter,
		nested,
		overlay,
		fill = false,
		columnTracks,
		columnEdges,
		leastHeight,
		semantics,
		fractions,
		rowKey
	}: Props = $props();

	const total = $derived(widths?.reduce((sum, width) => sum + width, 0) ?? 0);
	const tracks = $derived(
		columnTracks ??
			(widths && total > 0
				? widths.map((width) => `minmax(min-content, ${Math.max(1, Math.round(width / 1000))}fr)`).join(' ')
				: `repeat(${grid.columns}, minmax(min-content, auto))`)
	);
	const offset = $derived(rowGutter ? 1 : 0);
	const width = $derived(
		columnTracks ? 'max-content' : fill || total === 0 ? '100%' : `${(toPixels(total as Emu) * zoom).toFixed(1)}px`
	);
	const isAnyDecimal = $derived(appearance.looks.some(({ h }) => h === 'decimal'));
	const room = $derived(isAnyDecimal ? (fractions ?? fractionsOf(grid)) : Array<number>(grid.columns).fill(0));
	/** A table that is being worked on is drawn on from where it was. */
	let last: DrawnRows | undefined;
	const drawn = $derived(
		(last = new DrawnRows(grid, { before: columnTracks ? last : undefined, leastHeight, columnEdges }))
	);
	const shared = $derived({ grid, drawn, content, zoom, fractions: room, offset, semantics, rowKey });
</script>

<div
	class="tracks"
	dir={grid.dir ?? 'ltr'}
	{@attach (element) => drawn.follow(element, offset)}
	style="grid-template-columns:{rowGutter ? `${GUTTER}px ` : ''}{tracks};grid-template-rows:{rowGutter
		? 'auto '
		: ''}{drawn.tracks};width:{columnTracks
		? 'max-content'
		: rowGutter
			? `calc(${width} + ${GUTTER}px)`
			: width};{columnTracks ? 'max-width:none' : ''}"
>
	{#if rowGutter}
		{#each drawn.rows as r (r)}
			<div class="row-gutter" style="grid-row:{drawn.line(r) + 2}">{@render rowGutter(r)}</div>
		{/each}
		{#if columnGutter}
			{#each drawn.columns as c (c)}
				<div class="column-gutter" style="grid-column:{c + 2}">{@render columnGutter(c)}</div>
			{/each}
		{/if}
	{/if}
	{#snippet nestedAfter(index: number)}{@render nested?.(index, 'after')}{/snippet}
	{#snippet nestedBefore(index: number)}{@render nested?.(index, 'before')}{/snippet}
	<TableLayer
		{...shared}
		{appearance}
		{guides}
		{spotlight}
		{picked}
		{pickedSide}
		{onpick}
		{label}
		nested={nested ? nestedAfter : undefined}
		clip={before ? `inset(-4px -4px -4px ${wipe * 100}%)` : undefined}
	/>
	{#if before}
		<TableLayer
			{...shared}
			appearance={before}
			{guides}
			nested={nested ? nestedBefore : undefined}
			clip="inset(-4px {100 - wipe * 100}% -4px -4px)"
			hidden
		/>
	{/if}
	{#if overlay}<div class="overlay" style="grid-column:{offset + 1} / -1;grid-row:{offset + 1} / -1">
			{@render overlay(drawn)}
		</div>{/if}
</div>

<style>
	.tracks {
		--toward-end: 1;
		display: grid;
		max-width: 100%;
	}
	.tracks[dir='rtl'] {
		--toward-end: -1;
	}
	.overlay {
		position: relative;
		display: grid;
		grid-template-columns: subgrid;
		grid-template-rows: subgrid;
		z-index: 3;
		pointer-events: none;
	}
	.row-gutter {
		grid-column: 1;
		align-self: center;
		justify-self: end;
		padding-inline-end: 6px;
	}
	.column-gutter {
		grid-row: 1;
		min-width: 0;
		align-self: end;
		padding-block-end: 3px;
	}
</style>
