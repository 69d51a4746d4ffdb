<script lang="ts">
	import type { Snippet } from 'svelte';
	import { writeRows } from '$lib/formats/csv/parse.ts';
	import Button from '../controls/Button.svelte';
	import type { Chart } from './charts.ts';
	import { inksOf, whenThemeChanges, type DrawChart } from './inks.ts';

	/**
	 * A chart with the numbers that it is of in a table beside it, for whoever would rather read or does not see it; both can be
	 * taken out.
	 */
	interface Props {
		title: string;
		/** What is to be seen, as a sentence. */
		lead?: string;
		/** Figures stand at the end. */
		columns: readonly { readonly words: string; readonly isFigure?: boolean }[];
		rows: readonly (readonly (string | number)[])[];
		draw: DrawChart;
		height?: number;
		/** What a row shows of its first column in the place of its words. */
		first?: Snippet<[row: number, words: string]>;
		/** Whatever more is to be done with the chart, once it is there. */
		onready?: (chart: Chart) => void;
		wide?: boolean;
	}
	let { title, lead, columns, rows, draw, height = 220, first, onready, wide = false }: Props = $props();
	const id = $props.id();
	let chart: Chart | undefined;

	/** Draws, and again as the numbers, the theme or the room change. The library comes only where there is a chart. */
	function drawn(element: HTMLElement) {
		let isGone = false;
		let stop = () => {};
		$effect(() => {
			const option = draw;
			const redraw = () => {
				const inks = inksOf(element);
				chart?.setOption(
					{
						animation: false,
						textStyle: { fontFamily: 'Instrument Sans Variable, sans-serif', color: inks.ink },
						...option(inks)
					},
					true
				);
			};
			if (chart) redraw();
			else
				void import('./charts.ts').then(({ drawInto }) => {
					if (isGone) return;
					chart = drawInto(element);
					const room = new ResizeObserver(() => chart?.resize());
					room.observe(element);
					redraw();
					onready?.(chart);
					stop = () => room.disconnect();
				});
			return whenThemeChanges(redraw);
		});
		return () => {
			isGone = true;
			stop();
			chart?.dispose();
			chart = undefined;
		};
	}
	function save(text: string, type: string, ending: string) {
		const link = document.createElement('a');
		link.href = URL.createObjectURL(new Blob([text], { type }));
		link.download = `${title.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, '-')}.${ending}`;
		link.click();
		URL.revokeObjectURL(link.href);
	}
	/** A data URL of SVG holds its text in it. */
	const asSvg = () => decodeURIComponent(chart!.getDataURL({ type: 'svg' }).replace(/^[^,]*,/, ''));
	const asCsv = () =>
		writeRows([columns.map(({ words }) => words), ...rows.map((row) => row.map((cell) => String(cell)))]);
</script>

<section class="card mb-4 px-5 py-4" aria-labelledby={id}>
	<div class="mb-2 flex items-baseline gap-3">
		<h2 {id} class="font-semibold">{title}</h2>
		{#if lead}<p class="min-w-0 flex-1 text-quiet">{lead}</p>{/if}
		<span class="ms-auto flex shrink-0 gap-2">
			<Button small aria-label="{title} as SVG" onclick={() => save(asSvg(), 'image/svg+xml', 'svg')}>SVG</Button>
			<Button small aria-label="{title} as CSV" onclick={() => save(asCsv(), 'text/csv', 'csv')}>CSV</Button>
		</span>
	</div>
	<div class={['grid gap-5', wide ? 'grid-cols-1' : 'grid-cols-[minmax(0,3fr)_minmax(0,2fr)]']}>
		<div style="height:{height}px" aria-hidden="true" data-chart {@attach drawn}></div>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div
			class="overflow-auto"
			style="max-height:{height}px"
			role="region"
			aria-label="{title}, in numbers"
			tabindex="0"
		>
			<table class="w-full">
				<thead class="sticky top-0 bg-sheet text-quiet">
					<tr class="border-b border-hairline">
						{#each columns as { words, isFigure }, c (c)}
							<th
								class={['py-1.5 font-medium whitespace-nowrap', c > 0 && 'ps-4', isFigure ? 'text-end' : 'text-start']}
								>{words}</th
							>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each rows as row, r (r)}
						<tr class="border-b border-hairline last:border-0">
							{#each row as cell, c (c)}
								<td
									class={[
										'py-1',
										c > 0 && 'ps-4 whitespace-nowrap',
										c === 0 && 'w-full max-w-0 truncate',
										columns[c]?.isFigure && 'text-end tabular-nums'
									]}
									>{#if c === 0 && first}{@render first(r, String(cell))}{:else}{cell}{/if}</td
								>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	</div>
</section>
