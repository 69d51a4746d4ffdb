<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { plural } from '$lib/core/words.ts';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import { notifyError } from '$lib/ui/notices.svelte.ts';
	import RoleChoice from '$lib/ui/people/RoleChoice.svelte';
	import { Once } from '$lib/ui/people/once.svelte.ts';
	import ShownOnce from '$lib/ui/programs/ShownOnce.svelte';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { EVENTS, EVENT_NAMES, type EventName } from '$lib/workbench/events.ts';
	import type { Role } from '$lib/workbench/roles.ts';

	let { data } = $props();
	let isMaking = $state(false);
	let name = $state('');
	let role = $state<Role>('author');
	let days = $state(90);
	let isAdding = $state(false);
	let url = $state('');
	let events = $state<EventName[]>([...EVENT_NAMES]);
	let secret = $state<{ title: string; label: string; value: string }>();
	let isShown = $state(false);
	const once = new Once();
	const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' });
	const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
	const inUse = $derived(data.tokens.filter(({ isOver }) => !isOver));

	function show(title: string, label: string, value: string) {
		secret = { title, label, value };
		isShown = true;
	}
	async function make() {
		await once.do(async () => {
			const { token } = await call('POST', '/api/house/programs', { name, role, days });
			isMaking = false;
			show(`The token of ${name}`, 'The token', token);
			name = '';
			await invalidate('heptarch:programs');
		});
	}
	async function add() {
		await once.do(async () => {
			const made = await call('POST', '/api/v1/webhooks', { url, events });
			isAdding = false;
			show('What events are signed with', 'The secret', made.secret);
			url = '';
			await invalidate('heptarch:programs');
		});
	}
	async function end(path: `/api/house/programs/${string}` | `/api/v1/webhooks/${string}`) {
		try {
			await call('DELETE', path);
		} catch (error) {
			notifyError(error);
		}
		await invalidate('heptarch:programs');
	}
</script>

<svelte:head><title>Programs · Heptarch</title></svelte:head>
<TopBar title="Programs">
	{#snippet facts()}
		<span class="chip">{plural(inUse.length, 'token')} in use</span>
	{/snippet}
	{#snippet actions()}
		<Button href="/house">House</Button>
		<Button href="/programs">What programs may ask</Button>
		<Button needs="keeper" onclick={() => (isAdding = true)}>Tell an address…</Button>
		<Button primary needs="keeper" onclick={() => (isMaking = true)}>New token…</Button>
	{/snippet}
</TopBar>

<main class="flex-1 overflow-y-auto px-5 py-5">
	<h2 class="mb-1 font-semibold">Tokens</h2>
	<p class="mb-3 max-w-3xl text-quiet">
		A program that shows a token comes into this house, as what the token says, until it expires or is ended here.
	</p>
	{#if data.tokens.length}
		<table class="mb-8 w-full max-w-5xl">
			<thead class="text-quiet"
				><tr class="border-b border-hairline"
					>{#each ['Program', 'As', 'Made by', 'Used last', 'Leads in until'] as words (words)}<th
							class="py-1.5 text-start font-medium">{words}</th
						>{/each}<th><span class="sr-only">What can be done</span></th></tr
				></thead
			>
			<tbody>
				{#each data.tokens as token (token.id)}
					<tr class={['border-b border-hairline', token.isOver && 'text-quiet']}>
						<td class="py-2 pe-4 font-semibold">{token.name}</td>
						<td class="pe-4">{token.role}</td>
						<td class="pe-4 text-quiet">{token.by ?? ''}</td>
						<td class="pe-4 text-quiet tabular-nums"
							>{token.usedAt ? moment.format(new Date(token.usedAt)) : 'not yet'}</td
						>
						<td class="pe-4 tabular-nums">{token.isOver ? 'over since ' : ''}{date.format(new Date(token.until))}</td>
						<td class="py-2 text-end"
							>{#if !token.isOver}<Button
									small
									needs="keeper"
									aria-label="End it: {token.name}"
									onclick={() => end(`/api/house/programs/${token.id}`)}>End it</Button
								>{/if}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
	{:else}<p class="mb-8">None yet.</p>{/if}

	<h2 class="mb-1 font-semibold">Addresses that are told</h2>
	<p class="mb-3 max-w-3xl text-quiet">
		What happens in the house is told to these addresses, signed, and told again for some hours where nobody answers.
	</p>
	<ul class="flex max-w-5xl flex-col">
		{#each data.webhooks as webhook (webhook.id)}
			<li class="flex items-center gap-4 border-b border-hairline py-2">
				<div class="min-w-0 flex-1">
					<p class="truncate font-semibold">{webhook.url}</p>
					<p class="text-[12.5px] text-quiet">{webhook.events.map((event) => EVENTS[event]).join('; ')}</p>
				</div>
				<span class={['text-[12.5px]', webhook.last && !webhook.last.isTold ? 'text-error' : 'text-quiet']}
					>{webhook.last
						? `${webhook.last.at ? moment.format(new Date(webhook.last.at)) : 'last time'}: ${webhook.last.said ?? 'on its way'}`
						: 'told of nothing yet'}</span
				>
				<Button
					small
					needs="keeper"
					aria-label="Take it out: {webhook.url}"
					onclick={() => end(`/api/v1/webhooks/${webhook.id}`)}>Take it out</Button
				>
			</li>
		{:else}<li>None yet.</li>{/each}
	</ul>
</main>

<Dialog bind:open={isMaking} title="A token for a program">
	<form
		id="token"
		class="flex flex-col gap-4"
		onsubmit={(event) => {
			event.preventDefault();
			void make();
		}}
	>
		<label class="flex flex-col gap-1"
			>What the program is called<input class="field" maxlength="100" required bind:value={name} /></label
		>
		<RoleChoice bind:role />
		<label class="flex items-center gap-2"
			>It leads in for<input class="field w-20" type="number" min="1" max="366" required bind:value={days} /> days</label
		>
		{#if once.fault}<p class="text-error" role="alert">{once.fault}</p>{/if}
	</form>
	{#snippet answers()}
		<Button onclick={() => (isMaking = false)}>Not now</Button>
		<Button primary type="submit" form="token" disabled={once.isBusy}>Make the token</Button>
	{/snippet}
</Dialog>

<Dialog bind:open={isAdding} title="Tell an address what happens here">
	<form
		id="webhook"
		class="flex flex-col gap-4"
		onsubmit={(event) => {
			event.preventDefault();
			void add();
		}}
	>
		<label class="flex flex-col gap-1"
			>Its address<input
				class="field"
				type="url"
				placeholder="https://"
				maxlength="2000"
				required
				bind:value={url}
			/></label
		>
		<fieldset class="flex flex-col gap-2">
			<legend class="mb-1">When</legend>
			{#each EVENT_NAMES as event (event)}
				<label class="flex items-center gap-2"
					><input type="checkbox" class="rounded-sm text-picked" value={event} bind:group={events} />{EVENTS[
						event
					]}</label
				>
			{/each}
		</fieldset>
		{#if once.fault}<p class="text-error" role="alert">{once.fault}</p>{/if}
	</form>
	{#snippet answers()}
		<Button onclick={() => (isAdding = false)}>Not now</Button>
		<Button primary type="submit" form="webhook" disabled={once.isBusy || !events.length}>Tell it</Button>
	{/snippet}
</Dialog>

{#if secret}<ShownOnce bind:open={isShown} title={secret.title} label={secret.label} secret={secret.value} />{/if}
