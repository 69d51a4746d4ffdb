<script lang="ts">
	import { untrack } from 'svelte';
	import { page } from '$app/state';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import Gate from '$lib/ui/people/Gate.svelte';
	import { Once } from '$lib/ui/people/once.svelte.ts';
	import PasswordFields from '$lib/ui/people/PasswordFields.svelte';

	let { data } = $props();
	let username = $state('');
	let password = $state('');
	let code = $state('');
	/** Whether only the code is left to say. */
	let asks = $state(false);
	const once = new Once();
	/** Where it was that somebody wanted to go, in this application and nowhere else. */
	const to = $derived.by(() => {
		const wanted = page.url.searchParams.get('to') ?? '/';
		const url = new URL(wanted, page.url.origin);
		return url.origin === page.url.origin ? url.pathname + url.search : '/';
	});
	const outside = untrack(() => data.outside);
	if (outside)
		once.fault = `${outside}, you belong to no house any more. A keeper can invite you again; what you made stays where it is.`;
	if (page.url.searchParams.has('refused'))
		once.fault =
			'The provider knows you; nobody here is that person yet. Sign in by name and password, and say under your name who you are there.';
	const throughProvider = () =>
		once.do(async () => location.assign((await call('POST', '/api/session/provider', { to })).url));
	async function signIn() {
		await once.do(async () => {
			if (asks) await call('POST', '/api/session/second', { code });
			else if ((await call('POST', '/api/session', { username, password })).needsCode) {
				asks = true;
				return;
			}
			location.assign(to);
		});
	}
</script>

<Gate title="Sign in" lead="Your name, and the password that you chose as you came in.">
	<form
		class="flex flex-col gap-4"
		onsubmit={(event) => {
			event.preventDefault();
			void signIn();
		}}
	>
		{#if asks}
			<label class="flex flex-col gap-1"
				>The code that your program shows now, or a spare one
				<!-- svelte-ignore a11y_autofocus -->
				<input class="field" autocomplete="one-time-code" maxlength="40" required autofocus bind:value={code} /></label
			>
		{:else}<PasswordFields bind:username bind:password />{/if}
		{#if once.fault}<p class="rounded-lg bg-error-wash px-3 py-2 text-error" role="alert">{once.fault}</p>{/if}
		<Button primary class="justify-center" type="submit" disabled={once.isBusy}>Sign in</Button>
	</form>
	{#if data.provider && !asks}
		<Button class="mt-3 w-full justify-center" onclick={throughProvider}>Sign in through {data.provider}</Button>
	{/if}
	<p class="mt-6 text-[12.5px] text-quiet">
		Not here before, or the password is forgotten? A keeper of your house gives you a link that leads in once. Who keeps
		the installation gets one by <code>npm run link</code>.
	</p>
	{#if data.who}<p class="mt-3 text-[12.5px] text-quiet">
			You are signed in as {data.who.name} already. <a class="underline" href="/">Go to the Desk</a>
		</p>{/if}
</Gate>
