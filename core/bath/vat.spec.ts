import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { VatReading } from './vat';
import { VAT_FACTS, VAT_KINDS, judgeVat, sayVat } from './vat';
import { dipsFor, vatDips } from './vat-dips';
import { feedVat } from './vat-feed';

const ready: VatReading = { kind: 'fruit', look: 'yellow', ph: 10.4, temperatureC: 45 };
const now = { hoursAgo: 2, protein: false };
const codes = (vat: VatReading | null, at: Parameters<typeof judgeVat>[1] = now) =>
  judgeVat(vat, at).map((f) => f.code);

describe('a vat before a dip', () => {
  it('may be used while it is yellow, alkaline, warm and looked at today', () => expect(codes(ready)).toEqual([]));
  it.each([
    ['blue: it would only dye the outside', { look: 'blue' }, ['notReduced']],
    ['green', { look: 'green' }, ['halfReduced']],
    ['cloudy', { look: 'cloudy' }, ['unsettled']],
    ['too little alkali', { ph: 9.2 }, ['alkaliLow']],
    ['too much', { ph: 12 }, ['alkaliHigh']],
    ['cold', { temperatureC: 15 }, ['cold']],
    ['hot', { temperatureC: 60 }, ['hot']],
    ['untested', { ph: null, temperatureC: null }, []],
  ] as const)('says what is wrong: %s', (_, change, wanted) => expect(codes({ ...ready, ...change })).toEqual(wanted));
  it('is looked at again after a day, and before the first dip', () => {
    expect(codes(ready, { hoursAgo: 30, protein: false })).toEqual(['notLookedAt']);
    expect(codes(null, { hoursAgo: null, protein: false })).toEqual(['notLookedAt']);
  });
  it('is stopped while blue, and above pH 10.5 for wool', () => {
    const gravity = (vat: VatReading, protein: boolean) => judgeVat(vat, { hoursAgo: 1, protein })[0]?.gravity;
    expect(gravity({ ...ready, look: 'blue' }, false)).toBe('stop');
    expect(gravity({ ...ready, ph: 11 }, true)).toBe('stop');
    expect(gravity({ ...ready, ph: 11 }, false)).toBeUndefined();
  });
  it('says what to do, whatever is found', () => {
    for (const kind of VAT_KINDS)
      for (const look of ['yellow', 'green', 'blue', 'cloudy'] as const)
        for (const ph of [7, 10, 13])
          for (const temperatureC of [5, 90])
            for (const hoursAgo of [1, 99, null])
              for (const found of judgeVat({ kind, look, ph, temperatureC }, { hoursAgo, protein: ph > 12 }))
                expect(sayVat(found)).toMatch(/^(pH|[A-Z]).*\.$/);
  });
});

describe('feeding a vat', () => {
  it('adds the dyestuff that is missing, and reducer and lime with it', () => {
    // 30 l at 2 g/l hold 60 g; 24 g are left, so 36 g, three times that of fructose and twice of lime.
    const feed = feedVat(ready, { volumeMl: 30_000, dyeG: 24, gPerL: 2 });
    expect([feed.dyestuff.value, feed.reducer.value, feed.alkali.value]).toEqual([36, 108, 72]);
  });
  it('gives reducer alone where it is strong enough and has gone green', () => {
    const feed = feedVat({ kind: 'fruit', look: 'green' }, { volumeMl: 30_000, dyeG: 60, gPerL: 2 });
    expect([feed.dyestuff.value, feed.reducer.value, feed.alkali.value]).toEqual([0, 45, 0]);
  });
  it('refuses what is no vat', () =>
    expect(() => feedVat(ready, { volumeMl: 0, dyeG: 1, gPerL: 1 })).toThrow(/above zero/));
});

describe('dips', () => {
  it('each takes the same share of what is there', () => {
    // 200 g in 30 l: 1 − e^(−3 × 200 ÷ 30 000) = 1.98 %.
    const one = vatDips({ dyeG: 60, volumeMl: 30_000 }, { wofG: 200, dips: 1 });
    expect(one.leftG.value).toBeCloseTo(58.812, 3);
    expect(one.onFibrePercentOwf.value).toBeCloseTo(0.59, 2);
    expect(vatDips({ dyeG: 60, volumeMl: 30_000 }, { wofG: 200, dips: 4 }).leftG.value).toBeCloseTo(
      60 * Math.exp(-0.08),
      2,
    );
  });
  it('loses and makes no dye, and the dips said are the fewest that reach it', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.integer({ min: 2, max: 100 }),
        fc.integer({ min: 10, max: 3000 }),
        fc.double({ min: 0.05, max: 6, noNaN: true }),
        (dyeG, litres, wofG, percentOwf) => {
          const vat = { dyeG, volumeMl: litres * 1000 };
          const dips = dipsFor(percentOwf, vat, wofG);
          if (dips === null) return;
          const reached = (n: number) => vatDips(vat, { wofG, dips: n });
          const { onFibrePercentOwf, leftG } = reached(dips);
          expect(leftG.value + (onFibrePercentOwf.value * wofG) / 100).toBeCloseTo(dyeG, 0);
          expect(onFibrePercentOwf.value).toBeGreaterThanOrEqual(percentOwf - 0.006);
          if (dips > 1) expect(reached(dips - 1).onFibrePercentOwf.value).toBeLessThan(percentOwf + 0.006);
        },
      ),
      { seed: 11 },
    ));
  it('says never where the vat holds too little', () => {
    expect(dipsFor(5, { dyeG: 1, volumeMl: 10_000 }, 100)).toBeNull();
    expect(dipsFor(0, { dyeG: 10, volumeMl: 10_000 }, 100)).toBeNull();
  });
  it('knows the proportions of every kind', () => {
    for (const kind of VAT_KINDS) {
      const { phLow, phHigh, lowC, highC } = VAT_FACTS[kind];
      expect(phLow).toBeLessThan(phHigh);
      expect(lowC).toBeLessThan(highC);
    }
  });
});
