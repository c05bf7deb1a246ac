import type { MaterialPage } from '@vestigia/contract';
import { formatAmount } from '@vestigia/core';
import type { EChartsCoreOption } from 'echarts/core';
import type { Tones } from '../../../ui/chart';

const DAY_MS = 86_400_000;
const FORECAST_DAYS = 120;

/** On hand by day as steps, what is promised taken out today, and the band in which use may bring it down. */
export function onHandPicture(page: MaterialPage, today: string): (tones: Tones) => EChartsCoreOption {
  const { days, forecast, material } = page;
  const now = Date.parse(today);
  const held = days.map((d): [number, number] => [Date.parse(d.on), d.onHand]);
  const past: [number, number][] = [...held, [now, forecast.onHand]];
  const free = Math.max(0, forecast.free);
  const end = now + FORECAST_DAYS * DAY_MS;
  const fall = (daysTo: number | null): [number, number][] => line(free, now, end, daysTo);
  const format = (value: number): string => formatAmount(Math.round(value), material.measure);
  return (tones) => {
    const text = { color: tones.soft, fontFamily: tones.face, fontSize: 13 };
    const band = forecast.runOut
      ? bandBetween(fall(forecast.runOut.earlyDays), fall(forecast.runOut.lateDays), now, end)
      : undefined;
    const bare = { type: 'line', symbol: 'none', animation: false, silent: true } as const;
    return {
      animation: false,
      grid: { left: 76, right: 24, top: 16, bottom: 32 },
      xAxis: {
        type: 'time',
        min: Math.min(held[0]?.[0] ?? now, now - 30 * DAY_MS),
        max: end,
        axisLabel: text,
        axisLine: { lineStyle: { color: tones.line } },
        splitLine: { show: false },
      },
      yAxis: {
        axisLine: { lineStyle: { color: tones.line } },
        type: 'value',
        min: 0,
        axisLabel: { ...text, formatter: format },
        splitLine: { lineStyle: { color: tones.line } },
      },
      series: [
        {
          ...bare,
          data: past,
          step: 'end',
          lineStyle: { color: tones.ink, width: 2.5 },
          markLine: {
            symbol: 'none',
            silent: true,
            data: [
              { xAxis: now, label: { formatter: 'today', ...text } },
              ...(forecast.reorderPoint
                ? [
                    {
                      yAxis: forecast.reorderPoint.value,
                      label: { formatter: 'reorder', position: 'insideStartTop', ...text },
                      lineStyle: { type: 'dotted', color: tones.soft },
                    },
                  ]
                : []),
            ],
            lineStyle: { color: tones.ink, type: 'solid', width: 1 },
          },
        },
        {
          ...bare,
          data: [
            [now, forecast.onHand],
            [now, free],
          ],
          lineStyle: { color: tones.ink, width: 2.5, type: 'dotted' },
        },
        ...(forecast.runOut
          ? [
              {
                ...bare,
                data: fall(forecast.runOut.likelyDays),
                lineStyle: { color: tones.ink, width: 2, type: 'dashed' },
              },
            ]
          : []),
        ...(band
          ? [
              { ...bare, data: band.low, stack: 'band', lineStyle: { width: 1, color: tones.soft } },
              {
                ...bare,
                data: band.height,
                stack: 'band',
                lineStyle: { width: 1, color: tones.soft },
                areaStyle: { color: tones.line, opacity: 0.55 },
              },
            ]
          : []),
      ],
    };
  };
}

/** A straight fall from what is free to nothing; level where it never runs out. */
function line(free: number, now: number, end: number, daysTo: number | null): [number, number][] {
  if (daysTo === null)
    return [
      [now, free],
      [end, free],
    ];
  const out = now + daysTo * DAY_MS;
  return out >= end
    ? [
        [now, free],
        [end, free * (1 - FORECAST_DAYS / daysTo)],
      ]
    : [
        [now, free],
        [out, 0],
        [end, 0],
      ];
}

/** Two falling lines as a lower one and the height between, at the same days, as a stacked area wants them. */
function bandBetween(
  early: [number, number][],
  late: [number, number][],
  now: number,
  end: number,
): { low: [number, number][]; height: [number, number][] } {
  const at = (points: [number, number][], x: number): number => {
    const next = points.findIndex((p) => p[0] >= x);
    if (next <= 0) return points[Math.max(0, next)]?.[1] ?? 0;
    const [x0, y0] = points[next - 1] as [number, number];
    const [x1, y1] = points[next] as [number, number];
    return x1 === x0 ? y1 : y0 + ((x - x0) / (x1 - x0)) * (y1 - y0);
  };
  const steps = Array.from({ length: 61 }, (_, i) => now + ((end - now) * i) / 60);
  return {
    low: steps.map((x) => [x, at(early, x)]),
    height: steps.map((x) => [x, Math.max(0, at(late, x) - at(early, x))]),
  };
}
