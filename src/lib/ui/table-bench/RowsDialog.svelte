<script lang="ts">
	import {
		columnsByName,
		compareRows,
		differenceKey,
		sourceOf,
		withRowsFrom,
		type RowDifference
	} from '$lib/core/work/rows-from.ts';
	import { columnNames } from '$lib/core/work/names.ts';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { Gives } from '$lib/server/http/contract.ts';
	import { call } from '../api.ts';
	import Button from '../controls/Button.svelte';
	import { notify, notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import { arrivingFrom } from './clipboard.ts';
	import type { TableBench } from './bench.svelte.ts';

	/** The body of the table from a file or the clipboard: what differs, cell by cell, and what of it is taken. */
	let { bench, open = $bindable() }: { bench: TableBench; open: boolean } = $props();
	type Sheets = Gives<'POST /api/rows'>;
	let chooser: HTMLInputElement | undefined = $state();
	let name = $state('');
	let sheets = $state.raw<Sheets>([]);
	let at = $state(0);
	let problem = $state('');
	/** The columns of the source as somebody said them; by name where nobody did. */
	let said = $state.raw<readonly (number | undefined)[]>();
	/** What is not taken, by the names of differences. */
	let left = $state.raw<ReadonlySet<string>>(new Set());
	let isReading = $state(false);

	const sheet = $derived(sheets[at]);
	const source = $derived(sheet && sourceOf(sheet.rows));
	const columns = $derived(source ? (said ?? columnsByName(bench.work, source)) : []);
	const named = $derived(columnNames(bench.work));
	const differences = $derived(source ? compareRows(bench.work, source, columns).differences : []);
	const keysOf = (one: RowDifference) =>
		one.kind === 'changed' ? one.cells.map(({ c }) => differenceKey(one, c)) : [differenceKey(one)];
	const taken = $derived(differences.flatMap(keysOf).filter((key) => !left.has(key)).length);
	/** So many differences are listed; all of them are taken or left together with those. */
	const MOST = 200;

	function begin(from: string, found: Sheets) {
		name = from;
		// What its writer hid comes last.
		sheets = [...found].sort((a, b) => Number(a.isHidden) - Number(b.isHidden));
		[at, said, left] = [0, undefined, new Set()];
		problem = sheets.some(({ rows }) => rows.length) ? '' : `“${from}” holds no rows. The table stays as it is.`;
	}
	async function read(file: File) {
		isReading = true;
		try {
			begin(file.name, await call('POST', `/api/rows?name=${encodeURIComponent(file.name)}`, file));
		} catch (error) {
			sheets = [];
			problem = (error as Error).message;
		} finally {
			isReading = false;
		}
	}
	function paste(event: ClipboardEvent) {
		if (!open || !event.clipboardData || (event.target as HTMLElement).closest('input, select')) return;
		event.preventDefault();
		event.stopPropagation();
		try {
			const [first] = arrivingFrom(event.clipboardData);
			if (!first) throw new Error('The clipboard holds no cells and no text.');
			const rows = first.plain.cells.map((row) => row.map((cell) => cell?.text ?? ''));
			begin('the clipboard', [{ name: 'clipboard', isHidden: false, rows, remarks: [] }]);
		} catch (error) {
			problem = (error as Error).message;
		}
	}
	function toggle(keys: readonly string[]) {
		const next = new Set(left);
		const isOn = keys.some((key) => !next.has(key));
		for (const key of keys)
			if (isOn) next.add(key);
			else next.delete(key);
		left = next;
	}
	function choose(c: number, value: string) {
		said = columns.map((from, i) => (i === c ? (value === '' ? undefined : Number(value)) : from));
		left = new Set();
	}
	function put() {
		// Once they are in, nothing differs any more.
		const [from, by, out, count] = [source!, columns, left, taken];
		try {
			if (bench.edit(`rows from ${name}`, (work) => withRowsFrom(work, from, by, (key) => !out.has(key)))) {
				notify(
					`${plural(count, 'difference')} from “${name}” ${pluralWord(count, 'is', 'are')} in. Ctrl+Z takes it back.`
				);
				open = false;
				sheets = [];
			}
		} catch (error) {
			notifyError(error);
		}
	}
	const rowWords = (texts: readonly string[]) => texts.filter(Boolean).slice(0, 4).join(' · ') || 'an empty row';
	const missing = $derived(
		source
			? named.filter(
					(_, c) => columns[c] === undefined && !bench.work.columns[c]!.formula && !bench.work.columns[c]!.across
				)
			: []
	);
</script>

<svelte:window onpastecapture={paste} />

<Dialog bind:open title="Rows from a file" wide>
	<p class="text-quiet">
		The first row says what the columns are called. Styles, touches, formulas and totals stay with what they belong to.
		Choose a CSV, TSV, XLSX or ODS file, or press Ctrl+V for what is on the clipboard.
	</p>
	<div class="my-3 flex flex-wrap items-center gap-2">
		<Button onclick={() => chooser?.click()}>Choose a file…</Button>
		<input
			bind:this={chooser}
			type="file"
			class="hidden"
			aria-label="A file with rows"
			accept=".csv,.tsv,.txt,.xlsx,.ods"
			onchange={(event) => {
				const [file] = event.currentTarget.files ?? [];
				if (file) void read(file);
				event.currentTarget.value = '';
			}}
		/>
		{#if isReading}<span class="text-quiet" role="status">Reading…</span>{:else if name && sheet}<span class="chip"
				>{name}</span
			>{/if}
		{#if sheets.length > 1}
			<select
				class="field"
				aria-label="Sheet"
				value={String(at)}
				onchange={(event) => {
					at = Number(event.currentTarget.value);
					[said, left] = [undefined, new Set()];
				}}
			>
				{#each sheets as one, i (i)}<option value={String(i)}>{one.name}{one.isHidden ? ' (hidden)' : ''}</option
					>{/each}
			</select>
		{/if}
	</div>
	{#if problem}<p class="rounded-lg bg-warning-wash px-3 py-2 text-warning-text" role="alert">{problem}</p>{/if}
	{#if sheet && source}
		{#each sheet.remarks as remark (remark)}<p class="text-quiet">{remark}</p>{/each}
		<div class="my-3 grid grid-cols-3 gap-x-4 gap-y-1.5">
			{#each bench.work.columns as column, c (c)}
				<label class="flex min-w-0 items-center gap-2">
					<span class="min-w-0 flex-1 truncate">{named[c] || `column ${c + 1}`}</span>
					{#if column.formula || column.across}<span class="text-[12px] text-quiet">worked out</span>
					{:else}
						<select
							class="field w-32"
							aria-label="Where {named[c] || `column ${c + 1}`} comes from"
							value={columns[c] === undefined ? '' : String(columns[c])}
							onchange={(event) => choose(c, event.currentTarget.value)}
						>
							<option value="">stays as it is</option>
							{#each source.names as one, i (i)}<option value={String(i)}>{one || `column ${i + 1}`}</option>{/each}
						</select>
					{/if}
				</label>
			{/each}
		</div>
		{#if missing.length === bench.work.columns.length}<p class="text-warning-text">
				No column of “{name}” is called like one of the table. Say above which is which.
			</p>
		{:else if differences.length === 0}<p role="status">Nothing differs: the table says what “{name}” does.</p>{/if}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ul class="max-h-[34vh] overflow-y-auto" role="list" aria-label="What differs" tabindex="0">
			{#each differences.slice(0, MOST) as one (differenceKey(one) + one.kind)}
				{@const keys = keysOf(one)}
				<li class="border-t border-hairline py-1.5">
					<label class="flex items-start gap-2">
						<input
							type="checkbox"
							class="mt-0.5 rounded-sm text-picked"
							checked={keys.some((key) => !left.has(key))}
							onchange={() => toggle(keys)}
						/>
						<span class="w-16 shrink-0 text-quiet">{one.kind}</span>
						<span class="min-w-0 flex-1">{one.kind === 'changed' ? one.label || 'a row' : rowWords(one.texts)}</span>
					</label>
					{#if one.kind === 'changed'}
						{#each one.cells as { c, was, is } (c)}
							<label class="ms-6 flex items-start gap-2 text-[12.5px]">
								<input
									type="checkbox"
									class="mt-0.5 rounded-sm text-picked"
									checked={!left.has(differenceKey(one, c))}
									onchange={() => toggle([differenceKey(one, c)])}
								/>
								<span class="w-28 shrink-0 truncate text-quiet">{named[c] || `column ${c + 1}`}</span>
								<span class="min-w-0 flex-1"><s class="text-quiet">{was || 'nothing'}</s> → {is || 'nothing'}</span>
							</label>
						{/each}
					{/if}
				</li>
			{/each}
		</ul>
		{#if differences.length > MOST}<p class="text-quiet">and {differences.length - MOST} more, which are taken</p>{/if}
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={!source || taken === 0} onclick={put}>Take {plural(taken, 'difference')}</Button>
	{/snippet}
</Dialog>
