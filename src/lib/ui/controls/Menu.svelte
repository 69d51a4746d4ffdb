<script lang="ts">
	import Popover from './Popover.svelte';
	import { roving } from './roving.ts';

	interface Entry {
		readonly name: string;
		/** What it is for. */
		readonly words?: string;
		/** A file to take. */
		readonly href: string;
	}
	/** Files to take one of, behind one button. Arrow keys lead from one to the next. */
	let { words, entries }: { words: string; entries: readonly Entry[] } = $props();
</script>

<Popover buttonClass="button" class="w-72 p-1.5!">
	{#snippet button()}{words}{/snippet}
	{#snippet children(close)}
		<div
			role="menu"
			tabindex="-1"
			aria-label={words}
			{@attach roving('menuitem', { isChosen: false })}
			{@attach (menu) => menu.querySelector<HTMLElement>('[role=menuitem]')?.focus()}
		>
			{#each entries as { href, name, words: about }, index (href)}
				<a
					class="block rounded px-2.5 py-1.5 hover:bg-desk"
					role="menuitem"
					tabindex={index ? -1 : 0}
					{href}
					download
					onclick={close}
					><strong class="block font-semibold">{name}</strong>{#if about}<span class="text-[12px] text-quiet"
							>{about}</span
						>{/if}</a
				>
			{/each}
		</div>
	{/snippet}
</Popover>
