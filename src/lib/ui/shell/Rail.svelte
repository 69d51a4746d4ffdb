<script lang="ts">
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import ChartOutline from 'flowbite-svelte-icons/ChartOutline.svelte';
	import FileLinesOutline from 'flowbite-svelte-icons/FileLinesOutline.svelte';
	import ForwardOutline from 'flowbite-svelte-icons/ForwardOutline.svelte';
	import GridPlusOutline from 'flowbite-svelte-icons/GridPlusOutline.svelte';
	import HomeOutline from 'flowbite-svelte-icons/HomeOutline.svelte';
	import InboxOutline from 'flowbite-svelte-icons/InboxOutline.svelte';
	import SwatchbookOutline from 'flowbite-svelte-icons/SwatchbookOutline.svelte';
	import UserOutline from 'flowbite-svelte-icons/UserOutline.svelte';
	import { call } from '../api.ts';
	import { notifyError } from '../notices.svelte.ts';
	import Mark from './Mark.svelte';
	import { THEMES, themeOf, wearTheme, type Theme } from './theme.ts';

	const who = $derived(page.data.who!);
	let theme = $state<Theme>('system');
	onMount(() => {
		theme = themeOf(document.documentElement.dataset.theme);
	});
	async function workIn(house: string) {
		try {
			await call('PUT', '/api/session', { house });
			location.assign('/');
		} catch (error) {
			notifyError(error);
		}
	}
	const next = $derived(THEMES[(THEMES.indexOf(theme) + 1) % THEMES.length]!);
	const THEME_WORDS: Record<Theme, string> = { system: 'as the system has them', light: 'by day', dark: 'by night' };
	const THEME_SHORT: Record<Theme, string> = { system: 'System', light: 'Day', dark: 'Night' };
	const places = [
		{ href: '/', name: 'Desk', icon: InboxOutline },
		{ href: '/documents', name: 'Documents', icon: FileLinesOutline },
		{ href: '/stylebook', name: 'Stylebook', icon: SwatchbookOutline },
		{ href: '/starters', name: 'Starters', icon: GridPlusOutline },
		{ href: '/census', name: 'Census', icon: ChartOutline },
		{ href: '/runs', name: 'Runs', icon: ForwardOutline },
		{ href: '/house', name: 'House', icon: HomeOutline }
	];
</script>

<nav aria-label="Places" class="on-dark flex w-17 shrink-0 flex-col items-center gap-1 bg-rail py-2.5">
	<a href="/" aria-label="Heptarch" class="mb-4 p-1 text-mark"><Mark /></a>
	{#each places as { href, name, icon: Icon } (href)}
		{@const here = href === '/' ? page.url.pathname === '/' : page.url.pathname.startsWith(href)}
		<a
			{href}
			aria-current={here ? 'page' : undefined}
			class={[
				'flex w-15 flex-col items-center gap-0.5 rounded-lg py-1.5 text-[11px] hover:text-white',
				here ? 'bg-rail-on text-white' : 'text-rail-text'
			]}
		>
			<Icon class="h-5 w-5" />{name}
		</a>
	{/each}
	{#if who.houses.length > 1}
		<select
			class="mt-auto w-15 truncate rounded-lg border-0 bg-rail py-1 ps-1 pe-4 text-[11px] text-rail-text hover:text-white"
			aria-label="The house that you work in"
			title={who.houseName}
			value={who.house}
			onchange={(event) => workIn(event.currentTarget.value)}
		>
			{#each who.houses as { id, name } (id)}<option class="text-ink" value={id}>{name}</option>{/each}
		</select>
	{/if}
	<a
		href="/me"
		aria-current={page.url.pathname === '/me' ? 'page' : undefined}
		class={[
			who.houses.length < 2 && 'mt-auto',
			'flex w-15 flex-col items-center gap-0.5 rounded-lg py-1.5 text-[11px] hover:text-white',
			page.url.pathname === '/me' ? 'bg-rail-on text-white' : 'text-rail-text'
		]}
		title="{who.name}, {who.role} of {who.houseName}"
	>
		<UserOutline class="h-5 w-5" /><span class="w-full truncate text-center">{who.name}</span>
	</a>
	<button
		type="button"
		class=" flex w-15 flex-col items-center gap-0.5 rounded-lg py-1.5 text-[11px] text-rail-text hover:text-white"
		aria-label="Colours: {THEME_WORDS[theme]}; change to {THEME_WORDS[next]}"
		title="Colours: {THEME_WORDS[theme]}"
		onclick={() => wearTheme((theme = next))}
	>
		<span class="flex h-5 w-5 items-center justify-center" aria-hidden="true"
			><span
				class={['h-3.5 w-3.5 rounded-full border border-current', theme === 'dark' && 'bg-current']}
				style={theme === 'system' ? 'background:linear-gradient(90deg, transparent 50%, currentColor 50%)' : ''}
			></span></span
		>{THEME_SHORT[theme]}
	</button>
</nav>

<style>
	a:focus-visible {
		outline-color: var(--color-mark);
	}
</style>
