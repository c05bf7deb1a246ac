import { describe, expect, it } from 'vitest';
import type { HeatLeg } from '../recipe/course';
import { heldKwh } from './held-heat';
import type { PlannedBath } from './lot-plan';
import { planEffort } from './plan-effort';
import { bathStep, input, planned, pot, recipe, wool } from './plan-lot.fixture';

/** Ten watts for each degree above a room of 20 °C. */
const bath = (turns = 1): PlannedBath =>
  ({ turns, heating: { ok: true, holding: { wPerK: 10, roomC: 20 } } }) as PlannedBath;
const step = (course: readonly HeatLeg[], rest: object = {}): Parameters<typeof heldKwh>[0] => ({
  baths: [bath()],
  course,
  durationMin: 60,
  repeats: 1,
  temperatureC: 80,
  ...rest,
});

describe('what keeping a bath hot draws', () => {
  it('is all of a step without a course, and nothing of one without a temperature', () => {
    expect(heldKwh(step([]), 60)).toBeCloseTo(0.6, 9);
    expect(heldKwh(step([]), 90, 10)).toBeCloseTo(1.05, 9);
    expect(heldKwh(step([], { temperatureC: undefined }), 600)).toBe(0);
  });
  it('is by the legs that hold, each pass of them', () => {
    const course: HeatLeg[] = [
      { do: 'raise', toC: 60, minutes: 30 },
      { do: 'hold', minutes: 30 },
      { do: 'cool', minutes: 600 },
    ];
    // Half an hour at 60 °C; that it stood longer costs nothing, since it cooled.
    expect(heldKwh(step(course), 660)).toBeCloseTo(0.2, 9);
    expect(heldKwh(step(course), 1200)).toBeCloseTo(0.2, 9);
    expect(heldKwh(step(course, { repeats: 2 }), 1320)).toBeCloseTo(0.4, 9);
    // Lifted early, it was held no longer than that.
    expect(heldKwh(step(course), 45)).toBeCloseTo(0.1, 9);
    const held = [...course.slice(0, 1), { do: 'hold' as const, toC: 70, minutes: 30 }];
    expect(heldKwh(step(held), 120)).toBeCloseTo(0.75, 9);
  });
  it('is as often as a pot is filled, and unknown of plans kept before', () => {
    expect(heldKwh(step([], { baths: [bath(3), bath()] }), 60)).toBeCloseTo(2.4, 9);
    const before = { turns: 1, heating: { ok: true } } as PlannedBath;
    expect(heldKwh(step([], { baths: [before] }), 60)).toBe(0);
  });
  it('is in what a lot asks, by what its pots lose', () => {
    const ring = { id: 'ring', name: 'ring', powerW: 2000, efficiencyPercent: 60 };
    const lot = (durationMin: number): number =>
      planEffort(
        planned(
          input({
            bases: [wool(6)],
            vessels: [pot('kettle', 19, { heatSource: ring })],
            recipe: recipe({ steps: [bathStep('dye', [], { key: 'b', temperatureC: 85, durationMin })] }),
            materials: [],
          }),
        ),
      ).heatKwh;
    // A lidded pot of some 20 l at 85 °C loses a few hundred watts.
    const hourKwh = lot(120) - lot(60);
    expect(hourKwh).toBeGreaterThan(0.2);
    expect(hourKwh).toBeLessThan(1);
    expect(lot(180) - lot(120)).toBeCloseTo(hourKwh, 1);
  });
});
