<script lang="ts">
	import { formatValue, type Format } from '$lib/core/values/format.ts';
	import { parseValue } from '$lib/core/values/parse.ts';
	import type { PropertyOwner } from './owner.ts';

	/** What the format of the chosen part makes of a few values, in the house's locale. */
	let { bench }: { bench: Pick<PropertyOwner, 'source' | 'house'> } = $props();
	const format = $derived(
		Object.fromEntries(
			['kind', 'currency', 'decimals', 'grouping', 'negative', 'zero', 'unit', 'date'].flatMap((name) => {
				const { value } = bench.source(`format.${name}`);
				return value === undefined ? [] : [[name, value]];
			})
		) as Format
	);
	const samples = $derived(
		format.kind === 'date'
			? ['2031-04-05', '2031-11-30']
			: format.kind === 'percent'
				? ['4.1%', '-2.9%', '0%']
				: ['1234.5', '-86', '0']
	);
	const shown = $derived(samples.flatMap((text) => formatValue(parseValue(text), format, bench.house.locale) ?? []));
</script>

<p class="py-1.5 text-[12px] text-quiet" data-format-sample>
	{#if shown.length}<span class="text-ink tabular-nums">{shown.join('   ')}</span> in {bench.house.locale}{:else}Cells
		keep the text that they were given.{/if}
</p>
