import { LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import german from 'echarts/i18n/langDE-obj.js';
import { SVGRenderer } from 'echarts/renderers';
import { pageLanguage } from '../api/page-language';

echarts.use([LineChart, ScatterChart, GridComponent, MarkLineComponent, MarkAreaComponent, SVGRenderer]);

echarts.registerLocale('DE', german);

/** Only the parts of ECharts that are drawn here, as SVG: sharp at any zoom. */
export const init = (element: HTMLElement): echarts.ECharts =>
  echarts.init(element, null, { renderer: 'svg', locale: pageLanguage() === 'de' ? 'DE' : 'EN' });
