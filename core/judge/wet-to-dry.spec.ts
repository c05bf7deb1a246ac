import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import { seeded } from '../photo/seeded';
import type { WetDryPair } from './wet-to-dry';
import { LEAST_WET_DRY_PAIRS, forecastDry } from './wet-to-dry';

/** A world where water takes a sixth of the lightness and adds an eighth of the chroma. */
function pairs(count: number, random: () => number, noise = 1): WetDryPair[] {
  const about = (): number => (random() + random() + random() - 1.5) * noise;
  return Array.from({ length: count }, () => {
    const dry = { L: 25 + random() * 60, a: random() * 40 - 15, b: random() * 50 };
    return { dry, wet: { L: dry.L * 0.84 + about(), a: dry.a * 1.13 + about(), b: dry.b * 1.13 + about() } };
  });
}

describe('what a wet piece will be dry', () => {
  it('is not said from fewer pairs than tell the error', () => {
    const few = pairs(LEAST_WET_DRY_PAIRS - 1, seeded(1).uniform);
    expect(forecastDry({ L: 40, a: 5, b: 20 }, few)).toBeNull();
  });
  it('is paler and duller, and found where the world is plain', () => {
    const forecast = forecastDry({ L: 42, a: 11.3, b: 22.6 }, pairs(20, seeded(2).uniform, 0));
    expect(forecast?.lab.L).toBeCloseTo(50, 0);
    expect(forecast?.lab.a).toBeCloseTo(10, 1);
    expect(forecast?.within80).toBeLessThan(0.6);
  });
  it('lies within what is said at least four times in five', () => {
    const random = seeded(3).uniform;
    for (const count of [6, 9, 20]) {
      let inside = 0;
      const tries = 400;
      for (let i = 0; i < tries; i++) {
        const [asked, ...known] = pairs(count + 1, random);
        const forecast = forecastDry(asked!.wet, known)!;
        if (ciede2000(asked!.dry, forecast.lab, { kL: 1, kC: 1, kH: 1 }).deltaE <= forecast.within80) inside++;
      }
      expect(inside / tries).toBeGreaterThan(0.77);
      expect(inside / tries).toBeLessThan(0.94);
    }
  });
});
