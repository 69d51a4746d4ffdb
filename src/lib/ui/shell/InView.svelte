<script module lang="ts">
	/** What has come near and is still to be made: one a frame, so that scrolling never waits for many. */
	const waiting: (() => void)[] = [];
	function makeNext() {
		waiting.shift()?.();
		if (waiting.length) requestAnimationFrame(makeNext);
	}
	function makeSoon(make: () => void) {
		waiting.push(make);
		if (waiting.length === 1) requestAnimationFrame(makeNext);
	}
</script>

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
				observer.disconnect();
				makeSoon(() => (isNear = true));
			},
			{ rootMargin: '400px' }
		);
		observer.observe(box);
		return () => observer.disconnect();
	});
</script>

<div
	bind:this={box}
	style={isNear ? `content-visibility:auto;contain-intrinsic-height:auto ${height}px` : `height:${height}px`}
>
	{#if isNear}{@render children()}{/if}
</div>
