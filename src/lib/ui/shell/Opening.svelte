<script lang="ts">
	import { goto } from '$app/navigation';
	import { navigating, page } from '$app/state';
	import Button from '../controls/Button.svelte';

	/** Says that a page is on its way where that takes a while, as with a very long document, and lets it be given up. */
	const PAUSE = 600;
	let isSlow = $state(false);
	$effect(() => {
		isSlow = false;
		if (!navigating.to) return;
		const timer = setTimeout(() => (isSlow = true), PAUSE);
		return () => clearTimeout(timer);
	});
	async function stop() {
		// Whoever is here stays here; what was asked for is not worked on any more.
		await goto(page.url, { replaceState: true, noScroll: true, keepFocus: true });
		window.stop();
	}
</script>

{#if isSlow && navigating.to}
	<div
		class="fixed inset-x-0 top-3 z-50 mx-auto flex w-fit items-center gap-3 rounded-lg border border-hairline bg-sheet px-4 py-2 shadow-lg"
		role="status"
	>
		<span class="h-2 w-2 animate-pulse rounded-full bg-picked" aria-hidden="true"></span>
		Opening…
		<Button small onclick={stop}>Stop</Button>
	</div>
{/if}
