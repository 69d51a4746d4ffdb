<script lang="ts">
	import { placedWords } from '$lib/core/findings/index.ts';
	import { laidOver } from '$lib/core/history.ts';
	import { partsInUse } from '$lib/workbench/parts.ts';
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
	import { withRenamed, type PlacedSource, type PlacedTable } from '$lib/core/schedule/placed.ts';
	import type { Reading } from '$lib/core/schedule/table.ts';
	import StyleDock from '../documents/StyleDock.svelte';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { withRows } from '$lib/workbench/schedules.ts';
	import type { TableState } from '$lib/workbench/state.ts';
	import type { BookStyle, Stylebook } from '$lib/workbench/stylebook.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import CellsPanel from './CellsPanel.svelte';
	import ChangesList from './ChangesList.svelte';
	import type { Desk, Draft } from './desk.svelte.ts';
	import PlacePanel from './PlacePanel.svelte';
	import Unreadable from '../documents/Unreadable.svelte';
	import ScheduleEditor from './ScheduleEditor.svelte';
	import TabPanel from '../controls/TabPanel.svelte';
	import Tabs from '../controls/Tabs.svelte';
	import Button from '../controls/Button.svelte';

	/** One table on the sheet, or one that is being made: what it lists, its cells, its look, its place, what it is behind. */
	interface Props {
		desk: Desk;
		book: Stylebook<BookStyle>;
		onback: () => void;
		onrevision: () => void;
		onreuse: () => void;
	}
	let { desk, book, onback, onrevision, onreuse }: Props = $props();

	const isNew = $derived(!!desk.draft && desk.draft.index === undefined);
	const index = $derived(desk.picked);
	/** What is shown: the draft, else what is saved. */
	const shown = $derived<Draft>(desk.draft ?? desk.draftOf(index));
	const { placed, own } = $derived(shown);
	const changes = $derived(isNew ? [] : (desk.data.behind[index]?.changes ?? []));
	const sentence = (words: string) => words[0]!.toUpperCase() + words.slice(1);
	type Tab = 'rows' | 'cells' | 'look' | 'place' | 'changes';
	let tab = $state<Tab>('rows');
	const tabs = $derived<readonly (readonly [Tab, string])[]>([
		...(placed.source.from === 'objects' ? [['rows', 'Rows'] as const] : []),
		...(isNew || placed.source.from === 'bench'
			? []
			: [['cells', placed.source.from === 'objects' ? 'Cells' : 'Revisions'] as const]),
		['look', 'Look'],
		...(isNew ? [] : [['place', 'Place'] as const]),
		...(placed.source.from === 'objects' && !isNew
			? [['changes', changes.length ? `Behind · ${changes.length}` : 'Behind'] as const]
			: [])
	]);
	const current = $derived(tabs.some(([name]) => name === tab) ? tab : tabs[0]![0]);
	const title = $derived(
		placed.rows.rows.find(({ role }) => role === 'title')?.cells[0]?.text ||
			(placed.source.from === 'objects'
				? placed.source.definition.title || 'Schedule'
				: placed.source.from === 'bench'
					? 'Table'
					: 'Revisions')
	);
	const isChanged = $derived(
		!isNew && desk.draft?.index === index && desk.draft.placed.source !== desk.tables[index]?.placed.source
	);

	const onsource = (source: PlacedSource) => {
		const base = desk.draft ?? desk.draftOf(index);
		void desk.tryOut({ ...base, placed: { ...base.placed, source } }, { newRows: true });
	};
	function rename(from: string, to: string) {
		const draft = desk.draft ?? desk.draftOf(index);
		const base = draft.base ?? { rows: draft.placed.rows, own: draft.own };
		const before = { ...draft.placed, rows: base.rows };
		void desk.tryOut(
			{
				...draft,
				placed: withRenamed(draft.placed, from, to),
				base: { ...base, rows: withRenamed(before, from, to).rows }
			},
			{ newRows: true }
		);
	}
	/** Saves at once, or goes on with the draft of a new table. */
	function set(next: { placed?: PlacedTable; own?: TableState }, words: string) {
		if (isNew || isChanged) {
			// What is typed now is what the definition goes on with.
			const { base: _base, ...draft } = shown;
			void desk.tryOut({ ...draft, ...next });
		} else {
			const seen = { placed, own };
			void desk.change(index, `${title}: ${words}`, (now) => laidOver(now, seen, { ...seen, ...next }));
		}
	}
	const reads = (to: Reading) =>
		set(withRows({ placed, own }, placed.rows, undefined, to), to === 'up' ? 'reads upwards' : 'reads downwards');

	const entry = $derived(desk.data.tables[index]);
	const sample = $derived(entry ? excerpt(stateTable(entry, own), entry.content, 8) : undefined);
	const partsOff = $derived(own.partsOff ?? []);
	const carry = $derived(own.carry ?? ASPECTS);
	const parts = $derived(
		partsInUse(placed.rows.rows.map(({ role }) => role)).filter(({ name }) => !/^(first|last)Column$/.test(name))
	);
	let pointed = $state<string>();
	function point(id: string | undefined) {
		if (isNew || isChanged || pointed === id) return;
		pointed = id;
		void desk.pointAt(id === undefined ? undefined : book.wearing(id));
	}
	function choose(id: string) {
		pointed = undefined;
		const dressed = ({ edition: _edition, pinned: _pinned, ...rest }: TableState) => ({ ...rest, ...book.wearing(id) });
		// Rows that are being changed go on being changed; a style that was only pointed at is none yet.
		if (isNew || isChanged) void desk.tryOut({ ...shown, own: dressed(own) });
		else {
			desk.drop();
			void desk.change(index, `${title}: ${book.get(id)!.definition.name}`, (now) => ({ own: dressed(now.own) }));
		}
	}
</script>

<button type="button" class="text-quiet hover:text-ink" onclick={onback}
	>← {isNew ? 'Not now' : 'All objects and tables'}</button
>
<h2 class="mt-1 truncate text-[16px] font-semibold">{title}</h2>
{#if isNew}<p class="text-quiet">New; it stands nowhere yet.</p>{/if}
<Tabs
	class="mt-2"
	label="About this table"
	id="about-table"
	{tabs}
	chosen={current}
	onchoose={(name) => (tab = name)}
/>
<Unreadable {own} called="this table" busy={desk.busy} onanew={() => set({ own: {} }, 'begun anew')} />
{#if desk.problem}<p class="mt-3 rounded-lg bg-error-wash px-3 py-2 text-error" role="alert">{desk.problem}</p>{/if}
{#each isNew || isChanged ? [] : desk.sumsOut(index) as finding (`${finding.r} ${finding.c}`)}<p
		class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text"
		role="status"
	>
		{sentence(placedWords(finding))}: {changes.length
			? 'only some of its changes were accepted.'
			: 'it does not fit the rows that it shows.'}
	</p>{/each}
{#each placed.rows.problems as problem (problem)}<p class="mt-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">
		{problem}
	</p>{/each}

<TabPanel id="about-table" chosen={current} class="mt-3">
	{#if placed.source.from === 'bench' && !isNew}<Button
			small
			class="mb-3"
			href="/documents/{desk.data.id}/bench?table={index}">Work on it…</Button
		>{/if}
	{#if current === 'rows' && placed.source.from === 'objects'}
		<ScheduleEditor {desk} source={placed.source} {onsource} onrename={rename} />
	{:else if current === 'cells'}
		{#if placed.source.from === 'revisions'}<Button class="mb-3" onclick={onrevision}>Add a revision…</Button>{/if}
		<CellsPanel rows={placed.rows} onset={(rows, words) => set(withRows({ placed, own }, rows), words)} />
	{:else if current === 'look' && sample}
		<StyleDock
			{book}
			{sample}
			widths={[]}
			chosen={own.style}
			{partsOff}
			{carry}
			{parts}
			onpoint={point}
			onchoose={choose}
			onparts={(off) => set({ own: { ...own, partsOff: off } }, 'parts in use')}
			oncarry={(next: Aspect[]) => set({ own: { ...own, carry: next } }, 'carry')}
		/>
	{:else if current === 'look'}
		<select
			class="field w-full"
			aria-label="Style"
			value={own.style ?? ''}
			onchange={(event) => choose(event.currentTarget.value)}
		>
			{#each book.offered(own.style) as { id, definition } (id)}<option value={id}>{definition.name}</option>{/each}
		</select>
	{:else if current === 'place'}
		<PlacePanel
			{placed}
			drawn={isNew ? desk.draftDrawn : desk.drawnAt(index)}
			onset={(next, words) => set({ placed: next }, words)}
			onreads={reads}
			onremove={isNew ? undefined : () => desk.remove(index)}
		/>
	{:else if current === 'changes'}
		{#if desk.data.behind[index]?.problem}<p class="mb-2 text-error">{desk.data.behind[index]!.problem}</p>{/if}
		<ChangesList {changes} onaccept={(answers) => desk.accept(index, answers)} />
	{/if}
</TabPanel>

{#if isNew || isChanged || current === 'rows'}
	<div class="sticky -bottom-4 -mx-4 mt-4 flex flex-wrap gap-2 border-t border-hairline bg-sheet px-4 py-3">
		{#if isNew}
			<Button primary disabled={!desk.draftDrawn || desk.placing} onclick={() => (desk.placing = true)}
				>Place it on the sheet…</Button
			>
			{#if desk.placing}<p class="text-quiet">Click where it is to stand; Enter sets it down, Esc lets go.</p>{/if}
		{:else if isChanged}
			<Button primary disabled={desk.busy} onclick={() => desk.keepDraft(`${title} changed`)}>Keep these rows</Button>
			<Button onclick={() => desk.drop()}>As it was</Button>
		{:else}
			<Button small onclick={onreuse}>Put it in other drawings, too…</Button>
			<Button small href="/documents/{desk.data.id}/formats?table={index}">See it in every format</Button>
		{/if}
	</div>
{/if}
