<script lang="ts">
	import { onMount } from 'svelte';
	import { contentOfCell, cellOf } from '$lib/core/work/table.ts';
	import { cellStyle } from '../table/paint.ts';
	import type { TableBench } from './bench.svelte.ts';
	import { CellText } from './editor.ts';

	/** The cell that is being typed in, in the look that it has; `onleave` says where to go on. */
	let {
		bench,
		area,
		zoom,
		onleave
	}: {
		bench: TableBench;
		area: string;
		zoom: number;
		onleave: (key: 'tab' | 'back' | 'below' | 'stay' | 'drop') => void;
	} = $props();
	let place: HTMLElement;
	let text: CellText | undefined;
	const typing = $derived(bench.typing!);
	const look = $derived(
		bench.appearance.looks[bench.appearance.cellLook[bench.table.slots[typing.r * bench.table.columns + typing.c]!]!]!
	);

	export const content = () => text!.content;
	export const emphasise = (how: Parameters<CellText['emphasise']>[0]) => text?.emphasise(how);

	onMount(() => {
		const { r, c, begin } = typing;
		const cell = cellOf(bench.work, r, c);
		text = new CellText(place, {
			content:
				begin === undefined
					? contentOfCell(cell)
					: begin.split('\n').map((line) => ({ runs: line ? [{ text: line }] : [] })),
			label: `Row ${r + 1}, column ${c + 1}`,
			onleave,
			oninput: (said) => bench.keepTyping(said)
		});
		return () => text?.end();
	});
</script>

<div class="editing" style="grid-area:{area}" data-editing>
	<div bind:this={place} class="text" style={cellStyle(look, zoom, bench.work.dir === 'rtl')}></div>
</div>

<style>
	.editing {
		position: relative;
		z-index: 6;
		display: grid;
		background: var(--color-sheet);
		outline: 2px solid var(--color-accent);
		outline-offset: 1px;
		box-shadow: 0 3px 14px color-mix(in srgb, var(--color-ink) 22%, transparent);
		pointer-events: auto;
	}
	.text {
		display: grid;
		min-width: 60px;
		cursor: text;
	}
	.text :global(.ProseMirror) {
		outline: none;
		white-space: pre-wrap;
		word-wrap: break-word;
	}
	.text :global(.ProseMirror p) {
		margin: 0;
		min-height: 1em;
	}
</style>
