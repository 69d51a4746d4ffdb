<script lang="ts">
	import { untrack } from 'svelte';
	import { InputError } from '$lib/core/errors.ts';
	import { LINE_PATTERNS } from '$lib/core/style/types.ts';
	import { ISO_WEIGHTS } from '$lib/core/style/words.ts';
	import { fromPoints, parseLength } from '$lib/core/units.ts';
	import { lineStyle } from '../table/paint.ts';
	import type { Pen } from './bench.svelte.ts';
	import InkField from './fields/InkField.svelte';

	/** The pen of the linework mode. */
	let { bench }: { bench: { pen: Pen; readonly inks: Readonly<Record<string, string>> } } = $props();
	let last = $state.raw(
		untrack(() => (bench.pen.draws === 'line' ? bench.pen : { pattern: 'solid', weight: '0.35mm', ink: 'none' }))
	);
	let fault = $state<string>();

	const PATTERNS = LINE_PATTERNS.filter((pattern) => pattern !== 'none');
	const WEIGHTS = ISO_WEIGHTS.slice(1, 6);
	const draws = $derived(bench.pen.draws);
	function line(change: Partial<typeof last>) {
		last = { ...last, ...change };
		bench.pen = { draws: 'line', ...last };
	}
	function typedWeight(text: string) {
		fault = undefined;
		try {
			const weight = text.trim().replace(/^([\d.]+)$/, '$1mm');
			if (parseLength(weight) <= 0) throw new InputError('length', 'A line has some thickness.');
			line({ weight });
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	const sample = (pattern: (typeof PATTERNS)[number]) =>
		lineStyle(
			{ pattern, weight: fromPoints(pattern === 'double' || pattern === 'triple' ? 3 : 1.5), ink: '#2B2233' },
			'across',
			1
		);
</script>

<div
	class="flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-hairline bg-accent-wash px-5 py-2"
	role="group"
	aria-label="Linework"
>
	<div>
		<p class="head">Pen</p>
		<div class="flex gap-1" role="radiogroup" aria-label="Pattern">
			{#each PATTERNS as pattern (pattern)}
				<button
					type="button"
					role="radio"
					aria-checked={draws === 'line' && last.pattern === pattern}
					aria-label={pattern}
					title={pattern}
					class="pick w-10"
					onclick={() => line({ pattern })}><i class="block w-full" style={sample(pattern)}></i></button
				>
			{/each}
		</div>
	</div>
	<div>
		<p class="head">Weight, mm</p>
		<div class="flex gap-1" role="radiogroup" aria-label="Weight">
			{#each WEIGHTS as weight (weight)}
				<button
					type="button"
					role="radio"
					aria-checked={draws === 'line' && last.weight === weight}
					class="pick px-2"
					onclick={() => line({ weight })}>{weight.replace('mm', '')}</button
				>
			{/each}
			<input
				class={['field w-20', fault && 'border-error!']}
				aria-label="Any weight"
				aria-invalid={!!fault}
				title={fault ?? 'Any length: 1.5pt, 0.13mm'}
				value={last.weight}
				onchange={(event) => typedWeight(event.currentTarget.value)}
			/>
		</div>
	</div>
	<div class="w-32">
		<p class="head">Ink</p>
		<InkField value={last.ink} inks={bench.inks} label="Pen ink" onset={(ink) => line({ ink })} isNoneOffered={false} />
	</div>
	<div>
		<p class="head">Or</p>
		<div class="flex gap-1">
			<button
				type="button"
				class="pick px-2"
				aria-pressed={draws === 'none'}
				onclick={() => (bench.pen = { draws: 'none' })}>none</button
			>
			<button
				type="button"
				class="pick px-2"
				aria-pressed={draws === 'untouched'}
				onclick={() => (bench.pen = { draws: 'untouched' })}>untouched</button
			>
		</div>
	</div>
</div>

<style>
	.head {
		margin-bottom: 2px;
		color: var(--color-accent);
		font-size: 12px;
		font-weight: 600;
	}
	.pick {
		display: inline-flex;
		min-height: 28px;
		align-items: center;
		justify-content: center;
		border: 1px solid var(--color-hairline);
		border-radius: 6px;
		background: var(--color-sheet);
		padding-inline: 7px;
	}
	.pick:hover {
		border-color: var(--color-quiet);
	}
	.pick[aria-checked='true'],
	.pick[aria-pressed='true'] {
		border-color: var(--color-accent);
		box-shadow: 0 0 0 1px var(--color-accent);
	}
</style>
