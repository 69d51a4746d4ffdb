<script lang="ts">
	import { invalidate } from '$app/navigation';
	import TrashBinOutline from 'flowbite-svelte-icons/TrashBinOutline.svelte';
	import { call } from '$lib/ui/api.ts';
	import DropTarget from '$lib/ui/documents/DropTarget.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import type { DocumentSummary } from '$lib/server/documents.ts';

	let { data } = $props();
	let chooser: HTMLInputElement;
	let removing = $state<DocumentSummary>();
	let asking = $state(false);
	let arriving = $state<{ name: string; failed?: string }[]>([]);

	const MOST = 50 * 2 ** 20;
	const kinds: Record<string, string> = { docx: 'word-processed' };

	async function take(files: readonly File[]) {
		arriving = files.map(({ name }) => ({ name }));
		for (const [i, file] of files.entries())
			try {
				if (file.size > MOST)
					throw new Error(`“${file.name}” is ${Math.ceil(file.size / 2 ** 20)} MB; files up to 50 MB are taken.`);
				const { imported } = await call<{ id: string; imported: string[] }>(
					'POST',
					`/api/documents?name=${encodeURIComponent(file.name)}`,
					file
				);
				notify(
					`“${file.name}” is in.${imported.length ? ` It brought ${imported.map((name) => `“${name}”`).join(', ')} to the Stylebook.` : ''}`
				);
				arriving = arriving.filter((_, at) => arriving[at]!.name !== file.name || arriving[at]!.failed);
				await invalidate('heptarch:documents');
			} catch (error) {
				arriving = arriving.map((entry, at) =>
					at === i || entry.name === file.name ? { ...entry, failed: (error as Error).message } : entry
				);
			}
	}

	async function remove() {
		asking = false;
		try {
			await call('DELETE', `/api/documents/${removing!.id}`);
			notify(`“${removing!.name}” was removed.`);
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

<DropTarget ondrop={take} />
<TopBar title="Documents">
	{#snippet facts()}
		{#if data.documents.length}<span class="chip"
				>{data.documents.length} {data.documents.length === 1 ? 'file' : 'files'}</span
			>{/if}
	{/snippet}
	{#snippet actions()}
		<button type="button" class="button primary" onclick={() => chooser.click()}>Add documents…</button>
	{/snippet}
</TopBar>
<input
	bind:this={chooser}
	type="file"
	multiple
	accept=".docx"
	class="hidden"
	aria-label="Documents to add"
	onchange={() => {
		void take([...(chooser.files ?? [])]);
		chooser.value = '';
	}}
/>

<main class="flex-1 overflow-y-auto px-5 py-5">
	{#each arriving as { name, failed } (name)}
		<div
			class={[
				'mb-3 flex items-center gap-3 rounded-lg border px-4 py-2.5',
				failed ? 'border-error bg-error-wash text-error' : 'border-hairline bg-sheet'
			]}
			role={failed ? 'alert' : 'status'}
		>
			{#if failed}
				<span class="flex-1">{failed}</span>
				<button
					type="button"
					class="button small"
					onclick={() => (arriving = arriving.filter((entry) => entry.name !== name))}>Put away</button
				>
			{:else}
				<span>Reading “{name}”…</span>
			{/if}
		</div>
	{/each}

	{#if data.documents.length === 0}
		<div class="mx-auto mt-20 max-w-lg text-center">
			<p class="font-title text-[24px]">No document yet</p>
			<p class="mt-2 text-quiet">
				Drop a word-processed document (DOCX, up to 50 MB) anywhere on this page. Its tables are recognised at once;
				nothing in the file changes before you take it back.
			</p>
			<button type="button" class="button mt-5" onclick={() => chooser.click()}>Choose a document…</button>
		</div>
	{:else}
		<div class="card overflow-hidden">
			<table class="w-full">
				<thead>
					<tr class="border-b border-hairline text-start text-quiet">
						<th class="px-4 py-2.5 text-start font-medium">Document</th>
						<th class="px-4 py-2.5 text-start font-medium">Kind</th>
						<th class="px-4 py-2.5 text-start font-medium">In a house style</th>
						<th class="px-4 py-2.5 text-start font-medium">Looks as it came</th>
						<th class="px-4 py-2.5 text-start font-medium">Findings</th>
						<th class="px-4 py-2.5 text-start font-medium">Last worked on</th>
						<th><span class="sr-only">Remove</span></th>
					</tr>
				</thead>
				<tbody>
					{#each data.documents as document (document.id)}
						<tr class="border-b border-hairline last:border-0 hover:bg-paper">
							<td class="px-4 py-3"
								><a class="text-[15px] font-semibold hover:underline" href="/documents/{document.id}">{document.name}</a
								></td
							>
							<td class="px-4 py-3 text-quiet">{kinds[document.kind] ?? document.kind}</td>
							<td class="px-4 py-3">
								<span class="flex items-center gap-2">
									<span class="h-1.5 w-20 overflow-hidden rounded-full bg-desk"
										><span class="block h-full bg-picked" style="width:{(100 * document.styled) / document.tables}%"
										></span></span
									>
									{document.styled} of {document.tables} tables
								</span>
							</td>
							<td class="px-4 py-3">{document.looks}</td>
							<td class="px-4 py-3">
								{#if document.findings}<span class="chip border-error! text-error!"
										>{document.findings} {document.findings === 1 ? 'finding' : 'findings'}</span
									>{:else}<span class="text-quiet">none</span>{/if}
							</td>
							<td class="px-4 py-3 text-quiet">{day.format(new Date(document.updatedAt))}</td>
							<td class="pe-3 text-end">
								<button
									type="button"
									class="rounded p-1.5 text-quiet hover:bg-error-wash hover:text-error"
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
		<p class="mt-4 text-quiet">Drop more DOCX files anywhere on this page, up to 50 MB each.</p>
	{/if}
</main>

<Dialog bind:open={asking} title="Remove “{removing?.name}”?">
	<p>
		The document and all that was decided about its {removing?.tables} tables go from Heptarch. The file on your own disk
		stays as it is.
	</p>
	{#snippet answers()}
		<button type="button" class="button" onclick={() => (asking = false)}>Keep it</button>
		<button type="button" class="button primary" onclick={remove}>Remove it</button>
	{/snippet}
</Dialog>
