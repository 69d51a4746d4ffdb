<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { isInkLeaf } from '$lib/core/properties/index.ts';
	import { goto, invalidate } from '$app/navigation';
	import ArchiveOutline from 'flowbite-svelte-icons/ArchiveOutline.svelte';
	import TrashBinOutline from 'flowbite-svelte-icons/TrashBinOutline.svelte';
	import type { StyleClash } from '$lib/server/styles/arriving.ts';
	import type { StyleRecord } from '$lib/server/styles/styles.ts';
	import ClashDialog from '$lib/ui/stylebook/ClashDialog.svelte';
	import { call } from '$lib/ui/api.ts';
	import DropTarget from '$lib/ui/documents/DropTarget.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import InView from '$lib/ui/shell/InView.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { findKey } from '$lib/ui/controls/shortcuts.ts';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import StylePicture from '$lib/ui/stylebook/StylePicture.svelte';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import { Stylebook, type ClashChoice } from '$lib/workbench/stylebook.ts';
	import { useWords } from '$lib/workbench/use.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import FileChooser from '$lib/ui/controls/FileChooser.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	let search = $state('');
	let making = $state(false);
	let start = $state<'blank' | 'inherit' | 'copy'>('blank');
	let from = $state('');
	let name = $state('');
	let purpose = $state('');
	let removing = $state<StyleRecord>();
	let asking = $state(false);
	let replacement = $state('');
	let chooser: FileChooser;

	const book = $derived(new Stylebook(data.styles, data.house));
	/** Whether those that are put aside are looked at. */
	let isAside = $state(false);
	const asides = $derived(data.styles.filter(({ aside }) => aside).length);
	const shown = $derived(data.styles.filter(({ aside }) => aside === isAside));
	const sample = $derived.by(() => {
		const specimen = data.specimens[0];
		return specimen
			? excerpt(stateTable(specimen.entry, specimen.state), specimen.entry.content, 12)
			: builtInSpecimen();
	});
	const widths = $derived(data.specimens[0]?.entry.widths);
	/** What the search looks through, per style: name, description, category, sentence, inks. */
	const haystacks = $derived(
		new Map(
			data.styles.map(({ id, definition }) => {
				const { name, description = '', category = '' } = definition;
				const inks = [...book.flat(id).parts.values()].flatMap((leaves) =>
					[...leaves].flatMap(([path, { value }]) => (isInkLeaf(path) ? [String(value)] : []))
				);
				const words = [name, description, category, book.sentence(id), ...new Set(inks)];
				return [id, words.join(' ').toLowerCase()];
			})
		)
	);
	const found = $derived.by(() => {
		const wanted = search.trim().toLowerCase().split(/\s+/);
		return new Set(shown.flatMap(({ id }) => (wanted.every((word) => haystacks.get(id)!.includes(word)) ? [id] : [])));
	});
	let ticked = $state<string[]>([]);
	const tick = (id: string) =>
		(ticked = ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id]);

	function begin() {
		if (why !== undefined) return;
		from = book.offered()[0]?.id ?? '';
		name = '';
		purpose = '';
		making = true;
	}
	async function make() {
		try {
			const said = {
				...(name.trim() && { name: name.trim() }),
				...(purpose.trim() && { description: purpose.trim() })
			};
			const { id } = await call('POST', '/api/styles', start === 'blank' ? said : { ...said, from, how: start });
			making = false;
			await goto(`/stylebook/${id}`);
		} catch (error) {
			notifyError(error);
		}
	}

	/** Names that a file brings and the house has for other styles, while it is asked what becomes of them. */
	let asked = $state.raw<{
		file: string;
		clashes: readonly StyleClash[];
		answer: (choices: Record<string, ClashChoice> | undefined) => void;
	}>();
	let isAsked = $state(false);
	async function takeIn(files: readonly File[]) {
		for (const file of files)
			try {
				const take = (choices: Record<string, ClashChoice>) => {
					const query = new URLSearchParams({ name: file.name, choices: JSON.stringify(choices) });
					return call('POST', `/api/template?${query}`, file);
				};
				let { styles, clashes } = await take({});
				if (clashes.length) {
					const choices = await new Promise<Record<string, ClashChoice> | undefined>((answer) => {
						asked = { file: file.name, clashes, answer };
						isAsked = true;
					});
					asked = undefined;
					if (!choices) continue;
					({ styles, clashes } = await take(choices));
				}
				const names = styles.map(({ name, was }) => (name === was ? name : `${name} (${was} in the file)`));
				notify(
					styles.length
						? `${plural(styles.length, 'table style')} of “${file.name}” in the Stylebook now: ${names.join(', ')}.`
						: `The Stylebook has every table style of “${file.name}” already.`
				);
				await invalidate('heptarch:styles');
			} catch (error) {
				notifyError(error);
			}
	}

	/** Designers alone put styles aside and remove them. */
	const why = $derived(refusedTo('designer'));

	/** What is shown changes with what is known: the other styles are not shown with the counts of before. */
	async function reload() {
		await invalidate('heptarch:styles');
		isAside &&= asides > 0;
	}

	async function putAside({ id, definition: { name } }: StyleRecord, aside: boolean) {
		try {
			await call('PUT', `/api/styles/${id}/aside`, { aside });
			notify(aside ? `“${name}” is put aside. Whatever wears it goes on wearing it.` : `“${name}” is back.`, 'done', {
				words: aside ? 'Bring it back' : 'Put it aside again',
				run: () => putAside(book.get(id)!, !aside)
			});
			await reload();
		} catch (error) {
			notifyError(error);
		}
	}

	async function remove() {
		try {
			await call('DELETE', `/api/styles/${removing!.id}`, replacement ? { replacement } : {});
			asking = false;
			notify(
				`“${removing!.definition.name}” was removed${replacement ? `; its tables wear “${book.get(replacement)!.definition.name}” now` : ''}.`
			);
			await reload();
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<svelte:head><title>Stylebook · Heptarch</title></svelte:head>
<Shortcuts list={[findKey('find a style'), { keys: ['N'], does: 'begin a new style', run: begin }]} />
<DropTarget ondrop={takeIn} />

<TopBar title="Stylebook">
	{#snippet facts()}<span class="chip">{plural(data.styles.length - asides, 'style')}</span>{/snippet}
	{#snippet actions()}
		{#if ticked.length}
			<Button href="/api/template?styles={ticked.join(',')}" download
				>Take out a template of {plural(ticked.length, 'style')}</Button
			>
		{/if}
		{#if asides || isAside}<Button aria-pressed={isAside} onclick={() => (isAside = !isAside)}
				>Put aside · {asides}</Button
			>{/if}
		<input
			class="field w-56"
			type="search"
			placeholder="Find a style"
			aria-label="Find a style"
			bind:value={search}
			data-find
		/>
		<Button needs="designer" onclick={() => chooser.choose()}>Take in styles…</Button>
		<Button needs="designer" primary onclick={begin}>New style… <span class="opacity-80">N</span></Button>
	{/snippet}
</TopBar>
<FileChooser bind:this={chooser} label="Style files to take in" accept=".json,.docx" onchoose={takeIn} />

<main class="flex-1 overflow-y-auto px-5 py-5">
	{#if data.styles.length === 0}
		<div class="mx-auto mt-20 max-w-lg text-center">
			<p class="font-title text-[24px]">No style yet</p>
			<p class="mt-2 text-quiet">
				A style says once how tables look. Start a blank one, or drop a style file (*.heptarch.json) or a
				word-processing template (DOCX) on this page.
			</p>
			<Button needs="designer" class="mt-5" onclick={begin}>Start a style…</Button>
		</div>
	{/if}
	<ul class="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
		{#each shown as style (style.id)}
			{@const { name, category, description, basedOn } = style.definition}
			<!-- A card that is not found is only hidden: to make it again would take longer than a letter is typed in. -->
			<li
				hidden={!found.has(style.id)}
				class="card group relative flex flex-col overflow-hidden hover:border-quiet [&[hidden]]:hidden"
			>
				<InView height={164}>
					<StylePicture style={book.flat(style.id)} house={book.house} {sample} {widths} scale={0.5} height={164} />
				</InView>
				<input
					type="checkbox"
					class={[
						'absolute end-2.5 top-2.5 z-1 h-5 w-5 rounded border-hairline text-picked',
						!ticked.length && 'opacity-0 group-hover:opacity-100 focus:opacity-100'
					]}
					aria-label="Tick “{name}”"
					checked={ticked.includes(style.id)}
					onchange={() => tick(style.id)}
				/>
				<div class="flex flex-1 flex-col gap-1 border-t border-hairline px-3.5 py-2.5">
					<div class="flex items-baseline gap-2">
						<a class="font-semibold after:absolute after:inset-0 hover:underline" href="/stylebook/{style.id}">{name}</a
						>
						<span class="truncate text-[12px] text-quiet">{category ?? ''}</span>
						<span class="ms-auto shrink-0 text-[12px] text-quiet"
							>{style.edition ? `edition ${style.edition}${style.unpublished ? ' + draft' : ''}` : ''}</span
						>
					</div>
					<p class="line-clamp-2 text-[12.5px] text-quiet" title={book.sentence(style.id)}>
						{description ?? book.sentence(style.id)}
					</p>
					<p class="mt-auto flex items-center gap-2 pt-1 text-[12px] text-quiet">
						<span class="line-clamp-2 flex-1"
							>{style.worn.tables
								? `worn by ${plural(style.worn.tables, 'table')} in ${plural(style.worn.documents, 'document')}`
								: 'not worn yet'}{basedOn ? ` · builds on ${book.get(basedOn)?.definition.name}` : ''}{style.use
								? ` · ${useWords(style.use, () => undefined)}`
								: ''}</span
						>
						<button
							type="button"
							class="relative z-1 rounded p-1.5 enabled:hover:bg-picked-wash enabled:hover:text-picked disabled:opacity-40"
							aria-label={style.aside ? `Bring “${name}” back` : `Put “${name}” aside`}
							title={why ?? (style.aside ? 'Back to work' : 'Put aside')}
							disabled={why !== undefined}
							onclick={() => putAside(style, !style.aside)}
						>
							<ArchiveOutline class="h-4 w-4" />
						</button>
						{#if style.aside}
							<button
								type="button"
								class="relative z-1 rounded p-1.5 enabled:hover:bg-error-wash enabled:hover:text-error disabled:opacity-40"
								aria-label="Remove “{name}”"
								title={why ?? 'Remove for good'}
								disabled={why !== undefined}
								onclick={() => {
									removing = style;
									replacement = '';
									asking = true;
								}}
							>
								<TrashBinOutline class="h-4 w-4" />
							</button>
						{/if}
					</p>
				</div>
			</li>
		{/each}
	</ul>
	{#if data.styles.length && !found.size}<p class="text-quiet">
			{search.trim()
				? `No style matches “${search}”.`
				: isAside
					? 'Nothing is put aside.'
					: 'All styles are put aside.'}
		</p>{/if}
</main>

<Dialog bind:open={making} title="A new style">
	<form
		id="begin"
		class="mb-4 flex flex-col gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			void make();
		}}
	>
		<label class="flex flex-col gap-1"
			>Name
			<!-- svelte-ignore a11y_autofocus -->
			<input class="field" maxlength="200" placeholder="New style" autofocus bind:value={name} /></label
		>
		<label class="flex flex-col gap-1"
			>What it is for<input
				class="field"
				maxlength="4000"
				placeholder="Cost tables of the season report"
				bind:value={purpose}
			/></label
		>
	</form>
	<fieldset class="flex flex-col gap-3" aria-label="How it begins">
		{#each [['blank', 'Blank', 'Nothing is said yet.'], ['inherit', 'Building on another', 'It says only what differs; a change of the other shows here too.'], ['copy', 'As a copy', 'It begins with all that the other says, and goes its own way.']] as const as [value, title, text] (value)}
			<label
				class={[
					'flex gap-3 rounded-lg border px-3.5 py-2.5',
					start === value ? 'border-picked bg-picked-wash' : 'border-hairline'
				]}
			>
				<input
					class="mt-0.5 text-picked"
					type="radio"
					name="start"
					{value}
					bind:group={start}
					disabled={value !== 'blank' && data.styles.length === 0}
				/>
				<span><strong>{title}</strong><span class="block text-quiet">{text}</span></span>
			</label>
		{/each}
		{#if start !== 'blank'}
			<label class="flex items-center gap-3"
				>Which one
				<select class="field flex-1" bind:value={from}
					>{#each book.offered() as { id, definition } (id)}<option value={id}>{definition.name}</option>{/each}</select
				>
			</label>
		{/if}
	</fieldset>
	{#snippet answers()}
		<Button onclick={() => (making = false)}>Not now</Button>
		<Button primary type="submit" form="begin">Begin</Button>
	{/snippet}
</Dialog>

<Dialog bind:open={asking} title="Remove “{removing?.definition.name}”?">
	{#if removing?.basesOf.length}
		<p>
			{removing.basesOf.map((name) => `“${name}”`).join(', ')}
			{pluralWord(removing.basesOf.length, 'builds', 'build')} on it, so it cannot go. Change or remove {removing
				.basesOf.length === 1
				? 'that one'
				: 'those'} first.
		</p>
	{:else if removing?.worn.tables}
		<p>
			{plural(removing.worn.tables, 'table')} in {plural(removing.worn.documents, 'document')}
			{pluralWord(removing.worn.tables, 'wears', 'wear')} it. What do they wear instead? Steps of the past name that one then,
			too: put aside, it stays what it was.
		</p>
		<select class="field mt-3 w-full" aria-label="Style to wear instead" bind:value={replacement}>
			<option value="">Choose a style</option>
			{#each book.offered().filter(({ id }) => id !== removing?.id) as { id, definition } (id)}<option value={id}
					>{definition.name}</option
				>{/each}
		</select>
	{:else}
		<p>No table wears it. It goes for good, with its steps and editions.</p>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (asking = false)}>Keep it</Button>
		<Button primary disabled={!!removing?.basesOf.length || (!!removing?.worn.tables && !replacement)} onclick={remove}
			>Remove it</Button
		>
	{/snippet}
</Dialog>

{#if asked}
	<ClashDialog
		bind:open={isAsked}
		file={asked.file}
		clashes={asked.clashes}
		house={data.house}
		onchoose={asked.answer}
	/>
{/if}
