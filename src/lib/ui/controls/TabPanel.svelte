<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { ClassValue } from 'svelte/elements';

	/** What the chosen one of `Tabs` shows; both have the same `id`. */
	let {
		id,
		chosen,
		class: outer,
		children
	}: { id: string; chosen: string | number; class?: ClassValue; children: Snippet } = $props();
</script>

<div class={outer} role="tabpanel" id="{id}-panel" aria-labelledby="{id}-{chosen}">{@render children()}</div>
