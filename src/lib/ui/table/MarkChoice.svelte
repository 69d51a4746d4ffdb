<script lang="ts">
	import { readFigure } from '$lib/core/values/figure.ts';
	import type { DecimalMark } from '$lib/core/values/parse.ts';
	import Button from '../controls/Button.svelte';
	import Segmented from '../controls/Segmented.svelte';

	/** Which mark parts the decimals of a table's figures; a question with two answers where nothing tells. */
	interface Props {
		mark: DecimalMark;
		/** A figure that can be read in two ways. */
		doubt: string | undefined;
		isSaid: boolean;
		onmark: (mark: DecimalMark) => void;
	}
	let { mark, doubt, isSaid, onmark }: Props = $props();

	/** A figure as it is read with a mark, written so that it cannot be misread. */
	const readAs = (text: string, as: DecimalMark): string => {
		const [whole, fraction] = (readFigure(text, as)?.amount.toPlain() ?? 'nothing').split('.');
		return fraction ? `${whole}${as}${fraction}` : whole!.replace(/\B(?=(\d{3})+$)/g, '\u202F');
	};
</script>

{#if doubt !== undefined}
	<section
		class="rounded-lg border border-hairline bg-warning-wash px-3 py-2"
		aria-label="Doubt about the decimal mark"
	>
		<h4 class="font-semibold text-warning-text">“{doubt}” can be read in two ways</h4>
		<p class="mb-1.5 text-quiet">
			It is read as {readAs(doubt, mark)}. Nothing in the table tells which mark parts the decimals.
		</p>
		<div class="flex flex-wrap gap-1.5">
			{#each ['.', ','] as const as option (option)}
				<Button small onclick={() => onmark(option)}>It is {readAs(doubt, option)}</Button>
			{/each}
		</div>
	</section>
{:else}
	<div class="flex flex-wrap items-center gap-x-3 gap-y-1">
		<span>One and a half is written</span>
		<Segmented
			class="shrink-0"
			label="Decimal mark"
			options={[
				['.', '1.5'],
				[',', '1,5']
			]}
			value={mark}
			onchange={onmark}
		/>
		{#if isSaid}<span class="text-[12px] text-quiet">you said so</span>{/if}
	</div>
{/if}
