<script lang="ts">
	import { tick } from 'svelte';
	import { COLUMN_KINDS, roleFamily, type ColumnKind, type RowRole } from '$lib/core/table/roles.ts';
	import { emptied, pasted } from '$lib/core/work/cells.ts';
	import { workedOutBy } from '$lib/core/work/figures.ts';
	import { insertRows, moveLines } from '$lib/core/work/lines.ts';
	import { forbids } from '$lib/core/work/locks.ts';
	import { anchorOf, isCovered, type WorkCell } from '$lib/core/work/table.ts';
	import { isTouched } from '$lib/core/work/touches.ts';
	import { emu, toPixels, type Emu } from '$lib/core/units.ts';
	import { roleTone, rolesToChoose, roleWords } from '../documents/roles.ts';
	import { notifyError } from '../notices.svelte.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import TableGrid from '../table/TableGrid.svelte';
	import type { Semantics } from '../table/TableLayer.svelte';
	import type { TableBench } from './bench.svelte.ts';
	import CellEditor from './CellEditor.svelte';
	import { clipFrom, copyTo } from './clipboard.ts';
	import EdgePicker from './EdgePicker.svelte';
	import { measuresOf } from './measures.ts';

	/** The table itself: selecting, typing, moving and sizing by pointer and keyboard. `onpicture` takes a picture's file. */
	let { bench, onpicture }: { bench: TableBench; onpicture: (file: File) => unknown } = $props();

	let box: HTMLElement;
	let editor = $state<CellEditor>();
	let drawn: DrawnRows | undefined;
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
	/* ---- columns and rows, and dragging their edges ---- */

	let sizing = $state<{ axis: 'rows' | 'columns'; line: number; at: number; from: number; size: number }>();
	/** Tables longer than this have columns of a fixed width: those that nobody gave one, about as wide as their longest text. */
	const LONG = 60;
	const LETTER = 7;
	const measures = $derived(measuresOf(bench.work));
	const widths = $derived(
		bench.work.columns.map(({ width }, c) => {
			if (sizing?.axis === 'columns' && sizing.line === c) return sizing.size;
			if (width) return toPixels(width);
			if (rows <= LONG) return undefined;
			return Math.min(240, Math.max(72, measures.longest[c]! * LETTER + 28));
		})
	);
	const columnTracks = $derived(
		widths.map((size) => (size === undefined ? 'fit-content(240px)' : `${size.toFixed(1)}px`)).join(' ')
	);
	const columnEdges = $derived.by(() => {
		if (rows <= LONG) return undefined;
		const edges = [0];
		for (const width of widths) edges.push(edges.at(-1)! + width!);
		return edges;
	});
	const leastHeight = (r: number): number | undefined => {
		if (sizing?.axis === 'rows' && sizing.line === r) return sizing.size;
		const height = bench.work.rows[r]?.height;
		return height && toPixels(height);
	};
	const fromPixels = (pixels: number): Emu => emu(pixels * 9_525);
	function startSizing(event: PointerEvent, axis: 'rows' | 'columns', line: number) {
		event.preventDefault();
		event.stopPropagation();
		const handle = event.currentTarget as HTMLElement;
		handle.setPointerCapture(event.pointerId);
		const gutter = handle.parentElement!.getBoundingClientRect();
		const from = axis === 'columns' ? gutter.width : (rowBox(line)?.height ?? gutter.height);
		sizing = { axis, line, at: axis === 'columns' ? event.clientX : event.clientY, from, size: from };
	}
	const rowBox = (r: number) =>
		box.querySelector(`[data-cell="${bench.table.slots[r * columns]}"]`)?.getBoundingClientRect();
	function moveSizing(event: PointerEvent) {
		if (!sizing) return;
		const by = (sizing.axis === 'columns' ? event.clientX : event.clientY) - sizing.at;
		sizing = { ...sizing, size: Math.max(12, sizing.from + by) };
	}
	function endSizing() {
		if (!sizing) return;
		const { axis, line, size, from } = sizing;
		sizing = undefined;
		if (Math.abs(size - from) < 1) return;
		const length = fromPixels(size);
		if (axis === 'columns')
			bench.setColumns(`width of column ${line + 1}`, sized('columns', line), (column) => ({
				...column,
				width: length
			}));
		else
			bench.edit(`height of row ${line + 1}`, (work) => {
				const some = sized('rows', line);
				return { ...work, rows: work.rows.map((row, r) => (some.has(r) ? { ...row, height: length } : row)) };
			});
	}
	/** The lines that take a new size: all selected ones, where the dragged one is among them and selected whole. */
	function sized(axis: 'rows' | 'columns', line: number): Set<number> {
		const lines = new Set<number>();
		for (const { top, bottom, start, end } of bench.selection.ranges) {
			const isWhole = axis === 'rows' ? start === 0 && end === columns - 1 : top === 0 && bottom === rows - 1;
			if (isWhole) for (let i = axis === 'rows' ? top : start; i <= (axis === 'rows' ? bottom : end); i++) lines.add(i);
		}
		return lines.has(line) ? lines : new Set([line]);
	}

	/* ---- selecting whole rows and columns, and dragging them to another place ---- */

	let dragging = $state<{
		axis: 'rows' | 'columns';
		from: number;
		count: number;
		to: number;
		isMoving: boolean;
		at: number;
	}>();
	function grab(event: PointerEvent, axis: 'rows' | 'columns', line: number) {
		if (event.button !== 0) return;
		const select = (from: number, to: number, how: 'new' | 'more') =>
			axis === 'rows' ? bench.selectRows(from, to, how) : bench.selectColumns(from, to, how);
		const { anchor } = bench.selection;
		const some = sized(axis, line);
		if (event.shiftKey) select(axis === 'rows' ? anchor.r : anchor.c, line, 'new');
		else if (event.ctrlKey || event.metaKey) select(line, line, 'more');
		else if (some.size === 1) select(line, line, 'new');
		const from = Math.min(...some);
		const isOne = Math.max(...some) - from + 1 === some.size;
		(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
		dragging = {
			axis,
			from: isOne ? from : line,
			count: isOne ? some.size : 1,
			to: line,
			isMoving: false,
			at: axis === 'rows' ? event.clientY : event.clientX
		};
		focus();
	}
	function drag(event: PointerEvent) {
		if (!dragging) return;
		const at = dragging.axis === 'rows' ? event.clientY : event.clientX;
		if (!dragging.isMoving && Math.abs(at - dragging.at) < 6) return;
		dragging = { ...dragging, isMoving: true, to: boundaryAt(dragging.axis, event.clientX, event.clientY) };
	}
	/** The place between two lines that is nearest to a point. */
	function boundaryAt(axis: 'rows' | 'columns', x: number, y: number): number {
		const selector = axis === 'rows' ? '[data-row-head]' : '[data-column-head]';
		let to = axis === 'rows' ? rows : columns;
		for (const head of box.querySelectorAll<HTMLElement>(selector)) {
			const rect = head.getBoundingClientRect();
			const middle = axis === 'rows' ? (rect.top + rect.bottom) / 2 : (rect.left + rect.right) / 2;
			if ((axis === 'rows' ? y : x) < middle) {
				to = Number(head.dataset.rowHead ?? head.dataset.columnHead);
				break;
			}
		}
		return to;
	}
	function drop() {
		if (!dragging) return;
		const { axis, from, count, to, isMoving } = dragging;
		dragging = undefined;
		if (isMoving) moveTo(axis, from, count, to);
	}
	function moveTo(axis: 'rows' | 'columns', from: number, count: number, to: number) {
		if (to >= from && to <= from + count) return;
		const words = `${count === 1 ? (axis === 'rows' ? 'row' : 'column') : `${count} ${axis}`} moved`;
		if (!bench.edit(words, (work) => moveLines(work, axis, from, count, to))) return;
		const now = to > from ? to - count : to;
		if (axis === 'rows') bench.selectRows(now, now + count - 1);
		else bench.selectColumns(now, now + count - 1);
	}

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
		if (!isSweeping) return;
		const place = placeAt(event.clientX, event.clientY);
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

	const MOVES: Record<string, readonly [number, number]> = {
		ArrowUp: [-1, 0],
		ArrowDown: [1, 0],
		ArrowLeft: [0, -1],
		ArrowRight: [0, 1]
	};
	const PAGE = 15;
	function keydown(event: KeyboardEvent) {
		const command = event.ctrlKey || event.metaKey;
		const { key } = event;
		const done = () => {
			event.preventDefault();
			void show();
		};
		const move = MOVES[key];
		if (move && event.altKey) {
			const isRows = move[0] !== 0;
			const axis = isRows ? 'rows' : 'columns';
			const { top, bottom, start, end } = bench.range;
			const [from, to] = isRows ? [top, bottom] : [start, end];
			const by = isRows ? move[0] : move[1];
			const last = isRows ? rows : columns;
			if (by < 0 ? from > 0 : to < last - 1) moveTo(axis, from, to - from + 1, by < 0 ? from - 1 : to + 2);
			done();
		} else if (move) {
			const [y, x] = command ? [move[0] * rows, move[1] * columns] : move;
			if (event.shiftKey) stretch(y, x);
			else step(y, x);
			done();
		} else if (key === 'Tab') {
			// The last cell leads to a new row; the first one leads out of the table.
			const { r, c } = bench.selection.focus;
			if (event.shiftKey && r === 0 && c === 0) return;
			next(event.shiftKey ? -1 : 1);
			done();
		} else if (key === 'Enter' && command) {
			step(1, 0);
			done();
		} else if (key === 'Enter' || key === 'F2') {
			bench.type();
			done();
		} else if (key === 'Home' || key === 'End') {
			const isEnd = key === 'End';
			const { focus: now } = bench.selection;
			const [y, x] = [command ? (isEnd ? rows - 1 : 0) : now.r, isEnd ? columns - 1 : 0];
			if (event.shiftKey) bench.extend(y, x);
			else bench.select(y, x);
			done();
		} else if (key === 'PageUp' || key === 'PageDown') {
			const by = key === 'PageUp' ? -PAGE : PAGE;
			if (event.shiftKey) stretch(by, 0);
			else step(by, 0);
			done();
		} else if (key === 'Delete' || key === 'Backspace') {
			bench.edit(`${bench.cells.length === 1 ? 'a cell' : `${bench.cells.length} cells`} emptied`, (work) =>
				emptied(work, bench.cells)
			);
			done();
		} else if (command && key.toLowerCase() === 'a') {
			bench.selectAll();
			event.preventDefault();
		} else if (key === ' ' && (event.shiftKey || command)) {
			const { top, bottom, start, end } = bench.range;
			if (event.shiftKey) bench.selectRows(top, bottom);
			else bench.selectColumns(start, end);
			event.preventDefault();
		} else if (!command && !event.altKey && key.length === 1) {
			bench.type(key);
			event.preventDefault();
		}
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
			const clip = clipFrom(data);
			if (!clip) throw new Error('There is nothing to paste: the clipboard holds no cells and no text.');
			const { top, start } = bench.range;
			let range: typeof bench.range | undefined;
			const count = clip.cells.length * (clip.cells[0]?.length ?? 0);
			const isDone = bench.edit(`${count.toLocaleString('en')} ${count === 1 ? 'cell' : 'cells'} pasted`, (work) => {
				const result = pasted(work, top, start, clip);
				range = result.range;
				return result.work;
			});
			if (isDone && range) bench.selectRanges([range]);
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
				onkeydown: keydown,
				oncopy: copy,
				oncut: cut,
				onpaste: paste
			},
			id: (index) => `${id}-${index}`,
			role: (index) => {
				const { r, c } = table.cells[index]!;
				if (work.rows[r]!.role.startsWith('header')) return 'columnheader';
				return c < work.firstColumns ? 'rowheader' : 'gridcell';
			},
			isSelected: (index) => {
				const { r, c } = table.cells[index]!;
				return selection.ranges.some((one) => r >= one.top && r <= one.bottom && c >= one.start && c <= one.end);
			},
			isReadOnly: (index) => {
				const { r, c } = table.cells[index]!;
				return forbids((work.rows[r]!.cells[c] as WorkCell).lock, 'content') || !!workedOutBy(work, r, c);
			},
			description: (index) => {
				const { r, c } = table.cells[index]!;
				const row = work.rows[r]!;
				const cell = row.cells[c] as WorkCell;
				const family = roleFamily(row.role);
				const why = workedOutBy(work, r, c);
				const wrong = wrongAt.get(`${r},${c}`);
				const said = [
					family === 'body' || family === 'header' ? '' : roleWords(row.role),
					cell.lock ? 'locked' : '',
					isTouched(cell) ? 'touched' : '',
					why ? `worked out ${why}` : '',
					problemAt.get(`${r},${c}`) ?? '',
					wrong ? `off by ${wrong.off}` : ''
				].filter(Boolean);
				return said.length ? said.join(', ') : undefined;
			}
		};
	});

	interface Mark {
		readonly r: number;
		readonly c: number;
		readonly kind: 'touch' | 'lock' | 'worked' | 'problem' | 'wrong' | 'lit';
		readonly words: string;
	}
	function marksIn(shown: DrawnRows): Mark[] {
		const marks: Mark[] = [];
		const { work, problemAt, wrongAt, lit } = bench;
		for (const r of shown.rows)
			for (const c of shown.columns) {
				const slot = work.rows[r]!.cells[c];
				if (!slot) continue;
				const key = `${r},${c}`;
				if (lit.has(key)) marks.push({ r, c, kind: 'lit', words: 'found' });
				const why = problemAt.get(key);
				if (why) marks.push({ r, c, kind: 'problem', words: `No figure: ${why}.` });
				const wrong = wrongAt.get(key);
				if (wrong)
					marks.push({ r, c, kind: 'wrong', words: `Off by ${wrong.off}: the column comes to ${wrong.should}.` });
				if (!bench.marks) continue;
				if (isTouched(slot)) marks.push({ r, c, kind: 'touch', words: 'touched' });
				if (isCovered(slot)) continue;
				if (slot.lock) marks.push({ r, c, kind: 'lock', words: `locked: ${slot.lock}` });
				const by = workedOutBy(work, r, c);
				if (!why && by) marks.push({ r, c, kind: 'worked', words: `worked out ${by}` });
			}
		return marks;
	}
	const GLYPHS: Record<Mark['kind'], string> = {
		touch: '//',
		lock: '▣',
		worked: '=',
		problem: '!',
		wrong: '≠',
		lit: ''
	};
	const roles = $derived(rolesToChoose(bench.table.roles));
	const isRowIn = (r: number) => bench.selection.ranges.some(({ top, bottom }) => r >= top && r <= bottom);
	const isColumnIn = (c: number) => bench.selection.ranges.some(({ start, end }) => c >= start && c <= end);
</script>

{#snippet rowGutter(r: number)}
	{@const role = bench.work.rows[r]!.role}
	<div class="row-head" data-row-head={r}>
		<button
			type="button"
			class={['head', isRowIn(r) && 'in']}
			aria-label="Row {r + 1}, {roleWords(role)}: select, or drag to move"
			onmousedown={(event) => event.preventDefault()}
			onpointerdown={(event) => grab(event, 'rows', r)}
			onpointermove={drag}
			onpointerup={drop}
			onclick={(event) => event.detail === 0 && bench.selectRows(r, r)}>{r + 1}</button
		>
		<select
			class={['role', roleTone(role)]}
			aria-label="Role of row {r + 1}"
			value={role}
			onchange={(event) => {
				const some = sized('rows', r);
				bench.setRole(some, event.currentTarget.value as RowRole);
			}}
		>
			{#each roles.includes(role) ? roles : [role, ...roles] as one (one)}<option value={one}>{roleWords(one)}</option
				>{/each}
		</select>
		<i
			class="size-row"
			role="presentation"
			onpointerdown={(event) => startSizing(event, 'rows', r)}
			onpointermove={moveSizing}
			onpointerup={endSizing}
		></i>
	</div>
{/snippet}
{#snippet columnGutter(c: number)}
	{@const { kind, formula, across } = bench.work.columns[c]!}
	<div class={['column-head', !bench.work.columns[c]!.width && 'free']} data-column-head={c}>
		<button
			type="button"
			class={['head', isColumnIn(c) && 'in', bench.panel === 'figures' && bench.dependents.has(c) && 'dependent']}
			aria-label="Column {c + 1}{bench.table.columnInfo[c]!.name
				? `, “${bench.table.columnInfo[c]!.name}”`
				: ''}: select, or drag to move"
			onmousedown={(event) => event.preventDefault()}
			onpointerdown={(event) => grab(event, 'columns', c)}
			onpointermove={drag}
			onpointerup={drop}
			onclick={(event) => event.detail === 0 && bench.selectColumns(c, c)}
			>{c + 1}{formula || across ? ' =' : ''}</button
		>
		<select
			class="kind"
			aria-label="Kind of column {c + 1}"
			value={kind}
			onchange={(event) => bench.setKind(sized('columns', c), event.currentTarget.value as ColumnKind)}
		>
			{#each COLUMN_KINDS as one (one)}<option value={one}>{one}</option>{/each}
		</select>
		<i
			class="size-column"
			role="presentation"
			onpointerdown={(event) => startSizing(event, 'columns', c)}
			onpointermove={moveSizing}
			onpointerup={endSizing}
			ondblclick={() =>
				bench.setColumns(`column ${c + 1} fits its content`, sized('columns', c), (column) => ({
					...column,
					width: undefined
				}))}
		></i>
	</div>
{/snippet}
{#snippet overlay(shown: DrawnRows)}
	{keep(shown)}
	{#each marksIn(shown) as { r, c, kind, words } (`${r},${c},${kind}`)}
		<i class={['mark', kind]} title={words} style="grid-area:{shown.line(r) + 1} / {c + 1} / auto / auto"
			>{GLYPHS[kind]}</i
		>
	{/each}
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
	{#if dragging?.isMoving}
		{@const { axis, to } = dragging}
		<i
			class={['to', axis]}
			style={axis === 'rows'
				? `grid-area:${shown.line(Math.min(to, rows - 1)) + 1} / 1 / auto / -1;${to === rows ? 'align-self:end;' : ''}`
				: `grid-area:1 / ${Math.min(to, columns - 1) + 1} / -1 / auto;${to === columns ? 'justify-self:end;' : ''}`}
		></i>
	{/if}
	{#if bench.isDrawing}<EdgePicker {bench} drawn={shown} />{/if}
	{#if bench.typing}
		{@const { r, c } = bench.typing}
		{@const { rows: height, cols } = anchorOf(bench.work, r, c)}
		{#key `${r},${c}`}
			<CellEditor
				bind:this={editor}
				{bench}
				zoom={1}
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
	onpointerup={() => (isSweeping = false)}
	onpointercancel={() => (isSweeping = false)}
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
	<div class="paper">
		<TableGrid
			grid={bench.table}
			appearance={bench.appearance}
			content={bench.shown}
			{columnTracks}
			{columnEdges}
			{leastHeight}
			{semantics}
			fractions={measures.fractions}
			rowKey={(r) => bench.work.rows[r]!.id}
			{rowGutter}
			{columnGutter}
			{overlay}
			guides
			label="Table, {rows} rows and {columns} columns"
		/>
	</div>
</div>

<style>
	.sheet {
		min-height: 0;
		flex: 1;
		overflow: auto;
		padding: 14px 24px 60px 10px;
		background: var(--color-desk);
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
	.row-head {
		position: relative;
		display: flex;
		height: 100%;
		align-items: center;
		gap: 2px;
	}
	.column-head {
		position: relative;
		display: grid;
		min-width: 0;
	}
	.column-head.free {
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
	.size-column {
		position: absolute;
		z-index: 4;
		inset-block: 0;
		inset-inline-end: -5px;
		width: 10px;
		cursor: col-resize;
		touch-action: none;
	}
	.size-row {
		position: absolute;
		z-index: 4;
		bottom: -5px;
		inset-inline: 0;
		height: 10px;
		cursor: row-resize;
		touch-action: none;
	}
	.size-column:hover,
	.size-row:hover {
		background: color-mix(in srgb, var(--color-picked) 30%, transparent);
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
	.mark {
		z-index: 3;
		align-self: start;
		justify-self: end;
		padding-inline: 2px;
		color: var(--color-accent);
		font-size: 9px;
		font-style: normal;
		font-weight: 700;
		line-height: 10px;
		pointer-events: auto;
	}
	.mark.lock {
		align-self: end;
		color: var(--color-quiet);
	}
	.mark.worked {
		align-self: start;
		justify-self: start;
		color: var(--color-picked);
		opacity: 0.7;
	}
	.mark.problem,
	.mark.wrong {
		align-self: center;
		justify-self: start;
		border-radius: 3px;
		background: var(--color-error);
		color: var(--color-sheet);
		font-size: 11px;
		line-height: 15px;
		padding-inline: 4px;
	}
	.mark.wrong {
		background: var(--color-warning-text);
	}
	.mark.lit {
		align-self: stretch;
		justify-self: stretch;
		background: color-mix(in srgb, var(--color-mark) 30%, transparent);
		pointer-events: none;
	}
</style>
