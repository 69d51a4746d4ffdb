<script lang="ts">
	import { untrack } from 'svelte';
	import { invalidate, invalidateAll } from '$app/navigation';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import { agentWords } from '$lib/ui/people/agents.ts';
	import { Once } from '$lib/ui/people/once.svelte.ts';
	import SecondFactor from '$lib/ui/people/SecondFactor.svelte';
	import PasswordFields from '$lib/ui/people/PasswordFields.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { may, mayWords } from '$lib/workbench/roles.ts';

	let { data } = $props();
	const who = $derived(data.who!);
	let name = $state(untrack(() => data.who!.name));
	let username = $state(untrack(() => data.username ?? ''));
	let password = $state('');
	let old = $state('');
	const naming = new Once();
	const securing = new Once();
	const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

	async function rename() {
		if (await naming.do(() => call('PUT', '/api/me', { name }))) await invalidateAll();
	}
	async function secure() {
		const body = { username, password, ...(data.hasPassword && { old }) };
		if (!(await securing.do(() => call('PUT', '/api/me/password', body)))) return;
		password = old = '';
		notify('You sign in by this from now on. Everywhere else you are signed out.');
		await invalidateAll();
	}
	async function end(id: string) {
		try {
			await call('DELETE', `/api/me/sessions/${id}`);
			await invalidate('heptarch:me');
		} catch (error) {
			notifyError(error);
		}
	}
	async function throughProvider() {
		try {
			location.assign((await call('POST', '/api/me/provider')).url);
		} catch (error) {
			notifyError(error);
		}
	}
	async function signOut() {
		try {
			await call('DELETE', '/api/session');
			location.assign('/sign-in');
		} catch (error) {
			notifyError(error);
		}
	}
	let another = $state('');
	const beginning = new Once();
	async function begin() {
		if (await beginning.do(() => call('POST', '/api/houses', { name: another }))) location.assign('/');
	}
	async function workIn(house: string) {
		try {
			await call('PUT', '/api/session', { house });
			location.assign('/');
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<svelte:head><title>{who.name} · Heptarch</title></svelte:head>
<TopBar title={who.name}>
	{#snippet facts()}<span class="chip">{who.role} of {who.houseName}</span>{/snippet}
	{#snippet actions()}{#if who.isSignedIn}<Button onclick={signOut}>Sign out</Button>{/if}{/snippet}
</TopBar>

<main class="flex-1 overflow-y-auto px-5 py-5">
	<div class="grid max-w-5xl grid-cols-2 items-start gap-5">
		<div class="flex flex-col gap-5">
			<section class="card px-5 py-4" aria-labelledby="called">
				<h2 id="called" class="mb-3 font-semibold">What others call you</h2>
				<form
					class="flex gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						void rename();
					}}
				>
					<input class="field flex-1" aria-label="Your name" maxlength="100" required bind:value={name} />
					<Button type="submit" disabled={naming.isBusy || name.trim() === who.name}>Take this name</Button>
				</form>
				{#if naming.fault}<p class="mt-2 text-error" role="alert">{naming.fault}</p>{/if}
				<p class="mt-3 text-[12.5px] text-quiet">{mayWords(who.role)}</p>
			</section>

			<section class="card px-5 py-4" aria-labelledby="sessions">
				<h2 id="sessions" class="mb-3 font-semibold">Where you are signed in</h2>
				<ul class="flex flex-col gap-2">
					{#each data.sessions as { id, agent, from, since, isThis } (id)}
						<li class="flex items-center gap-3">
							<span class="flex-1"
								>{agentWords(agent)}<span class="block text-[12px] text-quiet"
									>since {date.format(new Date(since))}{from ? ` · from ${from}` : ''}</span
								></span
							>
							{#if isThis}<span class="chip">here</span>{:else}<Button small onclick={() => end(id)}
									>Sign out there</Button
								>{/if}
						</li>
					{:else}
						<li class="text-quiet">Nowhere: this machine needs no signing in yet.</li>
					{/each}
				</ul>
			</section>

			{#if who.houses.length > 1 || may(who.role, 'keeper')}
				<section class="card px-5 py-4" aria-labelledby="houses">
					<h2 id="houses" class="mb-3 font-semibold">Your houses</h2>
					<ul class="flex flex-col gap-2">
						{#each who.houses as { id, name: called } (id)}
							<li class="flex items-center gap-3">
								<span class="flex-1">{called}</span>
								{#if id === who.house}<span class="chip">you work here</span>{:else}<Button
										small
										onclick={() => workIn(id)}>Work in it</Button
									>{/if}
							</li>
						{/each}
					</ul>
					{#if may(who.role, 'keeper')}
						<form
							class="mt-3 flex gap-2"
							onsubmit={(event) => {
								event.preventDefault();
								void begin();
							}}
						>
							<input
								class="field flex-1"
								aria-label="The name of another house"
								placeholder="Another house"
								maxlength="100"
								required
								bind:value={another}
							/>
							<Button type="submit" disabled={beginning.isBusy || !another.trim()}>Begin it</Button>
						</form>
						{#if beginning.fault}<p class="mt-2 text-error" role="alert">{beginning.fault}</p>{/if}
					{/if}
				</section>
			{/if}
		</div>

		<div class="flex flex-col gap-5">
			<section class="card px-5 py-4" aria-labelledby="password">
				<h2 id="password" class="mb-3 font-semibold">{data.hasPassword ? 'Another password' : 'A password'}</h2>
				{#if !who.isSignedIn}<p class="mb-3 rounded-lg bg-warning-wash px-3 py-2 text-warning-text">
						You need none as long as you are alone here and nobody reaches this from elsewhere. With a password that
						ends for good: from then on everybody signs in.
					</p>{/if}
				<form
					class="flex flex-col gap-3"
					onsubmit={(event) => {
						event.preventDefault();
						void secure();
					}}
				>
					{#if data.hasPassword}<label class="flex flex-col gap-1"
							>Password as it was<input
								class="field"
								type="password"
								autocomplete="current-password"
								maxlength="128"
								required
								bind:value={old}
							/></label
						>{/if}
					<PasswordFields isNew label={data.hasPassword ? 'New password' : 'Password'} bind:username bind:password />
					{#if securing.fault}<p class="text-error" role="alert">{securing.fault}</p>{/if}
					<div><Button primary type="submit" disabled={securing.isBusy}>Sign in by this from now on</Button></div>
				</form>
			</section>
			<SecondFactor hasPassword={data.hasPassword} hasSecond={data.hasSecond} />
			{#if data.provider}
				<section class="card px-5 py-4" aria-labelledby="provider">
					<h2 id="provider" class="mb-3 font-semibold">{data.provider}</h2>
					{#if data.hasProvider}<p>You sign in through it, too.</p>{:else}<Button onclick={throughProvider}
							>Say who you are there…</Button
						>{/if}
				</section>
			{/if}
		</div>
	</div>
</main>
