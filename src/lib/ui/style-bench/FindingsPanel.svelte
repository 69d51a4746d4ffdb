<script lang="ts">
	import { partWords } from '$lib/core/style/parts.ts';
	import { plural } from '$lib/core/words.ts';
	import { standIn } from '$lib/core/layout/fonts.ts';
	import type { Bench } from './bench.svelte.ts';
	import Button from '../controls/Button.svelte';

	/** What to know about the style while it is designed: what, where, why, and fixes that can be tried on the sheet. */
	let { bench, onclose }: { bench: Bench; onclose: () => void } = $props();

	/** How much wider or narrower the family that was asked for runs than its stand-in, where this machine has it. */
	function widthWords(family: string): string {
		const context = document.createElement('canvas').getContext('2d')!;
		const text = 'Lily court 61 370.00 Subtotal of the season';
		const width = (font: string) => {
			context.font = font;
			return context.measureText(text).width;
		};
		const [onSerif, onMono] = ['serif', 'monospace'].map((fallback) => width(`16px "${family}", ${fallback}`)) as [
			number,
			number
		];
		if (Math.abs(onSerif - onMono) > 0.01)
			return 'This machine does not have it either, so how much wider or narrower it runs cannot be measured here.';
		const difference = Math.round((onSerif / width(`16px "${standIn(family)}"`) - 1) * 100);
		return difference === 0
			? 'Measured on this machine, both run equally wide.'
			: `Measured on this machine, it runs ${Math.abs(difference)} % ${difference > 0 ? 'wider' : 'narrower'} than ${standIn(family)}.`;
	}
</script>

<section
	class="max-h-56 shrink-0 overflow-y-auto border-t border-hairline bg-warning-wash px-5 py-2"
	aria-label="Warnings"
>
	<div class="flex items-center">
		<h2 class="font-semibold text-warning-text">
			{plural(bench.findings.length, 'warning')}
		</h2>
		<button type="button" class="ms-auto text-quiet hover:text-ink" onclick={onclose}>W closes</button>
	</div>
	<ul>
		{#each bench.findings as finding (`${finding.kind} ${finding.words}`)}
			<li class="flex items-center gap-3 border-b border-hairline py-1.5 last:border-0">
				<p class="min-w-0 flex-1">
					<strong class="font-semibold">{finding.words}.</strong>
					<span class="text-quiet"
						>{finding.why}{finding.kind === 'family'
							? ` ${widthWords((finding.args as { family: string }).family)}`
							: ''}</span
					>
				</p>
				{#if finding.at}<Button
						small
						onclick={() => {
							bench.picked = finding.at;
							bench.isTracing = true;
							onclose();
						}}>See it</Button
					>{/if}
				{#if finding.place}<Button small onclick={() => bench.choose(finding.place!)}
						>Go to {partWords(finding.place)}</Button
					>{/if}
				{#each finding.fixes ?? [] as fix (fix.words)}
					<Button
						small
						class="border-warning!"
						title="Point at it to try it"
						onpointerenter={() => bench.tryFix(fix)}
						onpointerleave={() => bench.tryFix(undefined)}
						onfocus={() => bench.tryFix(fix)}
						onblur={() => bench.tryFix(undefined)}
						onclick={() => bench.fix(fix)}>{fix.words}</Button
					>
				{/each}
			</li>
		{:else}
			<li class="text-quiet">Nothing to warn of: text can be read, bands can be told apart, lines will print.</li>
		{/each}
	</ul>
</section>
