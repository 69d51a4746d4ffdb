<script lang="ts">
	import type { Snippet } from 'svelte';
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
		children: Snippet;
	};
	let { primary = false, small = false, type = 'button', class: outer, href, children, ...rest }: Props = $props();
	const classes: ClassValue = $derived(['button', primary && 'primary', small && 'small', outer]);
</script>

{#if href !== undefined}
	<a {href} {...rest} class={classes}>{@render children()}</a>
{:else}
	<button {type} {...rest} class={classes}>{@render children()}</button>
{/if}
