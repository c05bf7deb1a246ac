import { describe, expect, it } from 'vitest';
import { readSimulatedBalance } from './simulated-balance';

const card = { name: 'bench balance', resolutionG: 0.1, capacityG: 3000 };
const load = (key: string, trueG = 500, spreadShare = 0.004) => ({ key, trueG, spreadShare });

describe('the simulated balance', () => {
  it('says that it is simulated, rounds to its step and settles in a moment', () => {
    const read = readSimulatedBalance(load('jar'), card);
    expect(read).toMatchObject({ simulated: true, overload: false, instrument: 'bench balance (simulated)' });
    expect(Math.round(read.weightG * 10) / 10).toBe(read.weightG);
    expect(read.settledMs).toBeGreaterThanOrEqual(600);
  });
  it('weighs the same thing the same, and other things otherwise', () => {
    expect(readSimulatedBalance(load('jar'), card)).toEqual(readSimulatedBalance(load('jar'), card));
    expect(
      new Set(Array.from({ length: 30 }, (_, i) => readSimulatedBalance(load(`jar ${i}`), card).weightG)).size,
    ).toBeGreaterThan(10);
  });
  it('is near the truth, spreading as it was told to', () => {
    const reads = Array.from(
      { length: 400 },
      (_, i) => readSimulatedBalance(load(`spoon ${i}`, 100, 0.05), { ...card, resolutionG: 0.01 }).weightG,
    );
    const mean = reads.reduce((sum, g) => sum + g, 0) / reads.length;
    const spread = Math.sqrt(reads.reduce((sum, g) => sum + (g - mean) ** 2, 0) / (reads.length - 1));
    expect(mean).toBeCloseTo(100, 0);
    expect(spread).toBeGreaterThan(4);
    expect(spread).toBeLessThan(6);
  });
  it('refuses more than it carries, and never shows less than nothing', () => {
    expect(readSimulatedBalance(load('sack', 9000), card)).toMatchObject({ overload: true, weightG: 0 });
    expect(readSimulatedBalance(load('dust', 0.001, 40), card).weightG).toBeGreaterThanOrEqual(0);
  });
});
