<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Role } from '$lib/workbench/roles.ts';
	import { refusedTo } from './who.ts';

	/** What is for a role at least: greyed for everybody else, as HTML (4.10.15) disables all of a `fieldset`. */
	let { needs, children }: { needs: Role; children: Snippet } = $props();
	const why = $derived(refusedTo(needs));
</script>

<fieldset class="contents" disabled={why !== undefined}>{@render children()}</fieldset>
