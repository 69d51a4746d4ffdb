<script lang="ts">
	import { parseScale, UNITS, type Sheet, type SheetAnswer, type SheetUnit } from '$lib/formats/svg/sheet.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	/** At which scale the sheet is drawn, and what its unit is on the ground, where the file does not say or says otherwise. */
	let {
		open = $bindable(),
		sheet,
		said,
		onset
	}: { open: boolean; sheet: Sheet; said: SheetAnswer | undefined; onset: (answer: SheetAnswer) => void } = $props();
	let scale = $state('');
	let unit = $state<SheetUnit | ''>('');
	$effect(() => {
		if (!open) return;
		scale = `1:${sheet.scale}`;
		unit = said?.unit ?? '';
	});
	const parsed = $derived(parseScale(scale));
	const UNIT_WORDS: Record<SheetUnit, string> = {
		mm: 'millimetre',
		cm: 'centimetre',
		m: 'metre',
		in: 'inch',
		ft: 'foot'
	};
</script>

<Dialog bind:open title="Scale of the sheet">
	<p class="text-quiet">
		{sheet.saysSize
			? `The sheet is ${Math.round(sheet.width)} × ${Math.round(sheet.height)} mm of paper.`
			: 'The file does not say how large the sheet is on paper.'} Tables keep their size on paper, whatever the scale.
	</p>
	<label class="block">Scale<input class="field mt-1 w-full" bind:value={scale} placeholder="1:50" /></label>
	{#if scale.trim() && !parsed}<p class="text-error">Write the scale as 1:50.</p>{/if}
	<label class="block"
		>One unit of the drawing is
		<select class="field mt-1 w-full" bind:value={unit}>
			<option value="">what the file’s size says</option>
			{#each Object.keys(UNITS) as SheetUnit[] as name (name)}<option value={name}
					>one {UNIT_WORDS[name]} on the ground</option
				>{/each}
		</select></label
	>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Leave it</Button>
		<Button
			primary
			disabled={!parsed}
			onclick={() => {
				open = false;
				onset({ scale: parsed!, ...(unit && { unit }) });
			}}>Set the scale</Button
		>
	{/snippet}
</Dialog>
