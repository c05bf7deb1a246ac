import { describe, expect, it } from 'vitest';
import { Chance } from '../quantity/chance';
import { sayMinutes } from '../quantity/duration';
import { learnSpoon, planInSpoons } from '../quantity/spoon';
import { studentT95, studentT95OneSided } from '../quantity/student';
import { rateOfUse, reorder } from './forecast';

const TRIALS = 4000;

/** Each certainty that the app states is tried on simulated studios: it must hold as often as it says. */
describe('what is said to hold nineteen times in twenty', () => {
  it.each([3, 4, 6, 12])('does for spoonfuls learnt from %i weighings', (weighings) => {
    const chance = new Chance(31 + weighings);
    const spoonful = (): number => 5 + 0.4 * chance.normal();
    let held = 0;
    for (let i = 0; i < TRIALS; i += 1) {
      const spoon = learnSpoon(
        Array.from({ length: weighings }, () => spoonful()),
        5,
      );
      const plan = planInSpoons(20, spoon, 'tsp');
      const [low = 0, high = 0] = [...(plan.working.notes[1] ?? '').matchAll(/([\d.]+) g/g)].map((m) => Number(m[1]));
      // Whole spoonfuls one by one, and the quarters left as their share of one.
      let given = 0;
      for (let s = 0; s < Math.floor(plan.value); s += 1) given += spoonful();
      given += (plan.value % 1) * spoonful();
      if (given >= low && given <= high) held += 1;
    }
    expect(held / TRIALS).toBeGreaterThan(0.935);
    expect(held / TRIALS).toBeLessThan(0.99);
  });

  it.each([
    [8, 14],
    [16, 28],
    [26, 42],
  ])('does for the reorder level, from %i weeks of steady use and %i days of waiting', (weeks, leadTimeDays) => {
    const chance = new Chance(7 * weeks + leadTimeDays);
    const week = (): number => Math.max(0, 100_000 + 25_000 * chance.normal());
    let enough = 0;
    for (let i = 0; i < TRIALS; i += 1) {
      const rate = rateOfUse({ weekly: Array.from({ length: weeks }, () => week()) });
      if (!rate) throw new Error('too little use to say');
      const { point } = reorder(rate, { leadTimeDays, unit: 'mg' });
      let used = 0;
      for (let w = 0; w < leadTimeDays / 7; w += 1) used += week();
      if (used <= point.value) enough += 1;
    }
    expect(enough / TRIALS).toBeGreaterThan(0.94);
    expect(enough / TRIALS).toBeLessThan(0.96);
  });
});

describe('Student’s t', () => {
  it.each([
    [1, 12.706, 6.314],
    [2, 4.303, 2.92],
    [10, 2.228, 1.812],
    [30, 2.042, 1.697],
  ])('of %i degrees of freedom is as published', (freedom, both, one) =>
    expect([studentT95(freedom), studentT95OneSided(freedom)]).toEqual([both, one]),
  );
  it('comes down to the normal, and refuses none', () => {
    expect(studentT95(1e6)).toBeCloseTo(1.96, 3);
    expect(studentT95OneSided(1e6)).toBeCloseTo(1.645, 3);
    expect(() => studentT95(0)).toThrow(RangeError);
    expect(() => studentT95OneSided(0)).toThrow(RangeError);
  });
});

describe('a day of twenty-four hours', () => {
  it.each([
    [6 * 1440 + 23 * 60 + 40, '7 d'],
    [2 * 1440, '2 d'],
    [2 * 1440 + 29, '2 d'],
    [3 * 1440 - 1, '3 d'],
    [47 * 60 + 59, '47 h 59 min'],
  ])('%i min are “%s”', (minutes, label) => expect(sayMinutes(minutes)).toBe(label));
});
