<script lang="ts">
	import { SUMMARIES, SUMMARY_WORDS } from '$lib/core/values/summary.ts';
	import { pluralWord } from '$lib/core/words.ts';
	import { onMount, untrack } from 'svelte';
	import { selectionWords } from '$lib/core/work/selection.ts';
	import { addressOf } from '$lib/ui/documents/kinds.ts';
	import AccountDialog from '$lib/ui/documents/AccountDialog.svelte';
	import PenBar from '$lib/ui/style-bench/PenBar.svelte';
	import TraceStrip from '$lib/ui/style-bench/TraceStrip.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { undoKeys, type Shortcut } from '$lib/ui/controls/shortcuts.ts';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import Why from '$lib/ui/people/Why.svelte';
	import Only from '$lib/ui/people/Only.svelte';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { TableBench, type Panel } from '$lib/ui/table-bench/bench.svelte.ts';
	import FiguresPanel from '$lib/ui/table-bench/FiguresPanel.svelte';
	import FindPanel from '$lib/ui/table-bench/FindPanel.svelte';
	import LookPanel from '$lib/ui/table-bench/LookPanel.svelte';
	import ShapePanel from '$lib/ui/table-bench/ShapePanel.svelte';
	import StepsPanel from '$lib/ui/table-bench/StepsPanel.svelte';
	import StarterDialog from '$lib/ui/table-bench/StarterDialog.svelte';
	import WorkSheet from '$lib/ui/table-bench/WorkSheet.svelte';
	import { EMPHASES } from '$lib/ui/table-bench/editor.ts';
	import { fresh } from '$lib/core/work/begin.ts';
	import { joinTables, splitTable } from '$lib/core/work/lines.ts';
	import { call } from '$lib/ui/api.ts';
	import { entriesOf } from '$lib/ui/table-bench/saving.svelte.ts';
	import { edgesIn, FAMILIES } from '$lib/core/work/touches.ts';
	import { pictureFrom } from '$lib/ui/table-bench/pictures.ts';
	import RowsDialog from '$lib/ui/table-bench/RowsDialog.svelte';
	import PictureDialog from '$lib/ui/table-bench/PictureDialog.svelte';
	import type { CellPicture } from '$lib/core/table/content.ts';
	import '$lib/ui/table/fonts.ts';
	import TabPanel from '$lib/ui/controls/TabPanel.svelte';
	import Tabs from '$lib/ui/controls/Tabs.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const bench = untrack(() => new TableBench(data));
	$effect(() => {
		const { styles, older, house } = data;
		untrack(() => bench.renew(styles, older, house));
	});

	let sheet: WorkSheet;
	let taking = $state(false);
	let keys = $state(false);
	let tracing = $state(false);
	let keeping = $state(false);
	let picture = $state.raw<CellPicture>();
	const PANELS: readonly (readonly [Panel, string])[] = [
		['shape', 'Shape'],
		['look', 'Look'],
		['figures', 'Figures'],
		['find', 'Find'],
		['steps', 'Steps']
	];
	/** Why nothing can be changed. */
	const why = $derived(refusedTo('author'));
	const words = $derived(selectionWords(bench.work, bench.selection));
	const wornStyle = $derived(bench.book.get(bench.wears.style));

	/** How often other windows' changes are looked for. */
	const LOOK_EVERY = 2_500;
	onMount(() => {
		void bench.recover();
		sheet.focus();
		const deaf = live.whenArrived(() => void bench.saving.look());
		const timer = setInterval(() => document.visibilityState === 'visible' && void bench.saving.look(), LOOK_EVERY);
		return () => {
			clearInterval(timer);
			deaf();
		};
	});

	let isTakingRows = $state(false);
	async function takePicture(file: File) {
		try {
			picture = await pictureFrom(file);
		} catch (error) {
			notifyError(error);
		}
	}
	/** What is below the selected row becomes a table of its own, after this one. */
	async function split() {
		sheet.leave();
		const at = bench.range.top;
		try {
			const [above, below] = splitTable(bench.work, at);
			const name = `${data.place.caption ?? data.name}, second part`;
			bench.edit(`two tables from row ${at + 1} on`, () => above);
			await bench.settled();
			const { version, block } = await call('GET', `/api/documents/${data.id}/step?table=${data.index}`);
			const isInText = data.kind === 'docx' || data.kind === 'odt' || data.kind === 'html';
			const { document: id, index } = await call('POST', '/api/tables', {
				name,
				work: fresh(below),
				wears: bench.wears,
				...(isInText && { into: { document: data.id, after: block, version } })
			});
			notify(`What was below is a table of its own now${isInText ? ', after this one' : ''}.`, 'done', {
				words: 'Go there',
				run: () => location.assign(`/documents/${id}/bench?table=${index}`)
			});
		} catch (error) {
			notifyError(error);
		}
	}
	/** Puts the rows of another table of the document under this one; that table stays where it is. */
	async function join(index: number) {
		try {
			const loaded = await call('GET', `/api/documents/${data.id}/tables/${index}/work`);
			const other = entriesOf(loaded, loaded.wears)[loaded.at]!.work;
			if (bench.edit(`rows of table ${index + 1} put under`, (work) => joinTables(work, other)))
				notify('Its rows are here now. The other table still stands in the document; there it can be taken out.');
		} catch (error) {
			notifyError(error);
		}
	}
	async function take() {
		sheet.leave();
		await bench.settled();
		taking = true;
	}

	const LIST: readonly Shortcut[] = [
		{ keys: ['character'], shown: 'a letter', does: 'takes the place of what the cell says' },
		{ keys: ['F2', 'Enter'], does: 'type on in the cell' },
		{ keys: ['Enter'], does: 'while typing: a new line' },
		{ keys: ['Ctrl+Enter'], does: 'the row below' },
		{ keys: ['Tab', 'Shift+Tab'], does: 'the cell after, before; after the last one a new row' },
		{ keys: [], shown: 'Shift+arrows', does: 'select more' },
		{ keys: ['Shift+Space'], does: 'whole rows' },
		{ keys: ['Ctrl+Space'], does: 'whole columns' },
		{ keys: ['Ctrl+A'], does: 'the whole table' },
		{ keys: [], shown: 'Alt+arrows', does: 'move rows or columns' },
		{ keys: ['Alt+R'], does: 'role of the row', whileTyping: true, run: () => focusHead('row') },
		{ keys: ['Alt+K'], does: 'kind of the column', whileTyping: true, run: () => focusHead('column') },
		{
			keys: PANELS.map((_, i) => `Alt+${i + 1}`),
			shown: 'Alt+1 … 5',
			does: PANELS.map(([, name]) => name).join(', '),
			whileTyping: true,
			run: ({ key }) => (bench.panel = PANELS[Number(key) - 1]![0])
		},
		{
			keys: ['Alt+L'],
			does: 'linework',
			whileTyping: true,
			when: () => !why,
			run: () => (bench.isDrawing = !bench.isDrawing)
		},
		{ keys: ['Alt+T'], does: 'trace', whileTyping: true, run: () => (tracing = !tracing) },
		{ keys: ['Ctrl+F'], does: 'find and replace', whileTyping: true, run: find },
		...undoKeys((by) => bench.goTo(bench.line.at + by)),
		{ keys: ['Escape'], does: 'leave the linework, the trace', whileTyping: true, run: leave }
	];
	function find() {
		bench.panel = 'find';
		setTimeout(() => document.querySelector<HTMLElement>('[data-find]')?.focus());
	}
	/** To the role of the row, or the kind of the column, that the focused cell is in. */
	function focusHead(of: 'row' | 'column') {
		const { r, c } = bench.selection.focus;
		const label = of === 'row' ? `Role of row ${r + 1}` : `Kind of column ${c + 1}`;
		document.querySelector<HTMLElement>(`[aria-label="${label}"]`)?.focus();
	}
	function leave() {
		if (bench.isDrawing) bench.isDrawing = false;
		else if (tracing) tracing = false;
		sheet.focus();
	}
</script>

<svelte:head><title>{data.name}, table {data.index + 1} · Heptarch</title></svelte:head>

<TopBar title={data.place.caption ?? (data.kind === 'json' ? data.name : `${data.name}, table ${data.index + 1}`)}>
	{#snippet facts()}
		{#if bench.wrong.length}<button type="button" class="chip" onclick={() => (bench.panel = 'figures')}
				>{bench.wrong.length} wrong {pluralWord(bench.wrong.length, 'sum')}</button
			>{/if}
	{/snippet}
	{#snippet actions()}
		<span class="text-[12px] text-quiet" aria-live="polite" data-saved
			>{bench.saving.fault ? 'not saved yet' : bench.saving.waiting ? 'saving…' : 'saved'}</span
		>
		<UndoRedo line={bench.line} isListed onmove={(to) => bench.goTo(to)} />
		<Button needs="author" onclick={() => (keeping = true)}>Keep as starter…</Button>
		<Button href={addressOf(data)}>{data.kind === 'json' ? 'In its style' : 'Back to the document'}</Button>
		<Button primary onclick={take}>Take the file…</Button>
	{/snippet}
</TopBar>
<Why needs="author" />
{#if bench.saving.fault}
	<p class="border-b border-hairline bg-warning-wash px-5 py-1.5 text-warning-text" role="status">
		{bench.saving.fault}
		{bench.saving.waiting}
		{pluralWord(bench.saving.waiting, 'change waits', 'changes wait')} in this browser and will be sent.
	</p>
{/if}
{#if bench.mine}
	<div class="flex items-center gap-3 border-b border-hairline bg-warning-wash px-5 py-2" role="alert">
		<div class="flex-1">
			{#if bench.clashes.length}
				<p>
					{bench.other} changed {pluralWord(bench.clashes.length, 'the same cell', 'the same cells')}; all else of both
					is here. Which is to stand? The other one stays in the steps.
				</p>
				<ul class="max-h-24 overflow-y-auto">
					{#each bench.clashes as { r, c, mine, theirs } (`${r} ${c}`)}
						<li>row {r + 1}, column {c + 1}: theirs “{theirs}”, yours “{mine}”</li>
					{/each}
				</ul>
			{:else}
				<p>
					{bench.other} moved the same rows or columns. You see that change now; yours is kept. Which is to stand? The other
					one stays in the steps.
				</p>
			{/if}
		</div>
		<Button onclick={() => bench.decide('theirs')}>Keep theirs</Button>
		<Button primary onclick={() => bench.decide('mine')}>Put mine instead</Button>
	</div>
{/if}
{#if bench.question}
	<div class="flex items-center gap-3 border-b border-hairline bg-warning-wash px-5 py-2" role="alert">
		<p class="flex-1">{bench.question.words}</p>
		{#each bench.question.answers as [answer, run], i (answer)}
			<Button primary={i === bench.question.answers.length - 1} onclick={() => bench.answer(run)}>{answer}</Button>
		{/each}
	</div>
{/if}
<div class="flex min-h-9 items-center gap-3 border-b border-hairline bg-paper px-5 py-1">
	<p class="min-w-0 flex-1 truncate" aria-live="polite">
		<strong class="text-picked" data-selection>{words}</strong>
		{#each bench.together.slice(0, 2) as { measure, figures } (measure)}
			<span class="ps-2 text-quiet" data-together
				>{SUMMARIES.flatMap((how) =>
					figures[how] === undefined ? [] : [`${SUMMARY_WORDS[how]} ${figures[how]}`]
				).join(' · ')}</span
			>
		{/each}
	</p>
	<label class="flex items-center gap-1.5 text-quiet"
		>wears
		<select
			class="field max-w-44"
			aria-label="Style"
			value={bench.wears.style ?? ''}
			title={why}
			disabled={why !== undefined}
			onchange={(event) => {
				const style = event.currentTarget.value;
				const name = bench.book.get(style)?.definition.name ?? 'no style';
				bench.wear(name, style ? { ...bench.wears, cleared: undefined, ...bench.book.wearing(style) } : {});
			}}
		>
			<option value="">no style</option>
			{#each bench.book.offered(bench.wears.style) as { id, definition } (id)}<option value={id}
					>{definition.name}</option
				>{/each}
		</select>
	</label>
	<div class="flex gap-1" role="group" aria-label="Words being typed">
		{#each EMPHASES as how (how)}<button
				type="button"
				class={['chip', how === 'bold' && 'font-bold', how === 'italic' && 'italic']}
				disabled={!bench.typing}
				onpointerdown={(event) => event.preventDefault()}
				onclick={() => sheet.emphasise(how)}>{how}</button
			>{/each}
	</div>
	<button
		type="button"
		class={['chip', bench.isDrawing && 'on']}
		aria-pressed={bench.isDrawing}
		title={why}
		disabled={why !== undefined}
		onclick={() => {
			sheet.leave();
			bench.isDrawing = !bench.isDrawing;
		}}>linework</button
	>
	<div class="flex items-center gap-1" role="group" aria-label="How large it is shown">
		<button type="button" class="chip" aria-label="Smaller" onclick={() => bench.zoomBy(-1)}>−</button>
		<button type="button" class="chip w-16" title="Its own size" onclick={() => (bench.zoom = 1)}
			>{Math.round(bench.zoom * 100)} %</button
		>
		<button type="button" class="chip" aria-label="Larger" onclick={() => bench.zoomBy(1)}>+</button>
	</div>
	<button
		type="button"
		class={['chip', bench.marks && 'on']}
		aria-pressed={bench.marks}
		onclick={() => (bench.marks = !bench.marks)}>marks</button
	>
</div>
<div class="flex min-h-0 flex-1">
	<WorkSheet bind:this={sheet} {bench} onpicture={takePicture} />
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
	<aside
		class="flex w-[330px] shrink-0 flex-col border-s border-hairline bg-paper"
		aria-label="Work on the selection"
		onmousedown={(event) => {
			// What was typed is taken first; whoever clicks a button goes on typing in the table.
			if (!(event.target as Element).closest('button')) return;
			sheet.leave();
			if (!document.activeElement?.closest('[data-work-sheet]')) return;
			event.preventDefault();
			sheet.focus();
		}}
	>
		{#if bench.isDrawing}
			<div class="shrink-0 border-b border-hairline bg-accent-wash">
				<PenBar {bench} />
				<div class="flex flex-wrap gap-1.5 px-5 py-2" role="group" aria-label="Edges of the selection">
					{#each FAMILIES as family (family)}<button
							type="button"
							class="chip"
							onclick={() => bench.draw(bench.selection.ranges.flatMap((range) => edgesIn(bench.work, range, family)))}
							>{family}</button
						>{/each}
					<button type="button" class="chip" onclick={() => bench.drawDiagonal('diagonalDown')}>diagonal down</button>
					<button type="button" class="chip" onclick={() => bench.drawDiagonal('diagonalUp')}>diagonal up</button>
				</div>
			</div>
		{/if}
		<Tabs
			look="line"
			class="gap-0! px-2"
			label="What to work on"
			id="work"
			tabs={PANELS}
			chosen={bench.panel}
			onchoose={(panel) => (bench.panel = panel)}
			tabClass={() => 'flex-1'}
		/>
		<TabPanel id="work" chosen={bench.panel} class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
			<Only needs="author">
				{#if bench.panel === 'shape'}<ShapePanel
						{bench}
						onpicture={takePicture}
						onsplit={split}
						onrows={() => {
							sheet.leave();
							isTakingRows = true;
						}}
						others={data.others}
						onjoin={join}
					/>
				{:else if bench.panel === 'look'}<LookPanel {bench} />
				{:else if bench.panel === 'figures'}<FiguresPanel {bench} />
				{:else if bench.panel === 'find'}<FindPanel {bench} onshow={() => sheet.show()} />
				{:else}<StepsPanel {bench} />{/if}
			</Only>
		</TabPanel>
	</aside>
</div>
{#if tracing && wornStyle}
	<TraceStrip
		resolved={{ ...bench.resolved, structure: { ...bench.resolved.structure, table: bench.table } }}
		r={bench.selection.focus.r}
		c={bench.selection.focus.c}
		onclose={() => (tracing = false)}
	/>
{/if}
<footer class="flex min-h-8 items-center gap-3 border-t border-hairline bg-desk px-5 py-1 text-quiet">
	<p class="min-w-0 flex-1 truncate">
		Type to replace · F2 or double click to edit · Enter a new line · Tab onwards · Alt and arrows move rows and columns
	</p>
	<button type="button" class="hover:text-ink" aria-pressed={tracing} onclick={() => (tracing = !tracing)}>trace</button
	>
	<button type="button" class="hover:text-ink" onclick={() => (keys = true)}>F1 keys</button>
</footer>

<RowsDialog {bench} bind:open={isTakingRows} />
<PictureDialog
	{picture}
	ondone={(done) => {
		picture = undefined;
		if (done) bench.putPicture(done);
		sheet.focus();
	}}
/>
<StarterDialog
	bind:open={keeping}
	{bench}
	name={data.place.caption ?? data.name}
	documentName={data.kind === 'json' ? undefined : data.name}
/>
<AccountDialog
	bind:open={taking}
	id={data.id}
	name={data.name}
	kind={data.kind}
	tables={data.tables}
	picked={data.index}
/>
<Shortcuts list={LIST} bind:open={keys} />
