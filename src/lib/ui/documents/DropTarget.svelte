<script lang="ts">
	/** The whole page takes files; while some are over it, it says so. */
	let { ondrop }: { ondrop: (files: File[]) => void } = $props();
	let depth = $state(0);
	const hasFiles = (event: DragEvent) => !!event.dataTransfer?.types.includes('Files');
</script>

<svelte:window
	ondragenter={(event) => {
		if (hasFiles(event)) depth++;
	}}
	ondragleave={(event) => {
		if (hasFiles(event)) depth = Math.max(0, depth - 1);
	}}
	ondragover={(event) => {
		if (hasFiles(event)) event.preventDefault();
	}}
	ondrop={(event) => {
		if (!hasFiles(event)) return;
		event.preventDefault();
		depth = 0;
		ondrop([...event.dataTransfer!.files]);
	}}
/>

{#if depth > 0}
	<div class="pointer-events-none fixed inset-0 z-40 flex items-center justify-center bg-paper/85">
		<p class="rounded-2xl border-2 border-dashed border-picked bg-sheet px-12 py-10 font-title text-[22px] text-picked">
			Let go to add them here
		</p>
	</div>
{/if}
