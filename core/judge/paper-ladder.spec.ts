import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { seeded } from '../photo/seeded';
import type { PaperRungs } from './paper-ladder';
import {
  PAPER_MIDDLE,
  PAPER_RUNGS,
  PAPER_STRIPS,
  PAPER_WITHIN80,
  isPaperEnd,
  paperStrip,
  readPaperLadder,
} from './paper-ladder';

const EVEN = { kL: 1, kC: 1, kH: 1 };
const MIDDLE: PaperRungs = { lightness: PAPER_MIDDLE, hue: PAPER_MIDDLE, chroma: PAPER_MIDDLE };

describe('a printed ladder', () => {
  const about = { L: 55, a: 12, b: 20 };
  it('is the colour itself in the middle of each strip, and reads as that', () => {
    for (const axis of PAPER_STRIPS) {
      const strip = paperStrip(about, axis);
      expect(strip).toHaveLength(PAPER_RUNGS);
      expect(ciede2000(strip[PAPER_MIDDLE - 1] ?? about, about, EVEN).deltaE).toBeCloseTo(0, 6);
    }
    expect(ciede2000(readPaperLadder(about, MIDDLE), about, EVEN).deltaE).toBeCloseTo(0, 6);
    expect(readPaperLadder(about, { ...MIDDLE, lightness: 7 }).L).toBeCloseTo(63);
    expect(() => readPaperLadder(about, { ...MIDDLE, hue: 10 })).toThrow(RangeError);
    expect([isPaperEnd(MIDDLE), isPaperEnd({ ...MIDDLE, hue: 1 }), isPaperEnd({ ...MIDDLE, chroma: 9 })]).toEqual([
      false,
      true,
      true,
    ]);
  });

  it('lies within what it says four times in five, with a printer and an eye that are off', () => {
    const random = seeded(31).uniform;
    const spread = (by: number): number => (random() + random() - 1) * by;
    let inside = 0;
    const tries = 300;
    for (let i = 0; i < tries; i++) {
      const truth: Lab = { L: about.L + spread(16), a: about.a + spread(14), b: about.b + spread(14) };
      // The whole sheet is a little off, as a printer is; each look is too.
      const off: Lab = { L: spread(6), a: spread(6), b: spread(6) };
      const nearest = (axis: (typeof PAPER_STRIPS)[number]): number => {
        const far = paperStrip(about, axis).map(
          (r) => ciede2000({ L: r.L + off.L, a: r.a + off.a, b: r.b + off.b }, truth, EVEN).deltaE + random() * 1.5,
        );
        return far.indexOf(Math.min(...far)) + 1;
      };
      const found = readPaperLadder(about, {
        lightness: nearest('lightness'),
        hue: nearest('hue'),
        chroma: nearest('chroma'),
      });
      if (ciede2000(truth, found, EVEN).deltaE <= PAPER_WITHIN80) inside++;
    }
    expect(inside / tries).toBeGreaterThan(0.8);
  });
});
