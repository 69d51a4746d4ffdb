<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import Button from '$lib/ui/controls/Button.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';

	let { data } = $props();
	const time = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
	const isAll = $derived(!data.asked.person && !data.asked.day && !data.asked.before);
	const last = $derived(data.entries.at(-1)?.id);

	function ask(name: string, value: string) {
		const query = new URLSearchParams(page.url.searchParams);
		if (value) query.set(name, value);
		else query.delete(name);
		if (name !== 'before') query.delete('before');
		void goto(`?${query}`, { keepFocus: true, noScroll: true });
	}
</script>

<svelte:head><title>Log of the house · Heptarch</title></svelte:head>
<TopBar title="Log of the house">
	{#snippet actions()}
		<select
			class="field"
			aria-label="Done by"
			value={data.asked.person ?? ''}
			onchange={(event) => ask('person', event.currentTarget.value)}
		>
			<option value="">by anybody</option>
			{#each data.members as { id, name } (id)}<option value={id}>by {name}</option>{/each}
		</select>
		<input
			class="field"
			type="date"
			aria-label="On the day"
			value={data.asked.day ?? ''}
			onchange={(event) => ask('day', event.currentTarget.value)}
		/>
		<Button href="/api/house/log{page.url.search}" download>Take it out</Button>
		<Button href="/house/people">People</Button>
	{/snippet}
</TopBar>

<main class="flex-1 overflow-y-auto px-5 py-4">
	<table class="w-full max-w-5xl">
		<thead class="text-quiet"
			><tr class="border-b border-hairline"
				><th class="w-44 py-1.5 text-start font-medium">When</th><th class="w-44 py-1.5 text-start font-medium">Who</th
				><th class="py-1.5 text-start font-medium">What</th></tr
			></thead
		>
		<tbody>
			{#each data.entries as { id, when, by, words } (id)}
				<tr class="border-b border-hairline last:border-0">
					<td class="py-1.5 text-quiet tabular-nums">{time.format(new Date(when))}</td>
					<td class="py-1.5">{by ?? 'by itself'}</td>
					<td class="py-1.5">{words}</td>
				</tr>
			{:else}
				<tr><td class="py-4 text-quiet" colspan="3">{isAll ? 'Nothing yet.' : 'Nothing of this kind.'}</td></tr>
			{/each}
		</tbody>
	</table>
	{#if data.entries.length === 100}<Button class="mt-3" onclick={() => ask('before', String(last))}
			>What was before</Button
		>{/if}
</main>
