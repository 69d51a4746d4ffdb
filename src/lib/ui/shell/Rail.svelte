<script lang="ts">
	import { page } from '$app/state';
	import FileLinesOutline from 'flowbite-svelte-icons/FileLinesOutline.svelte';
	import ForwardOutline from 'flowbite-svelte-icons/ForwardOutline.svelte';
	import GridPlusOutline from 'flowbite-svelte-icons/GridPlusOutline.svelte';
	import HomeOutline from 'flowbite-svelte-icons/HomeOutline.svelte';
	import SwatchbookOutline from 'flowbite-svelte-icons/SwatchbookOutline.svelte';
	import Mark from './Mark.svelte';

	const places = [
		{ href: '/documents', name: 'Documents', icon: FileLinesOutline },
		{ href: '/stylebook', name: 'Stylebook', icon: SwatchbookOutline },
		{ href: '/starters', name: 'Starters', icon: GridPlusOutline },
		{ href: '/runs', name: 'Runs', icon: ForwardOutline },
		{ href: '/house', name: 'House', icon: HomeOutline }
	];
</script>

<nav aria-label="Places" class="on-dark flex w-17 shrink-0 flex-col items-center gap-1 bg-ink py-2.5">
	<a href="/documents" aria-label="Heptarch" class="mb-4 p-1 text-mark"><Mark /></a>
	{#each places as { href, name, icon: Icon } (href)}
		{@const here = page.url.pathname.startsWith(href)}
		<a
			{href}
			aria-current={here ? 'page' : undefined}
			class={[
				'flex w-15 flex-col items-center gap-0.5 rounded-lg py-1.5 text-[11px] hover:text-sheet',
				here ? 'bg-ink-soft text-sheet' : 'text-hairline'
			]}
		>
			<Icon class="h-5 w-5" />{name}
		</a>
	{/each}
</nav>

<style>
	a:focus-visible {
		outline-color: var(--color-mark);
	}
</style>
