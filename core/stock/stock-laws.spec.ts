import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contentsAtVolume, ladderStrength, leftAfterUse, replenish } from '../bath/saved-bath';
import { CATALOGUE } from '../catalogue/catalogue';
import { STOCK_MEASURES, formatAmount, readAmount } from '../quantity/amount';
import { learnSpoon, planInSpoons } from '../quantity/spoon';
import { KITCHEN_UNITS, VOLUME_SYSTEMS, kitchenUnitMl, readVolume, sayKitchenUnit } from '../quantity/volume';
import { HAZARDS, HAZARD_LABELS } from '../safety/hazards';
import { packetsFor, stockConcentration, volumeForDose } from './conversion';
import { reorder, rateOfUse } from './forecast';
import { FASTNESS_LABELS, MATERIAL_FORMS, MATERIAL_KINDS } from './material-facts';
import { granted } from '../result.fixture';

const seed = { seed: 101 };
const grams = fc.integer({ min: 1, max: 4_000_000 }).map((mg) => mg / 1000);

describe('what holds of any amount', () => {
  it('is read again as it was written, to what writing rounds', () => {
    fc.assert(
      fc.property(fc.constantFrom(...STOCK_MEASURES), fc.integer({ min: 1, max: 400_000_000 }), (measure, amount) => {
        const of = measure === 'pieces' ? (amount % 900_000) + 1 : measure === 'volume' ? amount + 1000 : amount;
        const read = readAmount(formatAmount(of, measure), measure);
        expect(read.ok).toBe(true);
        expect(Math.abs(granted(read).amount - of) / of).toBeLessThan(measure === 'volume' ? 0.06 : 0.01);
      }),
      seed,
    );
  });
  it('of spoons, cups and gallons is the number times the unit, in whichever system it is written', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...KITCHEN_UNITS),
        fc.constantFrom(...VOLUME_SYSTEMS),
        fc.integer({ min: 1, max: 40 }),
        (unit, system, n) => {
          const ml = kitchenUnitMl(unit, system);
          const named = readVolume(`${n} ${sayKitchenUnit(unit, system)}`);
          expect(named.ok).toBe(ml !== undefined);
          if (ml !== undefined) expect(granted(named).volumeMl).toBeCloseTo(n * ml, 6);
        },
      ),
      seed,
    );
  });
  it('is never thrown at whoever writes: any text is read or refused in a sentence', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 60 }),
        fc.constantFrom(...STOCK_MEASURES),
        fc.option(fc.constantFrom(...VOLUME_SYSTEMS), { nil: undefined }),
        (text, measure, system) => {
          const read = readAmount(text, measure, { system, bulkDensityGPerMl: 0.8 });
          expect(read).toEqual(
            read.ok
              ? expect.objectContaining({ amount: expect.toSatisfy(Number.isSafeInteger) as number })
              : expect.objectContaining({ message: expect.stringMatching(/[.?!”]$/) as string }),
          );
        },
      ),
      { ...seed, numRuns: 500 },
    );
  });
});

describe('what holds of spoons, solutions and packets', () => {
  it('gives spoons whose error never beats an eighth of a spoonful and the spread', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.integer({ min: 3000, max: 7000 }).map((mg) => mg / 1000),
          { minLength: 2, maxLength: 9 },
        ),
        fc.integer({ min: 2000, max: 90_000 }).map((mg) => mg / 1000),
        (weights, dose) => {
          const spoon = learnSpoon(weights, 5);
          const planned = planInSpoons(dose, spoon, 'tsp');
          expect(Number.isInteger(planned.value * 4)).toBe(true);
          expect(Math.abs(planned.value * spoon.meanG - dose)).toBeLessThanOrEqual(spoon.meanG / 8 + 1e-9);
        },
      ),
      seed,
    );
  });
  it('measures out of a stock solution what was dissolved in it', () => {
    fc.assert(
      fc.property(grams, fc.integer({ min: 50, max: 20_000 }), (dissolved, ml) => {
        const strength = stockConcentration(dissolved, ml).value;
        if (strength > 0.01) expect(volumeForDose(dissolved, strength).value / ml).toBeCloseTo(1, 1);
      }),
      seed,
    );
  });
  it('opens enough packets and never one too many', () => {
    fc.assert(
      fc.property(grams, fc.integer({ min: 1, max: 5000 }), (wof, fibreG) => {
        const { packets } = packetsFor(wof, { contentsG: 10, fibreG, auxiliaries: [] });
        expect(packets.value * fibreG).toBeGreaterThanOrEqual(wof * (1 - 1e-9));
        if (packets.value > 1) expect((packets.value - 1) * fibreG).toBeLessThan(wof);
      }),
      seed,
    );
  });
});

describe('what holds of baths', () => {
  it('brings any bath to its target, and takes nothing out of one that is over it', () => {
    fc.assert(
      fc.property(
        grams,
        fc.integer({ min: 1, max: 30 }),
        grams,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (went, percent, wof, uptake) => {
          const left = leftAfterUse(went, { uptakeShare: uptake }).value;
          const add = replenish(left, percent, wof).value;
          expect(add).toBeGreaterThanOrEqual(0);
          expect(left + add).toBeGreaterThanOrEqual((percent * wof) / 100 - 0.002);
          if (add > 0) expect(left + add).toBeCloseTo((percent * wof) / 100, 2);
        },
      ),
      seed,
    );
  });
  it('keeps what is dissolved in step with the volume', () => {
    fc.assert(
      fc.property(grams, fc.integer({ min: 1, max: 90_000 }), fc.integer({ min: 0, max: 90_000 }), (g, then, now) => {
        const [left] = contentsAtVolume([{ materialId: null, name: 'x', grams: g }], then, now);
        // More than there was is water that came in: it brings nothing along.
        expect(left?.grams).toBeCloseTo((g * Math.min(now, then)) / then, 2);
      }),
      seed,
    );
  });
  it('reads a darker strip as a stronger liquor', () => {
    const ladder = [0.5, 1, 2, 4].map((percentOwf, i) => ({ percentOwf, lightness: 62 - i * 8 }));
    fc.assert(
      fc.property(fc.integer({ min: 381, max: 619 }), fc.integer({ min: 381, max: 619 }), (a, b) => {
        const strength = (l: number): number => {
          const read = ladderStrength(ladder, { lightness: l / 10, liquorMl: 40, fibreG: 10 });
          return read.ok ? read.strength.value : NaN;
        };
        if (a < b) expect(strength(a)).toBeGreaterThanOrEqual(strength(b));
      }),
      seed,
    );
  });
});

describe('what holds of a forecast', () => {
  it('orders no later for a longer wait or an unevener use', () => {
    fc.assert(
      fc.property(
        fc
          .array(fc.integer({ min: 0, max: 900 }), { minLength: 10, maxLength: 52 })
          .filter((w) => w.filter((x) => x > 0).length > 3),
        fc.integer({ min: 1, max: 90 }),
        (weekly, lead) => {
          const rate = rateOfUse({ weekly });
          if (!rate) return;
          const point = (days: number, spread = rate.weekSpread): number =>
            reorder({ ...rate, weekSpread: spread }, { leadTimeDays: days, unit: 'mg' }).point.value;
          expect(point(lead + 7)).toBeGreaterThanOrEqual(point(lead));
          expect(point(lead, rate.weekSpread * 2)).toBeGreaterThanOrEqual(point(lead));
        },
      ),
      seed,
    );
  });
});

describe('the catalogue, entry by entry', () => {
  it.each(CATALOGUE.map((e) => [e.name, e] as const))('%s is whole', (_name, entry) => {
    expect(MATERIAL_KINDS).toContain(entry.kind);
    expect(entry.note).toMatch(/\.$/);
    expect(entry.forms.length).toBeGreaterThan(0);
    for (const form of entry.forms) expect(MATERIAL_FORMS).toContain(form);
    for (const hazard of entry.hazards) expect(HAZARDS).toContain(hazard);
    for (const word of [entry.light, entry.wash]) if (word !== null) expect(FASTNESS_LABELS).toContain(word);
    expect(entry.fibreGroups.length).toBeGreaterThan(0);
    if (entry.ceilingC !== null) expect(entry.ceilingC > 20 && entry.ceilingC <= 100).toBe(true);
    if (entry.season)
      for (const month of [entry.season.fromMonth, entry.season.toMonth]) expect(month >= 1 && month <= 12).toBe(true);
    if (entry.kind === 'dyestuff') expect(entry.botanicalName).not.toBe('');
    expect(`${entry.name} ${entry.note}`).not.toMatch(/\bsafe\b|harmless|non-toxic/i);
  });
  it('says of every hazard what protects, in the words of a label', () => {
    for (const hazard of HAZARDS) expect(HAZARD_LABELS[hazard].length).toBeGreaterThan(12);
  });
});
