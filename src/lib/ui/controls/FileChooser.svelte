<script lang="ts">
	/** Lets a person choose files; nothing of it is seen, `choose` opens it. The same file can be chosen twice. */
	let { label, accept, onchoose }: { label: string; accept: string; onchoose: (files: readonly File[]) => unknown } =
		$props();
	let input: HTMLInputElement;

	export const choose = () => input.click();
</script>

<input
	bind:this={input}
	type="file"
	multiple
	{accept}
	class="hidden"
	aria-label={label}
	onchange={() => {
		void onchoose([...(input.files ?? [])]);
		input.value = '';
	}}
/>
