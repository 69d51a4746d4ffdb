import { BarChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, BrushComponent, GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { init, use, type EChartsCoreOption, type EChartsType } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([
	BarChart,
	LineChart,
	ScatterChart,
	AriaComponent,
	BrushComponent,
	GridComponent,
	LegendComponent,
	TooltipComponent,
	SVGRenderer
]);

export type { EChartsCoreOption as ChartOption, EChartsType as Chart };

/** Draws a chart into an element, in vectors: what is seen is what is taken out as SVG. */
export const drawInto = (element: HTMLElement): EChartsType => init(element, null, { renderer: 'svg' });
