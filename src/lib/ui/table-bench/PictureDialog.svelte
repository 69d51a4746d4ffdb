<script lang="ts">
	import type { CellPicture } from '$lib/core/table/content.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** Asks what a picture shows, and how it is to fit, before it is put in. */
	let { picture, ondone }: { picture: CellPicture | undefined; ondone: (picture: CellPicture | undefined) => void } =
		$props();
	let alternative = $state('');
	let fits = $state<CellPicture['fits']>('row');
	let isOpen = $state(false);
	$effect(() => {
		if (!picture) return;
		isOpen = true;
		alternative = picture.alternative;
		fits = picture.fits;
	});
	let isDone = false;
	$effect(() => {
		if (isOpen || !picture) return;
		ondone(isDone ? { ...picture, alternative: alternative.trim(), fits } : undefined);
		isDone = false;
	});
	const put = () => {
		isDone = true;
		isOpen = false;
	};
</script>

<Dialog bind:open={isOpen} title="A picture for this cell">
	{#if picture}<img class="mx-auto mb-3 max-h-40" src={picture.source} alt="" />{/if}
	<label class="block"
		>What does it show? <span class="text-quiet">Read to people who cannot see it.</span>
		<input class="field w-full" aria-label="What the picture shows" bind:value={alternative} /></label
	>
	<Segmented
		class="mt-3"
		label="How it fits"
		options={[
			['row', 'the row takes its height'],
			['cell', 'it takes the cell’s width']
		]}
		value={fits}
		onchange={(way) => (fits = way)}
	/>
	{#snippet answers()}
		<Button onclick={() => (isOpen = false)}>Leave it out</Button>
		<Button primary disabled={!alternative.trim()} onclick={put}>Put it in</Button>
	{/snippet}
</Dialog>
