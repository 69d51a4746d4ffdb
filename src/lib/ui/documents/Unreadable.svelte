<script lang="ts">
	import type { TableState } from '$lib/workbench/state.ts';
	import Button from '../controls/Button.svelte';

	/** Says of a table that what was decided about it cannot be read, and offers to begin it anew; nothing for others. */
	interface Props {
		own: TableState;
		/** What the table is called in a sentence. */
		called: string;
		busy?: boolean;
		onanew: () => unknown;
	}
	let { own, called, busy = false, onanew }: Props = $props();
</script>

{#if own.unreadable}
	<div class="my-2 rounded-lg bg-error-wash px-3 py-2 font-sans text-[13px] text-error" role="alert">
		<p>What was decided about {called} cannot be read ({own.unreadable.why}). It is shown as its file has it.</p>
		<Button small class="mt-1.5" disabled={busy} onclick={onanew}>Begin it anew</Button>
	</div>
{/if}
