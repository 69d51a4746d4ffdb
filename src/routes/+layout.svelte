<script lang="ts">
	import '../app.css';
	import '@fontsource-variable/instrument-sans';
	import '@fontsource-variable/fraunces';
	import '$lib/ui/table/fonts.ts';
	import Notices from '$lib/ui/shell/Notices.svelte';
	import Rail from '$lib/ui/shell/Rail.svelte';

	let { children } = $props();
</script>

<div class="flex h-screen overflow-hidden">
	<Rail />
	<div class="flex min-w-0 flex-1 flex-col">{@render children()}</div>
</div>
<Notices />
