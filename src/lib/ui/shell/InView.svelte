<script lang="ts">
	import type { Snippet } from 'svelte';

	/** Makes its content only once it comes near the window, and keeps its place until then. */
	let { height, children }: { height: number; children: Snippet } = $props();
	let box: HTMLElement;
	let isNear = $state(false);

	$effect(() => {
		const observer = new IntersectionObserver(
			([entry]) => {
				if (!entry?.isIntersecting) return;
				isNear = true;
				observer.disconnect();
			},
			{ rootMargin: '400px' }
		);
		observer.observe(box);
		return () => observer.disconnect();
	});
</script>

<div bind:this={box} style={isNear ? '' : `height:${height}px`}>
	{#if isNear}{@render children()}{/if}
</div>
