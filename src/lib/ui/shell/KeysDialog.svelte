<script lang="ts">
	import Dialog from './Dialog.svelte';

	let { open = $bindable(), keys }: { open: boolean; keys: readonly (readonly [key: string, does: string])[] } =
		$props();
</script>

<Dialog bind:open title="Keys of this screen">
	<dl class="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2">
		{#each keys as [key, does] (key)}
			<dt><kbd class="rounded border border-hairline bg-desk px-2 py-0.5 font-sans">{key}</kbd></dt>
			<dd>{does}</dd>
		{/each}
	</dl>
	{#snippet answers()}<button type="button" class="button" onclick={() => (open = false)}>Close</button>{/snippet}
</Dialog>
