<script lang="ts">
	import { untrack } from 'svelte';
	import { LINE_PATTERNS } from '$lib/core/style/types.ts';
	import { ISO_WEIGHTS } from '$lib/core/style/words.ts';
	import { fromPoints, parseLength, typedLength } from '$lib/core/units.ts';
	import { lineStyle } from '../table/paint.ts';
	import type { Pen } from './bench.svelte.ts';
	import InkField from './fields/InkField.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import type { Parsed } from '../controls/fields.ts';
	import TypedField from '../controls/TypedField.svelte';

	/** The pen of the linework mode. */
	let { bench }: { bench: { pen: Pen; readonly inks: Readonly<Record<string, string>> } } = $props();
	let last = $state.raw(
		untrack(() => (bench.pen.draws === 'line' ? bench.pen : { pattern: 'solid', weight: '0.35mm', ink: 'none' }))
	);

	const PATTERNS = LINE_PATTERNS.filter((pattern) => pattern !== 'none').map((pattern) => [pattern, pattern] as const);
	const WEIGHTS = ISO_WEIGHTS.slice(1, 6);
	const draws = $derived(bench.pen.draws);
	function line(change: Partial<typeof last>) {
		last = { ...last, ...change };
		bench.pen = { draws: 'line', ...last };
	}
	/** A length, in millimetres where no unit is written. */
	function parseWeight(text: string): Parsed<string> {
		const weight = typedLength(text, 'mm');
		try {
			return parseLength(weight) > 0 ? { value: weight } : { fault: 'A line has some thickness.' };
		} catch (error) {
			return { fault: (error as Error).message };
		}
	}
	const sample = (pattern: (typeof PATTERNS)[number][0]) =>
		lineStyle(
			{ pattern, weight: fromPoints(pattern === 'double' || pattern === 'triple' ? 3 : 1.5), ink: '#2B2233' },
			'across',
			1
		);
</script>

<div
	class="pen flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-hairline bg-accent-wash px-5 py-2"
	role="group"
	aria-label="Linework"
>
	<div>
		<p class="head">Pen</p>
		<Segmented
			look="plain"
			class="flex flex-wrap gap-1"
			label="Pattern"
			options={PATTERNS}
			value={draws === 'line' ? (last.pattern as (typeof PATTERNS)[number][0]) : undefined}
			onchange={(pattern) => line({ pattern: pattern! })}
			hint={(pattern) => pattern!}
			optionClass={() => 'pick on-paper w-10'}
		>
			{#snippet option(pattern)}<i class="block w-full" style={sample(pattern!)}></i>{/snippet}
		</Segmented>
	</div>
	<div>
		<p class="head">Weight, mm</p>
		<div class="flex gap-1">
			<Segmented
				look="plain"
				class="flex gap-1"
				label="Weight"
				options={WEIGHTS.map((weight) => [weight, weight.replace('mm', '')] as const)}
				value={draws === 'line' ? last.weight : undefined}
				onchange={(weight) => line({ weight: weight! })}
				optionClass={() => 'pick px-2'}
			/>
			<TypedField
				class="w-20"
				label="Any weight"
				title="Any length: 1.5pt, 0.13mm"
				text={last.weight}
				parse={parseWeight}
				onset={(weight) => line({ weight })}
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
	.pen :global(.pick) {
		display: inline-flex;
		min-height: 28px;
		align-items: center;
		justify-content: center;
		border: 1px solid var(--color-hairline);
		border-radius: 6px;
		background: var(--color-sheet);
		padding-inline: 7px;
	}
	.pen :global(.pick:hover) {
		border-color: var(--color-quiet);
	}
	.pen :global(.pick[aria-checked='true']),
	.pen :global(.pick[aria-pressed='true']) {
		border-color: var(--color-accent);
		box-shadow: 0 0 0 1px var(--color-accent);
	}
</style>
