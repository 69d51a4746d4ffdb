<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { invalidate } from '$app/navigation';
	import { call } from '$lib/ui/api.ts';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import WorkPicture from '$lib/ui/starters/WorkPicture.svelte';
	import { Stylebook } from '$lib/workbench/stylebook.ts';
	import type { Starter } from '$lib/server/tables/tables.ts';
	import '$lib/ui/table/fonts.ts';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const book = $derived(new Stylebook(data.styles, data.house, data.older));
	const categories = $derived([...new Set(data.starters.map(({ category }) => category))]);
	let changing = $state<{ id: string; version: number; name: string; category: string; description: string }>();
	let isChanging = $state(false);
	let removing = $state<Starter>();
	let isRemoving = $state(false);

	async function save() {
		if (!changing) return;
		const { id, ...change } = changing;
		try {
			await call('PUT', `/api/starters/${id}`, change);
			isChanging = false;
			await invalidate('heptarch:starters');
		} catch (error) {
			notifyError(error);
		}
	}
	async function remove() {
		isRemoving = false;
		try {
			await call('DELETE', `/api/starters/${removing!.id}`);
			notify(`“${removing!.name}” is gone. Tables that were made from it stay.`);
			await invalidate('heptarch:starters');
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<svelte:head><title>Starters · Heptarch</title></svelte:head>
<Shortcuts list={[]} />
<TopBar title="Starters">
	{#snippet facts()}{#if data.starters.length}<span class="chip"
				>{plural(data.starters.length, 'table')} to begin with</span
			>{/if}{/snippet}
	{#snippet actions()}<Button needs="author" primary href="/starters/begin">Make a table…</Button>{/snippet}
</TopBar>
<main class="min-h-0 flex-1 overflow-y-auto px-6 py-5">
	{#if !data.starters.length}
		<div class="mx-auto mt-16 max-w-lg text-center">
			<p class="mb-2 text-[15px] font-semibold">No starter is kept yet</p>
			<p class="mb-5 text-quiet">
				A starter is a table with its content, style, touches and sizes, ready to be placed again. Make a table, or open
				one of a document on the table bench, and keep it from there.
			</p>
			<Button needs="author" primary href="/starters/begin">Make a table…</Button>
		</div>
	{/if}
	{#each categories as category (category)}
		<h2 class="mt-2 mb-2 font-semibold">{category || 'Without a category'}</h2>
		<ul class="mb-5 grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4">
			{#each data.starters.filter((one) => one.category === category) as starter (starter.id)}
				{@const { id, name, description, document, work, wears, used, version } = starter}
				{@const record = book.get(wears.style)}
				<li class="card flex flex-col overflow-hidden">
					<WorkPicture
						{work}
						style={record && book.worn(wears)}
						house={data.house}
						partsOff={wears.partsOff}
						carry={wears.carry}
					/>
					<div class="flex flex-1 flex-col border-t border-hairline px-3 py-2">
						<strong>{name}</strong>
						<span class="flex-1 text-[12px] text-quiet"
							>{description || `${plural(work.rows.length, 'row')} × ${plural(work.columns.length, 'column')}`}{document
								? ` · only in ${document.name}`
								: ''}</span
						>
						<span class="mt-1 text-[12px] text-quiet"
							>{record ? `${wears.pinned ? 'pinned to' : 'follows'} ${record.definition.name}` : 'wears no style'} · placed
							{pluralWord(used, 'once', `${used} times`)}</span
						>
						<div class="mt-2 flex gap-1.5">
							<Button needs="author" small href="/starters/begin?starter={id}{document ? `&into=${document.id}` : ''}"
								>Place it…</Button
							>
							<Button
								needs="author"
								small
								onclick={() => {
									changing = { id, version, name, category: starter.category, description };
									isChanging = true;
								}}>Edit…</Button
							>
							<Button
								needs="author"
								small
								onclick={() => {
									removing = starter;
									isRemoving = true;
								}}>Remove…</Button
							>
						</div>
					</div>
				</li>
			{/each}
		</ul>
	{/each}
</main>
<Dialog bind:open={isChanging} title="What this starter is called">
	{#if changing}
		<label class="mb-2 block">Name <input class="field w-full" bind:value={changing.name} /></label>
		<label class="mb-2 block">Category <input class="field w-full" bind:value={changing.category} /></label>
		<label class="block"
			>What it is for <textarea class="field w-full" rows="3" bind:value={changing.description}></textarea></label
		>
		<p class="mt-2 text-[12px] text-quiet">
			To change the table itself, place it, work on it, and keep it under the same name.
		</p>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (isChanging = false)}>Leave it</Button>
		<Button primary disabled={!changing?.name.trim()} onclick={save}>Save</Button>
	{/snippet}
</Dialog>
<Dialog bind:open={isRemoving} title="Remove “{removing?.name ?? ''}”?">
	<p>Tables that were made from it stay as they are.</p>
	{#snippet answers()}
		<Button onclick={() => (isRemoving = false)}>Keep it</Button>
		<Button primary onclick={remove}>Remove it</Button>
	{/snippet}
</Dialog>
