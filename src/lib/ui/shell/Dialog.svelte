<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import type { Snippet } from 'svelte';

	/** A dialog in the manner of the house: a question as its title, its answers at the foot. */
	let {
		open = $bindable(),
		title,
		children,
		answers,
		wide = false
	}: { open: boolean; title: string; children: Snippet; answers: Snippet; wide?: boolean } = $props();
</script>

<Modal
	bind:open
	{title}
	size={wide ? 'lg' : 'sm'}
	classes={{ header: 'font-title px-5 py-3 text-ink', body: 'px-5 py-4 text-ink', footer: 'px-5 py-3 justify-end' }}
>
	{@render children()}
	{#snippet footer()}
		<div class="flex w-full justify-end gap-2">{@render answers()}</div>
	{/snippet}
</Modal>
