<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { plural } from '$lib/core/words.ts';
	import { accepted } from '$lib/formats/kinds.ts';
	import { untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { inLocale } from '$lib/core/work/marks.ts';
	import { workOfClip, workOfRows, withoutContent } from '$lib/core/work/begin.ts';
	import { workedOut } from '$lib/core/work/working.ts';
	import { emptyTable, type Wears, type WorkTable } from '$lib/core/work/table.ts';
	import { findSeparator, parseRows } from '$lib/formats/csv/parse.ts';
	import { decodeText } from '$lib/formats/package/encoding.ts';
	import { call } from '$lib/ui/api.ts';
	import { notifyError } from '$lib/ui/notices.svelte.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { isTyping } from '$lib/ui/controls/shortcuts.ts';
	import WorkPicture from '$lib/ui/starters/WorkPicture.svelte';
	import type { Clip } from '$lib/core/work/cells.ts';
	import PasteDialog from '$lib/ui/table-bench/PasteDialog.svelte';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import '$lib/ui/table/fonts.ts';
	import Segmented from '$lib/ui/controls/Segmented.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const book = $derived(new Stylebook(data.styles, data.house, data.older, data.into ?? { kind: 'json' }));
	type How = 'size' | 'cells' | 'rows' | 'starter';
	let how = $state<How>(untrack(() => (data.starter ? 'starter' : 'size')));
	let rows = $state(5);
	let columns = $state(4);
	let headers = $state(1);
	let totals = $state(1);
	let taken = $state.raw<{ work: WorkTable; from: string }>();
	let starter = $state(untrack(() => data.starter ?? ''));
	let withText = $state(true);
	let name = $state('');
	let style = $state<string>();
	let isBusy = $state(false);
	let after = $state(-1);
	let chooser = $state<HTMLInputElement>();

	const chosen = $derived(data.starters.find(({ id }) => id === starter));
	/** A table of which its figures do not tell how they are read is read as the house writes. */
	const local = (work: WorkTable) => inLocale(work, data.house.locale);
	/** What is about to be made, or why it cannot be. */
	const made = $derived.by((): { work: WorkTable } | { fault: string } => {
		try {
			if (how === 'size') {
				if (headers + totals > rows) return { fault: 'There are more header and total rows than rows.' };
				return { work: local(emptyTable(rows, columns, { headers, totals })) };
			}
			if (how === 'starter') {
				if (!chosen) return { fault: data.starters.length ? 'Choose a starter.' : 'No starter is kept yet.' };
				return { work: workedOut(withText ? chosen.work : withoutContent(chosen.work)).work };
			}
			if (!taken) return { fault: how === 'cells' ? 'Paste cells here with Ctrl+V.' : 'Choose a file of rows.' };
			return { work: local(taken.work) };
		} catch (error) {
			return { fault: (error as Error).message };
		}
	});
	const wears = $derived.by((): Wears => {
		const wanted = style ?? (how === 'starter' ? chosen?.wears.style : book.offered()[0]?.id);
		if (!wanted) return {};
		if (how === 'starter' && chosen && wanted === chosen.wears.style && chosen.wears.pinned) return chosen.wears;
		const own = how === 'starter' && chosen?.wears.style === wanted ? chosen.wears : {};
		return { ...own, ...book.wearing(wanted) };
	});
	const called = $derived(name.trim() || (how === 'starter' && chosen?.name) || taken?.from || 'New table');

	let arrivals: PasteDialog;
	function takeCells(clip: Clip) {
		taken = { work: workOfClip(clip), from: 'Pasted table' };
		how = 'cells';
	}
	function paste(event: ClipboardEvent) {
		if (isTyping(event) || !event.clipboardData) return;
		event.preventDefault();
		try {
			arrivals.arrive(event.clipboardData);
		} catch (error) {
			notifyError(error);
		}
	}
	async function takeFile(file: File | undefined) {
		if (!file) return;
		try {
			const { text } = decodeText(new Uint8Array(await file.arrayBuffer()));
			if (text.includes('\0')) throw new Error(`“${file.name}” holds no text, so it has no rows.`);
			const found = parseRows(text, findSeparator(text)).map((row) => row.map((field) => field.trim()));
			if (!found.length) throw new Error(`“${file.name}” holds no row.`);
			taken = { work: workOfRows(found), from: file.name.replace(/\.\w+$/, '') };
		} catch (error) {
			notifyError(error);
		}
	}
	async function make() {
		if (!('work' in made)) return;
		isBusy = true;
		try {
			const place = await call('POST', '/api/tables', {
				name: called,
				work: made.work,
				wears: JSON.parse(JSON.stringify(wears)),
				...(data.into && { into: { document: data.into.id, after, version: data.into.version } }),
				...(how === 'starter' && chosen && { starter: chosen.id })
			});
			await goto(`/documents/${place.document}/bench?table=${place.index}`);
		} catch (error) {
			notifyError(error);
			isBusy = false;
		}
	}
	const WAYS: readonly (readonly [How, string, string])[] = [
		['size', 'By its size', 'empty, with as many rows and columns as you say'],
		['cells', 'From copied cells', 'from any program: joined cells and emphasis come along'],
		['rows', 'From a file of rows', 'CSV or text with tabs'],
		['starter', 'From a starter', 'a table that was kept to begin with']
	];
</script>

<svelte:head><title>Make a table · Heptarch</title></svelte:head>
<Shortcuts list={[]} />
<svelte:window onpaste={paste} />
<PasteDialog bind:this={arrivals} onpaste={takeCells} />
<TopBar title={data.into ? `A table for ${data.into.name}` : 'Make a table'}>
	{#snippet actions()}
		<Button primary disabled={!('work' in made) || isBusy} onclick={make}
			>{data.into ? 'Put it in and work on it' : 'Make it and work on it'}</Button
		>
	{/snippet}
</TopBar>
<div class="flex min-h-0 flex-1">
	<main class="flex min-w-0 flex-1 flex-col overflow-y-auto bg-desk px-6 py-5">
		{#if 'work' in made}
			<div class="card w-full max-w-[860px]">
				<div>
					<WorkPicture
						work={made.work}
						style={wears.style ? book.worn(wears) : undefined}
						house={data.house}
						partsOff={wears.partsOff}
						carry={wears.carry}
						scale={1}
						height={Math.min(560, 30 + made.work.rows.length * 30)}
						most={18}
					/>
				</div>
			</div>
			<p class="mt-3 text-quiet">
				{plural(made.work.rows.length, 'row')} × {plural(made.work.columns.length, 'column')}
			</p>
		{:else}<p class="mt-16 text-center text-[15px] text-quiet">{made.fault}</p>{/if}
	</main>
	<aside class="w-[360px] shrink-0 overflow-y-auto border-s border-hairline bg-paper px-5 py-4">
		<Segmented
			look="plain"
			class="mb-4 flex flex-col gap-1.5"
			label="How to begin"
			options={WAYS.map(([way, title]) => [way, title] as const)}
			value={how}
			onchange={(way) => (how = way)}
			optionClass={(_, isOn) => ['card px-3 py-1.5 text-start', isOn && 'border-picked! bg-picked-wash!']}
		>
			{#snippet option(way, title)}
				<strong class="block">{title}</strong><span class="text-[12px] text-quiet"
					>{WAYS.find(([one]) => one === way)![2]}</span
				>
			{/snippet}
		</Segmented>
		{#if how === 'size'}
			<div class="mb-4 grid grid-cols-2 gap-2">
				<label class="text-quiet"
					>Rows <input class="field w-full" type="number" min="1" aria-label="Rows" bind:value={rows} /></label
				>
				<label class="text-quiet"
					>Columns <input class="field w-full" type="number" min="1" aria-label="Columns" bind:value={columns} /></label
				>
				<label class="text-quiet"
					>of them header rows <input
						class="field w-full"
						type="number"
						min="0"
						aria-label="Header rows"
						bind:value={headers}
					/></label
				>
				<label class="text-quiet"
					>total rows <input
						class="field w-full"
						type="number"
						min="0"
						aria-label="Total rows"
						bind:value={totals}
					/></label
				>
			</div>
		{:else if how === 'cells'}
			<p class="mb-4 text-quiet">Copy cells anywhere, then press Ctrl+V on this page.</p>
		{:else if how === 'rows'}
			<Button class="mb-4" onclick={() => chooser?.click()}>Choose a file…</Button>
			<input
				bind:this={chooser}
				class="hidden"
				type="file"
				accept={accepted(({ isRows }) => isRows === true)}
				aria-label="A file of rows"
				onchange={() => takeFile(chooser?.files?.[0])}
			/>
		{:else}
			<div class="mb-4">
				<select class="field mb-2 w-full" aria-label="Starter" bind:value={starter}>
					<option value="">choose…</option>
					{#each data.starters as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
				</select>
				<label class="flex items-center gap-2"
					><input type="checkbox" class="rounded-sm text-picked" bind:checked={withText} />with what its body says</label
				>
			</div>
		{/if}
		<label class="mb-3 block"
			>What it is called <input
				class="field w-full"
				aria-label="Name of the table"
				placeholder={called}
				bind:value={name}
			/></label
		>
		<label class="mb-3 block"
			>Wears
			<select
				class="field w-full"
				aria-label="Style"
				value={wears.style ?? ''}
				onchange={(event) => (style = event.currentTarget.value)}
			>
				<option value="">no style</option>
				{#each book.offered(wears.style) as { id, definition } (id)}<option value={id}>{definition.name}</option>{/each}
			</select></label
		>
		<label class="mb-3 block"
			>Where it goes
			<select
				class="field w-full"
				aria-label="Where it goes"
				value={data.into?.id ?? ''}
				onchange={(event) =>
					goto(event.currentTarget.value ? `?into=${event.currentTarget.value}` : '?', { keepFocus: true })}
			>
				<option value="">stays on its own</option>
				{#each data.documents as { id, name } (id)}<option value={id}>into {name}</option>{/each}
			</select></label
		>
		{#if data.into}
			<fieldset
				class="max-h-64 min-w-0 overflow-y-auto rounded-lg border border-hairline bg-sheet py-1"
				aria-label="After what"
			>
				{#each [{ kind: 'start', text: 'at the beginning' }, ...data.into.blocks] as block, i (i)}
					<label class={['flex items-start gap-2 px-3 py-1 hover:bg-desk', after === i - 1 && 'bg-picked-wash']}>
						<input type="radio" class="mt-1 text-picked" name="after" value={i - 1} bind:group={after} />
						<span
							class={[
								'min-w-0 truncate',
								block.kind === 'heading' && 'font-semibold',
								block.kind === 'table' && 'text-picked'
							]}>{block.kind === 'start' ? '' : 'after '}{block.kind === 'table' ? '▦ ' : ''}{block.text}</span
						>
					</label>
				{/each}
			</fieldset>
		{/if}
	</aside>
</div>
