<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { accepted } from '$lib/formats/kinds.ts';
	import { onMount, untrack } from 'svelte';
	import { nextRevision, noRevisions, roomFor, withRevision, type Revision } from '$lib/core/schedule/placed.ts';
	import type { SheetAnswer } from '$lib/formats/svg/sheet.ts';
	import { call } from '$lib/ui/api.ts';
	import AccountDialog from '$lib/ui/documents/AccountDialog.svelte';
	import DropTarget from '$lib/ui/documents/DropTarget.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import { Desk } from '$lib/ui/sheet/desk.svelte.ts';
	import BehindCard from '$lib/ui/sheet/BehindCard.svelte';
	import ObjectsPanel from '$lib/ui/sheet/ObjectsPanel.svelte';
	import ReuseDialog from '$lib/ui/sheet/ReuseDialog.svelte';
	import RevisionDialog from '$lib/ui/sheet/RevisionDialog.svelte';
	import ScaleDialog from '$lib/ui/sheet/ScaleDialog.svelte';
	import SheetCanvas from '$lib/ui/sheet/SheetCanvas.svelte';
	import TablePanel from '$lib/ui/sheet/TablePanel.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { undoKeys, type Shortcut } from '$lib/ui/controls/shortcuts.ts';
	import Why from '$lib/ui/people/Why.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import Waiting from '$lib/ui/shell/Waiting.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import '$lib/ui/table/fonts.ts';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const desk = untrack(() => new Desk(data.drawing));
	$effect(() => {
		const { drawing } = data;
		untrack(() => desk.renew(drawing));
	});
	const book = $derived(new Stylebook(data.styles, data.house, data.older, { id: desk.data.id, kind: 'svg' }));
	const { sheet, version, name, id } = $derived(desk.data);
	onMount(() => void desk.sender.resume(desk.data.version));
	onMount(() => live.whenArrived((arrived) => void desk.sender.meet(arrived)));
	onMount(() => {
		desk.loadObjects().catch(notifyError);
		return () => desk.maker.end();
	});

	let canvas: SheetCanvas;
	let zoom = $state(1);
	let taking = $state(false);
	let scaling = $state(false);
	let keys = $state(false);
	let revising = $state(false);
	let reusing = $state(false);
	let isPutAway = $state(false);
	let chooser: HTMLInputElement;

	const isOpen = $derived(desk.picked >= 0 || desk.draft !== undefined);
	const drawn = $derived(desk.picked >= 0 ? desk.drawnAt(desk.picked) : desk.draftDrawn);
	const wornName = $derived(
		desk.picked >= 0 ? book.get((desk.draft ?? desk.tables[desk.picked])?.own.style)?.definition.name : undefined
	);

	/** What new tables wear: what those on the sheet do, else the house's first style for drawings. */
	const usual = $derived.by(() => {
		const worn = desk.tables.find(({ own }) => own.style)?.own;
		if (worn?.style) return { style: worn.style, ...(worn.edition && { edition: worn.edition }) };
		const style = book.offered().find(({ definition }) => definition.category === 'Drawings') ?? book.offered()[0];
		return style ? book.wearing(style.id) : {};
	});
	function make() {
		desk.picked = -1;
		void desk.tryOut(desk.propose(desk.lit, usual), { newRows: true });
	}
	function pick(index: number) {
		desk.drop();
		desk.picked = index;
	}
	function back() {
		desk.drop();
		desk.picked = -1;
	}
	const revisions = $derived(desk.data.placed.findIndex(({ source }) => source.from === 'revisions'));
	async function addRevision(revision: Revision) {
		if (revisions < 0) {
			const rows = withRevision(noRevisions('Revisions'), revision);
			const room = roomFor(desk.data.frames, sheet);
			const placed = {
				...desk.fresh({ from: 'revisions' }, rows),
				corner: 'bottom-start' as const,
				reads: 'up' as const,
				at: { x: room.x1, y: room.y2 }
			};
			await desk.tryOut({ placed, own: usual });
			desk.placing = true;
			return;
		}
		const isSaved = await desk.change(revisions, `revision ${revision.number}`, ({ placed }) => ({
			placed: { ...placed, rows: withRevision(placed.rows, revision) }
		}));
		if (isSaved) notify(`Revision ${revision.number} is in. Ctrl+Z takes it back.`);
	}
	async function rescale(answer: SheetAnswer) {
		if (await desk.save(`scale 1:${answer.scale}`, () => ({ sheet: answer }))) canvas.fit();
	}
	async function replace(files: readonly File[]) {
		const [file] = files;
		if (!file) return;
		try {
			await call('PUT', `/api/drawings/${id}/file?version=${version}&name=${encodeURIComponent(file.name)}`, file);
			desk.drop();
			await desk.reload();
			notify(
				desk.changes
					? `“${file.name}” is in: ${pluralWord(desk.changes, 'one change', `${desk.changes} changes`)} to look at.`
					: `“${file.name}” is in; no schedule changes.`
			);
		} catch (error) {
			notifyError(error);
		}
	}
	const NUDGE: Record<string, readonly [number, number]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1]
	};
	const isOnSheet = ({ target }: Event) =>
		target === document.body || (target as HTMLElement).closest?.('[data-sheet]') !== null;
	function nudge(event: KeyboardEvent) {
		const [x, y] = NUDGE[event.key]!;
		const by = event.shiftKey ? 10 : 1;
		if (desk.picked < 0 || desk.draft) return canvas.panBy(-x * 60, -y * 60);
		void desk.change(desk.picked, `${desk.titleOf(desk.picked)} moved`, ({ placed }) => ({
			placed: { ...placed, at: { x: placed.at.x + x * by, y: placed.at.y + y * by } }
		}));
	}
	const LIST: readonly Shortcut[] = [
		{ keys: [], shown: 'Wheel', does: 'zoom to the pointer' },
		{ keys: [], shown: 'Drag', does: 'pan; moves the picked table' },
		{
			keys: Object.keys(NUDGE).flatMap((key) => [key, `Shift+${key}`]),
			shown: 'Arrow keys',
			does: 'pan; move the picked table by 1 mm, with Shift by 10',
			when: isOnSheet,
			run: nudge
		},
		{ keys: ['+', '='], shown: '+', does: 'larger', run: () => canvas.zoomBy(1.25) },
		{ keys: ['-'], shown: '−', does: 'smaller', run: () => canvas.zoomBy(0.8) },
		{ keys: ['0'], does: 'the whole sheet', run: () => canvas.fit() },
		{
			keys: ['Z'],
			does: 'zoom to the picked table',
			when: () => desk.picked >= 0,
			run: () => canvas.fitTable(desk.picked)
		},
		{ keys: ['Enter'], does: 'set a new table down', when: () => desk.placing, run: () => canvas.setDown() },
		...undoKeys((by) => desk.sender.move(by)),
		{
			keys: ['Escape'],
			does: 'let go, then back to all objects',
			run: () => (desk.placing ? (desk.placing = false) : back())
		}
	];
</script>

<svelte:head><title>{name} · Heptarch</title></svelte:head>
<DropTarget ondrop={replace} />

<TopBar title={name}>
	{#snippet facts()}
		<button
			type="button"
			class="chip hover:border-quiet!"
			onclick={() => (scaling = true)}
			title="Scale and unit of the sheet"
			>drawing · {Math.round(sheet.width)} × {Math.round(sheet.height)} mm · 1:{sheet.scale}{sheet.saysSize
				? ''
				: ' ?'}</button
		>
		<span class="chip">{plural(desk.data.placed.length, 'table')}</span>
		{#if desk.changes}<span class="chip text-warning-text!">{plural(desk.changes, 'change')} behind</span>{/if}
	{/snippet}
	{#snippet actions()}
		<UndoRedo line={desk.line} busy={desk.busy} onmove={(to) => desk.sender.goTo(to)} />
		<Button onclick={() => (taking = true)}>Take the drawing…</Button>
		{#if desk.changes && !desk.draft}
			<Button needs="author" primary disabled={desk.busy} onclick={() => desk.acceptAll()}
				>Accept {pluralWord(desk.changes, 'the change', `${desk.changes} changes`)}</Button
			>
		{:else if !isOpen && desk.data.kinds.length}
			<Button needs="author" primary onclick={make}>Make a schedule…</Button>
		{/if}
	{/snippet}
</TopBar>
<Why needs="author" />
<Waiting sender={desk.sender} />
<input
	bind:this={chooser}
	type="file"
	accept={accepted(({ isDrawing }) => isDrawing === true)}
	class="hidden"
	aria-label="A newer file of this drawing"
	onchange={() => {
		void replace([...(chooser.files ?? [])]);
		chooser.value = '';
	}}
/>

<main class="flex min-h-0 flex-1">
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<aside
		class="w-70 shrink-0 overflow-y-auto border-e border-hairline bg-sheet px-4 py-4"
		aria-label="Drawing"
		tabindex="0"
	>
		{#if isOpen}
			<TablePanel {desk} {book} onback={back} onrevision={() => (revising = true)} onreuse={() => (reusing = true)} />
		{:else}
			<ObjectsPanel {desk} onmake={make} onpick={pick} onrevision={() => (revising = true)} />
			{#each desk.data.remarks as remark (remark)}
				<p class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">{remark}</p>
			{/each}
			<Button needs="author" class="mt-4 w-full justify-center" onclick={() => chooser.click()}
				>Put a newer file in its place…</Button
			>
			{#if !sheet.saysSize}<Button needs="author" class="mt-2" onclick={() => (scaling = true)}>Say its scale…</Button
				>{/if}
		{/if}
	</aside>
	<div class="relative flex min-w-0 flex-1">
		<SheetCanvas bind:this={canvas} bind:zoom {desk} />
		{#if desk.changes && !isOpen && !isPutAway}<BehindCard
				{desk}
				onopen={pick}
				onaway={() => (isPutAway = true)}
			/>{/if}
	</div>
</main>
<footer class="flex min-h-11 items-center gap-3 border-t border-hairline bg-desk px-5 py-1.5">
	<p class="min-w-0 flex-1 truncate" aria-live="polite">
		{#if drawn}
			{#if drawn.facts.body !== null}Text plots at <strong>{drawn.facts.body} mm</strong
				>{#if drawn.facts.header !== null}, header at
					<strong>{drawn.facts.header} mm</strong>{/if}{/if}
			{#if drawn.facts.lines.length}<span class="mx-2 text-quiet">·</span>lines {drawn.facts.lines.join(', ')} mm{/if}
			{#if wornName}<span class="mx-2 text-quiet">·</span>{wornName} follows the sheet’s scale{/if}
			{#each drawn.facts.warnings as { kind, words } (kind)}<span class="mx-2 text-quiet">·</span><span
					class="text-warning-text">{words}</span
				>{/each}
		{:else if desk.data.kinds.length}<span class="text-quiet"
				>Choose kinds of objects to light them up, click one on the sheet, or pick a table.</span
			>{:else}<span class="text-quiet">No element of this drawing says what it is.</span>{/if}
	</p>
	{#if desk.picked >= 0}<button
			type="button"
			class="text-quiet hover:text-ink"
			onclick={() => canvas.fitTable(desk.picked)}>Z zoom to it</button
		>{/if}
	<button type="button" class="text-quiet hover:text-ink" onclick={() => canvas.zoomBy(0.8)} aria-label="Smaller"
		>−</button
	>
	<span class="w-14 text-center tabular-nums">{Math.round(zoom * 100)} %</span>
	<button type="button" class="text-quiet hover:text-ink" onclick={() => canvas.zoomBy(1.25)} aria-label="Larger"
		>+</button
	>
	<button type="button" class="text-quiet hover:text-ink" onclick={() => canvas.fit()}>0 whole sheet</button>
	<button type="button" class="text-quiet hover:text-ink" onclick={() => (keys = true)}>? keys</button>
</footer>

<AccountDialog
	bind:open={taking}
	{id}
	{name}
	kind="svg"
	tables={desk.data.placed.length}
	picked={Math.max(0, desk.picked)}
/>
<ScaleDialog bind:open={scaling} {sheet} said={desk.data.state.drawing?.sheet} onset={rescale} />
<RevisionDialog
	bind:open={revising}
	next={revisions < 0 ? 'A' : nextRevision(desk.data.placed[revisions]!.rows)}
	onadd={addRevision}
/>
<ReuseDialog bind:open={reusing} {desk} />
<Shortcuts list={LIST} bind:open={keys} />
