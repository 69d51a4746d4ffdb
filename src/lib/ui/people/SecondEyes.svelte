<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { call } from '$lib/ui/api.ts';
	import { notifyError } from '$lib/ui/notices.svelte.ts';
	import { refusedTo } from './who.ts';

	/** Whether an edition is published by somebody else than who proposed it; the keeper says so. */
	let { asks }: { asks: boolean } = $props();
	const why = $derived(refusedTo('keeper'));

	async function set(to: boolean) {
		try {
			await call('PUT', '/api/house/eyes', { asks: to });
		} catch (error) {
			notifyError(error);
		}
		await invalidate('heptarch:house');
	}
</script>

<label class="flex items-start gap-2" title={why}
	><input
		type="checkbox"
		class="mt-0.5 rounded-sm text-picked"
		checked={asks}
		disabled={why !== undefined}
		onchange={(event) => set(event.currentTarget.checked)}
	/><span
		>An edition wants a second pair of eyes
		<span class="block text-quiet"
			>One designer proposes it; another one sees what it changes, and publishes it or sends it back with a note.</span
		></span
	></label
>
