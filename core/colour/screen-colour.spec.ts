import { describe, expect, it } from 'vitest';
import type { ColourConditions, Lab } from './lab';
import { screenColour } from './screen-colour';

const D65: ColourConditions = { illuminant: 'D65', observer: '2' };

/**
 * L*a*b* (D65, 2°) of sRGB primaries, to the digits commonly published with IEC 61966-2-1 data; whole 8-bit values
 * result.
 */
const SRGB: readonly (readonly [string, Lab, string])[] = [
  ['white', { L: 100, a: 0, b: 0 }, 'rgb(255 255 255)'],
  ['black', { L: 0, a: 0, b: 0 }, 'rgb(0 0 0)'],
  ['red', { L: 53.24, a: 80.09, b: 67.2 }, 'rgb(255 0 0)'],
  ['green', { L: 87.73, a: -86.18, b: 83.18 }, 'rgb(0 255 0)'],
  ['blue', { L: 32.3, a: 79.19, b: -107.86 }, 'rgb(0 0 255)'],
  ['middle grey', { L: 53.585, a: 0, b: 0 }, 'rgb(128 128 128)'],
];

const parts = (css: string): number[] => (css.match(/\d+/g) ?? []).map(Number);

describe('screenColour', () => {
  it.each(SRGB)('shows %s', (_name, lab, css) => {
    // Published L*a*b* have two decimals, which is worth a step or so of 8 bits.
    parts(screenColour(lab, D65).css).forEach((part, i) =>
      expect(Math.abs(part - (parts(css)[i] ?? 0))).toBeLessThanOrEqual(1),
    );
  });

  it.each<ColourConditions>([
    { illuminant: 'D65', observer: '10' },
    { illuminant: 'D50', observer: '2' },
    { illuminant: 'D50', observer: '10' },
    { illuminant: 'A', observer: '2' },
    { illuminant: 'A', observer: '10' },
  ])('keeps the white of $illuminant/$observer° white and its greys grey', (conditions) => {
    for (const L of [100, 60, 20]) {
      const [r, g, b] = parts(screenColour({ L, a: 0, b: 0 }, conditions).css) as [number, number, number];
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThanOrEqual(1);
    }
  });

  it('says what a screen can’t show, and shows its hue with less chroma', () => {
    const shown = screenColour({ L: 70, a: 10, b: 130 }, D65);
    expect(shown.outOfGamut).toBe(true);
    expect(parts(shown.css).every((p) => p >= 0 && p <= 255)).toBe(true);
    expect(screenColour({ L: 70, a: 2, b: 40 }, D65).outOfGamut).toBe(false);
  });
});
