<script lang="ts">
	import Dialog from '../shell/Dialog.svelte';
	import { isTyping, runShortcut, type Shortcut } from './shortcuts.ts';
	import Button from './Button.svelte';

	/** The keys of a screen, which act while no dialog is open (those with Ctrl always), and the list of them, which `?` opens. */
	let { list, open = $bindable(false) }: { list: readonly Shortcut[]; open?: boolean } = $props();
	const all = $derived<Shortcut[]>([...list, { keys: ['?', 'F1'], does: 'this list', run: () => (open = true) }]);
	/** What holds everywhere, and needs no key of its own. */
	const EVERYWHERE = [
		{ shown: 'Tab, Shift+Tab', does: 'on to the next thing, and back' },
		{ shown: 'Escape', does: 'close what is open' }
	];

	function press(event: KeyboardEvent) {
		if (event.defaultPrevented) return;
		// A dialog may be on its way out still: undo is not lost to it, while letters are for what it holds.
		const isCovered = !!document.querySelector('dialog[open]');
		if (isCovered && !event.ctrlKey && !event.metaKey) return;
		runShortcut(all, event, isTyping(event));
	}
</script>

<svelte:window onkeydown={press} />
<Dialog bind:open title="Keys of this screen">
	<dl class="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2">
		{#each [...all, ...EVERYWHERE.map((one) => ({ keys: [], ...one }))] as { keys, shown, does }, index (index)}
			{#if does}
				<dt>
					<kbd class="rounded border border-hairline bg-desk px-2 py-0.5 font-sans">{shown ?? keys.join(', ')}</kbd>
				</dt>
				<dd>{does}</dd>
			{/if}
		{/each}
	</dl>
	{#snippet answers()}<Button onclick={() => (open = false)}>Close</Button>{/snippet}
</Dialog>
