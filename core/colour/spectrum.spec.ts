import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ColourConditions } from './lab';
import { ILLUMINANTS, OBSERVERS } from './lab';
import { ksOfReflectance, reflectanceOfKs, strengthBeside } from './kubelka-munk';
import { metamerism } from './metamerism';
import { BANDS_NM, labOfSpectrum, readSpectrum, saySpectrumRefusal } from './spectrum';
import { cieWhiteness } from './whiteness';

const ALL: ColourConditions[] = ILLUMINANTS.flatMap((illuminant) =>
  OBSERVERS.map((observer) => ({ illuminant, observer })),
);
const D65: ColourConditions = { illuminant: 'D65', observer: '10' };
const flat = (value: number): number[] => BANDS_NM.map(() => value);
const flatBut = (band: number, value: number): number[] => flat(0.5).map((r, i) => (i === band ? value : r));
/** A smooth reflectance: low below an edge, high above it. */
const edge = (nm: number, low = 0.05, high = 0.7, width = 30): number[] =>
  BANDS_NM.map((band) => low + (high - low) / (1 + Math.exp((nm - band) / width)));

describe('spectra', () => {
  it.each(ALL)('are white under $illuminant/$observer where they are white', (conditions) => {
    const white = labOfSpectrum(flat(1), conditions);
    expect([white.L, white.a, white.b].map((v) => Math.abs(v) < 1e-9 || Math.abs(v - 100) < 1e-9)).toEqual([
      true,
      true,
      true,
    ]);
    const grey = labOfSpectrum(flat(0.5), conditions);
    expect(grey.L).toBeCloseTo(76.0693, 3);
    expect([grey.a, grey.b]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
  });
  it('lean where their light is: an edge in the yellow is a red, one in the green a yellow', () => {
    const [red, yellow] = [labOfSpectrum(edge(600), D65), labOfSpectrum(edge(510), D65)];
    expect(red.a).toBeGreaterThan(30);
    expect([yellow.b > 50, Math.abs(yellow.a) < 12]).toEqual([true, true]);
    // Lamplight is rich in long waves: a yellow is lighter under it.
    expect(labOfSpectrum(edge(580), { illuminant: 'A', observer: '10' }).L).toBeGreaterThan(
      labOfSpectrum(edge(580), D65).L,
    );
  });
  it('read every 20 nm are the same colour as every 10, where they are smooth', () => {
    fc.assert(
      fc.property(fc.integer({ min: 450, max: 650 }), fc.integer({ min: 30, max: 60 }), (nm, width) => {
        const fine = edge(nm, 0.05, 0.7, width);
        const coarse = BANDS_NM.filter((b) => b % 20 === 0);
        const read = readSpectrum(
          coarse,
          coarse.map((b) => fine[BANDS_NM.indexOf(b)] ?? 0),
        );
        if (!read.ok) throw new Error(saySpectrumRefusal(read.refusal));
        const [x, y] = [labOfSpectrum(fine, D65), labOfSpectrum(read.spectrum, D65)];
        expect(Math.hypot(x.L - y.L, x.a - y.a, x.b - y.b)).toBeLessThan(0.15);
      }),
      { seed: 20 },
    );
  });
  it('with bands beyond are read by those between 400 and 700 nm', () => {
    const wide = Array.from({ length: 36 }, (_, i) => 380 + i * 10);
    const read = readSpectrum(
      wide,
      wide.map((nm) => (nm < 400 || nm > 700 ? 0.9 : 0.5)),
    );
    expect(read.ok && read.spectrum).toEqual(flat(0.5));
  });
  it.each<[string, number[], number[], RegExp]>([
    ['a value too few', [...BANDS_NM], flat(0.5).slice(1), /31 wavelengths and 30 values/],
    ['the wrong order', [...BANDS_NM].reverse(), flat(0.5), /rising order/],
    ['bands missing at the end', BANDS_NM.slice(0, 20), flat(0.5).slice(0, 20), /goes from 400 to 590 nm/],
    ['a gap', BANDS_NM.filter((nm) => nm !== 500), flat(0.5).slice(1), /without gaps/],
    ['another step', [400, 405, 410], [0.1, 0.1, 0.1], /5 nm apart/],
    ['nothing', [], [], /from 0 to 0 nm/],
    ['below nothing', [...BANDS_NM], flatBut(3, -0.02), /At 430 nm the reflectance is -0.02/],
    ['per cent', [...BANDS_NM], flat(50), /divide by 100/],
    ['a band without a number', [...BANDS_NM], flatBut(0, NaN), /At 400 nm there is no number/],
  ])('are refused with %s', (_name, wavelengths, values, said) => {
    const read = readSpectrum(wavelengths, values);
    expect(read.ok ? 'read' : saySpectrumRefusal(read.refusal)).toMatch(said);
  });
});

describe('what spectra tell beside the colour', () => {
  it('two that match by day and part under a lamp are metameric; a spectrum is not, with itself or any dimmer', () => {
    const conditions = { reference: D65, test: { illuminant: 'A', observer: '10' } as const };
    expect(metamerism(edge(600), edge(600), conditions)).toBeCloseTo(0, 9);
    expect(
      metamerism(
        edge(600),
        edge(600).map((r) => r * 0.9),
        conditions,
      ),
    ).toBeCloseTo(0, 9);
    const bumpy = edge(560).map((r, i) => r * (1 + 0.25 * Math.sin(i / 2)));
    expect(metamerism(edge(560), bumpy, conditions)).toBeGreaterThan(1);
  });
  it('K/S is turned back into the reflectance it came from', () => {
    for (const r of [0.002, 0.05, 0.3, 0.9]) expect(reflectanceOfKs(ksOfReflectance(r))).toBeCloseTo(r, 9);
    expect(ksOfReflectance(0.5)).toBeCloseTo(0.25, 12);
  });
  it('half as much dye is half as strong', () => {
    const base = flat(0.8);
    const dyed = (share: number): number[] =>
      BANDS_NM.map((nm) => reflectanceOfKs(ksOfReflectance(0.8) + share * 4 * Math.exp(-(((nm - 450) / 60) ** 2))));
    expect(strengthBeside(dyed(1), dyed(0.5), base)).toBeCloseTo(0.5, 6);
    expect(strengthBeside(base, dyed(1), base)).toBeNull();
  });
  it('a perfect white is 100, a yellowish one below, a greenish one tinted above zero', () => {
    expect(cieWhiteness({ L: 100, a: 0, b: 0 }, '10')).toEqual({
      whiteness: expect.closeTo(100, 6),
      tint: expect.closeTo(0, 6),
      isInRange: true,
    });
    expect(cieWhiteness({ L: 92, a: 0, b: 8 }, '10').whiteness).toBeLessThan(60);
    expect(cieWhiteness({ L: 95, a: -2, b: 0 }, '10').tint).toBeGreaterThan(0);
    expect(cieWhiteness({ L: 40, a: 20, b: 30 }, '10').isInRange).toBe(false);
  });
});
