import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TraceStrand } from './trace-layout';
import { layTrace } from './trace-layout';

const strand = (side: 'in' | 'out', amount: number, key = `${side}${amount}`): TraceStrand => ({
  key,
  side,
  amount,
  label: key,
});

describe('layTrace', () => {
  const strands = fc
    .array(
      fc.record({ side: fc.constantFrom<'in' | 'out'>('in', 'out'), amount: fc.integer({ min: 0, max: 1_000_000 }) }),
      { minLength: 1, maxLength: 20 },
    )
    .map((list) => list.map((s, i) => strand(s.side, s.amount, `s${i}`)));

  it('makes a strand as thick as its share, and the least one still to be seen', () => {
    const { strands: layout } = layTrace([strand('out', 900), strand('out', 99), strand('out', 1)]);
    expect(layout.map((s) => Math.round(s.width * 10) / 10)).toEqual([16.2, 3, 3]);
  });

  it('gives every label a line of its own inside the picture, and crosses no strands', () => {
    fc.assert(
      fc.property(strands, (list) => {
        const { strands: layout, height } = layTrace(list);
        for (const side of ['in', 'out'] as const) {
          const lines = layout.filter((s) => s.side === side).map((s) => s.labelY);
          expect([...lines].sort((a, b) => a - b)).toEqual(lines);
          lines.forEach((y, i) => {
            expect(y).toBeGreaterThan(0);
            expect(y).toBeLessThan(height);
            if (i > 0) expect(y - (lines[i - 1] ?? 0)).toBeGreaterThanOrEqual(20);
          });
        }
      }),
      { seed: 91 },
    );
  });

  it('meets the jar at its edges, and leaves room for parents only where there are any', () => {
    const alone = layTrace([strand('out', 5)]);
    const born = layTrace([strand('in', 5), strand('out', 5)]);
    expect(alone.knotX).toBeLessThan(born.knotX);
    expect(born.strands[0]?.path.endsWith(`${born.knotX} ${born.knotY}`)).toBe(true);
    expect(born.strands[1]?.path.startsWith(`M${born.knotX + 100} ${born.knotY}`)).toBe(true);
  });
});
