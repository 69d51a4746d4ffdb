<script lang="ts">
	import { listed, plural } from '$lib/core/words.ts';
	import { onDestroy, onMount, tick, untrack } from 'svelte';
	import { invalidate } from '$app/navigation';
	import { pushUp } from '$lib/core/style/edit.ts';
	import { partWords, type Rank } from '$lib/core/style/parts.ts';
	import { leafWords } from '$lib/core/style/words.ts';
	import { reachOf, type Reached } from '$lib/workbench/reach.ts';
	import ReachDialog from '$lib/ui/stylebook/ReachDialog.svelte';
	import type { Setting } from '$lib/core/style/find.ts';
	import { describeStyle } from '$lib/core/style/sentence.ts';
	import type { Style } from '$lib/core/style/types.ts';
	import type { StyleRecord } from '$lib/server/styles/styles.ts';
	import { call } from '$lib/ui/api.ts';
	import { Bench, type View } from '$lib/ui/style-bench/bench.svelte.ts';
	import BandSizes from '$lib/ui/style-bench/BandSizes.svelte';
	import ChainStrip from '$lib/ui/style-bench/ChainStrip.svelte';
	import type { DraftHistory } from '$lib/ui/style-bench/draft.svelte.ts';
	import FindingsPanel from '$lib/ui/style-bench/FindingsPanel.svelte';
	import LineworkPanel from '$lib/ui/style-bench/LineworkPanel.svelte';
	import FindSetting from '$lib/ui/style-bench/FindSetting.svelte';
	import NameDialog from '$lib/ui/style-bench/NameDialog.svelte';
	import PartList from '$lib/ui/style-bench/PartList.svelte';
	import PenBar from '$lib/ui/style-bench/PenBar.svelte';
	import PropertySheet from '$lib/ui/style-bench/PropertySheet.svelte';
	import RankBar from '$lib/ui/style-bench/RankBar.svelte';
	import ReinkDialog from '$lib/ui/style-bench/ReinkDialog.svelte';
	import RulesPanel from '$lib/ui/style-bench/RulesPanel.svelte';
	import SaveBanner from '$lib/ui/style-bench/SaveBanner.svelte';
	import type { SheetSpecimen } from '$lib/ui/style-bench/sheet.svelte.ts';
	import SpecimenChooser from '$lib/ui/style-bench/SpecimenChooser.svelte';
	import SpecimenSheet from '$lib/ui/style-bench/SpecimenSheet.svelte';
	import TakeOut from '$lib/ui/style-bench/TakeOut.svelte';
	import TouchesPanel from '$lib/ui/style-bench/TouchesPanel.svelte';
	import TraceStrip from '$lib/ui/style-bench/TraceStrip.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { undoKeys, type Shortcut } from '$lib/ui/controls/shortcuts.ts';
	import TabPanel from '$lib/ui/controls/TabPanel.svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import Why from '$lib/ui/people/Why.svelte';
	import Only from '$lib/ui/people/Only.svelte';
	import { arrivedWords, live } from '$lib/ui/live/live.svelte.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { useWords, type StyleUse } from '$lib/workbench/use.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import type { PageData } from './$types.js';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data }: { data: PageData } = $props();
	/** Longer tables stand on the sheet as an excerpt of this many rows, until all are asked for. */
	const EXCERPT = 14;
	let whole = $state<string[]>([]);

	function specimensOf(): SheetSpecimen[] {
		const fromDocuments = data.specimens.map(({ key, document, entry, state }): SheetSpecimen => {
			const { style: _s, edition: _e, ...rest } = state ?? {};
			const table = stateTable(entry, rest);
			const shortened = whole.includes(key)
				? { table, content: entry.content }
				: excerpt(table, entry.content, EXCERPT);
			const isWhole = shortened.content === entry.content;
			return {
				key,
				from: document,
				title: entry.place.caption ?? `table ${entry.index + 1}`,
				...shortened,
				widths: entry.widths,
				...(isWhole ? { before: entry.appearance } : { outOf: table.rows })
			};
		});
		const builtIn = { key: 'built-in', from: 'Built in', title: 'every part', ...builtInSpecimen() };
		return data.hasBuiltIn || fromDocuments.length === 0 ? [...fromDocuments, builtIn] : fromDocuments;
	}
	const bench = untrack(() => new Bench(data, specimensOf()));
	onDestroy(() => bench.sheet.close());
	onMount(async () => {
		if (await bench.draft.resume()) notify('What this browser had not saved is here again.');
	});

	// Whatever the style becomes is shown; the sheet resolves it in its worker.
	let isFirst = true;
	$effect(() => {
		const { definition, flat, house } = bench;
		if (isFirst) isFirst = false;
		else untrack(() => bench.sheet.show(definition, flat, house));
	});
	function putSpecimens() {
		bench.specimens = specimensOf();
		bench.sheet.put(bench.specimens, bench.flat, bench.house);
		bench.picked = undefined;
	}

	let isAbout = $state(false);
	let isChoosing = $state(false);
	let isReinking = $state(false);
	let isFinding = $state(false);
	let isWarned = $state(false);
	let hasKeys = $state(false);

	async function useOnly(use: StyleUse | null) {
		try {
			await call('PUT', `/api/styles/${bench.id}/use`, use ?? {});
			await invalidate('heptarch:bench');
			notify(`Offered ${useWords(use, () => undefined)} from now on. What wears it goes on wearing it.`);
		} catch (error) {
			notifyError(error);
		}
	}
	async function chooseSpecimens(keys: string[] | null) {
		try {
			await call('PUT', `/api/styles/${bench.id}/specimens`, { keys });
			await invalidate('heptarch:bench');
			putSpecimens();
		} catch (error) {
			notifyError(error);
		}
	}
	/** Takes up what the server has now, after something there changed this style and others. */
	async function reload() {
		await takeUpOthers();
		bench.draft.reload(data.history as DraftHistory);
	}
	onMount(() =>
		live.whenArrived(async (arrived) => {
			// What is being saved here meets it there.
			if (arrived.version <= bench.draft.version || bench.draft.state !== 'saved') return;
			await reload();
			const words = arrivedWords(arrived);
			if (words) notify(words);
		})
	);
	async function takeUpOthers() {
		await invalidate('heptarch:bench');
		bench.styles = data.styles as readonly StyleRecord[];
		bench.house = data.house;
	}
	bench.draft.onAlong = async (names) => {
		await takeUpOthers();
		notify(`Changed along with it, as they were changed together: ${listed(names.map((name) => `“${name}”`))}.`);
	};
	/** A setting that is about to be pushed up, with the styles that it reaches. */
	let pushing = $state.raw<{ place: string; path: string; words: string; reached: readonly Reached[] }>();
	let isPushing = $state(false);
	function askToPush(path: string) {
		const { place, id, base, styles, house } = bench;
		const { definition } = bench.draft;
		const pushed = pushUp(definition, base!.definition, place, path);
		const now = styles.map((style) => (style.id === id ? { ...style, definition } : style));
		const reached = reachOf(now, { before: house, after: house }, { [id]: pushed.style, [base!.id]: pushed.base });
		pushing = { place, path, words: `${partWords(place)}: ${leafWords(path)}`, reached };
		isPushing = true;
	}
	async function push(place: string, path: string) {
		try {
			await bench.draft.save();
			const { base } = await call('POST', `/api/styles/${bench.id}/push-up`, {
				version: bench.draft.version,
				place,
				path
			});
			await reload();
			notify(`It is said in “${base}” now, for all that build on it.`);
		} catch (error) {
			notifyError(error);
		}
	}

	const pickedShown = $derived(bench.shown.find(({ specimen }) => specimen.key === bench.picked?.key));
	const touches = $derived({
		count: bench.specimens.reduce((sum, { table }) => sum + table.touches.length, 0),
		tables: bench.specimens.filter(({ table }) => table.touches.length).length
	});
	const saveWords = {
		saved: 'all saved',
		waiting: 'saving…',
		saving: 'saving…',
		failed: 'not saved',
		conflict: 'not saved'
	};
	const VIEWS: Record<View, string> = {
		screen: 'on screen',
		paper: 'on paper',
		greyscale: 'in greyscale',
		protan: 'without red cones (protan)',
		deutan: 'without green cones (deutan)',
		tritan: 'without blue cones (tritan)'
	};
	const worn = $derived(data.style.worn);

	const LIST: readonly Shortcut[] = [
		{
			keys: ['1', '2', '3', '4', '5', '6', '7'],
			shown: '1 – 7',
			does: 'choose a rank',
			run: ({ key }) => bench.chooseRank(Number(key) as Rank)
		},
		{ keys: ['['], does: 'previous part', run: () => bench.nextPart(-1) },
		{ keys: [']'], does: 'next part', run: () => bench.nextPart(1) },
		{ keys: ['T'], does: 'trace of the picked cell', run: () => (bench.isTracing = !bench.isTracing) },
		{
			keys: ['L'],
			does: 'linework: draw lines on the specimens',
			when: () => bench.canDraw && refusedTo('designer') === undefined,
			run: () => (bench.isDrawing = !bench.isDrawing)
		},
		{
			keys: ['X'],
			does: 'in linework: draw none',
			when: () => bench.isDrawing,
			run: () => (bench.pen = { draws: 'none' })
		},
		{
			keys: ['Delete', 'Backspace'],
			shown: 'Del',
			does: 'in linework: draw untouched',
			when: () => bench.isDrawing,
			run: () => (bench.pen = { draws: 'untouched' })
		},
		{ keys: ['/'], does: 'find a setting of any part', run: () => (isFinding = true) },
		{ keys: ['G'], does: 'go on: from the ranks to the specimens, to the property sheet', run: goOn },
		{ keys: ['W'], does: 'warnings', run: () => (isWarned = !isWarned) },
		{ keys: ['B'], does: 'as the files came', run: () => (bench.isAsTheyCame = !bench.isAsTheyCame) },
		...undoKeys((by) => bench.draft.goTo(bench.draft.line.at + by)),
		{ keys: ['Escape'], does: 'leave a mode, the trace, the spotlight', run: leave },
		{ keys: [], shown: 'Arrows, Enter', does: 'go from cell to cell, pick one' }
	];
	/** The three places of the bench, each by what in it takes the focus. */
	const PLACES = [
		'[aria-label=Ranks] [tabindex="0"]',
		'main [tabindex="0"]',
		'[aria-label="Property sheet"] [tabindex="0"]'
	];
	function goOn() {
		const places = PLACES.flatMap((selector) => document.querySelector<HTMLElement>(selector) ?? []);
		const at = places.findIndex((one) => one.closest('[role=tablist], main, aside')?.contains(document.activeElement));
		const next = places[(at + 1) % places.length];
		next?.focus();
		next?.scrollIntoView({ block: 'nearest' });
	}
	async function show({ part, leaf }: Setting) {
		bench.isDrawing = false;
		bench.choose(part);
		await tick();
		bench.sought = leaf.path;
	}
	function leave() {
		if (isWarned) isWarned = false;
		else if (bench.foreignEdge.length) bench.foreignEdge = [];
		else if (bench.isDrawing) bench.isDrawing = false;
		else if (bench.isSettingHere) bench.isSettingHere = false;
		else if (bench.picked) bench.picked = undefined;
		else if (bench.isAsTheyCame) bench.isAsTheyCame = false;
		else bench.spotlit = false;
	}
</script>

<svelte:head><title>{bench.definition.name} · Stylebook · Heptarch</title></svelte:head>
<svelte:window
	onbeforeunload={(event) => {
		if (bench.draft.state !== 'saved') event.preventDefault();
	}}
/>

<TopBar>
	{#snippet title()}<h1 class="truncate font-title text-[22px] leading-tight font-semibold">
			{bench.definition.name}
		</h1>
		<button
			type="button"
			class="text-quiet hover:text-ink"
			aria-label="Name and purpose…"
			title="Name and purpose…"
			onclick={() => (isAbout = true)}>✎</button
		>{/snippet}
	{#snippet facts()}
		<span class="chip"
			>{data.style.edition
				? `${data.style.unpublished || bench.draft.line.at > 0 ? 'draft · ' : ''}edition ${data.style.edition} is out`
				: 'no edition yet'}</span
		>
		<span class="chip"
			>{worn.tables
				? `worn by ${plural(worn.tables, 'table')} in ${plural(worn.documents, 'document')}`
				: 'not worn yet'}</span
		>
		{#if data.style.use}<span class="chip">{useWords(data.style.use, () => undefined)}</span>{/if}
		<span
			class={['chip', ['failed', 'conflict'].includes(bench.draft.state) && 'border-error! text-error!']}
			role="status"
			data-save={bench.draft.state}>{saveWords[bench.draft.state]}</span
		>
	{/snippet}
	{#snippet actions()}
		<UndoRedo needs="designer" line={bench.draft.line} onmove={(to) => bench.draft.goTo(to)} />
		<Button
			needs="designer"
			aria-pressed={bench.isDrawing}
			disabled={!bench.canDraw}
			title={bench.canDraw
				? undefined
				: 'Pages of paper are only looked at; choose another way of seeing the sheet to draw'}
			onclick={() => (bench.isDrawing = !bench.isDrawing)}
			>{bench.isDrawing ? 'Done with lines' : 'Linework'} <span class="text-quiet">L</span></Button
		>
		<Button needs="designer" onclick={() => (isReinking = true)}>Re-ink…</Button>
		<TakeOut id={bench.id} />
		<Button primary href="/stylebook/{bench.id}/editions" onclick={() => bench.draft.save()}>Editions…</Button>
	{/snippet}
</TopBar>
<Why needs="designer" />
<SaveBanner {bench} />

<RankBar
	style={bench.flat}
	house={bench.house}
	carrier={bench.specimens.at(-1)!.table}
	chosen={bench.rank}
	{touches}
	onchoose={(rank) => bench.chooseRank(rank)}
/>
{#if bench.isDrawing}<PenBar {bench} />{/if}

<TabPanel id="rank" chosen={bench.rank} class="flex min-h-0 flex-1">
	<div class="flex min-w-0 flex-1 flex-col">
		<div
			class="relative flex min-h-10 flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline bg-paper px-5 py-1.5"
		>
			<ChainStrip {bench} />
			<button type="button" class="chip ms-auto" onclick={() => (isChoosing = true)}
				>{bench.specimens.length} specimens…</button
			>
			<button
				type="button"
				class={['chip', bench.isAsTheyCame && 'on']}
				aria-pressed={bench.isAsTheyCame}
				onclick={() => (bench.isAsTheyCame = !bench.isAsTheyCame)}>as they came · B</button
			>
			<select class="field w-44 py-0!" aria-label="How the sheet is seen" bind:value={bench.view}>
				{#each Object.entries(VIEWS) as [view, words] (view)}<option value={view}>{words}</option>{/each}
			</select>
		</div>
		<main
			class={['relative min-w-0 flex-1 overflow-auto px-5 py-4', bench.view === 'paper' && 'bg-desk']}
			aria-label="Specimen sheet"
		>
			<SpecimenSheet
				{bench}
				onwhole={(key) => {
					whole = [...whole, key];
					putSpecimens();
				}}
			/>
			<p class="mt-4 max-w-2xl text-[14px] text-quiet italic" style="font-family:'Source Serif 4'" data-sentence>
				{describeStyle(bench.flat)}
			</p>
		</main>
	</div>
	<aside
		class="flex w-[330px] shrink-0 flex-col border-s border-hairline bg-paper"
		aria-label="Property sheet"
		inert={bench.isLookingAtTheirs}
	>
		{#if bench.isLookingAtTheirs}
			<p class="bg-warning-wash px-4 py-2 text-warning-text">
				You look at the other window’s version. Look at yours to change it.
			</p>
		{/if}
		{#if bench.isDrawing && bench.rank <= 5}
			<PartList {bench} />
			<LineworkPanel {bench} />
		{:else if bench.rank <= 5}
			<PartList {bench} />
			<div class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
				<Only needs="designer">
					{#if bench.rank === 2}
						<BandSizes
							bands={bench.draft.definition.bands}
							rowSizes={bench.flat.bands.rowSizes}
							columnSizes={bench.flat.bands.columnSizes}
							restart={bench.flat.bands.restartAtGroups}
							onset={(bands) => bench.change({ ...bench.draft.definition, bands }, 'cycle of bands')}
						/>
					{/if}
					{#if bench.isUnseen}
						{@const keys = bench.specimens.map(({ key }) => key)}
						<p class="mb-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text" role="note">
							No table on the sheet has a cell of this part, so what is set here is not seen.
							{#if !keys.includes('built-in') && !/:\d+$/.test(bench.place)}
								<Button small class="mt-1.5" onclick={() => chooseSpecimens([...keys, 'built-in'])}
									>Put the built-in specimen on the sheet</Button
								>
							{/if}
						</p>
					{/if}
					<PropertySheet {bench} onpush={askToPush} />
				</Only>
			</div>
		{:else if bench.rank === 6}
			<Only needs="designer">
				<RulesPanel {bench} />
			</Only>
		{:else}
			<TouchesPanel {bench} />
		{/if}
	</aside>
</TabPanel>

{#if pushing}
	{@const { place, path, words, reached } = pushing}
	<ReachDialog
		bind:open={isPushing}
		title="Push up to {bench.base?.definition.name ?? 'its base'}?"
		lines={[`${words} is said there then, for all that build on it.`]}
		{reached}
		house={{ before: bench.house, after: bench.house }}
		does="Push it up"
		ondo={() => push(place, path)}
	/>
{/if}
{#if bench.picked && pickedShown && bench.isTracing}
	{@const cell = pickedShown.resolved.structure.table.cells[bench.picked.cell]!}
	<TraceStrip
		resolved={pickedShown.resolved}
		r={cell.r}
		c={cell.c}
		side={bench.picked.side}
		onjump={(part) => bench.choose(part)}
		onclose={() => (bench.picked = undefined)}
	/>
{/if}
{#if isWarned}<FindingsPanel {bench} onclose={() => (isWarned = false)} />{/if}
<footer class="flex min-h-11 items-center gap-3 border-t border-hairline bg-desk px-5 py-1.5">
	{#if bench.isDrawing}
		<span><strong>Linework.</strong> Click an edge, drag along several, or draw a frame around many.</span>
		<span class="text-quiet">X none · Del untouched · L leaves</span>
	{:else}
		<button
			type="button"
			class={['chip truncate', bench.findings.length && 'border-warning! text-warning-text!']}
			aria-expanded={isWarned}
			onclick={() => (isWarned = !isWarned)}
		>
			{#if bench.findings[0]}{plural(bench.findings.length, 'warning')}: {bench.findings[0].words}{:else}no warnings{/if}
		</button>
	{/if}
	<span class="ms-auto"></span>
	<label class="flex shrink-0 items-center gap-2 text-quiet"
		><input type="checkbox" class="rounded-sm text-picked" bind:checked={bench.spotlit} />spotlight on {partWords(
			bench.place
		)}</label
	>
	<button type="button" class="shrink-0 text-quiet hover:text-ink" onclick={() => (hasKeys = true)}>? keys</button>
</footer>

<FindSetting bind:open={isFinding} {bench} onfound={show} />
<NameDialog
	bind:open={isAbout}
	definition={bench.draft.definition}
	use={data.style.use}
	onsave={(next: Style) => bench.change(next, 'name and purpose')}
	onuse={useOnly}
/>
<SpecimenChooser
	bind:open={isChoosing}
	style={bench.id}
	chosen={bench.specimens.map(({ key }) => key)}
	onchoose={chooseSpecimens}
/>
<ReinkDialog bind:open={isReinking} {bench} />
<Shortcuts list={LIST} bind:open={hasKeys} />
