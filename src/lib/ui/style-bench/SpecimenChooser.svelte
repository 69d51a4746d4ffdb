<script lang="ts">
	import type { SpecimenChoice } from '$lib/server/styles/specimens.ts';
	import { call } from '../api.ts';
	import { notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	/** Which tables stand on the sheet: from the documents of the house, those that wear the style, and the built-in one. */
	let {
		open = $bindable(),
		style,
		chosen,
		onchoose
	}: { open: boolean; style: string; chosen: readonly string[]; onchoose: (keys: string[] | null) => void } = $props();
	const MOST = 8;
	let choices = $state.raw<readonly SpecimenChoice[]>();
	let keys = $state<string[]>([]);
	let search = $state('');

	$effect(() => {
		if (!open) return;
		keys = [...chosen];
		call('GET', '/api/specimens')
			.then((list) => (choices = list))
			.catch(notifyError);
	});
	const found = $derived(
		(choices ?? []).filter(({ document, title }) =>
			`${document} ${title}`.toLowerCase().includes(search.trim().toLowerCase())
		)
	);
	const users = $derived((choices ?? []).filter((choice) => choice.style === style));
	const toggle = (key: string) =>
		(keys = keys.includes(key) ? keys.filter((other) => other !== key) : [...keys, key].slice(0, MOST));
	const done = (next: string[] | null) => {
		onchoose(next);
		open = false;
	};
</script>

{#snippet choice(key: string, title: string, about: string)}
	<label class="flex items-center gap-2.5 border-b border-hairline py-1.5 last:border-0">
		<input
			type="checkbox"
			class="rounded-sm text-picked"
			checked={keys.includes(key)}
			disabled={!keys.includes(key) && keys.length >= MOST}
			onchange={() => toggle(key)}
		/>
		<span class="min-w-0 flex-1 truncate">{title}</span><span class="shrink-0 text-[12px] text-quiet">{about}</span>
	</label>
{/snippet}

<Dialog bind:open title="Which tables stand on the sheet?" wide>
	<div class="mb-2 flex items-center gap-2">
		<input
			class="field flex-1"
			type="search"
			aria-label="Find a table"
			placeholder="Find a table"
			bind:value={search}
		/>
		<Button small disabled={!users.length} onclick={() => (keys = users.slice(0, MOST).map(({ key }) => key))}
			>Those that wear it ({users.length})</Button
		>
	</div>
	<p class="mb-2 text-[12px] text-quiet">{keys.length} of at most {MOST} chosen.</p>
	<div class="max-h-[46vh] overflow-y-auto">
		{@render choice('built-in', 'Every part, built in', 'not from a document')}
		{#if choices}
			{#each found as { key, document, title, rows, columns, style: worn } (key)}
				{@render choice(key, `${document} · ${title}`, `${rows} × ${columns}${worn === style ? ', wears it' : ''}`)}
			{/each}
		{:else}
			<p class="py-2 text-quiet">Looking through the documents…</p>
		{/if}
	</div>
	{#snippet answers()}
		<Button needs="designer" onclick={() => done(null)}>Choose for me</Button>
		<Button needs="designer" primary disabled={keys.length === 0} onclick={() => done(keys)}
			>Put {keys.length} on the sheet</Button
		>
	{/snippet}
</Dialog>
