<script lang="ts">
	import type { Snippet } from 'svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import type { Role } from '$lib/workbench/roles.ts';
	import type { ClassValue, HTMLAnchorAttributes, HTMLButtonAttributes } from 'svelte/elements';

	/**
	 * Does something, or leads somewhere where it has an `href`. A screen has one primary button. Flowbite's own button is
	 * not used beneath: all that it adds to the element is a look, which would have to be undone.
	 */
	type Props = Omit<HTMLButtonAttributes & HTMLAnchorAttributes, 'class' | 'type'> & {
		primary?: boolean;
		/** For lines of a panel. */
		small?: boolean;
		type?: 'button' | 'submit';
		class?: ClassValue;
		/** Greyed, with the reason, for whoever is less than this in the house. */
		needs?: Role;
		children: Snippet;
	};
	let {
		primary = false,
		small = false,
		type = 'button',
		class: outer,
		href,
		needs,
		children,
		...rest
	}: Props = $props();
	const why = $derived(needs && refusedTo(needs));
	const classes: ClassValue = $derived(['button', primary && 'primary', small && 'small', outer]);
</script>

{#if why !== undefined}
	<button {type} {...rest} class={classes} disabled title={why}>{@render children()}</button>
{:else if href !== undefined}
	<a {href} {...rest} class={classes}>{@render children()}</a>
{:else}
	<button {type} {...rest} class={classes}>{@render children()}</button>
{/if}
