<script lang="ts">
	import { invalidate, invalidateAll } from '$app/navigation';
	import { plural } from '$lib/core/words.ts';
	import { call } from '$lib/ui/api.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import LinkDialog from '$lib/ui/people/LinkDialog.svelte';
	import RoleChoice from '$lib/ui/people/RoleChoice.svelte';
	import { Once } from '$lib/ui/people/once.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { may, ROLES, ROLE_WORDS, whyNot, type Role } from '$lib/workbench/roles.ts';

	let { data } = $props();
	const who = $derived(data.who!);
	const isKeeper = $derived(may(who.role, 'keeper'));
	const why = $derived(isKeeper ? undefined : whyNot(who.role, 'keeper'));
	let isInviting = $state(false);
	let name = $state('');
	let role = $state<Role>('author');
	let link = $state<{ for: string; href: string }>();
	let isShown = $state(false);
	let leaving = $state<{ id: string; name: string }>();
	let isAsked = $state(false);
	const once = new Once();
	const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' });

	function show(to: string, href: string) {
		link = { for: to, href };
		isShown = true;
	}
	async function invite() {
		await once.do(async () => {
			const { link: href } = await call('POST', '/api/house/invitations', { role, ...(name.trim() && { name }) });
			isInviting = false;
			show(name.trim() || 'whoever you invite', href);
			name = '';
			await invalidateAll();
		});
	}
	/** Does something of a person; what the list shows is what there is, also where it could not be done. */
	async function change(work: () => Promise<unknown>) {
		try {
			await work();
		} catch (error) {
			notifyError(error);
		}
		await invalidateAll();
	}
	const setRole = (id: string, to: Role) => change(() => call('PUT', `/api/house/people/${id}`, { role: to }));
	const takeBack = (id: string) => change(() => call('DELETE', `/api/house/invitations/${id}`));
	const withoutCode = (id: string) => change(() => call('DELETE', `/api/house/people/${id}/second`));
	const linkFor = (id: string, called: string) =>
		change(async () => show(called, (await call('POST', `/api/house/people/${id}/link`)).link));
	const leave = ({ id, name: called }: { id: string; name: string }) =>
		change(async () => {
			isAsked = false;
			await call('DELETE', `/api/house/people/${id}`);
			notify(`${called} no longer belongs to ${who.houseName}. What they made stays.`);
			await invalidate('heptarch:people');
		});
</script>

<svelte:head><title>People · Heptarch</title></svelte:head>
<TopBar title="People">
	{#snippet facts()}
		<span class="chip">{plural(data.members.length, 'person', 'people')} in {who.houseName}</span>
	{/snippet}
	{#snippet actions()}
		<Button href="/house">House</Button>
		<Button href="/house/log" needs="keeper">Log</Button>
		<Button primary needs="keeper" onclick={() => (isInviting = true)}>Invite somebody…</Button>
	{/snippet}
</TopBar>

<main class="flex-1 overflow-y-auto px-5 py-5">
	<table class="w-full max-w-5xl">
		<thead class="text-quiet"
			><tr class="border-b border-hairline"
				><th class="py-1.5 text-start font-medium">Person</th><th class="py-1.5 text-start font-medium">Signs in by</th
				><th class="py-1.5 text-start font-medium">Role</th><th class="py-1.5 text-start font-medium">Since</th><th
					><span class="sr-only">What can be done</span></th
				></tr
			></thead
		>
		<tbody>
			{#each data.members as { id, name: called, username, role: now, since, hasSecond } (id)}
				<tr class="border-b border-hairline">
					<td class="py-2 pe-4 font-semibold"
						>{called}{#if id === who.person}<span class="ms-2 chip">you</span>{/if}</td
					>
					<td class="pe-4 text-quiet">{username ?? 'no password yet'}{hasSecond ? ' and a code' : ''}</td>
					<td class="pe-4">
						<select
							class="field"
							aria-label="Role of {called}"
							title={why ?? ROLE_WORDS[now]}
							value={now}
							disabled={!isKeeper}
							onchange={(event) => setRole(id, event.currentTarget.value as Role)}
						>
							{#each ROLES as one (one)}<option value={one}>{one}</option>{/each}
						</select>
					</td>
					<td class="pe-4 text-quiet tabular-nums">{date.format(new Date(since))}</td>
					<td class="py-2">
						<div class="flex justify-end gap-2">
							{#if hasSecond}<Button small needs="keeper" onclick={() => withoutCode(id)}>Without the code</Button>{/if}
							<Button small needs="keeper" onclick={() => linkFor(id, called)}>Link for a new password…</Button>
							<Button
								small
								needs="keeper"
								onclick={() => {
									leaving = { id, name: called };
									isAsked = true;
								}}>Take out of the house…</Button
							>
						</div>
					</td>
				</tr>
			{/each}
		</tbody>
	</table>

	{#if data.invited.length}
		<h2 class="mt-8 mb-2 font-semibold">Invited, not here yet</h2>
		<ul class="flex max-w-5xl flex-col gap-1.5">
			{#each data.invited as { id, name: called, role: as, until } (id)}
				<li class="flex items-center gap-3 border-b border-hairline py-1.5">
					<span class="flex-1">{called ?? 'Somebody'} as {as}</span>
					<span class="text-quiet">the link leads in until {date.format(new Date(until))}</span>
					<Button small onclick={() => takeBack(id)}>Take it back</Button>
				</li>
			{/each}
		</ul>
	{/if}

	<dl class="mt-10 grid max-w-3xl grid-cols-[110px_1fr] gap-y-1.5 text-quiet">
		{#each ROLES as one, i (one)}
			<dt class="font-semibold text-ink">{one}</dt>
			<dd>{i ? 'may also ' : 'may '}{ROLE_WORDS[one]}</dd>
		{/each}
	</dl>
</main>

<Dialog bind:open={isInviting} title="Invite somebody into {who.houseName}">
	<form
		id="invite"
		class="flex flex-col gap-4"
		onsubmit={(event) => {
			event.preventDefault();
			void invite();
		}}
	>
		{#if !who.isSignedIn}<p class="rounded-lg bg-warning-wash px-3 py-2 text-warning-text">
				From now on, and for good, everybody signs in here; so do you. You stay signed in in this browser: give yourself
				a password next, under your name on the left.
			</p>{/if}
		<label class="flex flex-col gap-1"
			>Their name, if you know it<input class="field" maxlength="100" bind:value={name} /></label
		>
		<RoleChoice bind:role />
		{#if once.fault}<p class="text-error" role="alert">{once.fault}</p>{/if}
	</form>
	{#snippet answers()}
		<Button onclick={() => (isInviting = false)}>Not now</Button>
		<Button primary type="submit" form="invite" disabled={once.isBusy}>Make the link</Button>
	{/snippet}
</Dialog>

{#if link}<LinkDialog bind:open={isShown} to={link.for} href={link.href} />{/if}

<Dialog bind:open={isAsked} title="Take {leaving?.name} out of {who.houseName}?">
	<p>They no longer see anything of the house, at once. What they made stays, with their name on it.</p>
	{#snippet answers()}
		<Button onclick={() => (isAsked = false)}>Keep them</Button>
		<Button primary onclick={() => leave(leaving!)}>Take them out</Button>
	{/snippet}
</Dialog>
