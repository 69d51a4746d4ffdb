<script lang="ts" module>
	/** What a cell holds, by its index. */
	export type ContentOf =
		{ readonly [cell: number]: readonly CellContent[] | undefined } | ((cell: number) => readonly CellContent[]);

	/** What a table and its cells are to assistive technology, and where keys go, while it is worked on. */
	export interface Semantics {
		readonly grid: Readonly<Record<string, unknown>>;
		readonly id: (cell: number) => string;
		readonly role: (cell: number) => 'gridcell' | 'columnheader' | 'rowheader';
		readonly isSelected: (cell: number) => boolean;
		readonly isReadOnly: (cell: number) => boolean;
		/** What else is to be said of a cell. */
		readonly description: (cell: number) => string | undefined;
	}
	const DIRECTIONS = ['across', 'down'] as const;
	const isServer = typeof document === 'undefined';
</script>

<script lang="ts">
	import { onDestroy, untrack, type Snippet } from 'svelte';
	import type { Appearance, Line } from '$lib/core/cascade/look.ts';
	import type { Grid, Side, Table } from '$lib/core/table/grid.ts';
	import type { CellContent, RunView } from '$lib/core/table/content.ts';
	import type { DrawnRows } from './rows.svelte.ts';
	import { toPixels } from '$lib/core/units.ts';
	import { baseOf, runsBothWays } from '$lib/core/layout/direction.ts';
	import { strokes } from '$lib/core/layout/strokes.ts';
	import { cellStyle, lineStyle, shadowCss } from './paint.ts';
	import { NONCE } from './nonce.ts';
	import { RuleSheet } from './rule-sheet.ts';
	import { keysOf } from '../controls/shortcuts.ts';

	interface Props {
		grid: Grid & Pick<Table, 'dir'>;
		drawn: DrawnRows;
		appearance: Appearance;
		content?: ContentOf | undefined;
		zoom: number;
		/** Quiet lines on screen where nobody claims an edge. */
		guides?: boolean;
		/** Cells that stay while the rest dims, by cell index. */
		spotlight?: ((cell: number) => boolean) | undefined;
		picked?: number | undefined;
		pickedSide?: Side | undefined;
		onpick?: ((cell: number, side?: Side) => void) | undefined;
		label?: string;
		clip?: string;
		nested?: Snippet<[number]> | undefined;
		/** Digits after the decimal mark of the longest figure in each column, for decimal alignment. */
		fractions: readonly number[];
		/** A second layer over the first says nothing to assistive technology. */
		hidden?: boolean;
		/** Grid lines before the table's own first row and column (the gutter's tracks). */
		offset?: number;
		/** Attributes of a cell where a table is worked on; its cells are then those of a grid. */
		semantics?: Semantics | undefined;
		/** What a row is known by, wherever it stands; its place where absent. */
		rowKey?: ((row: number) => number) | undefined;
	}
	let {
		grid,
		drawn,
		appearance,
		content,
		zoom,
		guides = false,
		spotlight,
		picked,
		pickedSide,
		onpick,
		label,
		clip,
		nested,
		fractions,
		hidden = false,
		offset = 0,
		semantics,
		rowKey = (row) => row
	}: Props = $props();

	/** One rule a look and a line: a changed style changes a few rules, whatever the number of cells. */
	const id = $props.id();
	const rules = $derived([
		...Array.from({ length: grid.columns }, (_, c) => `.${id}-c${c}{grid-column-start:${c + 1}}`),
		...appearance.looks.map((look, i) => `.${id}-${i}{${cellStyle(look, zoom, grid.dir === 'rtl')}}`),
		...appearance.lines.flatMap((line, i) =>
			DIRECTIONS.map((direction) => `.${id}-${direction}${i}{${line ? lineStyle(line, direction, zoom) : ''}}`)
		)
	]);
	// The first paint is the server's: its rules stand in the page until the browser has them as a sheet.
	const sheet = isServer ? undefined : new RuleSheet();
	$effect.pre(() => sheet?.set(rules));
	onDestroy(() => sheet?.end());
	/** Numbers, so that a grid in which only words changed draws no line again. */
	const rows = $derived(grid.rows);
	const columns = $derived(grid.columns);
	/** What of a look decides where something stands: a change of ink or size draws no cell and no line again, and only changes rules. */
	const cellLook = $derived(appearance.cellLook);
	const decimalLooks = $derived(appearance.looks.map(({ h }) => (h === 'decimal' ? '1' : '0')).join(''));
	const edgesAcross = $derived(appearance.across);
	const edgesDown = $derived(appearance.down);
	/** Which edges show one line, which of them none. */
	const sameLines = $derived(
		appearance.lines
			.map((line, _, all) => (line && line.pattern !== 'none' ? all.indexOf(line) : String(line && line.pattern)))
			.join(' ')
	);
	const lines = $derived.by(() => {
		void sameLines;
		void edgesAcross;
		void edgesDown;
		const size = { rows, columns };
		return untrack(() => {
			const places = new Map(appearance.lines.map((line, i) => [line, i]));
			return {
				across: strokes(appearance, size, 'across'),
				down: strokes(appearance, size, 'down'),
				name: (line: Line, direction: (typeof DIRECTIONS)[number]) => `${id}-${direction}${places.get(line)!}`
			};
		});
	});
	/** Only the lines of rows that are drawn. */
	const acrossDrawn = $derived(drawn.across(lines.across));
	const downDrawn = $derived(drawn.down(lines.down));
	const runStyle = (run: RunView) =>
		(run.weight !== undefined ? `font-weight:${run.weight};` : '') +
		(run.italic !== undefined ? `font-style:${run.italic ? 'italic' : 'normal'};` : '') +
		(run.underline !== undefined ? `text-decoration:${run.underline === 'none' ? 'none' : 'underline'};` : '') +
		(run.ink !== undefined ? `color:${run.ink};` : '') +
		(run.position ? `vertical-align:${run.position};font-size:.75em;` : '');

	/** A figure cut at its decimal mark, so that the marks of a column line up. */
	function figureOf(text: string): readonly [whole: string, fraction: string] | undefined {
		const match = /^(.*\d)([.,]\d+\D*)$/.exec(text) ?? /^(.*\d)(\D*)$/.exec(text);
		return match ? [match[1]!, match[2]!] : undefined;
	}

	/** What the element of a cell is and says. */
	interface CellView {
		readonly index: number;
		readonly c: number;
		readonly classes: string;
		readonly style: string | undefined;
		readonly role: string;
		readonly id: string | undefined;
		readonly colIndex: number | undefined;
		readonly isReadOnly: boolean | undefined;
		readonly description: string | undefined;
		readonly colSpan: number | undefined;
		readonly rowSpan: number | undefined;
		readonly isSelected: boolean | undefined;
		readonly tabIndex: number | undefined;
		/** The words of a cell that is one plain paragraph; cut in two where it lines up on its decimal mark. */
		readonly text: string | undefined;
		readonly fraction: string | undefined;
		/** Whatever else it holds. */
		readonly pieces: readonly CellContent[] | undefined;
		readonly isDecimal: boolean;
	}
	function viewOf(index: number): CellView {
		const { r, c, rows, cols, text } = grid.cells[index]!;
		const look = cellLook[index]!;
		const isPicked = picked === index;
		const isDecimal = decimalLooks[look] === '1';
		const pieces = typeof content === 'function' ? content(index) : content && (content[index] ?? []);
		const words = pieces ? plainWords(pieces) : text;
		const figure = isDecimal && pieces && words ? figureOf(words) : undefined;
		return {
			index,
			c,
			classes:
				`${id}-${look} ${id}-c${c}` +
				(spotlight && !spotlight(index) ? ' dim' : '') +
				(isPicked ? (pickedSide ? ` side ${pickedSide}` : ' picked') : ''),
			style:
				rows > 1 || cols > 1 ? `grid-row-end:span ${drawn.span(r, r + rows)};grid-column-end:span ${cols};` : undefined,
			role: semantics ? semantics.role(index) : onpick ? 'gridcell' : 'cell',
			id: semantics?.id(index),
			colIndex: semantics ? c + 1 : undefined,
			isReadOnly: semantics?.isReadOnly(index),
			description: semantics?.description(index),
			colSpan: cols > 1 ? cols : undefined,
			rowSpan: rows > 1 ? rows : undefined,
			isSelected: semantics ? semantics.isSelected(index) : onpick ? isPicked : undefined,
			tabIndex: onpick && !hidden ? (isPicked || (picked === undefined && index === 0) ? 0 : -1) : undefined,
			text: figure ? figure[0] : words,
			fraction: figure?.[1],
			pieces: words === undefined ? pieces : undefined,
			isDecimal
		};
	}
	/** The direction of a paragraph, where it may be another than its table's. */
	const directionOf = (text: string) =>
		runsBothWays(text, grid.dir ?? 'ltr') ? baseOf(text, grid.dir ?? 'ltr') : undefined;
	/** The words of a cell that is one paragraph without emphasis. */
	function plainWords(pieces: readonly CellContent[]): string | undefined {
		const [piece] = pieces;
		if (pieces.length !== 1 || !piece || !('runs' in piece) || piece.runs.length > 1) return undefined;
		const [run] = piece.runs;
		return !run ? '' : runStyle(run) ? undefined : run.text;
	}

	/** Views of the cells of the rows that are drawn. One that says what it said is the same object: only changed cells are drawn again. */
	let known: ReadonlyMap<number, CellView> = new Map();
	const views = $derived.by(() => {
		const next = new Map<number, CellView>();
		const shown = drawn.cells.map(({ row, cells }) => {
			const key = rowKey(row);
			const now = cells.map((index) => {
				const view = viewOf(index);
				const place = key * columns + view.c;
				const before = known.get(place);
				const kept = before && isSame(before, view) ? before : view;
				next.set(place, kept);
				return kept;
			});
			return { row, key, cells: now };
		});
		known = next;
		return shown;
	});
	const isSame = (a: CellView, b: CellView): boolean =>
		(Object.keys(a) as (keyof CellView)[]).every((key) => a[key] === b[key]);

	/** How close to a cell's side a pointer picks the edge, in pixels. */
	const REACH = 3.5;
	/** The table starts at the right. */
	const isRight = $derived(grid.dir === 'rtl');
	function sideAt(event: MouseEvent): Side | undefined {
		const { left, right, top, bottom } = (event.currentTarget as HTMLElement).getBoundingClientRect();
		const distances: [Side, number][] = [
			['top', event.clientY - top],
			['bottom', bottom - event.clientY],
			[isRight ? 'end' : 'start', event.clientX - left],
			[isRight ? 'start' : 'end', right - event.clientX]
		];
		const [side, distance] = distances.sort(([, a], [, b]) => a - b)[0]!;
		// A click by keyboard or program has no place.
		return event.detail > 0 && distance <= REACH ? side : undefined;
	}
	/** Whether something happened in a cell itself, and not in one of a table inside it. */
	const isOwn = ({ target, currentTarget }: Event) => (target as Element).closest('[data-cell]') === currentTarget;
	function pick(event: MouseEvent, index: number) {
		if (!hidden && isOwn(event)) onpick?.(index, sideAt(event));
	}
	/** To the cell at a row and column, from one of the cells. */
	function go(from: EventTarget | null, r: number, c: number) {
		if (r < 0 || c < 0 || r >= grid.rows || c >= grid.columns) return;
		(from as HTMLElement)
			.closest('[role=table],[role=grid]')
			?.querySelector<HTMLElement>(`[data-cell="${grid.slots[r * grid.columns + c]!}"]`)
			?.focus();
	}
	function cellKeys(index: number) {
		if (!onpick || hidden) return undefined;
		const { r, c, rows, cols } = grid.cells[index]!;
		return keysOf([
			{ keys: ['Enter', ' '], run: () => onpick(index) },
			{ keys: ['ArrowUp'], run: ({ target }) => go(target, r - 1, c) },
			{ keys: ['ArrowDown'], run: ({ target }) => go(target, r + rows, c) },
			{ keys: [isRight ? 'ArrowRight' : 'ArrowLeft'], run: ({ target }) => go(target, r, c - 1) },
			{ keys: [isRight ? 'ArrowLeft' : 'ArrowRight'], run: ({ target }) => go(target, r, c + cols) }
		]);
	}
</script>

<div
	class="layer"
	role={onpick || semantics ? 'grid' : 'table'}
	aria-label={label}
	aria-hidden={hidden || undefined}
	aria-rowcount={grid.rows}
	aria-colcount={grid.columns}
	{...semantics?.grid}
	style="grid-column:{offset + 1} / -1;grid-row:{offset + 1} / -1;{clip ? `clip-path:${clip};` : ''}{appearance.shadow
		? `box-shadow:${shadowCss(appearance.shadow, zoom)};`
		: ''}"
>
	{#if isServer}<svelte:element this={"style"} nonce={NONCE}>{rules.join('\n')}</svelte:element>{/if}
	{#each views as { row, key, cells } (key)}
		<div role="row" class="row" aria-rowindex={row + 1} style="--row:{drawn.line(row) + 1}">
			{#each cells as view (view.c)}
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<div
					class="cell {view.classes}"
					role={view.role}
					id={view.id}
					aria-colindex={view.colIndex}
					aria-readonly={view.isReadOnly}
					aria-description={view.description}
					data-cell={hidden ? undefined : view.index}
					aria-colspan={view.colSpan}
					aria-rowspan={view.rowSpan}
					aria-selected={view.isSelected}
					tabindex={view.tabIndex}
					onclick={(event) => pick(event, view.index)}
					onkeydown={(event) => isOwn(event) && cellKeys(view.index)?.(event)}
					style={view.style}
				>
					{#if view.fraction !== undefined}
						<p class="figure">
							{view.text}<span class="fraction" style="min-width:{fractions[view.c]}ch">{view.fraction}</span>
						</p>
					{:else if view.text !== undefined}
						<p dir={directionOf(view.text)}>{view.text}&ZeroWidthSpace;</p>
					{:else}
						{#each view.pieces as piece, i (i)}
							{#if 'nested' in piece}
								{@render nested?.(piece.nested)}
							{:else if 'picture' in piece}
								{@const { source, alternative, width, fits } = piece.picture}
								<img
									src={source}
									alt={alternative}
									style="width:{fits === 'cell' ? '100%' : `${(toPixels(width) * zoom).toFixed(1)}px`}"
								/>
							{:else if view.isDecimal && piece.runs.length === 1 && figureOf(piece.runs[0]!.text)}
								{@const [whole, fraction] = figureOf(piece.runs[0]!.text)!}
								<p class="figure" style={runStyle(piece.runs[0]!)}>
									{whole}<span class="fraction" style="min-width:{fractions[view.c]}ch">{fraction}</span>
								</p>
							{:else}
								<p dir={directionOf(piece.runs.map(({ text }) => text).join(''))}>
									{#each piece.runs as run, j (j)}<span style={runStyle(run)}>{run.text}</span>{/each}&ZeroWidthSpace;
								</p>
							{/if}
						{/each}
					{/if}
				</div>
			{/each}
		</div>
	{/each}
	{#each acrossDrawn as { at, from, to, line }, i (i)}
		{#if line}
			<i
				class="across {lines.name(line, 'across')}"
				class:last={at === grid.rows}
				style="grid-area:{drawn.line(Math.min(at, grid.rows - 1)) + 1} / {from + 1} / auto / {to + 1};"
			></i>
		{:else if guides}
			<i
				class="across guide"
				class:last={at === grid.rows}
				style="grid-area:{drawn.line(Math.min(at, grid.rows - 1)) + 1} / {from + 1} / auto / {to + 1};"
			></i>
		{/if}
	{/each}
	{#each downDrawn as { at, from, to, line }, i (i)}
		{#if line}
			<i
				class="down {lines.name(line, 'down')}"
				class:last={at === grid.columns}
				style="grid-area:{drawn.line(from) + 1} / {Math.min(at, grid.columns - 1) + 1} / span {drawn.span(
					from,
					to
				)} / auto;"
			></i>
		{:else if guides}
			<i
				class="down guide"
				class:last={at === grid.columns}
				style="grid-area:{drawn.line(from) + 1} / {Math.min(at, grid.columns - 1) + 1} / span {drawn.span(
					from,
					to
				)} / auto;"
			></i>
		{/if}
	{/each}
</div>

<style>
	.layer {
		position: relative;
		display: grid;
		grid-template-columns: subgrid;
		grid-template-rows: subgrid;
		/* What a cell says is not for the cells of tables inside it. */
		--paragraph-gap: 0px;
	}
	.row {
		display: contents;
	}
	.cell {
		grid-row-start: var(--row);
		min-width: 0;
		font-variant-numeric: tabular-nums;
		overflow-wrap: break-word;
	}
	.cell p {
		/* Each paragraph runs as its first letter does, and stands as its table says. */
		text-align: -webkit-match-parent;
		text-align: match-parent;
		margin: 0;
		white-space: pre-line;
	}
	.cell img {
		display: block;
	}
	.cell > * + p {
		margin-block-start: var(--paragraph-gap);
	}
	.cell p.figure {
		/* Digits run to the right in any script. */
		direction: ltr;
		text-align: right;
		white-space: nowrap;
	}
	.cell.dim {
		opacity: 0.32;
	}
	.cell.picked {
		z-index: 2;
		outline: 2px solid var(--color-picked);
		outline-offset: -2px;
	}
	.side {
		position: relative;
	}
	.side::after {
		position: absolute;
		z-index: 2;
		background: var(--color-picked);
		content: '';
		inset: 0;
	}
	.side.top::after {
		inset-block: -2px auto;
		height: 4px;
	}
	.side.bottom::after {
		inset-block: auto -2px;
		height: 4px;
	}
	.side.start::after {
		inset-inline: -2px auto;
		width: 4px;
	}
	.side.end::after {
		inset-inline: auto -2px;
		width: 4px;
	}
	.fraction {
		display: inline-block;
		text-align: start;
	}
	i {
		z-index: 1;
		pointer-events: none;
	}
	.across {
		align-self: start;
		translate: 0 -50%;
	}
	.across.last {
		align-self: end;
		translate: 0 50%;
	}
	.down {
		justify-self: start;
		translate: calc(var(--toward-end) * -50%) 0;
	}
	.down.last {
		justify-self: end;
		translate: calc(var(--toward-end) * 50%) 0;
	}
	.guide {
		z-index: 0;
		opacity: 0.9;
	}
	.across.guide {
		height: 0;
		border-top: 1px dotted var(--color-hairline);
	}
	.down.guide {
		width: 0;
		border-left: 1px dotted var(--color-hairline);
	}
</style>
