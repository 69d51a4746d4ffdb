<script lang="ts">
	import { untrack } from 'svelte';
	import { lowContrast } from '$lib/core/cascade/contrast.ts';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve, resolveParts, traceCell, type Resolved } from '$lib/core/cascade/resolve.ts';
	import { leafWords } from '$lib/core/style/words.ts';
	import { leavesOf, withLeaf } from '$lib/core/style/leaves.ts';
	import { parsePart, partWords, type Rank } from '$lib/core/style/parts.ts';
	import { describeStyle } from '$lib/core/style/sentence.ts';
	import type { LeafValue, Style } from '$lib/core/style/types.ts';
	import BandSizes from '$lib/ui/bench/BandSizes.svelte';
	import { StyleDraft } from '$lib/ui/bench/draft.svelte.ts';
	import PropertySheet, { type LeafSource } from '$lib/ui/bench/PropertySheet.svelte';
	import RankBar from '$lib/ui/bench/RankBar.svelte';
	import SpecimenSheet, { type SheetSpecimen } from '$lib/ui/bench/SpecimenSheet.svelte';
	import TraceStrip from '$lib/ui/bench/TraceStrip.svelte';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import KeysDialog from '$lib/ui/shell/KeysDialog.svelte';
	import { isTyping } from '$lib/ui/shell/keys.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { partsOfRank } from '$lib/workbench/parts.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import { stateTable } from '$lib/workbench/table.ts';

	let { data } = $props();
	const book = $derived(new Stylebook(data.styles, data.house));
	const draft = untrack(() => new StyleDraft(data.style.id, data.style.version, data.style.definition));

	let rank = $state<Rank>(1);
	let part = $state('ground');
	let spotlit = $state(false);
	let asTheyCame = $state(false);
	let lookingAtTheirs = $state(false);
	let picked = $state<{ key: string; cell: number }>();
	let tracing = $state(true);
	let about = $state(false);
	let keys = $state(false);
	let naming = $state({ name: '', description: '', category: '' });

	const shownDefinition = $derived(lookingAtTheirs && draft.theirs ? draft.theirs.definition : draft.definition);
	const flat = $derived(book.flatten(shownDefinition));
	const base = $derived(book.get(draft.definition.basedOn ?? undefined));
	const inks = $derived({ ...data.house.inks, ...Object.fromEntries(flat.inks) });
	const roles = $derived([...new Set([...Object.keys(data.house.typeRoles), ...flat.typeRoles.keys()])]);

	const specimens: SheetSpecimen[] = untrack(() => {
		const fromDocuments = data.specimens.map(({ key, document, entry, state }): SheetSpecimen => {
			const shortened = excerpt(stateTable(entry, { ...state, style: undefined }), entry.content, 14);
			return {
				key,
				from: document,
				title: entry.place.caption ?? `table ${entry.index + 1}`,
				...shortened,
				widths: entry.widths,
				...(shortened.content === entry.content && { before: entry.appearance })
			};
		});
		return [...fromDocuments, { key: 'built-in', from: 'Built in', title: 'every part', ...builtInSpecimen() }];
	});
	const resolvedSpecimens = $derived(
		specimens.map((specimen) => ({ specimen, resolved: resolve(specimen.table, flat, data.house) }))
	);

	const spotlight = $derived.by(() => {
		if (!spotlit) return undefined;
		return new Set([part]);
	});
	const parts = $derived(partsOfRank(rank, flat));
	const ownLeaves = $derived(
		new Map(Object.entries(shownDefinition.parts).map(([name, settings]) => [name, leavesOf(settings)]))
	);

	/** A cell that the part rules, on any specimen, with its trace. */
	const example = $derived.by(() => {
		let plainest: { resolved: Resolved; slot: number; parts: number } | undefined;
		for (const { resolved } of resolvedSpecimens)
			resolved.structure.signatures.forEach(({ parts }, signature) => {
				if (!parts.some(({ name }) => name === part)) return;
				const count =
					parts.length + (parts.some(({ name }) => name !== part && /^(first|last)Column$/.test(name)) ? 1 : 0);
				if (plainest && count >= plainest.parts) return;
				const slot = resolved.structure.cellSignature.indexOf(signature);
				if (slot >= 0) plainest = { resolved, slot, parts: count };
			});
		if (!plainest) return undefined;
		const { columns } = plainest.resolved.structure.table;
		return traceCell(plainest.resolved, Math.floor(plainest.slot / columns), plainest.slot % columns);
	});

	function source(path: string): LeafSource {
		const own = ownLeaves.get(part)?.get(path);
		if (own !== undefined) return { value: own, isSet: true, from: 'set here' };
		const inherited = flat.parts.get(part)?.get(path);
		if (inherited) return { value: inherited.value, isSet: false, from: inherited.style };
		const self = parsePart(part)!;
		const weaker = example?.get(path)?.find(({ part: name, rank: other }) => {
			const parsed = parsePart(name);
			return parsed && (other < self.rank || (other === self.rank && parsed.order < self.order));
		});
		if (weaker) return { value: weaker.value, isSet: false, from: partWords(weaker.part) };
		if (!example && !path.startsWith('lines.')) {
			const ground = resolveParts(flat, data.house, specimens[0]!.table, ['ground']).leaves.get(path);
			if (ground && part !== 'ground') return { value: ground.value, isSet: false, from: 'ground' };
		}
		return { value: undefined, isSet: false, from: path.startsWith('lines.') ? 'untouched' : 'nobody' };
	}

	function set(path: string, value: LeafValue | undefined) {
		const { [part]: old = {}, ...others } = draft.definition.parts;
		const settings = withLeaf(old, path, value);
		draft.change({
			...draft.definition,
			parts: Object.keys(settings).length ? { ...others, [part]: settings } : others
		});
	}

	function chooseRank(next: Rank) {
		rank = next;
		if (next <= 5) {
			const offered = partsOfRank(next, flat);
			part = offered.find((name) => ownLeaves.has(name)) ?? offered[0]!;
			spotlit = next > 1;
		}
	}
	function choosePart(name: string) {
		const parsed = parsePart(name);
		if (!parsed) return;
		rank = parsed.rank;
		part = name;
		spotlit = parsed.rank > 1;
	}
	function nextPart(by: number) {
		const at = parts.indexOf(part);
		if (at >= 0) choosePart(parts[(at + by + parts.length) % parts.length]!);
	}

	const pickedResolved = $derived(resolvedSpecimens.find(({ specimen }) => specimen.key === picked?.key)?.resolved);
	const warnings = $derived(
		resolvedSpecimens
			.flatMap(({ specimen, resolved }) =>
				lowContrast(specimen.table.cells, appearanceOf(resolved)).map((low) => ({ ...low, specimen }))
			)
			.sort((a, b) => a.ratio - b.ratio)
	);
	const sheetWord: Record<string, string> = {
		saved: 'all saved',
		waiting: 'saving…',
		saving: 'saving…',
		failed: 'not saved',
		conflict: 'not saved'
	};

	function openAbout() {
		const { name, description = '', category = '' } = draft.definition;
		naming = { name, description, category };
		about = true;
	}
	function saveAbout() {
		const name = naming.name.trim();
		if (!name) return;
		const { description: _d, category: _c, ...rest } = draft.definition;
		const next: Style = {
			...rest,
			name,
			...(naming.description.trim() && { description: naming.description.trim() }),
			...(naming.category.trim() && { category: naming.category.trim() })
		};
		draft.change(next);
		about = false;
	}

	function keydown(event: KeyboardEvent) {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !isTyping(event)) {
			event.preventDefault();
			if (event.shiftKey) draft.redo();
			else draft.undo();
			return;
		}
		if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
		if (/^[1-7]$/.test(event.key)) chooseRank(Number(event.key) as Rank);
		else if (event.key === '[') nextPart(-1);
		else if (event.key === ']') nextPart(1);
		else if (event.key === 't' || event.key === 'T') tracing = !tracing;
		else if (event.key === 'b' || event.key === 'B') asTheyCame = !asTheyCame;
		else if (event.key === '?') keys = true;
		else if (event.key === 'Escape') {
			if (picked) picked = undefined;
			else spotlit = false;
		}
	}
	const pick = (key: string, cell: number, _resolved: Resolved) => {
		picked = { key, cell };
		tracing = true;
	};
</script>

<svelte:head><title>{draft.definition.name} · Stylebook · Heptarch</title></svelte:head>
<svelte:window
	onkeydown={keydown}
	onbeforeunload={(event) => {
		if (draft.state !== 'saved') event.preventDefault();
	}}
/>

<TopBar>
	{#snippet title()}<h1 class="truncate font-title text-[22px] leading-tight font-semibold">
			{draft.definition.name}
		</h1>{/snippet}
	{#snippet facts()}
		{#if base}<span class="chip">builds on {base.definition.name}</span>{/if}
		<span class="chip"
			>{data.style.worn.tables
				? `worn by ${data.style.worn.tables} ${data.style.worn.tables === 1 ? 'table' : 'tables'} in ${data.style.worn.documents} ${data.style.worn.documents === 1 ? 'document' : 'documents'}`
				: 'not worn yet'}</span
		>
		<span
			class={['chip', (draft.state === 'failed' || draft.state === 'conflict') && 'border-error! text-error!']}
			role="status"
			data-save={draft.state}>{sheetWord[draft.state]}</span
		>
	{/snippet}
	{#snippet actions()}
		<button type="button" class="button" disabled={!draft.canUndo} onclick={() => draft.undo()}>Undo</button>
		<button type="button" class="button" disabled={!draft.canRedo} onclick={() => draft.redo()}>Redo</button>
		<button type="button" class="button" aria-pressed={asTheyCame} onclick={() => (asTheyCame = !asTheyCame)}
			>Before / after <span class="text-quiet">B</span></button
		>
		<a class="button" href="/api/styles/{data.style.id}/file" download>Take the style file</a>
		<button type="button" class="button primary" onclick={openAbout}>Name and purpose…</button>
	{/snippet}
</TopBar>

{#if draft.state === 'conflict'}
	<div class="flex items-center gap-3 border-b border-error bg-error-wash px-5 py-2 text-error" role="alert">
		<p class="flex-1">{draft.fault}</p>
		<button
			type="button"
			class="button small"
			aria-pressed={lookingAtTheirs}
			onclick={() => (lookingAtTheirs = !lookingAtTheirs)}
			>{lookingAtTheirs ? 'Look at mine' : 'Look at the other'}</button
		>
		<button
			type="button"
			class="button small"
			onclick={() => {
				lookingAtTheirs = false;
				draft.takeTheirs();
			}}>Take the other</button
		>
		<button
			type="button"
			class="button small"
			onclick={() => {
				lookingAtTheirs = false;
				void draft.keepMine();
			}}>Save mine over it</button
		>
	</div>
{:else if draft.state === 'failed'}
	<div class="flex items-center gap-3 border-b border-error bg-error-wash px-5 py-2 text-error" role="alert">
		<p class="flex-1">{draft.fault}</p>
		<button
			type="button"
			class="button small"
			onclick={() => {
				draft.state = 'waiting';
				void draft.save();
			}}>Try again</button
		>
	</div>
{/if}

<RankBar style={flat} house={data.house} carrier={specimens.at(-1)!.table} chosen={rank} onchoose={chooseRank} />

<div class="flex min-h-0 flex-1" id="rank-panel" role="tabpanel" aria-label="Rank {rank}">
	<main class="min-w-0 flex-1 overflow-auto px-5 py-4" aria-label="Specimen sheet">
		<SpecimenSheet {specimens} style={flat} house={data.house} {spotlight} {picked} {asTheyCame} onpick={pick} />
		<p class="mt-4 max-w-2xl text-[14px] text-quiet italic" style="font-family:'Source Serif 4'" data-sentence>
			{describeStyle(flat)}
		</p>
	</main>
	<aside class="flex w-[330px] shrink-0 flex-col border-s border-hairline bg-paper" aria-label="Property sheet">
		{#if rank <= 5}
			<div class="flex flex-wrap gap-1.5 border-b border-hairline px-4 py-3" role="radiogroup" aria-label="Parts">
				{#each parts as name (name)}
					{@const count = ownLeaves.get(name)?.size ?? 0}
					{@const inherited = !count && flat.parts.has(name)}
					<button
						type="button"
						role="radio"
						aria-checked={part === name}
						class={['chip', part === name && 'on', part !== name && (count || inherited) && 'text-ink!']}
						onclick={() => choosePart(name)}
					>
						{partWords(name)}{#if count}<span class="tabular-nums">· {count}</span>{:else if inherited}<span
								title="set in {base?.definition.name}">· base</span
							>{/if}
					</button>
				{/each}
			</div>
			<div class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
				{#if rank === 2}
					<BandSizes
						bands={draft.definition.bands}
						rowSizes={flat.bands.rowSizes}
						columnSizes={flat.bands.columnSizes}
						restart={flat.bands.restartAtGroups}
						onset={(bands) => draft.change({ ...draft.definition, bands })}
					/>
				{/if}
				<PropertySheet {part} {source} {inks} {roles} onset={set} />
			</div>
		{:else}
			<div class="px-4 py-4 text-quiet">
				{#if rank === 6}
					{#each flat.rules as rule (rule.name)}
						<p class="mb-2 text-ink">
							<strong>{rule.name}</strong> sets {[...rule.leaves.keys()].map(leafWords).join(', ')}
						</p>
					{:else}
						<p>This style has no cell rule.</p>
					{/each}
					<p class="mt-2">
						Rules come with a style file and are kept, shown and applied; they cannot be edited here yet.
					</p>
				{:else}
					<p>
						Touches are one-off settings on single tables. They belong to a table and not to a style, so there is
						nothing to set here.
					</p>
				{/if}
			</div>
		{/if}
	</aside>
</div>

{#if picked && pickedResolved && tracing}
	{@const cell = pickedResolved.structure.table.cells[picked.cell]!}
	<TraceStrip
		resolved={pickedResolved}
		r={cell.r}
		c={cell.c}
		onjump={choosePart}
		onclose={() => (picked = undefined)}
	/>
{/if}
<footer class="flex min-h-11 items-center gap-3 border-t border-hairline bg-desk px-5 py-1.5">
	{#if warnings[0]}
		{@const worst = warnings[0]}
		<button
			type="button"
			class="chip border-warning! text-warning-text!"
			onclick={() => {
				picked = { key: worst.specimen.key, cell: worst.cell };
				tracing = true;
			}}
		>
			{warnings.length}
			{warnings.length === 1 ? 'warning' : 'warnings'}: “{worst.specimen.table.cells[worst.cell]!.text.trim().slice(
				0,
				24
			)}” has a contrast of {worst.ratio.toFixed(1)}:1, and needs {worst.wanted}:1
		</button>
	{:else}
		<span class="text-quiet">Every text on the sheet has contrast enough.</span>
	{/if}
	<span class="ms-auto"></span>
	<label class="flex items-center gap-2 text-quiet"
		><input type="checkbox" class="rounded-sm text-picked" bind:checked={spotlit} />spotlight on {partWords(
			part
		)}</label
	>
	<button type="button" class="text-quiet hover:text-ink" onclick={() => (keys = true)}>? keys</button>
</footer>

<Dialog bind:open={about} title="Name and purpose">
	<form
		id="about"
		class="flex flex-col gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			saveAbout();
		}}
	>
		<label class="flex flex-col gap-1"
			>Name<input class="field" required maxlength="200" bind:value={naming.name} /></label
		>
		<label class="flex flex-col gap-1"
			>What it is for<textarea class="field" rows="3" maxlength="4000" bind:value={naming.description}
			></textarea></label
		>
		<label class="flex flex-col gap-1"
			>Category<input class="field" maxlength="200" list="categories" bind:value={naming.category} /></label
		>
		<datalist id="categories"
			>{#each new Set(data.styles.flatMap(({ definition }) => definition.category ?? [])) as category (category)}<option
					value={category}
				></option>{/each}</datalist
		>
	</form>
	{#snippet answers()}
		<button type="button" class="button" onclick={() => (about = false)}>Leave as it was</button>
		<button type="submit" form="about" class="button primary" disabled={!naming.name.trim()}>Name it so</button>
	{/snippet}
</Dialog>
<KeysDialog
	bind:open={keys}
	keys={[
		['1 – 7', 'choose a rank'],
		['[ and ]', 'previous and next part'],
		['B', 'the tables as they came, and in this style'],
		['T', 'trace of the picked cell'],
		['Ctrl+Z', 'undo'],
		['Ctrl+Shift+Z', 'redo'],
		['Esc', 'leave the cell, then the spotlight']
	]}
/>
