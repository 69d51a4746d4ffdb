<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { onMount, tick, untrack } from 'svelte';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve, type Resolved } from '$lib/core/cascade/resolve.ts';
	import { behaviour, isHeader } from '$lib/core/roles/index.ts';
	import TraceStrip from '$lib/ui/style-bench/TraceStrip.svelte';
	import AccountDialog from '$lib/ui/documents/AccountDialog.svelte';
	import ChangesPanel, { type Comparing } from '$lib/ui/documents/ChangesPanel.svelte';
	import ContactSheet from '$lib/ui/documents/ContactSheet.svelte';
	import DocumentTable from '$lib/ui/documents/DocumentTable.svelte';
	import LiftDialog from '$lib/ui/documents/LiftDialog.svelte';
	import { kindWords } from '$lib/formats/kinds.ts';
	import PolicyPanel from '$lib/ui/documents/PolicyPanel.svelte';
	import { call } from '$lib/ui/api.ts';
	import type { JudgedDocument } from '$lib/server/census/judged.ts';
	import NewerDialog from '$lib/ui/documents/NewerDialog.svelte';
	import MatchDialog from '$lib/ui/documents/MatchDialog.svelte';
	import Recognised from '$lib/ui/documents/Recognised.svelte';
	import TableStrip from '$lib/ui/documents/TableStrip.svelte';
	import Unreadable from '$lib/ui/documents/Unreadable.svelte';
	import Wipe from '$lib/ui/documents/Wipe.svelte';
	import { roleWords } from '$lib/ui/documents/roles.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { findKey, undoKeys, type Shortcut } from '$lib/ui/controls/shortcuts.ts';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import Waiting from '$lib/ui/shell/Waiting.svelte';
	import Why from '$lib/ui/people/Why.svelte';
	import Only from '$lib/ui/people/Only.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { changesBetween } from '$lib/workbench/changes.ts';
	import { unpackTable } from '$lib/workbench/packed.ts';
	import { goto } from '$app/navigation';
	import type { PageData } from './$types.js';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import { figureFindings } from '$lib/workbench/findings.ts';
	import { usualMark } from '$lib/core/values/parse.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import TabPanel from '$lib/ui/controls/TabPanel.svelte';
	import Tabs from '$lib/ui/controls/Tabs.svelte';
	import Button from '$lib/ui/controls/Button.svelte';
	import StylesPanel from '$lib/ui/documents/StylesPanel.svelte';
	import { DocumentView } from '$lib/ui/documents/view.svelte.ts';

	let { data }: { data: PageData } = $props();
	const blocks = $derived(data.document.blocks);
	/** By their index; of a long document only those of the part that is shown. */
	const tables = $derived(data.document.tables.map(unpackTable));
	const here = $derived(tables.filter(() => true));
	const { stretch, looks } = $derived(data.document);
	const book = $derived(new Stylebook(data.styles, data.house, data.older, data.document));

	const saved = () => {
		const { step, version, steps, state } = data.document;
		return { step, version, steps, state };
	};
	const view = untrack(() => {
		return new DocumentView(data.document.id, saved(), () => ({
			tables,
			book,
			saved: saved(),
			leftOut: data.document.leftOut
		}));
	});
	onMount(() => void view.sender.resume(view.saved.version));
	onMount(() => live.whenArrived((arrived) => void view.sender.meet(arrived)));
	$effect(() => void view.findAlike());

	let chooser: HTMLInputElement;
	/** A newer file that may take the place of this one. */
	let newer = $state<File>();
	let lifting = $state(false);
	let matching = $state(false);
	let isTakingOut = $state(false);
	let taking = $state(false);
	let keys = $state(false);
	let comparing = $state<Comparing>('off');
	let wipe = $state(0.5);
	/** All tables are seen at once, small, in the place of the page. */
	let isSheet = $state(false);
	let tab = $state<'styles' | 'recognised' | 'changes' | 'policy'>('styles');
	let reason = $state<string>();
	let cell = $state<{ index: number; resolved: Resolved | undefined }>();
	let tracing = $state(false);
	const { picked, entry, wornStyle, pickedTable } = $derived(view);

	/** What the house's policy has against the tables, asked again a moment after each change. */
	let judged = $state.raw<JudgedDocument>();
	const held = $derived(judged?.tables.reduce((sum, { faults }) => sum + faults.length, 0) ?? 0);
	/** A document of very many tables is judged when somebody looks. */
	const MANY = 200;
	$effect(() => {
		const { version } = view.saved;
		if (!data.house.policy?.rules.length) {
			judged = { isHeld: false, rules: [], tables: [] };
			return;
		}
		if (tables.length > MANY && tab !== 'policy') return;
		const timer = setTimeout(() => {
			call('GET', `/api/documents/${view.id}/policy`).then(
				(found) => version === view.saved.version && (judged = found),
				// The page goes on without; the next change asks again.
				() => undefined
			);
		}, 400);
		return () => clearTimeout(timer);
	});

	/** What the picked table changes, in words, while somebody looks at it. */
	const changes = $derived.by(() => {
		if (tab !== 'changes') return [];
		const { state, style } = view.shown(picked);
		if (!style) return [];
		const table = stateTable(entry, state);
		return changesBetween(table, entry.appearance, appearanceOf(resolve(table, style, data.house), entry.appearance));
	});

	function pick(index: number, scroll = true) {
		if (picked !== index) cell = undefined;
		view.pick(index);
		if (scroll) document.getElementById(`table-${index}`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
	}

	/** Findings below this weight are to be looked at, and not wrong. */
	const DOUBTFUL = 0.6;
	const usual = $derived(usualMark(data.house.locale));
	/** Figures of a longer table are looked at when it is uploaded, not on every change. */
	const MOST_CELLS = 60_000;
	const findings = $derived(
		tables.flatMap((one) =>
			one.table.cells.length > MOST_CELLS
				? []
				: figureFindings(one, view.stateOf(one.index), usual)
						.toSorted((a, b) => b.weight - a.weight)
						.map((finding) => ({ ...finding, index: one.index }))
		)
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
		return `${plural(table.rows, 'row')} × ${plural(table.columns, 'column')}, ${at}`;
	};

	const LIST: readonly Shortcut[] = [
		{
			keys: ['B'],
			does: 'before / after, with the wipe',
			run: () => (comparing = comparing === 'off' ? 'wipe' : 'off')
		},
		{ keys: ['O'], does: 'all tables at once, small', run: () => (isSheet = !isSheet) },
		{ keys: ['T'], does: 'trace: who decided the look of a cell', run: () => (tracing = !tracing) },
		findKey('find a style'),
		...undoKeys((by) => view.sender.move(by)),
		{ keys: [], shown: 'Arrow keys', does: 'from cell to cell in a table' },
		{ keys: ['Escape'], does: 'put back what is not applied yet', run: leave }
	];
	/** Goes from all tables at once to one of them on the page. */
	async function openOnPage(index: number) {
		isSheet = false;
		await tick();
		pick(index, false);
		// A table inside a cell stands in the one around it.
		let outer = index;
		while (tables[outer]!.place.where === 'nested') outer = tables[outer]!.place.inside!;
		document.getElementById(`table-${outer}`)?.scrollIntoView({ block: 'center' });
	}
	/** Shows a cell, and puts the focus there. */
	async function jump(index: number, r: number, c: number) {
		isSheet = false;
		if (!(index in tables)) return goto(`?at=${index}`);
		pick(index);
		await tick();
		const { slots, columns } = tables[index]!.table;
		const cell = document.querySelector<HTMLElement>(`#table-${index} [data-cell="${slots[r * columns + c]}"]`);
		cell?.scrollIntoView({ block: 'center' });
		cell?.focus();
	}
	function leave() {
		if (view.trying) view.trying = undefined;
		else if (tracing) tracing = false;
		else if (view.isDirty) view.draft = {};
		else comparing = 'off';
	}
</script>

<svelte:head><title>{data.document.name} · Heptarch</title></svelte:head>

<TopBar title={data.document.name}>
	{#snippet facts()}
		<span class="chip">{kindWords(data.document.kind)}</span>
		<span class="chip">{plural(tables.length, 'table')}, {plural(looks, 'look')}</span>
		{#if wornStyle}<span class="chip on"
				>table {picked + 1} wears {wornStyle.definition.name}{view.newest !== undefined
					? `, ${view.own.edition ? `edition ${view.own.edition}` : 'the draft'}`
					: ''}</span
			>{/if}
	{/snippet}
	{#snippet actions()}
		<UndoRedo line={view.line} busy={view.sender.isBusy} onmove={(to) => view.sender.goTo(to)} />
		{#if data.document.kind === 'json'}<Button href="/documents/{view.id}/bench?table={picked}">Work on it…</Button>
		{:else if data.document.kind !== 'csv'}<Button needs="author" href="/starters/begin?into={view.id}"
				>Put a table in…</Button
			>{/if}
		<Button href="/documents/{view.id}/print">Print…</Button>
		<Button onclick={() => (taking = true)}>Take the file…</Button>
		<Button
			needs="author"
			primary
			disabled={!view.isDirty || view.scoped.length === 0 || view.sender.isBusy}
			onclick={() => view.apply()}>Apply to {plural(view.scoped.length, 'table')}</Button
		>
	{/snippet}
</TopBar>
<Why needs="author" />
<Waiting sender={view.sender} />

<TableStrip
	tables={here}
	{stretch}
	{picked}
	ticked={view.ticked}
	scoped={view.scoped}
	{where}
	onpick={pick}
	ontick={(index) => view.tick(index)}
>
	{#each findings.slice(0, 2) as finding (`${finding.index} ${finding.r} ${finding.c}`)}
		<button
			type="button"
			class={['chip', finding.weight < DOUBTFUL ? 'border-warning! text-warning-text!' : 'border-error! text-error!']}
			onclick={() => pick(finding.index)}>table {finding.index + 1}: {finding.words}</button
		>
	{/each}
	{#if findings.length > 2}<span class="text-quiet">and {findings.length - 2} more</span>{/if}
	<button
		type="button"
		class="chip hover:border-quiet!"
		title="Puts a newer file of this document in its place"
		onclick={() => chooser.click()}>newer file…</button
	>
	{#if tables.length > 1}
		<button type="button" class={['chip', isSheet && 'on']} aria-pressed={isSheet} onclick={() => (isSheet = !isSheet)}
			>all at once · O</button
		>
	{/if}
</TableStrip>

<div class="flex min-h-0 flex-1">
	<main class="min-w-0 flex-1 overflow-auto bg-desk/40 px-6 py-4" aria-label="The document">
		{#if isSheet}<ContactSheet {view} house={data.house} {where} onopen={openOnPage} />{/if}
		<div
			hidden={isSheet}
			class="on-paper mx-auto w-[816px] max-w-full rounded border border-hairline bg-sheet py-8 ps-[92px] pe-8"
			style="font-family:'Source Serif 4'"
		>
			{#each blocks as block, i (i)}
				{#if block.kind === 'heading'}
					<p
						class="mt-5 mb-1.5 font-semibold text-quiet"
						style="font-size:{[24, 18, 15.5, 14][block.level] ?? 13}px"
						role="heading"
						aria-level={Math.min(6, block.level + 2)}
						dir="auto"
					>
						{block.text}
					</p>
				{:else if block.kind === 'paragraph'}
					<p class="mb-2 text-[13.5px] leading-relaxed text-quiet" dir="auto">{block.text}</p>
				{:else if block.kind === 'table'}
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
						{#snippet overlay()}<Wipe bind:value={wipe} after={view.afterWords} />{/snippet}
						<Unreadable
							own={view.stateOf(index)}
							called="table {index + 1}"
							busy={view.sender.isBusy}
							onanew={() => view.beginAnew(index)}
						/>
						<div class={isPicked ? '-ms-[84px]' : ''}>
							<DocumentTable
								entry={tables[index]!}
								{tables}
								shown={(at) => view.shown(at)}
								house={data.house}
								{isPicked}
								pickedCell={isPicked && tracing ? cell?.index : undefined}
								inner={{ table: picked, cell: tracing ? cell?.index : undefined }}
								oninner={(inner, at, resolved) => {
									pick(inner, false);
									cell = { index: at, resolved };
								}}
								wipe={isPicked && comparing === 'wipe' ? wipe : undefined}
								overlay={isPicked && comparing === 'wipe' ? overlay : undefined}
								compare={comparing === 'changed' || (isPicked && comparing === 'side') ? comparing : undefined}
								afterWords={view.afterWords}
								onpick={(at, resolved) => {
									pick(index, false);
									cell = { index: at, resolved };
								}}
								onrole={(r, role) => view.correctRole(r, role)}
								onkind={(c, kind) => view.correctKind(c, kind)}
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
				['changes', 'What changes'],
				['policy', held ? `Policy · ${held}` : 'Policy']
			]}
			chosen={tab}
			onchoose={(key) => (tab = key)}
		/>
		<TabPanel id="tab" chosen={tab} class="min-h-0 flex-1 overflow-y-auto px-4 py-3.5">
			{#if tab === 'styles'}
				<StylesPanel
					{view}
					hasOneTable={tables.length === 1 || data.document.kind === 'csv'}
					onmatch={() => (matching = true)}
					onlift={() => (lifting = true)}
					ontakeout={() => (isTakingOut = true)}
				/>
			{:else if tab === 'changes'}
				<ChangesPanel bind:comparing {changes} index={picked} />
			{:else if tab === 'policy'}
				<Only needs="author">
					<PolicyPanel
						{judged}
						{picked}
						busy={view.sender.isBusy}
						onpick={pick}
						onjump={jump}
						onmend={(rule, of) => view.mend(rule.rule, rule.mend!, of)}
					/>
				</Only>
			{:else}
				<Only needs="author">
					<Recognised
						{entry}
						table={pickedTable}
						purpose={view.own.purpose}
						onpurpose={(purpose) => view.correctPurpose(purpose)}
						where={where(picked)}
						{usual}
						onmark={(mark) => view.correctMark(mark)}
						onrole={(r, role) => view.correctRole(r, role)}
						onkind={(c, kind) => view.correctKind(c, kind)}
						onends={(which, count) => view.correctEnds(which, count)}
					/>
				</Only>
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
		<Button
			primary
			onclick={() => {
				isTakingOut = false;
				void view.takeOut();
			}}>Take it out</Button
		>
	{/snippet}
</Dialog>
<LiftDialog
	bind:open={lifting}
	id={view.id}
	table={picked}
	place={where(picked)}
	version={view.saved.version}
	isWorn={!!wornStyle}
	onworn={(next) => {
		view.draft = {};
		view.saved = next;
	}}
/>
<input
	bind:this={chooser}
	type="file"
	class="hidden"
	aria-label="A newer file of this document"
	onchange={() => {
		newer = chooser.files?.[0];
		chooser.value = '';
	}}
/>
<NewerDialog
	bind:file={newer}
	id={view.id}
	name={data.document.name}
	version={view.saved.version}
	ondone={() => view.renew()}
/>
<MatchDialog
	bind:open={matching}
	{tables}
	model={picked}
	others={view.others.filter((index) => index in tables)}
	style={wornStyle?.definition.name ?? ''}
	stateOf={(index) => view.stateOf(index)}
	onmatch={(changed) => view.match(changed)}
/>
<AccountDialog
	bind:open={taking}
	id={view.id}
	name={data.document.name}
	kind={data.document.kind}
	tables={tables.length}
	{picked}
	onjump={jump}
/>
<Shortcuts list={LIST} bind:open={keys} />

<style>
	/* A document of hundreds of tables lays out only those near the window. */
	.out-of-sight {
		content-visibility: auto;
		contain-intrinsic-size: auto 240px;
	}
</style>
