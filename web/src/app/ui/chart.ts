import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, DestroyRef, effect, inject, input, viewChild } from '@angular/core';
import { trimZeros } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';

/**
 * A chart drawn by ECharts, without colour of its own: ink, soft ink and lines are the page's. Loaded only where one
 * is shown.
 */
@Component({
  selector: 'vs-chart',
  template: `<div #canvas class="canvas" role="img" [attr.aria-label]="label()"></div>`,
  styles: `
    .canvas {
      width: 100%;
      height: 17rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Chart {
  readonly label = input.required<string>();
  /** Makes the option from the page's own tones. */
  readonly option = input.required<(tones: Tones) => EChartsCoreOption>();
  private readonly canvas = viewChild.required<ElementRef<HTMLElement>>('canvas');

  constructor() {
    const scheme = matchMedia('(prefers-color-scheme: dark)');
    let drawn:
      { setOption(option: EChartsCoreOption, notMerge: boolean): void; resize(): void; dispose(): void } | undefined;
    const draw = (): void => drawn?.setOption(this.option()(tones()), true);
    const resized = new ResizeObserver(() => drawn?.resize());
    let gone = false;
    effect(() => {
      const element = this.canvas().nativeElement;
      this.option();
      if (drawn) draw();
      else
        void import('./echarts-parts').then(({ init }) => {
          if (gone || drawn) return;
          drawn = init(element);
          resized.observe(element);
          draw();
        });
    });
    scheme.addEventListener('change', draw);
    inject(DestroyRef).onDestroy(() => {
      gone = true;
      scheme.removeEventListener('change', draw);
      resized.disconnect();
      drawn?.dispose();
    });
  }
}

/** Words and lines of an axis in the page’s own tones; what ECharts would draw by itself is tinted. */
export function plainAxis({ soft, line, face }: Tones): object {
  const text = { color: soft, fontFamily: face, fontSize: 13 };
  return {
    axisLabel: { ...text, formatter: (v: number | string) => (typeof v === 'number' ? trimZeros(v, 3) : v) },
    nameTextStyle: text,
    axisLine: { lineStyle: { color: line } },
    axisTick: { lineStyle: { color: line } },
    splitLine: { lineStyle: { color: line } },
  };
}

export interface Tones {
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  readonly wash: string;
  readonly face: string;
}

function tones(): Tones {
  const style = getComputedStyle(document.documentElement);
  const of = (name: string): string => style.getPropertyValue(name).trim();
  return { ink: of('--ink'), soft: of('--ink-soft'), line: of('--line'), wash: of('--wash'), face: of('--face') };
}
