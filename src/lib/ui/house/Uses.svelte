<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import Button from '../controls/Button.svelte';

	/** Where something of the house is named, and how to be rid of it: by another in its place, or for good where nobody names it. */
	interface Props {
		what: string;
		name: string;
		uses: readonly { id: string; name: string; count: number }[];
		others: readonly string[];
		onremove: (instead: string | undefined) => void;
	}
	let { what, name, uses, others, onremove }: Props = $props();
	let instead = $state('');
</script>

<h3 class="mt-4 mb-1 font-semibold">Where it is used</h3>
<ul>
	{#each uses as use (use.id)}
		<li class="flex border-b border-hairline py-1 last:border-0">
			<a class="hover:underline" href="/stylebook/{use.id}">{use.name}</a><span class="ms-auto text-quiet tabular-nums"
				>{plural(use.count, 'place')}</span
			>
		</li>
	{:else}
		<li class="text-quiet">No style names it.</li>
	{/each}
</ul>
<div class="mt-4 flex items-center gap-2">
	{#if uses.length}
		<select class="field min-w-0 flex-1" aria-label="What stands in its place" bind:value={instead}>
			<option value="">replace by…</option>
			{#each others as other (other)}<option value={other}>{other}</option>{/each}
		</select>
		<Button small disabled={!instead} onclick={() => onremove(instead)}>Replace {name}</Button>
	{:else}
		<Button small onclick={() => onremove(undefined)}>Take the {what} out</Button>
	{/if}
</div>
