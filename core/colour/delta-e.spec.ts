import { describe, expect, it } from 'vitest';
import { DELTA_E_FORMULAS, DELTA_E_LABELS, deltaEBy } from './delta-e';

describe('ΔE by the formula of a colourway', () => {
  const standard = { L: 60, a: 10, b: 40 };
  it('is nothing between a colour and itself, whichever it is', () => {
    for (const formula of DELTA_E_FORMULAS) expect(deltaEBy(formula, standard, standard)).toBe(0);
    expect(new Set(Object.values(DELTA_E_LABELS)).size).toBe(DELTA_E_FORMULAS.length);
  });
  it('by CMC 2:1 forgives twice the lightness that 1:1 does, and no more of hue', () => {
    const paler = { ...standard, L: 63 };
    expect(deltaEBy('cmc21', standard, paler)).toBeCloseTo(deltaEBy('cmc11', standard, paler) / 2, 9);
    const turned = { L: 60, a: 14, b: 38.8 };
    expect(deltaEBy('cmc21', standard, turned)).toBeCloseTo(deltaEBy('cmc11', standard, turned), 9);
  });
});
