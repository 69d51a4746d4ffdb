<script lang="ts">
	import { pluralWord } from '$lib/core/words.ts';
	import { InputError } from '$lib/core/errors.ts';
	import { formatLength, parseLength, emu, type Emu, typedLength as asWritten } from '$lib/core/units.ts';
	import { joinCells, splitCell, type Join } from '$lib/core/work/join.ts';
	import { filledIn, insertColumns, insertRows, removeLines, type Axis } from '$lib/core/work/lines.ts';
	import { lostBySwapping, swapped } from '$lib/core/work/swap.ts';
	import { withLock } from '$lib/core/work/locks.ts';
	import { linesOf, rangesOf } from '$lib/core/work/selection.ts';
	import { cellOf, isCovered, joinedCells, tidy, type Lock } from '$lib/core/work/table.ts';
	import { isTouched } from '$lib/core/work/touches.ts';
	import { roleFamily } from '$lib/core/roles/index.ts';
	import { notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import type { TableBench } from './bench.svelte.ts';
	import NumberField from '../controls/NumberField.svelte';
	import Button from '../controls/Button.svelte';

	/** Rows, columns, joined cells, sizes and locks of what is selected. */
	interface Props {
		bench: TableBench;
		onpicture: (file: File) => unknown;
		/** Parts the table in two before the selected row. */
		onsplit: () => unknown;
		/** Rows come from a file or the clipboard. */
		onrows: () => unknown;
		/** Other tables whose rows can be put under this one. */
		others: readonly { readonly index: number; readonly words: string }[];
		onjoin: (index: number) => unknown;
	}
	let { bench, onpicture, onsplit, onrows, others, onjoin }: Props = $props();
	let many = $state(1);
	let down = $state(1);
	let across = $state(2);
	let going = $state<{ axis: Axis; lines: Set<number>; filled: number }>();
	let isAsking = $state(false);
	let width = $state('');
	let height = $state('');

	const range = $derived(bench.range);
	const rows = $derived(linesOf(bench.selection.ranges, 'rows'));
	const columns = $derived(linesOf(bench.selection.ranges, 'columns'));
	const words = (axis: Axis, count: number) =>
		axis === 'rows' ? pluralWord(count, 'row', `${count} rows`) : pluralWord(count, 'column', `${count} columns`);

	function add(axis: Axis, where: 'before' | 'after') {
		const { top, bottom, start, end } = range;
		const isAfter = where === 'after';
		const done = bench.edit(`${words(axis, many)} added`, (work) =>
			axis === 'rows'
				? insertRows(work, isAfter ? bottom + 1 : top, many, isAfter ? bottom : top)
				: insertColumns(work, isAfter ? end + 1 : start, many, isAfter ? end : start)
		);
		if (!done) return;
		if (axis === 'rows') bench.select(isAfter ? bottom + 1 : top, range.start);
		else bench.select(range.top, isAfter ? end + 1 : start);
	}
	export function remove(axis: Axis) {
		const lines = axis === 'rows' ? rows : columns;
		const filled = filledIn(bench.work, axis, lines);
		going = { axis, lines: new Set(lines), filled };
		if (filled) isAsking = true;
		else go();
	}
	function go() {
		isAsking = false;
		if (!going) return;
		const { axis, lines } = going;
		bench.edit(`${words(axis, lines.size)} removed`, (work) => removeLines(work, axis, lines));
	}
	const join = (how: Join) => bench.edit('cells joined', (work) => joinCells(work, range, how));
	const split = () =>
		bench.edit('cell split', (work) => splitCell(work, range.top, range.start, Number(down), Number(across)));
	const lock = (what: Lock | undefined) =>
		bench.edit(what ? `locked: ${what}` : 'unlocked', (work) => withLock(work, bench.cells, what));
	const locks = $derived(new Set(bench.cells.map(({ r, c }) => cellOf(bench.work, r, c).lock)));

	/* sizes */
	const said = (lengths: readonly (Emu | undefined)[]) => {
		const [first] = lengths;
		return lengths.every((one) => one === first) ? (first ? formatLength(first, 'mm', 2) : '') : 'mixed';
	};
	$effect(() => {
		width = said([...columns].map((c) => bench.work.columns[c]?.width));
		height = said([...rows].map((r) => bench.work.rows[r]?.height));
	});
	/** A kilometre of column is nothing that could be printed. */
	const LONGEST = parseLength('2000mm');
	function typedLength(text: string, what: string): Emu | undefined {
		if (!text.trim() || text === 'mixed') return undefined;
		const length = parseLength(asWritten(text, 'mm'));
		if (length <= 0 || length > LONGEST)
			throw new InputError('length', `A ${what} lies between 0 and 2 m; “${text}” does not.`);
		return length;
	}
	function setSize(axis: Axis, text: string) {
		if (text === 'mixed') return;
		try {
			const length = typedLength(text, axis === 'rows' ? 'row' : 'column');
			if (axis === 'columns')
				bench.setColumns(`width of ${words(axis, columns.size)}`, columns, (column) => ({ ...column, width: length }));
			else
				bench.edit(`height of ${words(axis, rows.size)}`, (work) => ({
					...work,
					rows: work.rows.map((row, r) => (rows.has(r) ? tidy({ ...row, height: length }) : row))
				}));
		} catch (error) {
			notifyError(error);
		}
	}
	const measured = (c: number): Emu => {
		const own = bench.work.columns[c]!.width;
		const head = document.querySelector(`[data-column-head="${c}"]`);
		return own ?? emu((head?.getBoundingClientRect().width ?? 80) * 9_525);
	};
	/** Columns of one width, together as wide as before. */
	function even() {
		const some = columns.size > 1 ? columns : new Set(bench.work.columns.keys());
		const sum = [...some].reduce((total, c) => total + measured(c), 0);
		bench.setColumns('columns evened out', some, (column) => ({ ...column, width: emu(sum / some.size) }));
	}
	/** The text of an A4 page with usual margins. */
	const PAGE = parseLength('170mm');
	function fitPage() {
		const all = bench.work.columns.map((_, c) => measured(c));
		const sum = all.reduce<number>((total, one) => total + one, 0);
		bench.setColumns('fitted to the page', new Set(bench.work.columns.keys()), (column, c) => ({
			...column,
			width: emu((all[c]! * PAGE) / sum)
		}));
	}
	const fitContent = () =>
		bench.setColumns(
			'columns fit their content',
			columns.size > 1 ? columns : new Set(bench.work.columns.keys()),
			(column) => ({
				...column,
				width: undefined
			})
		);

	/** How many columns at either end are the style's first or last ones. */
	function setEnds(which: 'firstColumns' | 'lastColumns', count: number) {
		const most = bench.work.columns.length;
		const fits = Math.min(Math.max(0, Math.round(count) || 0), most);
		bench.edit(`${fits} ${which === 'firstColumns' ? 'first' : 'last'} ${pluralWord(fits, 'column')}`, (work) => ({
			...work,
			[which]: fits
		}));
	}

	/* what is alike */
	const pick = (label: string, isIt: (r: number, c: number) => boolean) => {
		const places = bench.table.cells.flatMap(({ r, c }) => (isIt(r, c) ? [{ r, c }] : []));
		if (places.length) bench.selectRanges(rangesOf(bench.work, places));
		else notifyError(new Error(`No cell here is ${label}.`));
	};
	const focus = $derived(bench.selection.focus);
	const role = $derived(roleFamily(bench.work.rows[focus.r]!.role));
	const kind = $derived(bench.work.columns[focus.c]!.kind);
	const rules = $derived(bench.flat?.rules ?? []);
	const hits = (name: string) => (r: number, c: number) => {
		const { structure } = bench.resolved;
		return structure.signatures[structure.cellSignature[r * bench.table.columns + c]!]!.parts.some(
			(part) => part.name === `rule:${name}`
		);
	};
	const isJoined = $derived(joinedCells(bench.work).some(({ r, c }) => r === range.top && c === range.start));
	let chooser: HTMLInputElement;
	/** Formulas name columns: those that cannot be said afterwards are named first. */
	function swap() {
		const run = () => bench.edit('rows and columns swapped', swapped);
		const lost = lostBySwapping(bench.work);
		if (!lost.length) return run();
		const more = lost.length > 3 ? ` and ${lost.length - 3} more` : '';
		bench.ask(
			`Rows cannot be named by formulas. What these show stays as typed text: ${lost.slice(0, 3).join('; ')}${more}.`,
			[
				['Leave it as it is', () => undefined],
				['Swap the two', run]
			]
		);
	}
</script>

<section class="mb-4" aria-label="Rows and columns">
	<h3 class="mb-1 font-semibold">Rows and columns</h3>
	<label class="mb-1.5 flex items-center gap-2 text-quiet"
		>How many <NumberField
			class="w-16"
			label="How many to add"
			least={1}
			most={1000}
			isWhole
			value={many}
			onset={(count) => (many = count)}
		/></label
	>
	<div class="grid grid-cols-2 gap-1.5">
		<Button small onclick={() => add('rows', 'before')}>Add above</Button>
		<Button small onclick={() => add('rows', 'after')}>Add below</Button>
		<Button small onclick={() => add('columns', 'before')}>Add before</Button>
		<Button small onclick={() => add('columns', 'after')}>Add after</Button>
		<Button small onclick={() => remove('rows')}>Remove {words('rows', rows.size)}</Button>
		<Button small onclick={() => remove('columns')}>Remove {words('columns', columns.size)}</Button>
		<Button small onclick={swap}>Swap the two</Button>
		<Button small onclick={onsplit}>Part in two here</Button>
		<Button small onclick={onrows}>Rows from a file…</Button>
	</div>
	{#if others.length}
		<select
			class="field mt-1.5 w-full"
			aria-label="Put another table under this one"
			value=""
			onchange={(event) => {
				onjoin(Number(event.currentTarget.value));
				event.currentTarget.value = '';
			}}
		>
			<option value="">Put another table under it…</option>
			{#each others as { index, words } (index)}<option value={index}>{words}</option>{/each}
		</select>
	{/if}
</section>
<section class="mb-4" aria-label="Cells">
	<h3 class="mb-1 font-semibold">Cells</h3>
	<div class="flex flex-wrap gap-1.5">
		<Button small onclick={() => join('one')}>Join into one</Button>
		<Button small onclick={() => join('rows')}>along each row</Button>
		<Button small onclick={() => join('columns')}>down each column</Button>
	</div>
	<div class="mt-1.5 flex items-center gap-1.5">
		<Button small onclick={split}>Split{isJoined ? ' the joined cell' : ''} into</Button>
		<NumberField
			class="w-14"
			label="Rows to split into"
			least={1}
			most={100}
			isWhole
			value={down}
			onset={(count) => (down = count)}
		/>×<NumberField
			class="w-14"
			label="Columns to split into"
			least={1}
			most={100}
			isWhole
			value={across}
			onset={(count) => (across = count)}
		/>
	</div>
	<div class="mt-1.5 flex flex-wrap items-center gap-1.5" role="group" aria-label="Lock">
		<span class="text-quiet">Lock</span>
		{#each [['content', 'content'], ['look', 'look'], ['both', 'both'], [undefined, 'nothing']] as const as [value, label] (label)}
			<button
				type="button"
				class={['chip', locks.size === 1 && locks.has(value) && 'on']}
				aria-pressed={locks.size === 1 && locks.has(value)}
				onclick={() => lock(value)}>{label}</button
			>
		{/each}
	</div>
	<div class="mt-1.5">
		<Button small onclick={() => chooser.click()}>Picture in this cell…</Button>
		<input
			bind:this={chooser}
			class="hidden"
			type="file"
			accept="image/png,image/jpeg,image/svg+xml"
			aria-label="A picture for the cell"
			onchange={() => {
				const [file] = chooser.files ?? [];
				if (file) onpicture(file);
				chooser.value = '';
			}}
		/>
	</div>
</section>
<section class="mb-4" aria-label="Sizes">
	<h3 class="mb-1 font-semibold">Sizes</h3>
	<div class="grid grid-cols-2 gap-2">
		<label class="text-quiet"
			>Width <input
				class="field w-full"
				bind:value={width}
				placeholder="fits content"
				onchange={() => setSize('columns', width)}
			/></label
		>
		<label class="text-quiet"
			>Least height <input
				class="field w-full"
				bind:value={height}
				placeholder="fits content"
				onchange={() => setSize('rows', height)}
			/></label
		>
	</div>
	<div class="mt-1.5 flex flex-wrap gap-1.5">
		<Button small onclick={even}>Even out</Button>
		<Button small onclick={fitContent}>Fit content</Button>
		<Button small onclick={fitPage}>Fit the page</Button>
	</div>
</section>
<section class="mb-4" aria-label="Columns that label">
	<h3 class="mb-1 font-semibold">First and last columns</h3>
	<div class="grid grid-cols-2 gap-2">
		{#each [['firstColumns', 'First'], ['lastColumns', 'Last']] as const as [which, label] (which)}
			<label class="text-quiet"
				>{label}
				<NumberField
					label="{label} columns"
					least={0}
					most={bench.work.columns.length}
					isWhole
					value={bench.work[which]}
					onset={(count) => setEnds(which, count)}
				/></label
			>
		{/each}
	</div>
</section>
<section class="mb-4" aria-label="Select alike">
	<h3 class="mb-1 font-semibold">Select all</h3>
	<div class="flex flex-wrap gap-1.5">
		<button type="button" class="chip" onclick={() => pick(role, (r) => roleFamily(bench.work.rows[r]!.role) === role)}
			>{role} rows</button
		>
		<button type="button" class="chip" onclick={() => pick(kind, (_, c) => bench.work.columns[c]!.kind === kind)}
			>{kind} columns</button
		>
		<button
			type="button"
			class="chip"
			onclick={() => pick('touched', (r, c) => isTouched(bench.work.rows[r]!.cells[c]!))}>touched cells</button
		>
		<button
			type="button"
			class="chip"
			onclick={() =>
				pick('locked', (r, c) => {
					const slot = bench.work.rows[r]!.cells[c]!;
					return !isCovered(slot) && !!slot.lock;
				})}>locked cells</button
		>
		{#each rules as { name } (name)}<button
				type="button"
				class="chip"
				onclick={() => pick(`hit by “${name}”`, hits(name))}>hit by “{name}”</button
			>{/each}
	</div>
</section>

<Dialog bind:open={isAsking} title="Remove what is written there?">
	{#if going}<p>
			{pluralWord(going.lines.size, 'This', 'These')}
			{words(going.axis, going.lines.size)}
			{pluralWord(going.lines.size, 'holds', 'hold')}
			{going.filled === 1 ? 'one cell' : `${going.filled.toLocaleString('en')} cells`} that {going.filled === 1
				? 'is'
				: 'are'} not empty. What is written there goes, too; Ctrl+Z brings it back.
		</p>{/if}
	{#snippet answers()}
		<Button onclick={() => (isAsking = false)}>Keep</Button>
		<Button primary onclick={go}>Remove {going ? words(going.axis, going.lines.size) : ''}</Button>
	{/snippet}
</Dialog>
