<script lang="ts">
	import { listed, plural, pluralWord } from '$lib/core/words.ts';
	import { tick, untrack } from 'svelte';
	import { isBody, isHeader } from '$lib/core/roles/index.ts';
	import { emptied, pasted, type Clip } from '$lib/core/work/cells.ts';
	import { workedOutBy } from '$lib/core/work/working.ts';
	import { insertRows } from '$lib/core/work/lines.ts';
	import { columnNames } from '$lib/core/work/names.ts';
	import { forbids } from '$lib/core/work/locks.ts';
	import { anchorOf, isCovered, type WorkCell } from '$lib/core/work/table.ts';
	import { isTouched } from '$lib/core/work/touches.ts';
	import { toPixels } from '$lib/core/units.ts';
	import { rolesToChoose, roleWords } from '../documents/roles.ts';
	import { notifyError } from '../notices.svelte.ts';
	import { refusedTo } from '../people/who.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import TableGrid from '../table/TableGrid.svelte';
	import type { Semantics } from '../table/TableLayer.svelte';
	import type { TableBench } from './bench.svelte.ts';
	import CellEditor from './CellEditor.svelte';
	import CellMarks from './CellMarks.svelte';
	import { copyTo } from './clipboard.ts';
	import PasteDialog from './PasteDialog.svelte';
	import EdgePicker from './EdgePicker.svelte';
	import { LineHandles } from './handles.svelte.ts';
	import LineHead from './LineHead.svelte';
	import { measuresOf } from './measures.ts';
	import { runShortcut, type Shortcut } from '../controls/shortcuts.ts';

	/** The table itself: selecting, typing, moving and sizing by pointer and keyboard. `onpicture` takes a picture's file. */
	let { bench, onpicture }: { bench: TableBench; onpicture: (file: File) => unknown } = $props();

	let box: HTMLElement;
	let editor = $state<CellEditor>();
	let drawn: DrawnRows | undefined;
	/** Why nothing can be typed. */
	const why = $derived(refusedTo('author'));
	const rows = $derived(bench.work.rows.length);
	const columns = $derived(bench.work.columns.length);
	const id = $props.id();

	/** Emphasis for the words that are selected in the cell being typed in. */
	export const emphasise = (how: Parameters<CellEditor['emphasise']>[0]) => editor?.emphasise(how);
	export const focus = () => box.querySelector<HTMLElement>('[role=grid]')?.focus({ preventScroll: true });

	const keep = (shown: DrawnRows) => {
		drawn = shown;
		return '';
	};
	/* ---- the widths of columns ---- */

	const roles = $derived(rolesToChoose(bench.table.roles));
	const handles = new LineHandles(
		untrack(() => bench),
		() => box,
		() => focus()
	);
	/** Tables longer than this have columns of a fixed width: those that nobody gave one, about as wide as their longest text. */
	const LONG = 60;
	const LETTER = 7;
	const measures = $derived(measuresOf(bench.work));
	const widths = $derived(
		bench.work.columns.map(({ width }, c) => {
			const dragged = handles.sizeOf('columns', c);
			if (dragged !== undefined) return dragged;
			if (width) return toPixels(width) * bench.zoom;
			if (rows <= LONG) return undefined;
			return Math.min(240, Math.max(72, measures.longest[c]! * LETTER + 28)) * bench.zoom;
		})
	);
	const columnTracks = $derived(
		widths.map((size) => (size === undefined ? `fit-content(${240 * bench.zoom}px)` : `${size.toFixed(1)}px`)).join(' ')
	);
	const columnEdges = $derived.by(() => {
		// Columns that start at the right are all drawn.
		if (rows <= LONG || bench.work.dir === 'rtl') return undefined;
		const edges = [0];
		for (const width of widths) edges.push(edges.at(-1)! + width!);
		return edges;
	});
	/* ---- cells by pointer ---- */

	let isSweeping = $state(false);
	const placeAt = (x: number, y: number) => {
		const index = (document.elementFromPoint(x, y)?.closest('[data-cell]') as HTMLElement | null)?.dataset.cell;
		return index === undefined ? undefined : bench.table.cells[Number(index)];
	};
	function down(event: PointerEvent) {
		if (event.button !== 0 || (event.target as Element).closest('[data-editing], button, select, input')) return;
		const place = placeAt(event.clientX, event.clientY);
		if (!place) return;
		event.preventDefault();
		leave();
		if (event.shiftKey) bench.extend(place.r, place.c);
		else if (event.ctrlKey || event.metaKey)
			bench.addRange({ top: place.r, bottom: place.r, start: place.c, end: place.c });
		else bench.select(place.r, place.c);
		isSweeping = true;
		focus();
	}
	function sweep(event: PointerEvent) {
		const place = placeAt(event.clientX, event.clientY);
		const { pointed } = bench;
		if (place?.r !== pointed?.r || place?.c !== pointed?.c) bench.pointed = place && { r: place.r, c: place.c };
		if (!isSweeping) return;
		const { focus: now } = bench.selection;
		if (place && (place.r !== now.r || place.c !== now.c)) bench.extend(place.r, place.c);
	}

	/* ---- typing ---- */

	/** Takes what is being typed. */
	export function leave() {
		if (bench.typing && editor) bench.takeTyped(editor.content());
	}
	async function onleave(key: 'tab' | 'back' | 'below' | 'stay' | 'drop') {
		if (key === 'drop') bench.dropTyped();
		else leave();
		if (key === 'tab') next(1);
		else if (key === 'back') next(-1);
		else if (key === 'below') step(1, 0);
		focus();
		await show();
	}
	/** To the cell after or before, row by row; after the last one comes a new row. */
	function next(by: 1 | -1) {
		const { r, c } = anchorOf(bench.work, bench.selection.focus.r, bench.selection.focus.c);
		for (let slot = r * columns + c + by; slot >= 0 && slot < rows * columns; slot += by) {
			const [y, x] = [Math.floor(slot / columns), slot % columns];
			if (!isCovered(bench.work.rows[y]!.cells[x]!)) return bench.select(y, x);
		}
		if (by < 0) return;
		// A new row comes after the last one of the body: totals stay at the foot.
		const body = bench.work.rows.findLastIndex(({ role }) => role === 'body');
		const at = body < 0 ? rows : body + 1;
		if (bench.edit('a row added', (work) => insertRows(work, at, 1, at - 1))) bench.select(at, 0);
	}
	function step(down: number, across: number) {
		const { focus: now } = bench.selection;
		const { r, c, rows: height, cols } = anchorOf(bench.work, now.r, now.c);
		const y = down > 0 ? r + height - 1 + down : down < 0 ? r + down : now.r;
		const x = across > 0 ? c + cols - 1 + across : across < 0 ? c + across : now.c;
		bench.select(Math.min(Math.max(y, 0), rows - 1), Math.min(Math.max(x, 0), columns - 1));
	}
	function stretch(down: number, across: number) {
		const { focus: now } = bench.selection;
		bench.extend(Math.min(Math.max(now.r + down, 0), rows - 1), Math.min(Math.max(now.c + across, 0), columns - 1));
	}
	/** Brings the focused cell into sight. */
	export async function show() {
		await tick();
		const { r, c } = bench.selection.focus;
		const find = () => box.querySelector<HTMLElement>(`[data-cell="${bench.table.slots[r * columns + c]}"]`);
		if (!find() && drawn) {
			if (!drawn.isDrawn(r)) box.scrollTop = Math.max(0, drawn.top(r) - box.clientHeight / 3);
			if (columnEdges) box.scrollLeft = Math.max(0, columnEdges[c]! - box.clientWidth / 3);
			await new Promise(requestAnimationFrame);
			await tick();
		}
		find()?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	}

	const PAGE = 15;
	/** Moves the rows or columns of the selection by one. */
	function shift(axis: 'rows' | 'columns', by: -1 | 1) {
		const { top, bottom, start, end } = bench.range;
		const [from, to, last] = axis === 'rows' ? [top, bottom, rows] : [start, end, columns];
		if (by < 0 ? from > 0 : to < last - 1) handles.moveTo(axis, from, to - from + 1, by < 0 ? from - 1 : to + 2);
	}
	function toEnd(isEnd: boolean, isOfTable: boolean, isStretched: boolean) {
		const r = isOfTable ? (isEnd ? rows - 1 : 0) : bench.selection.focus.r;
		const c = isEnd ? columns - 1 : 0;
		if (isStretched) bench.extend(r, c);
		else bench.select(r, c);
	}
	/** The keys of a direction: a step, to the end, the selection stretched, rows or columns moved. */
	const direction = (key: string, down: number, across: number): Shortcut[] => [
		{ keys: [key], run: () => step(down, across) },
		{ keys: [`Ctrl+${key}`], run: () => step(down * rows, across * columns) },
		{ keys: [`Shift+${key}`], run: () => stretch(down, across) },
		{ keys: [`Ctrl+Shift+${key}`], run: () => stretch(down * rows, across * columns) },
		{ keys: [`Alt+${key}`], run: () => shift(down ? 'rows' : 'columns', (down || across) as -1 | 1) }
	];
	/** What an arrow to the right adds to a column. */
	const toEndSide = $derived(bench.work.dir === 'rtl' ? -1 : 1);
	/** Keys after which the focused cell is brought into sight. */
	const MOVING: readonly Shortcut[] = $derived([
		...direction('ArrowUp', -1, 0),
		...direction('ArrowDown', 1, 0),
		...direction('ArrowLeft', 0, -toEndSide),
		...direction('ArrowRight', 0, toEndSide),
		{ keys: ['Tab'], run: () => next(1) },
		{
			keys: ['Shift+Tab'],
			// The first cell leads out of the table.
			when: () => bench.selection.focus.r > 0 || bench.selection.focus.c > 0,
			run: () => next(-1)
		},
		{ keys: ['Ctrl+Enter'], run: () => step(1, 0) },
		{ keys: ['Enter', 'F2'], run: () => bench.type() },
		...(['Home', 'End'] as const).flatMap((key): Shortcut[] =>
			[false, true].flatMap((isOfTable) =>
				[false, true].map((isStretched) => ({
					keys: [`${isOfTable ? 'Ctrl+' : ''}${isStretched ? 'Shift+' : ''}${key}`],
					run: () => toEnd(key === 'End', isOfTable, isStretched)
				}))
			)
		),
		{ keys: ['PageUp'], run: () => step(-PAGE, 0) },
		{ keys: ['PageDown'], run: () => step(PAGE, 0) },
		{ keys: ['Shift+PageUp'], run: () => stretch(-PAGE, 0) },
		{ keys: ['Shift+PageDown'], run: () => stretch(PAGE, 0) },
		{
			keys: ['Delete', 'Backspace'],
			run: () =>
				bench.edit(`${pluralWord(bench.cells.length, 'a cell', `${bench.cells.length} cells`)} emptied`, (work) =>
					emptied(work, bench.cells)
				)
		}
	]);
	const STAYING: readonly Shortcut[] = [
		{ keys: ['Ctrl+A'], run: () => bench.selectAll() },
		{ keys: ['Shift+ '], run: () => bench.selectRows(bench.range.top, bench.range.bottom) },
		{ keys: ['Ctrl+ '], run: () => bench.selectColumns(bench.range.start, bench.range.end) },
		{ keys: ['character'], run: ({ key }) => bench.type(key) }
	];
	function press(event: KeyboardEvent) {
		if (runShortcut(MOVING, event)) void show();
		else runShortcut(STAYING, event);
	}

	/* ---- the clipboard ---- */

	function copy(event: ClipboardEvent) {
		if (!event.clipboardData || bench.typing) return;
		copyTo(event.clipboardData, bench);
		event.preventDefault();
	}
	function cut(event: ClipboardEvent) {
		copy(event);
		if (event.defaultPrevented) bench.edit('cells cut', (work) => emptied(work, bench.cells));
	}
	function paste(event: ClipboardEvent) {
		const data = event.clipboardData;
		if (!data || bench.typing) return;
		event.preventDefault();
		const picture = [...data.files].find(({ type }) => type.startsWith('image/'));
		if (picture) return onpicture(picture);
		try {
			arrivals.arrive(data);
		} catch (error) {
			notifyError(error);
		}
	}
	let arrivals: PasteDialog;
	function putIn(clip: Clip) {
		try {
			const { top, start } = bench.range;
			const count = clip.cells.length * (clip.cells[0]?.length ?? 0);
			const put = (over: boolean) => {
				let range: typeof bench.range | undefined;
				const isDone = bench.edit(`${plural(count, 'cell')} pasted`, (work) => {
					const result = pasted(work, top, start, clip, { over });
					({ range } = result);
					return result.work;
				});
				if (isDone && range) bench.selectRanges([range]);
				focus();
			};
			const { kept } = pasted(bench.work, top, start, clip);
			if (!kept.length) return put(false);
			const names = columnNames(bench.work);
			const columns = listed(kept.map((c) => `“${names[c] ?? `column ${c + 1}`}”`));
			bench.ask(`${columns} ${pluralWord(kept.length, 'is', 'are')} worked out, and you paste figures over it.`, [
				['Do not paste', focus],
				[`Paste over it: it is typed from then on`, () => put(true)],
				['Paste beside it: it stays worked out', () => put(false)]
			]);
		} catch (error) {
			notifyError(error);
		}
	}

	/* ---- what is drawn over the cells ---- */

	/** The cell that keys go to, by index. */
	const focused = $derived.by(() => {
		const { r, c } = bench.selection.focus;
		return bench.table.slots[Math.min(r, rows - 1) * columns + Math.min(c, columns - 1)]!;
	});
	const semantics = $derived.by((): Semantics => {
		const { work, table, selection, problemAt, wrongAt } = bench;
		return {
			grid: {
				id,
				tabindex: 0,
				'aria-multiselectable': true,
				'aria-activedescendant': `${id}-${focused}`,
				onkeydown: press,
				oncopy: copy,
				oncut: cut,
				onpaste: paste
			},
			id: (index) => `${id}-${index}`,
			role: (index) => {
				const { r, c } = table.cells[index]!;
				if (isHeader(work.rows[r]!.role)) return 'columnheader';
				return c < work.firstColumns ? 'rowheader' : 'gridcell';
			},
			isSelected: (index) => {
				const { r, c } = table.cells[index]!;
				return selection.ranges.some((one) => r >= one.top && r <= one.bottom && c >= one.start && c <= one.end);
			},
			isReadOnly: (index) => {
				const { r, c } = table.cells[index]!;
				return (
					why !== undefined ||
					forbids((work.rows[r]!.cells[c] as WorkCell).lock, 'content') ||
					!!workedOutBy(work, r, c)
				);
			},
			description: (index) => {
				const { r, c } = table.cells[index]!;
				const row = work.rows[r]!;
				const cell = row.cells[c] as WorkCell;
				const why = workedOutBy(work, r, c);
				const wrong = wrongAt.get(`${r},${c}`);
				const said = [
					isBody(row.role) || isHeader(row.role) ? '' : roleWords(row.role),
					cell.lock ? 'locked' : '',
					isTouched(cell) ? 'touched' : '',
					why ? `worked out ${why}` : '',
					problemAt.get(`${r},${c}`)?.why ?? '',
					wrong ? (wrong.off ? `off by ${wrong.off}` : 'in another measure') : ''
				].filter(Boolean);
				return said.length ? said.join(', ') : undefined;
			}
		};
	});
</script>

{#snippet rowGutter(r: number)}<LineHead {bench} {handles} axis="rows" line={r} {roles} />{/snippet}
{#snippet columnGutter(c: number)}<LineHead {bench} {handles} axis="columns" line={c} />{/snippet}
{#snippet overlay(shown: DrawnRows)}
	{keep(shown)}
	<CellMarks {bench} drawn={shown} />
	{#each bench.selection.ranges as { top, bottom, start, end }, i (i)}
		<i
			class="range"
			style="grid-area:{shown.line(top) + 1} / {start + 1} / span {shown.span(top, bottom + 1)} / {end + 2}"
		></i>
	{/each}
	{#if !bench.typing}
		{@const { r, c, rows: height, cols } = anchorOf(bench.work, bench.selection.focus.r, bench.selection.focus.c)}
		<i class="focus" style="grid-area:{shown.line(r) + 1} / {c + 1} / span {shown.span(r, r + height)} / span {cols}"
		></i>
	{/if}
	{#if handles.dragging?.isMoving}
		{@const { axis, to } = handles.dragging}
		<i
			class={['to', axis]}
			style={axis === 'rows'
				? `grid-area:${shown.line(Math.min(to, rows - 1)) + 1} / 1 / auto / -1;${to === rows ? 'align-self:end;' : ''}`
				: `grid-area:1 / ${Math.min(to, columns - 1) + 1} / -1 / auto;${to === columns ? 'justify-self:end;' : ''}`}
		></i>
	{/if}
	{#if bench.isDrawing}<EdgePicker {bench} drawn={shown} />{/if}
	{#if bench.typing}
		{@const { r, c, row } = bench.typing}
		{@const { rows: height, cols } = anchorOf(bench.work, r, c)}
		{#key `${row},${c}`}
			<CellEditor
				bind:this={editor}
				{bench}
				zoom={bench.zoom}
				area="{shown.line(r) + 1} / {c + 1} / span {shown.span(r, r + height)} / span {cols}"
				{onleave}
			/>
		{/key}
	{/if}
{/snippet}

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
	bind:this={box}
	class="sheet"
	data-work-sheet
	data-scrolls
	onpointerdown={down}
	onpointermove={sweep}
	onpointerleave={() => (bench.pointed = undefined)}
	onpointerup={() => (isSweeping = false)}
	onpointercancel={() => (isSweeping = false)}
	onwheel={(event) => {
		if (!event.ctrlKey && !event.metaKey) return;
		event.preventDefault();
		bench.zoomBy(event.deltaY < 0 ? 1 : -1);
	}}
	ondragover={(event) => event.preventDefault()}
	ondrop={(event) => {
		const picture = [...(event.dataTransfer?.files ?? [])].find(({ type }) => type.startsWith('image/'));
		const place = placeAt(event.clientX, event.clientY);
		if (!picture || !place) return;
		event.preventDefault();
		event.stopPropagation();
		bench.select(place.r, place.c);
		onpicture(picture);
	}}
	ondblclick={(event) => placeAt(event.clientX, event.clientY) && !bench.isDrawing && bench.type()}
>
	<div class="paper on-paper">
		<TableGrid
			grid={bench.table}
			appearance={bench.appearance}
			content={bench.shown}
			{columnTracks}
			{columnEdges}
			zoom={bench.zoom}
			leastHeight={handles.leastHeight}
			{semantics}
			fractions={measures.fractions}
			rowKey={(r) => bench.work.rows[r]!.id}
			{rowGutter}
			{columnGutter}
			{overlay}
			guides
			label="Table, {plural(rows, 'row')} and {plural(columns, 'column')}"
		/>
	</div>
</div>
<PasteDialog bind:this={arrivals} onpaste={putIn} />

<style>
	.sheet {
		min-height: 0;
		flex: 1;
		overflow: auto;
		padding: 14px 24px 60px 10px;
		background: var(--color-desk);
		/* In the middle where there is room, and from the start where there is none. */
		display: grid;
		justify-content: safe center;
		align-content: start;
	}
	.paper {
		display: inline-block;
		min-width: min-content;
		padding: 6px 26px 26px 6px;
		background: var(--color-sheet);
		box-shadow: 0 1px 3px color-mix(in srgb, var(--color-ink) 14%, transparent);
	}
	.sheet :global([role='grid']) {
		outline: none;
		user-select: none;
	}
	.range {
		z-index: 4;
		background: color-mix(in srgb, var(--color-picked) 12%, transparent);
		outline: 1px solid var(--color-picked);
		outline-offset: -1px;
	}
	.focus {
		z-index: 5;
		outline: 2px solid var(--color-picked);
		outline-offset: -1px;
	}
	.to {
		z-index: 7;
		background: var(--color-accent);
	}
	.to.rows {
		height: 3px;
		align-self: start;
		translate: 0 -1px;
	}
	.to.columns {
		width: 3px;
		justify-self: start;
		translate: -1px 0;
	}
</style>
