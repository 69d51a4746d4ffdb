<script lang="ts">
	import type { Line } from '$lib/core/history.ts';
	import type { ListedStep } from './steps.ts';

	/** Every step, newest first: what was done, by whom and when where that is known; any of them can be gone to. */
	let { line, onmove }: { line: Line<ListedStep>; onmove: (to: number) => unknown } = $props();
	const steps = $derived(line.steps.map((step, at) => ({ ...step, at })).toReversed());
	const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
</script>

<ol>
	{#each steps as { label, by, when, at } (at)}
		<li>
			<button
				type="button"
				class={[
					'flex w-full items-baseline gap-3 rounded px-2 py-1 text-start hover:bg-desk',
					at === line.at && 'bg-picked-wash font-semibold text-picked',
					at > line.at && 'text-quiet'
				]}
				aria-current={at === line.at ? 'step' : undefined}
				title={at > line.at ? 'Undone; choose it to do it again' : undefined}
				onclick={() => onmove(at)}
				><span class={['min-w-0', at > line.at && 'line-through']}>{label}</span>{#if when}<span
						class="ms-auto shrink-0 text-[12px] font-normal text-quiet"
						>{by ? `${by}, ` : ''}<time datetime={when}>{moment.format(new Date(when))}</time></span
					>{/if}</button
			>
		</li>
	{/each}
</ol>
