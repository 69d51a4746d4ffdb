import type { ChartInks, DrawChart } from './inks.ts';

interface Bars {
	readonly name: string;
	readonly ink: keyof ChartInks;
	readonly values: readonly number[];
}

/** Lying bars, the first at the top; several of one row stand one after the other. */
export function lyingBars(rows: readonly string[], bars: readonly Bars[]): DrawChart {
	return (inks) => ({
		// Several are told apart without their colours, too.
		...(bars.length > 1 && { aria: { enabled: true, decal: { show: true }, label: { enabled: false } } }),
		grid: { left: 8, right: 24, top: bars.length > 1 ? 30 : 8, bottom: 24, containLabel: true },
		tooltip: { trigger: 'axis', axisPointer: { type: 'shadow' } },
		...(bars.length > 1 && { legend: { top: 0, left: 0, textStyle: { color: inks.ink }, itemHeight: 10 } }),
		xAxis: {
			type: 'value',
			minInterval: 1,
			axisLabel: { color: inks.quiet, hideOverlap: true },
			splitLine: { lineStyle: { color: inks.hairline } }
		},
		yAxis: {
			type: 'category',
			inverse: true,
			data: [...rows],
			axisLabel: { color: inks.ink, width: 150, overflow: 'truncate' },
			axisTick: { show: false },
			axisLine: { lineStyle: { color: inks.hairline } }
		},
		series: bars.map(({ name, ink, values }) => ({
			type: 'bar',
			name,
			stack: 'all',
			color: inks[ink],
			// A pale bar has a rim, so that it is seen by itself.
			itemStyle: { borderColor: inks.quiet, borderWidth: ink === 'hairline' ? 1 : 0 },
			barMaxWidth: 22,
			data: [...values]
		}))
	});
}
