<script lang="ts">
	import Button from '$lib/ui/controls/Button.svelte';
	import { notify } from '$lib/ui/notices.svelte.ts';
	import Dialog from '$lib/ui/shell/Dialog.svelte';

	/** A one-time link, shown once. */
	let { open = $bindable(), to, href }: { open: boolean; to: string; href: string } = $props();
	let field = $state<HTMLInputElement>();

	/** Copied where the browser lets a page do that; else it is there to be copied. */
	async function copy() {
		field?.select();
		try {
			await navigator.clipboard.writeText(href);
			notify('The link is copied.');
		} catch {
			notify('The link is marked; Ctrl+C copies it.');
		}
	}
</script>

<Dialog bind:open title="Give this link to {to}">
	<p class="mb-3">It leads in once, and is not shown again: whoever has it can come in by it.</p>
	<input
		bind:this={field}
		class="field w-full font-mono text-[12.5px]"
		aria-label="The link"
		readonly
		value={href}
		onfocus={(event) => event.currentTarget.select()}
	/>
	{#snippet answers()}
		<Button onclick={copy}>Copy it</Button>
		<Button primary onclick={() => (open = false)}>I have it</Button>
	{/snippet}
</Dialog>
