<script lang="ts">
	import Button from '../controls/Button.svelte';
	import type { Arrivals } from './arrivals.svelte.ts';

	/** Which files are being read, and which were not taken, with why. */
	let { arrivals }: { arrivals: Arrivals } = $props();
	const { reading, failed, refusals } = $derived(arrivals);
</script>

{#if reading.length}
	<div class="mb-3 flex items-center gap-3 rounded-lg border border-hairline bg-sheet px-4 py-2.5" role="status">
		<span class="flex-1"
			>{#if arrivals.all > 1}Reading {arrivals.through + 1} of {arrivals.all} files, “{reading[0]!.file
					.name}”…{:else}Reading “{reading[0]!.file.name}”…{/if}</span
		>
		{#if arrivals.all > 1}<span
				class="h-1.5 w-40 overflow-hidden rounded-full bg-desk"
				role="progressbar"
				aria-label="Files that are through"
				aria-valuemin="0"
				aria-valuemax={arrivals.all}
				aria-valuenow={arrivals.through}
				><span class="block h-full bg-picked" style="width:{(100 * arrivals.through) / arrivals.all}%"></span></span
			>{/if}
		<Button small onclick={() => arrivals.stop()}>Stop</Button>
	</div>
{/if}
{#if failed.length}
	<div
		class="mb-3 flex items-start gap-3 rounded-lg border border-error bg-error-wash px-4 py-2.5 text-error"
		role="alert"
	>
		{#if failed.length === 1}
			<span class="flex-1"><strong>{failed[0]!.file.name}</strong> was not taken. {failed[0]!.reason}</span>
		{:else}
			<details class="flex-1" open={failed.length < 6}>
				<summary class="min-h-6 cursor-pointer"><strong>{failed.length} files</strong> were not taken.</summary>
				<dl class="mt-1.5 max-h-52 overflow-y-auto">
					{#each refusals as [reason, names] (reason)}
						<dt class="mt-1">{reason}</dt>
						<dd class="ms-4"><strong>{names.join(', ')}</strong></dd>
					{/each}
				</dl>
			</details>
		{/if}
		<Button small onclick={() => arrivals.putAwayFailed()}>Put away</Button>
	</div>
{/if}
