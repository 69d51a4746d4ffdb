<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import type { Gives } from '$lib/server/http/contract.ts';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import { notify } from '$lib/ui/notices.svelte.ts';
	import { Once } from './once.svelte.ts';

	/** Codes beside the password: begun, shown once, confirmed by the first of them; or ended. */
	let { hasPassword, hasSecond }: { hasPassword: boolean; hasSecond: boolean } = $props();
	let password = $state('');
	let code = $state('');
	let made = $state.raw<Gives<'POST /api/me/second'>>();
	const once = new Once();

	const begin = () =>
		once.do(async () => {
			made = await call('POST', '/api/me/second', { password });
			password = '';
		});
	const confirm = () =>
		once.do(async () => {
			await call('PUT', '/api/me/second', { code });
			made = undefined;
			code = '';
			notify('From now on you sign in by your password and a code.');
			await invalidateAll();
		});
	const end = () =>
		once.do(async () => {
			await call('DELETE', '/api/me/second', { password });
			password = '';
			notify('You sign in by your password alone again.');
			await invalidateAll();
		});
</script>

<section class="card px-5 py-4" aria-labelledby="second">
	<h2 id="second" class="mb-3 font-semibold">A code beside the password</h2>
	{#if !hasPassword}
		<p class="text-quiet">Once you have a password, a code that changes each half minute can stand beside it.</p>
	{:else if made}
		<p>Photograph this with the program on your telephone that makes codes, or type what stands below it.</p>
		<img
			class="my-3 w-44 rounded bg-white p-1"
			alt="The secret, to be photographed"
			src="data:image/svg+xml,{encodeURIComponent(made.picture)}"
		/>
		<p class="mb-3 font-mono text-[12.5px] break-all" data-secret>{made.secret}</p>
		<p>Each of these leads in once, should you lose it. They are not shown again.</p>
		<ul class="my-2 grid grid-cols-2 gap-x-4 font-mono text-[12.5px]" aria-label="Spare codes">
			{#each made.spares as spare (spare)}<li>{spare}</li>{/each}
		</ul>
		<form
			class="mt-3 flex items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void confirm();
			}}
		>
			<label class="flex flex-1 flex-col gap-1"
				>The code that it shows now<input
					class="field"
					inputmode="numeric"
					autocomplete="one-time-code"
					maxlength="12"
					required
					bind:value={code}
				/></label
			>
			<Button type="submit" disabled={once.isBusy}>It works</Button>
		</form>
	{:else}
		<form
			class="flex items-end gap-2"
			onsubmit={(event) => {
				event.preventDefault();
				void (hasSecond ? end() : begin());
			}}
		>
			<label class="flex flex-1 flex-col gap-1"
				>{hasSecond ? 'You sign in by a code, too. Your password, to end that' : 'Your password, to begin'}<input
					class="field"
					type="password"
					autocomplete="current-password"
					maxlength="128"
					required
					bind:value={password}
				/></label
			>
			<Button type="submit" disabled={once.isBusy}>{hasSecond ? 'Without a code' : 'Show me the secret'}</Button>
		</form>
	{/if}
	{#if once.fault}<p class="mt-2 text-error" role="alert">{once.fault}</p>{/if}
</section>
