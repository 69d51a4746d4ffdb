<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import Gate from '$lib/ui/people/Gate.svelte';
	import { Once } from '$lib/ui/people/once.svelte.ts';
	import PasswordFields from '$lib/ui/people/PasswordFields.svelte';
	import { mayWords } from '$lib/workbench/roles.ts';

	let { data } = $props();
	const link = $derived(data.link);
	const isMember = $derived(link?.kind === 'invitation' && data.who?.isSignedIn);
	const fills = $derived(link && link.kind !== 'entry' && !isMember);
	let name = $state(untrack(() => data.link?.name ?? ''));
	let username = $state('');
	let password = $state('');
	const once = new Once();
	const title = $derived(
		!link
			? 'This link leads nowhere'
			: { invitation: `Come into ${link.house}`, password: 'A new password', entry: 'Come in' }[link.kind]
	);
	const lead = $derived(
		!link
			? data.problem
			: {
					invitation: `You are invited as ${link.role}. ${mayWords(link.role!)}`,
					password: 'From now on you sign in by this. You are signed out everywhere else.',
					entry: 'This link signs you in, once. Give yourself a password then, so that you need no other.'
				}[link.kind]
	);
	async function enter() {
		const body = fills ? { ...(link!.kind === 'invitation' && { name }), username, password } : {};
		if (await once.do(() => call('POST', `/api/enter/${page.params.token!}`, body))) location.assign('/');
	}
</script>

<Gate {title} {...lead ? { lead } : {}}>
	{#if link}
		<form
			class="flex flex-col gap-4"
			onsubmit={(event) => {
				event.preventDefault();
				void enter();
			}}
		>
			{#if isMember}<p>You are signed in as {data.who!.name}; this house is added to yours.</p>{/if}
			{#if fills && link.kind === 'invitation'}
				<label class="flex flex-col gap-1"
					>Your name, as others see it<input
						class="field"
						autocomplete="name"
						maxlength="100"
						required
						bind:value={name}
					/></label
				>
			{/if}
			{#if fills}<PasswordFields isNew bind:username bind:password />{/if}
			{#if once.fault}<p class="rounded-lg bg-error-wash px-3 py-2 text-error" role="alert">{once.fault}</p>{/if}
			<Button primary class="justify-center" type="submit" disabled={once.isBusy}>Come in</Button>
		</form>
	{:else}
		<Button href="/sign-in">Sign in</Button>
	{/if}
</Gate>
