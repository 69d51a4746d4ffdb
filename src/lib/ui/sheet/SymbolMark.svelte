<script lang="ts">
	/** A kind of objects as a mark of two letters, in the manner of a plant key. */
	let { name, lit = false }: { name: string; lit?: boolean } = $props();
	const mark = $derived.by(() => {
		const words = name.split(/[\s_-]+/).filter((word) => word);
		return words.length > 1
			? words[0]!.charAt(0).toUpperCase() + words[1]!.charAt(0).toLowerCase()
			: name.slice(0, 2).replace(/^./, (letter) => letter.toUpperCase());
	});
</script>

<span class={['w-6 shrink-0 font-semibold', lit ? 'text-accent' : 'text-picked']} aria-hidden="true">{mark}</span>
