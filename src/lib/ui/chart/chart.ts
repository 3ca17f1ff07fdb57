/** Only what the charts here use of the chart library. */
import { BarChart, LineChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components';
import { init, use, type EChartsType } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

use([
  BarChart,
  LineChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  MarkLineComponent,
  AriaComponent,
  SVGRenderer,
]);

/**
 * An empty chart that fills an element.
 * @public asked for where a chart is first needed.
 */
export const startChart = (element: HTMLElement): EChartsType => init(element, null, { renderer: 'svg' });
