import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blendStrength,
  checkConversion,
  freshToDried,
  packetsFor,
  stockConcentration,
  volumeForDose,
} from './conversion';
import { likelyReasons, netOfTare } from './counting';
import { granted } from '../result.fixture';

const part = (stockLotId: string, weightG: number, strengthPercent: number | null = 100) => ({
  stockLotId,
  tag: stockLotId.toUpperCase(),
  weightG,
  strengthPercent,
});

describe('a change of form', () => {
  it.each<[string, Parameters<typeof checkConversion>, string]>([
    ['nothing', ['dry', [], 'x', 1], 'nothingIn'],
    ['a jar into itself', ['blend', [part('a', 10), part('b', 10)], 'a', 20], 'itself'],
    ['a jar twice', ['blend', [part('a', 10), part('a', 5)], 'x', 15], 'twice'],
    ['more than went in', ['dry', [part('a', 100)], 'x', 100.01], 'moreOut'],
    ['two jars dried at once', ['dry', [part('a', 10), part('b', 10)], 'x', 5], 'oneParent'],
  ])('refuses %s', (_name, args, code) => expect(checkConversion(...args)).toMatchObject({ ok: false, code }));

  it('conserves mass but for the loss entered', () => {
    const weights = fc.array(fc.integer({ min: 1, max: 5_000_000 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(weights, fc.double({ min: 0, max: 1, noNaN: true }), (mg, share) => {
        const inputs = mg.map((m, i) => part(`j${i}`, m / 1000));
        const inMg = mg.reduce((sum, m) => sum + m, 0);
        const outMg = Math.floor(inMg * share);
        const checked = checkConversion('blend', inputs, 'out', outMg / 1000);
        expect(checked.ok).toBe(true);
        expect(Math.round(granted(checked).lossG * 1000) + outMg).toBe(inMg);
      }),
      { seed: 61 },
    );
  });

  it('gives a blend the strength of its parts by weight, between the weakest and the strongest', () => {
    expect(blendStrength([part('a', 300, 100), part('b', 100, 80)])?.value).toBe(95);
    fc.assert(
      fc.property(
        fc.array(fc.record({ g: fc.integer({ min: 1, max: 9999 }), s: fc.integer({ min: 10, max: 200 }) }), {
          minLength: 1,
          maxLength: 6,
        }),
        (parts) => {
          const strength = blendStrength(parts.map((p, i) => part(`j${i}`, p.g, p.s)))?.value ?? NaN;
          expect(strength).toBeGreaterThanOrEqual(Math.min(...parts.map((p) => p.s)) - 0.05);
          expect(strength).toBeLessThanOrEqual(Math.max(...parts.map((p) => p.s)) + 0.05);
        },
      ),
      { seed: 62 },
    );
  });
  it('leaves a blend’s strength unknown as soon as one part’s is', () =>
    expect(blendStrength([part('a', 300), part('b', 1, null)])).toBeNull());

  it('knows fresh from dried, and concentrations both ways', () => {
    expect(freshToDried(6000, 1280)).toMatchObject({ value: 4.69, working: { notes: ['78.7 % went off as water'] } });
    expect(() => freshToDried(100, 120)).toThrow(RangeError);
    expect(stockConcentration(50, 1000).value).toBe(50);
    expect(volumeForDose(2.5, 50).value).toBe(50);
    expect(() => stockConcentration(0, 10)).toThrow(RangeError);
  });

  it.each<[number, number]>([
    [100, 1],
    [250, 1],
    [250.0000000001, 1],
    [251, 2],
    [1000, 4],
  ])('opens whole packets for %s g', (wofG, packets) => {
    const needed = packetsFor(wofG, {
      contentsG: 20,
      fibreG: 250,
      auxiliaries: [{ materialId: 'salt', amount: 60_000 }],
    });
    expect(needed.packets.value).toBe(packets);
    expect(needed.auxiliaries).toEqual([{ materialId: 'salt', amount: 60_000 * packets }]);
  });
});

describe('counting', () => {
  const stockLot = {
    measure: 'weight' as const,
    expected: 500_000,
    counted: 500_000,
    tareMg: 380_000,
    balanceResolutionG: 0.1,
    form: null as string | null,
    hygroscopic: false,
    recentUses: [72_000],
    reserved: 0,
  };
  it.each<[string, Partial<typeof stockLot>, RegExp]>([
    ['the container weighed with it', { counted: 880_000 }, /container was weighed with it/],
    ['a slip of the point', { counted: 50_000 }, /decimal point/],
    ['grams for kilograms', { counted: 500 }, /grams and kilograms/],
    ['one taking written once and done twice', { counted: 428_000 }, /taken twice and written once/],
    ['a taking that never left', { counted: 572_000 }, /never left/],
    ['a step of the balance', { counted: 499_900 }, /two steps of the balance/],
    ['damp', { counted: 512_000, hygroscopic: true }, /damp/],
    ['drying', { counted: 430_500, form: 'fresh' }, /dried out/],
    ['an empty jar', { counted: 0 }, /emptied/],
    ['ounces', { counted: 17_636 }, /ounces/],
    ['what is promised', { counted: 450_000, reserved: 50_000 }, /weighed out already/],
  ])('suspects %s', (_name, change, label) =>
    expect(likelyReasons({ ...stockLot, ...change }).join(' | ')).toMatch(label),
  );
  it('says nothing where nothing differs', () => expect(likelyReasons(stockLot)).toEqual([]));
  it('takes the container off, and notices when it weighs more than all', () => {
    expect(netOfTare(500_000, 380_000)).toEqual({ ok: true, netMg: 120_000 });
    expect(netOfTare(300_000, 380_000)).toMatchObject({ ok: false });
  });
});
