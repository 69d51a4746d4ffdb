import type { CensusDay } from '$lib/server/census/read.ts';
import type { DrawChart } from './inks.ts';

/** A line over the days on which something changed, of what is worked out of each; days of which nothing is known are left out. */
export function overTime(
	days: readonly CensusDay[],
	name: string,
	of: (day: CensusDay) => number | null,
	most?: number
): DrawChart {
	return (inks) => ({
		grid: { left: 44, right: 16, top: 14, bottom: 26 },
		tooltip: { trigger: 'axis' },
		xAxis: {
			type: 'time',
			minInterval: 86_400_000,
			axisLabel: { color: inks.quiet, hideOverlap: true, formatter: '{d} {MMM}' },
			axisLine: { lineStyle: { color: inks.hairline } }
		},
		yAxis: {
			type: 'value',
			min: 0,
			...(most !== undefined && { max: most }),
			axisLabel: { color: inks.quiet },
			splitLine: { lineStyle: { color: inks.hairline } }
		},
		series: [
			{
				type: 'line',
				name,
				step: 'end',
				symbolSize: 7,
				color: inks.picked,
				data: days.flatMap((day) => {
					const value = of(day);
					return value === null ? [] : [[day.day, value]];
				})
			}
		]
	});
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });
export const dayWords = (day: string): string => DAY.format(new Date(`${day}T00:00Z`));
export const share = (part: number, whole: number): number => (whole ? Math.round((1000 * part) / whole) / 10 : 0);
