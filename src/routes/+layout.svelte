<script lang="ts">
	import '../app.css';
	import '@fontsource-variable/instrument-sans';
	import '@fontsource-variable/fraunces';
	import '$lib/ui/table/fonts.ts';
	import Notices from '$lib/ui/shell/Notices.svelte';
	import Opening from '$lib/ui/shell/Opening.svelte';
	import { afterNavigate, onNavigate } from '$app/navigation';
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import { focusArrival, keepFocus } from '$lib/ui/shell/focus.ts';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import { thingOf } from '$lib/workbench/live.ts';
	import Rail from '$lib/ui/shell/Rail.svelte';

	let { children, data } = $props();
	/** Pages before the house. */
	const isBefore = $derived(/^\/(sign-in|enter)\b/.test(page.url.pathname));
	const thing = $derived(thingOf(page.url.pathname));
	const isInside = $derived(!!data.who && !isBefore);
	$effect(() => (isInside ? live.watch(thing) : undefined));
	let focus: ReturnType<typeof keepFocus> | undefined;
	onMount(() => {
		focus = keepFocus();
		return focus.stop;
	});
	onNavigate(({ from, to }) => {
		if (from?.url.pathname !== to?.url.pathname) focus?.forget();
	});
	afterNavigate(({ type, from, to }) => {
		if (type !== 'enter' && from?.url.pathname !== to?.url.pathname) focusArrival();
	});
</script>

<div class="flex h-screen overflow-hidden">
	{#if isInside}<Rail />{/if}
	<div class="flex min-w-0 flex-1 flex-col">{@render children()}</div>
</div>
<Opening />
<Notices />
