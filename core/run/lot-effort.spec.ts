import { describe, expect, it } from 'vitest';
import { planEffort } from '../scaling/plan-effort';
import { bathStep, input, planned, pot, recipe, wool } from '../scaling/plan-lot.fixture';
import { effortSoFar } from './lot-effort';
import type { StepRecord } from './step-record';

const ring = { id: 'ring', name: 'ring', powerW: 2000, efficiencyPercent: 60 };
const steps = [
  bathStep('mordant', [], { key: 'a', temperatureC: 85, durationMin: 60 }),
  bathStep('dye', [], { key: 'b', temperatureC: 70, durationMin: 90, attended: true }),
];
const plan = planned(
  input({
    bases: [wool(6)],
    vessels: [pot('kettle', 19, { heatSource: ring })],
    recipe: recipe({ steps }),
    materials: [],
  }),
);
const record = (stepIndex: number, rest: Partial<StepRecord> = {}): StepRecord => ({
  stepIndex,
  temperaturesC: [],
  weighings: [],
  ...rest,
});
const at = (hour: number): string => new Date(Date.UTC(2026, 5, 1) + hour * 3_600_000).toISOString();
const done = (stepIndex: number, hours = 1, rest: Partial<StepRecord> = {}): StepRecord =>
  record(stepIndex, { startedAt: at(8), finishedAt: at(8 + hours), ...rest });
const [fibre, mordant, dye] = plan.steps.map((s) => s.index);

describe('what a lot took so far', () => {
  it('is nothing before it began', () =>
    expect(
      effortSoFar(
        plan,
        plan.steps.map((s) => record(s.index)),
      ),
    ).toEqual({ heatKwh: 0, waterL: 0, handsMin: 0 }));
  it('is heat and water of the baths that were done', () => {
    const whole = planEffort(plan);
    const half = effortSoFar(plan, [done(fibre ?? 0), done(mordant ?? 1), record(dye ?? 2)]);
    expect(half.heatKwh).toBeGreaterThan(whole.heatKwh / 2);
    expect(half.heatKwh).toBeLessThan(whole.heatKwh);
    expect(half.waterL).toBeCloseTo(whole.waterL / 2, 3);
  });
  it('counts hands as long as they stayed, without pauses, and touches elsewhere as planned', () => {
    const whole = planEffort(plan);
    const all = (dyed: StepRecord) =>
      effortSoFar(plan, [done(fibre ?? 0, (plan.steps[0]?.durationMin ?? 0) / 60), done(mordant ?? 1, 9), dyed])
        .handsMin;
    expect(all(done(dye ?? 2, 2)) - whole.handsMin).toBe(30);
    expect(all(done(dye ?? 2, 2, { pausedMs: 30 * 60_000 }))).toBe(whole.handsMin);
  });
  it('counts a pot that stayed on longer, or got hotter, as that much more heat', () => {
    const heat = (mordanted: StepRecord): number => effortSoFar(plan, [done(fibre ?? 0), mordanted]).heatKwh;
    const asMeant = heat(done(mordant ?? 1));
    const bath = plan.steps[mordant ?? 1]?.baths[0]?.heating;
    const holding = bath?.ok ? bath.holding : undefined;
    if (!holding) throw new Error('the mordant bath is not heated');
    // One hour at 85 °C, and two more; or 5 °C hotter all the while.
    const hourKwh = (holding.wPerK * (85 - holding.roomC)) / 1000;
    expect(heat(done(mordant ?? 1, 3)) - asMeant).toBeCloseTo(2 * hourKwh, 1);
    expect(heat(done(mordant ?? 1, 1, { temperaturesC: [60, 90] })) - asMeant).toBeCloseTo(
      (holding.wPerK * 5) / 1000,
      1,
    );
    expect(hourKwh).toBeGreaterThan(0.1);
  });
  it('leaves out what was skipped', () =>
    expect(
      effortSoFar(plan, [done(fibre ?? 0), done(mordant ?? 1, 1, { skippedReason: 'ready mordanted' }), record(2)]),
    ).toMatchObject({
      heatKwh: 0,
      waterL: 0,
    }));
});
