import { describe, expect, it } from 'vitest';
import { cornerPoints } from './corner-points';

describe('the corners of what a probe read', () => {
  const minute = (i: number, temperatureC: number) => ({ minute: i, temperatureC });
  it('are where a bath stopped rising and where it began to cool; what lies straight between is left out', () => {
    const read = Array.from({ length: 121 }, (_, i) =>
      minute(i, i < 40 ? 20 + 1.5 * i : i < 100 ? 80 + 0.4 * Math.sin(i) : 80 - (i - 100)),
    );
    const corners = cornerPoints(read);
    expect(corners.length).toBeLessThan(6);
    expect(corners.map((c) => c.minute)).toEqual(expect.arrayContaining([0, 40, 120]));
    for (const r of read) {
      const after = corners.findIndex((c) => c.minute >= r.minute);
      const [a, b] = [corners[Math.max(0, after - 1)]!, corners[after]!];
      const share = b.minute > a.minute ? (r.minute - a.minute) / (b.minute - a.minute) : 0;
      expect(Math.abs(r.temperatureC - (a.temperatureC + share * (b.temperatureC - a.temperatureC)))).toBeLessThan(1.2);
    }
  });
  it('are few, however wild it was; of one reading there are none', () => {
    const wild = Array.from({ length: 2000 }, (_, i) => minute(i / 10, 50 + 30 * Math.sin(i * 1.7)));
    expect(cornerPoints(wild).length).toBeLessThanOrEqual(40);
    expect(cornerPoints([minute(0, 20)])).toEqual([]);
  });
});
