import type { MaterialPage } from '@vestigia/contract';
import { figure } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { onHandPicture } from './on-hand-picture';

interface Series {
  readonly data: [number, number][];
  readonly stack?: string;
  readonly step?: string;
}
const tones = { ink: '#111', soft: '#555', line: '#ccc', wash: '#eee', face: 'face' };
const TODAY = '2026-11-23';
const now = Date.parse(TODAY);

function seriesOf(forecast: Partial<MaterialPage['forecast']>): Series[] {
  const page = {
    material: { measure: 'weight' },
    days: [
      { on: '2026-10-01', onHand: 9000 },
      { on: '2026-11-01', onHand: 5000 },
    ],
    forecast: { onHand: 5000, reserved: 1000, free: 4000, runOut: null, reorderPoint: null, ...forecast },
  } as unknown as MaterialPage;
  return (onHandPicture(page, TODAY)(tones) as { series: Series[] }).series;
}

describe('the picture of what is on hand', () => {
  it('steps through what was, and takes out today what is promised', () => {
    const [past, reserved] = seriesOf({});
    expect(past).toMatchObject({
      step: 'end',
      data: [
        [Date.parse('2026-10-01'), 9000],
        [Date.parse('2026-11-01'), 5000],
        [now, 5000],
      ],
    });
    expect(reserved?.data).toEqual([
      [now, 5000],
      [now, 4000],
    ]);
  });
  it('draws nothing ahead where too little is known', () => expect(seriesOf({})).toHaveLength(2));
  it('draws the band between early and late, narrow at today and never below nothing', () => {
    const drawn = seriesOf({
      runOut: { likelyDays: 60, earlyDays: 40, lateDays: 100 },
      reorderPoint: figure(900, 'mg', '', []),
    });
    const [low, height] = drawn.filter((s) => s.stack === 'band');
    expect(low?.data[0]?.[1]).toBe(4000);
    expect(height?.data[0]?.[1]).toBe(0);
    for (const s of [low, height]) for (const [, y] of s?.data ?? []) expect(y).toBeGreaterThanOrEqual(0);
    const at = (days: number): number => low?.data.findIndex(([x]) => x >= now + days * 86_400_000) ?? 0;
    expect(low?.data[at(42)]?.[1]).toBe(0);
    expect(height?.data[at(42)]?.[1]).toBeGreaterThan(2000);
    expect(height?.data.at(-1)?.[1]).toBe(0);
  });
  it('stays level where it never runs out', () => {
    const likely = seriesOf({ runOut: { likelyDays: null, earlyDays: null, lateDays: null } })[2];
    expect(likely?.data.map(([, y]) => y)).toEqual([4000, 4000]);
  });
});
