<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { findKey } from '$lib/ui/controls/shortcuts.ts';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { goto, invalidate } from '$app/navigation';
	import ArchiveOutline from 'flowbite-svelte-icons/ArchiveOutline.svelte';
	import TrashBinOutline from 'flowbite-svelte-icons/TrashBinOutline.svelte';
	import { call } from '$lib/ui/api.ts';
	import { Arrivals } from '$lib/ui/documents/arrivals.svelte.ts';
	import ArrivalsBanner from '$lib/ui/documents/ArrivalsBanner.svelte';
	import DropTarget from '$lib/ui/documents/DropTarget.svelte';
	import { accepted, kindWords } from '$lib/formats/kinds.ts';
	import { addressOf } from '$lib/ui/documents/kinds.ts';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import RunDialog from '$lib/ui/documents/RunDialog.svelte';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import type { DocumentOrder, DocumentSummary } from '$lib/server/documents/list.ts';
	import { Listing, MOST_TICKED } from '$lib/ui/documents/listing.svelte.ts';
	import { untrack } from 'svelte';
	import type { Attachment } from 'svelte/attachments';
	import FileChooser from '$lib/ui/controls/FileChooser.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const why = $derived(refusedTo('author'));
	let chooser: FileChooser;
	let removing = $state<DocumentSummary>();
	let asking = $state(false);
	const arrivals = new Arrivals(() => invalidate('heptarch:documents'));

	const columns: readonly { key: DocumentOrder; words: string }[] = [
		{ key: 'name', words: 'Document' },
		{ key: 'kind', words: 'Kind' },
		{ key: 'styled', words: 'In a house style' },
		{ key: 'looks', words: 'Looks as it came' },
		{ key: 'findings', words: 'Findings' },
		{ key: 'updatedAt', words: 'Last worked on' }
	];
	const list = untrack(() => new Listing(data.list));
	$effect(() => {
		const first = data.list;
		// Only where the server has something new: not as somebody types, or at the next page.
		untrack(() => list.renew(first));
	});
	const { counts, documents, ticked } = $derived(list);
	const isEmpty = $derived(counts.atWork + counts.aside === 0);
	const chosen = $derived([...ticked.values()]);
	/** The next page comes when the end of this one is seen. */
	const whenSeen: Attachment = (end) => {
		const seeing = new IntersectionObserver(([entry]) => entry?.isIntersecting && void list.more());
		seeing.observe(end);
		return () => seeing.disconnect();
	};

	async function keep(document: DocumentSummary, change: { archived: boolean } | { removed: false }, said?: string) {
		try {
			await call('PUT', `/api/documents/${document.id}`, change);
			await invalidate('heptarch:documents');
			if (said) notify(said, 'done', { words: 'Undo', run: () => keep(document, { archived: document.archived }) });
		} catch (error) {
			notifyError(error);
		}
	}
	let running = $state(false);
	async function readAgain() {
		try {
			await call('POST', '/api/drawings/reread', { documents: [...ticked.keys()] });
			await goto('/runs');
		} catch (error) {
			notifyError(error);
		}
	}
	async function remove() {
		asking = false;
		try {
			const document = removing!;
			await call('DELETE', `/api/documents/${document.id}`);
			notify(`“${document.name}” was removed.`, 'done', {
				words: 'Undo',
				run: () => keep(document, { removed: false })
			});
			await invalidate('heptarch:documents');
		} catch (error) {
			notifyError(error);
		}
	}

	const day = new Intl.DateTimeFormat('en-GB', {
		day: 'numeric',
		month: 'short',
		year: 'numeric',
		hour: '2-digit',
		minute: '2-digit'
	});
</script>

<svelte:head><title>Documents · Heptarch</title></svelte:head>
<Shortcuts list={[findKey('find documents')]} />

<svelte:window onpaste={arrivals.paste} />
<DropTarget ondrop={(files) => arrivals.take(files)} />
<TopBar title="Documents">
	{#snippet facts()}
		{#if !isEmpty}<span class="chip">{plural(counts.atWork, 'file')}</span>{/if}
	{/snippet}
	{#snippet actions()}
		{#if !isEmpty}
			<input
				class="field w-64"
				type="search"
				placeholder="Find by name, style or a word in a table"
				aria-label="Find documents"
				data-find
				bind:value={list.find}
				oninput={list.look}
			/>
			<select class="field w-40" aria-label="Kind of document" bind:value={list.kind} onchange={list.look}>
				<option value="">every kind</option>
				{#each counts.kinds as one (one)}<option value={one}>{kindWords(one)}</option>{/each}
			</select>
			<Button
				aria-pressed={list.shelf === 'archive'}
				onclick={() => {
					list.shelf = list.shelf === 'work' ? 'archive' : 'work';
					list.look();
				}}>Put aside · {counts.aside}</Button
			>
		{/if}
		<Button needs="author" href="/starters/begin">Make a table…</Button>
		{#if chosen.length}
			{#if chosen.length > 1}<Button href="/census?documents={chosen.map(({ id }) => id).join()}"
					>Census of these</Button
				>{/if}
			{#if chosen.every((document) => document.kind === 'svg')}
				<Button needs="author" onclick={readAgain}
					>Read {pluralWord(chosen.length, 'its schedules', `the schedules of ${chosen.length} drawings`)} again</Button
				>
			{/if}
			<Button
				needs="author"
				primary
				onclick={() => {
					running = true;
				}}>Give {plural(chosen.length, 'document')} a style…</Button
			>
		{:else}
			<Button needs="author" primary onclick={() => chooser.choose()}>Add documents…</Button>
		{/if}
	{/snippet}
</TopBar>
<FileChooser
	bind:this={chooser}
	label="Documents to add"
	accept={accepted()}
	onchoose={(files) => arrivals.take(files)}
/>

<main class="flex-1 overflow-y-auto px-5 py-5">
	<ArrivalsBanner {arrivals} />

	{#if isEmpty}
		<div class="mx-auto mt-20 max-w-lg text-center">
			<p class="font-title text-[24px]">No document yet</p>
			<p class="mt-2 text-quiet">
				Drop word-processed documents (DOCX), open text documents (ODT), web pages (HTML), drawings (SVG) or rows (CSV,
				TSV), up to 50 MB each, anywhere on this page, or paste cells. Tables are recognised at once; nothing in a file
				changes before you take it back.
			</p>
			<Button needs="author" class="mt-5" onclick={() => chooser.choose()}>Choose a document…</Button>
		</div>
	{:else}
		<div class="card overflow-hidden">
			<table class="w-full">
				<thead>
					<tr class="border-b border-hairline text-start text-quiet">
						<th class="ps-4"
							><input
								type="checkbox"
								class="rounded-sm border-hairline text-picked"
								aria-label="Tick all documents listed"
								checked={list.areAllTicked}
								onchange={() => list.tickListed()}
							/></th
						>
						{#each columns as { key, words } (key)}
							<th
								class="px-4 py-2.5 text-start font-medium"
								aria-sort={list.sort.key === key ? (list.sort.down ? 'descending' : 'ascending') : 'none'}
								><button
									type="button"
									class="hover:text-ink"
									onclick={() => {
										list.sort = { key, down: list.sort.key === key ? !list.sort.down : key === 'updatedAt' };
										list.look();
									}}>{words}{list.sort.key === key ? (list.sort.down ? ' ↓' : ' ↑') : ''}</button
								></th
							>
						{/each}
						<th><span class="sr-only">Put aside or remove</span></th>
					</tr>
				</thead>
				<tbody>
					{#each documents as document (document.id)}
						<tr class="border-b border-hairline last:border-0 hover:bg-paper">
							<td class="ps-4"
								><input
									type="checkbox"
									class="rounded-sm border-hairline text-picked"
									aria-label="Tick “{document.name}”"
									checked={ticked.has(document.id)}
									onchange={() => list.tick(document)}
								/></td
							>
							<td class="px-4 py-3"
								><a class="text-[15px] font-semibold hover:underline" href={addressOf(document)}>{document.name}</a></td
							>
							<td class="px-4 py-3 text-quiet">{kindWords(document.kind)}</td>
							<td class="px-4 py-3">
								<span class="flex items-center gap-2">
									<span class="h-1.5 w-20 overflow-hidden rounded-full bg-desk"
										><span
											class="block h-full bg-picked"
											style="width:{(100 * document.styled) / Math.max(1, document.tables)}%"
										></span></span
									>
									{document.styled} of {plural(document.tables, 'table')}
								</span>
								{#if document.wears.length}<span class="text-[12px] text-quiet">{document.wears.join(', ')}</span>{/if}
							</td>
							<td class="px-4 py-3">{document.looks}</td>
							<td class="px-4 py-3">
								{#if document.findings}<span class="chip border-error! text-error!"
										>{plural(document.findings, 'finding')}</span
									>{:else if !document.behind}<span class="text-quiet">none</span>{/if}
								{#if document.behind}<span class="chip text-warning-text!">{document.behind} behind the drawing</span
									>{/if}
							</td>
							<td class="px-4 py-3 text-quiet">{day.format(new Date(document.updatedAt))}</td>
							<td class="pe-3 text-end whitespace-nowrap">
								<button
									type="button"
									class="rounded p-1.5 text-quiet enabled:hover:bg-desk enabled:hover:text-ink disabled:opacity-40"
									disabled={why !== undefined}
									aria-label={document.archived
										? `Take “${document.name}” back to work`
										: `Put “${document.name}” aside`}
									title={why ?? (document.archived ? 'Back to work' : 'Put aside')}
									onclick={() =>
										keep(
											document,
											{ archived: !document.archived },
											document.archived ? `“${document.name}” is back.` : `“${document.name}” is put aside.`
										)}><ArchiveOutline class="h-4 w-4" /></button
								>
								<button
									type="button"
									class="rounded p-1.5 text-quiet enabled:hover:bg-error-wash enabled:hover:text-error disabled:opacity-40"
									disabled={why !== undefined}
									title={why}
									aria-label="Remove “{document.name}”"
									onclick={() => {
										removing = document;
										asking = true;
									}}
								>
									<TrashBinOutline class="h-4 w-4" />
								</button>
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		{#if list.hasMore}
			<p class="mt-3 flex items-center gap-3 text-quiet" {@attach whenSeen}>
				{documents.length} of {plural(counts.found, 'document')}
				<Button small onclick={list.more}>More</Button>
				{#if list.areAllTicked}
					<Button small onclick={() => list.tickFound()}
						>Tick {counts.found > MOST_TICKED ? `the first ${MOST_TICKED}` : `all ${counts.found}`}</Button
					>
				{/if}
			</p>
		{/if}
		{#if !documents.length}<p class="mt-4 text-quiet">
				{list.shelf === 'archive' && !counts.aside
					? 'Nothing is put aside.'
					: 'No document matches. Names, worn styles and the text of tables are searched.'}
			</p>{/if}
		<p class="mt-4 text-quiet">
			Drop more DOCX, ODT, HTML, SVG or CSV files anywhere on this page, up to 50 MB each, or paste cells.
		</p>
	{/if}
</main>

<Dialog bind:open={asking} title="Remove “{removing?.name}”?">
	<p>
		The document and all that was decided about its {plural(removing?.tables ?? 0, 'table')} go from Heptarch; for a day it
		can be brought back. The file on your own disk stays as it is.
	</p>
	{#snippet answers()}
		<Button onclick={() => (asking = false)}>Keep it</Button>
		<Button primary onclick={remove}>Remove it</Button>
	{/snippet}
</Dialog>

<RunDialog
	bind:open={running}
	title="Give {plural(chosen.length, 'document')} a style"
	lead="The tables in them, {chosen.reduce(
		(sum, { tables }) => sum + tables,
		0
	)} in all, wear the style from then on; forms and tables that only lay things out are left as they are unless you take them in."
	what={{ documents: chosen.map(({ id }) => id) }}
	styles={data.styles}
/>
