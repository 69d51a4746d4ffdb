<script lang="ts">
	import Button from '../controls/Button.svelte';
	import Dialog from '../shell/Dialog.svelte';

	/** Something secret that is shown now and never again. */
	let {
		open = $bindable(),
		title,
		label,
		secret
	}: { open: boolean; title: string; label: string; secret: string } = $props();
	let field: HTMLInputElement;
	async function copy() {
		field.select();
		await navigator.clipboard?.writeText(secret);
	}
</script>

<Dialog bind:open {title}>
	<p class="mb-2">It is shown now and kept nowhere. Put it where the program finds it, and nobody else does.</p>
	<div class="flex gap-2">
		<input
			class="field min-w-0 flex-1 font-mono text-[12px]"
			readonly
			aria-label={label}
			value={secret}
			bind:this={field}
		/>
		<Button onclick={copy}>Copy</Button>
	</div>
	{#snippet answers()}
		<Button primary onclick={() => (open = false)}>I have it</Button>
	{/snippet}
</Dialog>
