<script lang="ts">
	import CloseOutline from 'flowbite-svelte-icons/CloseOutline.svelte';
	import { dismiss, notices } from '../notices.svelte.ts';
</script>

<div
	class="pointer-events-none fixed inset-x-0 bottom-14 z-50 flex flex-col items-center gap-2 px-4"
	role="status"
	aria-live="polite"
>
	{#each notices.list as { id, kind, text, action } (id)}
		<div
			class={[
				'pointer-events-auto flex max-w-2xl items-start gap-3 rounded-lg border px-4 py-2.5 shadow-lg',
				kind === 'error' ? 'border-error bg-error-wash text-error' : 'border-hairline bg-ink text-sheet'
			]}
			role={kind === 'error' ? 'alert' : undefined}
		>
			<span>{text}</span>
			{#if action}<button
					type="button"
					class="font-semibold underline"
					onclick={() => {
						dismiss(id);
						action.run();
					}}>{action.words}</button
				>{/if}
			<button type="button" class="-me-1 rounded p-0.5" aria-label="Put this message away" onclick={() => dismiss(id)}
				><CloseOutline class="h-4 w-4" /></button
			>
		</div>
	{/each}
</div>
