<script lang="ts">
	import type { Sender } from '../history.svelte.ts';

	/** Says that a change could not be sent yet, and that it is not lost. */
	let { sender }: { sender: Sender } = $props();
</script>

{#if sender.waiting !== undefined}
	<p class="border-b border-hairline bg-warning-wash px-5 py-1.5 text-warning-text" role="status">
		The server does not answer. One change waits in this browser and will be sent: {sender.waiting}.
	</p>
{/if}
