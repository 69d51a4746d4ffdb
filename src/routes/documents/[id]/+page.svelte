<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { onMount, untrack } from 'svelte';
	import { invalidateAll } from '$app/navigation';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve, type Resolved } from '$lib/core/cascade/resolve.ts';
	import { ONLY_TEXT, OWN_LOOK } from '$lib/core/style/bare.ts';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { behaviour, isHeader, type RowRole } from '$lib/core/roles/index.ts';
	import { partsInUse } from '$lib/workbench/parts.ts';
	import { type ColumnKind } from '$lib/core/table/columns.ts';
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
	import { call } from '$lib/ui/api.ts';
	import TraceStrip from '$lib/ui/bench/TraceStrip.svelte';
	import AccountDialog from '$lib/ui/documents/AccountDialog.svelte';
	import ChangesPanel, { type Comparing } from '$lib/ui/documents/ChangesPanel.svelte';
	import DocumentTable from '$lib/ui/documents/DocumentTable.svelte';
	import LiftDialog from '$lib/ui/documents/LiftDialog.svelte';
	import { kindWords } from '$lib/formats/kinds.ts';
	import MatchDialog from '$lib/ui/documents/MatchDialog.svelte';
	import Recognised from '$lib/ui/documents/Recognised.svelte';
	import StyleDock from '$lib/ui/documents/StyleDock.svelte';
	import TableStrip from '$lib/ui/documents/TableStrip.svelte';
	import Unreadable from '$lib/ui/documents/Unreadable.svelte';
	import Wipe from '$lib/ui/documents/Wipe.svelte';
	import { roleWords } from '$lib/ui/documents/roles.ts';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { findKey, undoKeys, type Shortcut } from '$lib/ui/controls/shortcuts.ts';
	import { Sender } from '$lib/ui/history.svelte.ts';
	import Waiting from '$lib/ui/shell/Waiting.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { changesBetween } from '$lib/workbench/changes.ts';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { unpackTable } from '$lib/workbench/packed.ts';
	import type { DocumentState, TableState } from '$lib/workbench/state.ts';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import { stateTable, touchedTable, without } from '$lib/workbench/table.ts';
	import Segmented from '$lib/ui/controls/Segmented.svelte';
	import TabPanel from '$lib/ui/controls/TabPanel.svelte';
	import Tabs from '$lib/ui/controls/Tabs.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const { id } = untrack(() => data.document);
	const blocks = $derived(data.document.blocks);
	const tables = $derived(data.document.tables.map(unpackTable));
	const book = $derived(new Stylebook(data.styles, data.house, data.older));

	let saved = $state.raw(
		untrack(() => {
			const { step, version, steps, state } = data.document;
			return { step, version, steps, state };
		})
	);
	let picked = $state(0);
	let scope = $state<'this' | 'alike' | 'ticked' | 'all'>('this');
	/** The tables that look like the picked one in the file, once they are known. */
	let alike = $state.raw<readonly number[]>([]);
	let lifting = $state(false);
	let matching = $state(false);
	let ticked = $state<number[]>([]);
	/** What is about to be applied; nothing until something is chosen. */
	let draft = $state.raw<{
		style?: string;
		/** Nothing but text, in the place of a style. */
		cleared?: boolean;
		dropsEmphasis?: boolean;
		partsOff?: readonly string[];
		carry?: readonly Aspect[];
	}>({});
	let pointed = $state<string>();
	let comparing = $state<Comparing>('off');
	let wipe = $state(0.5);
	let tab = $state<'styles' | 'recognised' | 'changes'>('styles');
	let reason = $state<string>();
	let cell = $state<{ index: number; resolved: Resolved | undefined }>();
	let tracing = $state(false);
	let taking = $state(false);
	let keys = $state(false);

	const scoped = $derived(
		scope === 'this'
			? [picked]
			: scope === 'all'
				? tables.map(({ index }) => index)
				: scope === 'alike'
					? alike
					: ticked
	);
	$effect(() => {
		const asked = picked;
		call<number[]>('GET', `/api/documents/${id}/alike?table=${asked}`).then(
			(found) => asked === picked && (alike = found),
			() => asked === picked && (alike = [asked])
		);
	});
	/** Nothing but text, as a style to look at. */
	const BARE = flatten(ONLY_TEXT);
	const OWN = flatten(OWN_LOOK);

	const others = $derived(scoped.filter((index) => index !== picked));
	async function match(changed: Record<number, TableState>) {
		const count = Object.keys(changed).length;
		const label = `like table ${picked + 1}: ${plural(count, 'table')}`;
		if (!(await step(label, Object.keys(changed).map(Number), (_, index) => changed[index]!))) return;
		notify(
			`${pluralWord(count, 'One table is', `${count} tables are`)} like table ${picked + 1} now. Ctrl+Z takes it back.`
		);
	}
	const stateOf = (index: number): TableState => saved.state.tables[index] ?? {};
	const entry = $derived(tables[picked]!);
	const wornStyle = $derived(book.get(stateOf(picked).style));
	const isCleared = $derived(draft.cleared ?? (draft.style === undefined && stateOf(picked).cleared === true));
	const chosen = $derived(isCleared ? undefined : (draft.style ?? stateOf(picked).style));
	const dropsEmphasis = $derived(draft.dropsEmphasis ?? stateOf(picked).dropsEmphasis ?? false);
	const partsOff = $derived(draft.partsOff ?? stateOf(picked).partsOff ?? entry.table.partsOff);
	const carry = $derived(draft.carry ?? stateOf(picked).carry ?? entry.table.carry);
	const isDirty = $derived(
		draft.style !== undefined ||
			draft.cleared === true ||
			((draft.partsOff !== undefined || draft.carry !== undefined || draft.dropsEmphasis !== undefined) &&
				(chosen !== undefined || isCleared))
	);
	const pickedTable = $derived(stateTable(entry, stateOf(picked)));
	const sample = $derived(excerpt(pickedTable, entry.content, 8));

	/** A table as it is to be shown: what is pointed at first, then what is about to be applied, then what it wears. */
	function shown(index: number) {
		const own = stateOf(index);
		const isSaved = !scoped.includes(index) || (pointed === undefined && !isDirty);
		const clears = isSaved
			? own.cleared
			: pointed === undefined && (draft.cleared ?? (own.cleared && draft.style === undefined));
		const state: TableState = {
			...own,
			...(!isSaved && draft.partsOff && { partsOff: draft.partsOff }),
			...(!isSaved && draft.carry && { carry: draft.carry }),
			...(!isSaved && draft.dropsEmphasis !== undefined && { dropsEmphasis: draft.dropsEmphasis })
		};
		if (clears) return { state: { ...state, carry: ASPECTS, partsOff: [], touches: [] }, style: BARE };
		if (isSaved) {
			const style = book.worn(own);
			const touched = style ? undefined : touchedTable(tables[index]!, own);
			return touched ? { state: { ...state, carry: [], partsOff: [] }, style: OWN } : { state, style };
		}
		const style = pointed ?? draft.style ?? own.style ?? chosen;
		// Only what is newly chosen is shown in its newest edition.
		const isNew = pointed !== undefined || draft.style !== undefined || own.style === undefined;
		return { state, style: isNew ? book.worn(wearing(style)) : book.worn(own) };
	}
	/** What the picked table changes, in words, while somebody looks at it. */
	const changes = $derived.by(() => {
		if (tab !== 'changes') return [];
		const { state, style } = shown(picked);
		if (!style) return [];
		const table = stateTable(entry, state);
		return changesBetween(table, entry.appearance, appearanceOf(resolve(table, style, data.house), entry.appearance));
	});
	const afterWords = $derived(
		pointed === undefined && isCleared
			? 'nothing but text'
			: (book.get(pointed ?? chosen)?.definition.name ?? 'as it came')
	);

	/** A style in its newest edition, or its draft while none is out. */
	function wearing(style: string | undefined): Pick<TableState, 'style' | 'edition'> {
		const edition = book.get(style)?.edition;
		return { ...(style !== undefined && { style }), ...(edition && { edition }) };
	}

	/** Saves a step: what some tables are from now on, given what they are when it is sent. Returns whether it was saved. */
	const step = (
		label: string,
		indices: readonly number[],
		next: (own: TableState, index: number) => TableState
	): Promise<boolean> =>
		sender.send(() => ({
			label,
			method: 'POST',
			path: `/api/documents/${id}/steps`,
			body: {
				version: saved.version,
				label,
				tables: Object.fromEntries(indices.map((index) => [index, next(stateOf(index), index)]))
			}
		}));
	async function take(answer: unknown) {
		const before = heldBy(saved.state);
		saved = answer as typeof saved;
		if (heldBy(saved.state) !== before) await reload();
	}
	const sender = new Sender(`/documents/${id}`, take);
	onMount(() => void sender.resume(saved.version));

	async function apply() {
		if (!isDirty || scoped.length === 0) return;
		const what = isCleared ? 'nothing but text' : book.get(chosen)!.definition.name;
		const count = scoped.length;
		const clears = isCleared;
		const { style, partsOff, carry, dropsEmphasis } = draft;
		const worn = wearing(style ?? chosen);
		const applied = (own: TableState): TableState => ({
			...(clears
				? { ...without(own, 'style', 'edition', 'pinned', 'partsOff', 'carry', 'touches'), cleared: true }
				: style === undefined && own.style !== undefined
					? own
					: { ...without(own, 'edition', 'pinned', 'cleared'), ...worn }),
			...(partsOff && !clears && { partsOff: [...partsOff] }),
			...(carry && !clears && { carry: [...carry] }),
			...(dropsEmphasis !== undefined && { dropsEmphasis })
		});
		const words = isCleared
			? `${pluralWord(count, 'One table has', `${count} tables have`)} nothing but text now.`
			: `${pluralWord(count, 'One table wears', `${count} tables wear`)} “${what}” now.`;
		const isSaved = await step(
			`${what} on ${pluralWord(count, `table ${scoped[0]! + 1}`, `${count} tables`)}`,
			scoped,
			applied
		);
		if (!isSaved) return;
		draft = {};
		notify(`${words} Ctrl+Z takes it back.`);
	}

	let isTakingOut = $state(false);
	async function takeOut() {
		isTakingOut = false;
		const index = picked;
		const label = `table ${index + 1} taken out`;
		const isOut = await sender.send(() => ({
			label,
			method: 'DELETE',
			path: `/api/documents/${id}/tables/${index}`,
			body: { version: saved.version }
		}));
		if (isOut) notify(`Table ${index + 1} is out of the document. Ctrl+Z brings it back.`);
	}

	const newest = $derived(wornStyle?.edition ?? undefined);
	const pin = (pinned: boolean) =>
		step(pinned ? `table ${picked + 1} stays with its edition` : `table ${picked + 1} follows`, [picked], (own) =>
			pinned ? { ...own, pinned } : without(own, 'pinned')
		);
	function takeNewest() {
		const worn = wearing(wornStyle!.id);
		return step(`table ${picked + 1}: edition ${newest}`, [picked], (own) => ({ ...own, ...worn }));
	}

	/** What of a state is about what its tables hold, beside what they wear. */
	const heldBy = ({ tables, added, gone }: DocumentState) =>
		JSON.stringify([added, gone, Object.entries(tables).flatMap(([index, { work }]) => (work ? [[index, work]] : []))]);
	/** The tables again, where other work or another number of them stands now. */
	async function reload() {
		picked = 0;
		ticked = [];
		cell = undefined;
		await invalidateAll();
	}

	/** Undo and redo: a key pressed again while the first is on its way counts, too. */
	const move = (by: -1 | 1) => goTo(() => saved.step + by);
	function goTo(where: number | (() => number)) {
		return sender.send(() => {
			const to = typeof where === 'number' ? where : where();
			if (!saved.steps[to]) return undefined;
			draft = {};
			return {
				label: to < saved.step ? 'undo' : 'redo',
				method: 'PUT',
				path: `/api/documents/${id}/step`,
				body: { version: saved.version, to }
			};
		});
	}
	const line = $derived({ steps: saved.steps, at: saved.step });

	const beginAnew = (index: number) => step(`table ${index + 1} begun anew`, [index], () => ({}));
	const correctRole = (r: number, role: RowRole) =>
		step(`row ${r + 1} of table ${picked + 1} is ${roleWords(role)}`, [picked], (own) => ({
			...own,
			roles: { ...own.roles, [r]: role }
		}));
	const correctKind = (c: number, kind: ColumnKind) =>
		step(`column ${c + 1} of table ${picked + 1} is ${kind}`, [picked], (own) => ({
			...own,
			kinds: { ...own.kinds, [c]: kind }
		}));
	const correctEnds = (which: 'firstColumns' | 'lastColumns', count: number) =>
		step(
			`table ${picked + 1}: ${count} ${which === 'firstColumns' ? 'first' : 'last'} ${pluralWord(count, 'column')}`,
			[picked],
			(own) => ({ ...own, [which]: count })
		);

	function pick(index: number, scroll = true) {
		if (picked !== index) {
			picked = index;
			cell = undefined;
			if (scope === 'this') draft = {};
		}
		if (scroll) document.getElementById(`table-${index}`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
	}
	const tick = (index: number) => {
		ticked = ticked.includes(index)
			? ticked.filter((other) => other !== index)
			: [...ticked, index].sort((a, b) => a - b);
		scope = 'ticked';
	};

	/** The parts that the picked table has, as switches. */
	const parts = $derived(
		partsInUse(pickedTable.roles).filter(
			({ name }) =>
				(name !== 'firstColumn' || pickedTable.firstColumns) && (name !== 'lastColumn' || pickedTable.lastColumns)
		)
	);

	const findings = $derived(
		tables.flatMap(({ index, recognition }) => recognition.findings.map((finding) => ({ ...finding, index })))
	);
	const summary = $derived.by(() => {
		const telling = entry.recognition.rows.flatMap(({ is, reasons }, r) =>
			is !== 'body' && pickedTable.roles[r] === is && reasons[0] ? [{ is, reason: reasons[0] }] : []
		);
		const total =
			telling.find(({ is }) => behaviour(is).sums === 'all') ?? telling.find(({ is }) => behaviour(is).sums);
		const header = telling.find(({ is }) => isHeader(is));
		return [total, header].filter((one) => one !== undefined);
	});
	const looks = $derived(
		new Set(tables.map(({ appearance }) => JSON.stringify([appearance.looks, appearance.lines]))).size
	);
	const where = (index: number) => {
		const { place, table } = tables[index]!;
		const at =
			place.where === 'nested'
				? `inside table ${place.inside! + 1}`
				: place.where === 'body'
					? place.heading
						? `under “${place.heading}”`
						: 'in the text'
					: `in the ${place.where}`;
		return `${table.rows} rows × ${table.columns} columns, ${at}`;
	};

	const LIST: readonly Shortcut[] = [
		{
			keys: ['B'],
			does: 'before / after, with the wipe',
			run: () => (comparing = comparing === 'off' ? 'wipe' : 'off')
		},
		{ keys: ['T'], does: 'trace: who decided the look of a cell', run: () => (tracing = !tracing) },
		findKey('find a style'),
		...undoKeys(move),
		{ keys: [], shown: 'Arrow keys', does: 'from cell to cell in a table' },
		{ keys: ['Escape'], does: 'put back what is not applied yet', run: leave }
	];
	function leave() {
		if (tracing) tracing = false;
		else if (isDirty) draft = {};
		else comparing = 'off';
	}
</script>

<svelte:head><title>{data.document.name} · Heptarch</title></svelte:head>

<TopBar title={data.document.name}>
	{#snippet facts()}
		<span class="chip">{kindWords(data.document.kind)}</span>
		<span class="chip">{plural(tables.length, 'table')}, {plural(looks, 'look')}</span>
		{#if wornStyle}<span class="chip on"
				>table {picked + 1} wears {wornStyle.definition.name}{newest !== undefined
					? `, ${stateOf(picked).edition ? `edition ${stateOf(picked).edition}` : 'the draft'}`
					: ''}</span
			>{/if}
	{/snippet}
	{#snippet actions()}
		<UndoRedo {line} busy={sender.isBusy} onmove={goTo} />
		{#if data.document.kind === 'json'}<Button href="/documents/{id}/bench?table={picked}">Work on it…</Button>
		{:else if data.document.kind !== 'csv'}<Button href="/starters/begin?into={id}">Put a table in…</Button>{/if}
		<Button href="/documents/{id}/print">Print…</Button>
		<Button onclick={() => (taking = true)}>Take the file…</Button>
		<Button primary disabled={!isDirty || scoped.length === 0 || sender.isBusy} onclick={apply}
			>Apply to {plural(scoped.length, 'table')}</Button
		>
	{/snippet}
</TopBar>
<Waiting {sender} />

<TableStrip {tables} {picked} {ticked} {scoped} {where} onpick={pick} ontick={tick}>
	{#each findings.slice(0, 2) as finding (`${finding.index} ${finding.r} ${finding.c}`)}
		<button type="button" class="chip border-error! text-error!" onclick={() => pick(finding.index)}
			>table {finding.index + 1}: {finding.words}</button
		>
	{/each}
	{#if findings.length > 2}<span class="text-quiet">and {findings.length - 2} more</span>{/if}
</TableStrip>

<div class="flex min-h-0 flex-1">
	<main class="min-w-0 flex-1 overflow-auto bg-desk/40 px-6 py-4" aria-label="The document">
		<div
			class="mx-auto w-[816px] max-w-full rounded border border-hairline bg-sheet py-8 ps-[92px] pe-8"
			style="font-family:'Source Serif 4'"
		>
			{#each blocks as block, i (i)}
				{#if block.kind === 'heading'}
					<p
						class="mt-5 mb-1.5 font-semibold text-quiet"
						style="font-size:{[24, 18, 15.5, 14][block.level] ?? 13}px"
						role="heading"
						aria-level={Math.min(6, block.level + 2)}
					>
						{block.text}
					</p>
				{:else if block.kind === 'paragraph'}
					<p class="mb-2 text-[13.5px] leading-relaxed text-quiet">{block.text}</p>
				{:else}
					{@const index = block.index}
					{@const isPicked = picked === index}
					<section
						id="table-{index}"
						class={[
							'group relative my-3',
							isPicked ? '' : 'out-of-sight rounded hover:ring-2 hover:ring-hairline hover:ring-offset-4'
						]}
						aria-label="Table {index + 1}"
					>
						{#snippet overlay()}<Wipe bind:value={wipe} after={afterWords} />{/snippet}
						<Unreadable
							own={stateOf(index)}
							called="table {index + 1}"
							busy={sender.isBusy}
							onanew={() => beginAnew(index)}
						/>
						<div class={isPicked ? '-ms-[84px]' : ''}>
							<DocumentTable
								entry={tables[index]!}
								{tables}
								{shown}
								house={data.house}
								{isPicked}
								pickedCell={isPicked && tracing ? cell?.index : undefined}
								wipe={isPicked && comparing === 'wipe' ? wipe : undefined}
								overlay={isPicked && comparing === 'wipe' ? overlay : undefined}
								compare={comparing === 'changed' || (isPicked && comparing === 'side') ? comparing : undefined}
								{afterWords}
								onpick={(at, resolved) => {
									pick(index, false);
									cell = { index: at, resolved };
								}}
								onrole={correctRole}
								onkind={correctKind}
								onreason={(words) => (reason = words)}
							/>
						</div>
					</section>
				{/if}
			{/each}
		</div>
	</main>

	<aside class="flex w-[344px] shrink-0 flex-col border-s border-hairline bg-paper" aria-label="What to do">
		<Tabs
			look="line"
			class="px-4"
			label="About this document"
			id="tab"
			tabs={[
				['styles', 'Styles'],
				['recognised', 'What it is'],
				['changes', 'What changes']
			]}
			chosen={tab}
			onchoose={(key) => (tab = key)}
		/>
		<TabPanel id="tab" chosen={tab} class="min-h-0 flex-1 overflow-y-auto px-4 py-3.5">
			{#if tab === 'styles'}
				<Segmented
					look="bar"
					class="mb-3.5"
					label="Scope"
					options={[
						['this', 'This table'],
						['alike', `Like it · ${alike.length}`],
						['ticked', `Ticked · ${ticked.length}`],
						['all', `All · ${tables.length}`]
					]}
					value={scope}
					onchange={(key) => (scope = key)}
				/>
				{#if scope === 'ticked' && ticked.length === 0}<p class="mb-3 text-quiet">
						Tick tables in the strip above the page.
					</p>{/if}
				<StyleDock
					{book}
					{sample}
					widths={entry.widths}
					{chosen}
					{partsOff}
					{carry}
					{parts}
					onpoint={(style) => (pointed = style)}
					onchoose={(style) => (draft = { ...without(draft, 'cleared'), style })}
					onparts={(off) => (draft = { ...draft, partsOff: off })}
					oncarry={(aspects) => (draft = { ...draft, carry: aspects })}
				/>
				<h3 class="mt-4 mb-1.5 font-semibold" id="own">Of its own</h3>
				<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="own">
					<button
						type="button"
						class={['chip', isCleared && 'on']}
						aria-pressed={isCleared}
						title="Takes every look off: no fill, no lines, plain text"
						onclick={() =>
							(draft = isCleared
								? without(draft, 'cleared')
								: { ...without(draft, 'style', 'partsOff', 'carry'), cleared: true })}>nothing but text</button
					>
					<button
						type="button"
						class={['chip', dropsEmphasis ? 'off' : 'on']}
						aria-pressed={!dropsEmphasis}
						title="Bold, italic and coloured words inside the cells"
						onclick={() => (draft = { ...draft, dropsEmphasis: !dropsEmphasis })}>emphasis inside the text</button
					>
				</div>
				<h3 class="mt-4 mb-1.5 font-semibold" id="model">Table {picked + 1}</h3>
				<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="model">
					<Button
						small
						disabled={!wornStyle || isDirty || others.length === 0}
						title={wornStyle
							? 'The other tables of the scope get its style, parts in use and carry'
							: 'It wears no house style yet'}
						onclick={() => (matching = true)}>Match {others.length} others to it…</Button
					>
					<Button small onclick={() => (lifting = true)}>Lift a style from it…</Button>
					<Button small href="/documents/{id}/bench?table={picked}">Work on it…</Button>
					<Button small href="/documents/{id}/formats?table={picked}">See it in every format</Button>
					{#if tables.length > 1 && data.document.kind !== 'csv'}
						<Button small onclick={() => (isTakingOut = true)}>Take it out…</Button>
					{/if}
				</div>
				{#if stateOf(picked).touches?.length}
					{@const count = stateOf(picked).touches!.length}
					<p class="mt-2 text-quiet">
						{count}
						{pluralWord(count, 'cell has', 'cells have')} touches of their own.
						<button
							type="button"
							class="underline hover:text-ink"
							onclick={() =>
								step(`touches of table ${picked + 1} taken off`, [picked], (own) => without(own, 'touches'))}
							>Take them off</button
						>
					</p>
				{/if}
				{#if wornStyle && newest !== undefined}
					{@const { edition, pinned } = stateOf(picked)}
					<h3 class="mt-4 mb-1.5 font-semibold" id="edition">Edition</h3>
					<p class="mb-1.5 text-quiet">
						{#if edition === newest}This table wears edition {edition}, the newest.{:else}This table wears {edition
								? `edition ${edition}`
								: 'the draft'}; edition {newest} is out.{/if}
					</p>
					<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="edition">
						<button type="button" class={['chip', !pinned && 'on']} aria-pressed={!pinned} onclick={() => pin(false)}
							>follows</button
						>
						<button type="button" class={['chip', pinned && 'on']} aria-pressed={!!pinned} onclick={() => pin(true)}
							>pinned to {edition ? `edition ${edition}` : 'the draft'}</button
						>
						{#if edition !== newest}<Button small onclick={takeNewest}>Take edition {newest}</Button>{/if}
					</div>
				{/if}
			{:else if tab === 'changes'}
				<ChangesPanel bind:comparing {changes} index={picked} />
			{:else}
				<Recognised
					{entry}
					table={pickedTable}
					where={where(picked)}
					onrole={correctRole}
					onkind={correctKind}
					onends={correctEnds}
				/>
			{/if}
		</TabPanel>
	</aside>
</div>

{#if tracing && cell?.resolved}
	{@const at = cell.resolved.structure.table.cells[cell.index]!}
	<TraceStrip resolved={cell.resolved} r={at.r} c={at.c} onclose={() => (tracing = false)} />
{:else if tracing}
	<section class="border-t border-hairline bg-picked-wash px-5 py-3">
		{cell
			? 'This table wears no house style: it looks as its file says. Point at a style, or choose one.'
			: 'Click a cell to see who decided its look.'}
	</section>
{/if}
<footer class="flex min-h-11 items-center gap-3 border-t border-hairline bg-desk px-5 py-1.5">
	<p class="min-w-0 flex-1 truncate" aria-live="polite">
		{#if reason}{reason}{:else if summary.length}
			{#each summary as { is, reason: why }, i (i)}{#if i}<span class="mx-2 text-quiet">·</span>{/if}<strong
					>{roleWords(is)}</strong
				>
				because {why}{/each}
		{:else}<span class="text-quiet">{where(picked)}</span>{/if}
	</p>
	<button type="button" class="text-quiet hover:text-ink" aria-pressed={tracing} onclick={() => (tracing = !tracing)}
		>T trace</button
	>
	<button
		type="button"
		class="text-quiet hover:text-ink"
		aria-pressed={comparing !== 'off'}
		onclick={() => (comparing = comparing === 'off' ? 'wipe' : 'off')}>B before / after</button
	>
	<button type="button" class="text-quiet hover:text-ink" onclick={() => (keys = true)}>? keys</button>
</footer>

<Dialog bind:open={isTakingOut} title="Take table {picked + 1} out of the document?">
	<p>
		Its rows go, and the tables inside it; the text around it stays, its caption with it. Ctrl+Z brings it back, and the
		file that came is kept as it was.
	</p>
	{#snippet answers()}
		<Button onclick={() => (isTakingOut = false)}>Keep it</Button>
		<Button primary onclick={takeOut}>Take it out</Button>
	{/snippet}
</Dialog>
<LiftDialog
	bind:open={lifting}
	{id}
	table={picked}
	place={where(picked)}
	version={saved.version}
	isWorn={!!wornStyle}
	onworn={(next) => {
		draft = {};
		saved = next;
	}}
/>
<MatchDialog
	bind:open={matching}
	{tables}
	model={picked}
	{others}
	style={wornStyle?.definition.name ?? ''}
	{stateOf}
	onmatch={match}
/>
<AccountDialog
	bind:open={taking}
	{id}
	name={data.document.name}
	kind={data.document.kind}
	tables={tables.length}
	{picked}
/>
<Shortcuts list={LIST} bind:open={keys} />

<style>
	/* A document of hundreds of tables lays out only those near the window. */
	.out-of-sight {
		content-visibility: auto;
		contain-intrinsic-size: auto 240px;
	}
</style>
