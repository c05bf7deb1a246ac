import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

echarts.use([LineChart, ScatterChart, GridComponent, MarkLineComponent, MarkAreaComponent, SVGRenderer]);

/** Only the parts of ECharts that are drawn here, as SVG: sharp at any zoom. */
export const init = (element: HTMLElement): echarts.ECharts => echarts.init(element, null, { renderer: 'svg' });
