<script lang="ts">
	/** Seven bars, the top one longest: the mark, and the icon of the rank bar. */
	let { size = 28 }: { size?: number } = $props();
	const lengths = [30, 26, 22, 18.5, 15, 12, 9];
</script>

<svg width={size} height={size} viewBox="0 0 30 30" aria-hidden="true" fill="currentColor">
	{#each lengths as length, i (i)}<rect x="0" y={1 + i * 4.2} width={length} height="2.4" />{/each}
</svg>
