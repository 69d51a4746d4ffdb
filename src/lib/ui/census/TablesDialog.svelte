<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import type { Gives } from '$lib/server/http/contract.ts';
	import { call } from '../api.ts';
	import Button from '../controls/Button.svelte';
	import Dialog from '../shell/Dialog.svelte';

	/** Which tables are meant, each with the way to it. */
	let { open = $bindable(), title, query }: { open: boolean; title: string; query: URLSearchParams } = $props();
	let found = $state.raw<Gives<'GET /api/census/tables'>>();
	let failed = $state<string>();
	$effect(() => {
		if (!open) return;
		const asked = query;
		found = undefined;
		failed = undefined;
		call('GET', `/api/census/tables?${asked.toString()}`).then(
			(answer) => asked === query && (found = answer),
			(error: Error) => asked === query && (failed = error.message)
		);
	});
</script>

<Dialog bind:open {title} wide>
	{#if failed}
		<p class="rounded-lg bg-error-wash px-4 py-3 text-error" role="alert">{failed}</p>
	{:else if !found}
		<p class="text-quiet">Looking them up…</p>
	{:else}
		<p>{plural(found.all, 'table')} in {plural(found.documents, 'document')}.</p>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="mt-2 max-h-[56vh] overflow-y-auto" role="region" aria-label={title} tabindex="0">
			<table class="w-full">
				<thead class="sticky top-0 bg-sheet text-quiet">
					<tr class="border-b border-hairline">
						<th class="py-1.5 text-start font-medium">Document</th>
						<th class="py-1.5 text-start font-medium">Table</th>
						<th class="py-1.5 text-start font-medium">Wears</th>
					</tr>
				</thead>
				<tbody>
					{#each found.tables as { document, name, index, title: words, style } (`${document} ${index}`)}
						<tr class="border-b border-hairline last:border-0">
							<td class="py-1 pe-3"><a class="hover:underline" href="/documents/{document}?at={index}">{name}</a></td>
							<td class="py-1 pe-3">{words}</td>
							<td class={['py-1', !style && 'text-quiet']}>{style ?? 'no house style'}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		{#if found.all > found.tables.length}<p class="text-quiet">
				and {plural(found.all - found.tables.length, 'more table')}
			</p>{/if}
	{/if}
	{#snippet answers()}<Button onclick={() => (open = false)}>Close</Button>{/snippet}
</Dialog>
