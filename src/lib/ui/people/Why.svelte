<script lang="ts">
	import type { Role } from '$lib/workbench/roles.ts';
	import { refusedTo } from './who.ts';

	/** Why what a page is for can only be looked at, where that is so. */
	let { needs }: { needs: Role } = $props();
	const why = $derived(refusedTo(needs));
</script>

{#if why}<p class="border-b border-hairline bg-warning-wash px-5 py-2 text-warning-text" role="note">{why}</p>{/if}
