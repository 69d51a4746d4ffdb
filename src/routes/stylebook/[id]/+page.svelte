<script lang="ts">
	import StyleBench from './StyleBench.svelte';

	let { data } = $props();
</script>

<!-- Another style is another bench. -->
{#key data.style.id}<StyleBench {data} />{/key}
