import { describe, expect, it } from 'vitest';
import { seeded } from '../photo/seeded';
import { LEAST_FOR_LIMITS, chartRepeatability } from './repeatability';

const master = { L: 62, a: -4, b: 48 };
const lot = (i: number, dL: number, factors: Record<string, string> = {}) => ({
  id: `lot ${i}`,
  lab: { ...master, L: master.L + dL },
  factors,
});

describe('how well a colourway repeats', () => {
  it('has no limits on too few lots', () => {
    const few = chartRepeatability(
      master,
      Array.from({ length: LEAST_FOR_LIMITS - 1 }, (_, i) => lot(i, i)),
    );
    expect([few.limits, few.points.flatMap((p) => p.signals)]).toEqual([null, []]);
  });
  it('takes its limits from the moving range: median range of two ÷ 0.9539', () => {
    const { limits } = chartRepeatability(
      master,
      [0, 2, 0, 2, 0].map((dL, i) => lot(i, dL)),
    );
    // Every range is the same step of lightness, so sigma is that step by d2.
    const step = 2 / (1 + (0.015 * (62 + 1 - 50) ** 2) / Math.sqrt(20 + (62 + 1 - 50) ** 2));
    expect(limits?.lightness.sigma).toBeCloseTo(step / 0.9539, 6);
    expect(limits?.lightness.centre).toBe(0);
  });
  it('calls one lot far off, and names what it and the others that were so have in common', () => {
    const usual = [0.2, -0.3, 0.1, 0.3, -0.2, 0, 0.2, -0.1, 0.1, 0].map((dL, i) => lot(i, dL, { water: 'rain' }));
    const off = [6, 6.2].map((dL, i) => lot(20 + i, dL, { water: 'tap', pot: 'kettle' }));
    const { points, commonFactors } = chartRepeatability(master, [...usual, ...off]);
    expect(points[10]?.signals).toContainEqual({ rule: 'far', channel: 'lightness' });
    expect(points.slice(0, 8).flatMap((p) => p.signals)).toEqual([]);
    expect(commonFactors).toEqual([
      { name: 'water', value: 'tap', lots: 2 },
      { name: 'pot', value: 'kettle', lots: 2 },
    ]);
  });
  it('hears a slow drift before the tolerance is left', () => {
    const random = seeded(5).uniform;
    const lots = Array.from({ length: 24 }, (_, i) => lot(i, (random() - 0.5) * 0.8 + (i < 12 ? 0 : (i - 11) * 0.15)));
    const { points } = chartRepeatability(master, lots);
    const called = points.findIndex((p, i) => i >= 12 && p.signals.length > 0);
    expect(called).toBeGreaterThan(11);
    expect(points[called]?.deltaE).toBeLessThan(2);
  });
  it('seldom cries where only chance is at work', () => {
    const random = seeded(11).uniform;
    const about = (): number => random() + random() + random() + random() - 2;
    let called = 0;
    for (let row = 0; row < 100; row++) {
      const { points } = chartRepeatability(
        master,
        Array.from({ length: 12 }, (_, i) => lot(i, about() * 1.5)),
      );
      called += points.filter((p) => p.signals.length > 0).length;
    }
    expect(called / 1200).toBeLessThan(0.06);
  });
});
