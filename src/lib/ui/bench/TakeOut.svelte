<script lang="ts">
	/** The files that a style can be taken out as. */
	let { id }: { id: string } = $props();
	let isOpen = $state(false);
	let box: HTMLElement;
	const FILES = $derived([
		{ href: `/api/styles/${id}/file`, name: 'Style file', words: 'with its bases, inks and type roles' },
		{ href: `/api/styles/${id}/css`, name: 'CSS', words: 'for web pages; inks as custom properties' },
		{ href: `/api/template?styles=${id}`, name: 'Word-processing template', words: 'DOCX in which authors pick it' }
	]);
</script>

<svelte:window onpointerdown={(event) => isOpen && !box.contains(event.target as Node) && (isOpen = false)} />
<div bind:this={box} class="relative">
	<button type="button" class="button" aria-expanded={isOpen} onclick={() => (isOpen = !isOpen)}>Take it out…</button>
	{#if isOpen}
		<ul class="absolute end-0 z-30 mt-1 w-72 rounded-lg border border-hairline bg-sheet p-1.5 shadow-lg">
			{#each FILES as { href, name, words } (href)}
				<li>
					<a class="block rounded px-2.5 py-1.5 hover:bg-desk" {href} download onclick={() => (isOpen = false)}
						><strong class="block font-semibold">{name}</strong><span class="text-[12px] text-quiet">{words}</span></a
					>
				</li>
			{/each}
		</ul>
	{/if}
</div>
