import { describe, expect, it } from 'vitest';
import { findAlternatives, unevenness } from './alternatives';
import { planEffort } from './plan-effort';
import { bathStep, input, material, percent, planned, pot, recipe, stockLot, wool } from './plan-lot.fixture';
import type { PlanInput } from './plan-input';
import { planLot } from './plan-lot';

const ring = { id: 'ring', name: 'ring', powerW: 2000, efficiencyPercent: 60 };
const three = [pot('kettle', 19, { heatSource: ring }), pot('pan', 13), pot('enamel', 7)];
const lot = (change: Partial<PlanInput> = {}): PlanInput =>
  input({
    bases: [wool(12)],
    vessels: three,
    recipe: recipe({ minLiquorRatio: 15, steps: [bathStep('dye', [percent('weld', 50)], { temperatureC: 80 })] }),
    materials: [material('weld', stockLot('WEL-1', 9000))],
    ...change,
  });

describe('ways beside the proposal', () => {
  const uneven = planned(lot());

  it('are offered where pots make unlike batches, and each is more alike', () => {
    expect(uneven.batches.map((b) => b.pieces)).toEqual([6, 4, 2]);
    const found = findAlternatives(lot(), uneven);
    expect(found.length).toBeGreaterThan(0);
    for (const way of found) {
      const pieces = way.batches.map((b) => b.pieces);
      expect(pieces.reduce((sum, n) => sum + n, 0)).toBe(12);
      expect(1 - Math.min(...pieces) / Math.max(...pieces)).toBeLessThan(unevenness(uneven) / 2);
    }
    expect(found.find((w) => w.code === 'oneVessel')).toMatchObject({
      vesselIds: ['kettle'],
      fills: 2,
      batches: [{ pieces: 6 }, { pieces: 6 }],
    });
  });

  it('work when they are asked for, and cost what they say', () => {
    for (const { vesselIds, fills, liquorRatio, effort, batches } of findAlternatives(lot(), uneven)) {
      const again = planLot(
        lot({ vessels: vesselIds ? three.filter((v) => vesselIds.includes(v.id)) : three, fills, liquorRatio }),
      );
      if (!again.ok) throw new Error(again.refusal.code);
      expect(again.plan.batches.map((b) => b.pieces)).toEqual(batches.map((b) => b.pieces));
      expect(planEffort(again.plan)).toEqual(effort);
    }
  });

  it('are none where the batches are alike already', () => {
    const even = lot({ bases: [wool(6)] });
    expect(findAlternatives(even, planned(even))).toEqual([]);
  });
});

describe('what a plan asks', () => {
  it('counts a vessel that is filled twice twice: heat, hands and hours', () => {
    const once = planEffort(planned(lot({ bases: [wool(6)], vessels: three.slice(0, 1) })));
    const twice = planEffort(planned(lot({ vessels: three.slice(0, 1), fills: 2 })));
    expect(twice.heatKwh).toBeCloseTo(2 * once.heatKwh, 1);
    expect(twice.throughMin - once.throughMin).toBe(60);
    expect(twice.handsMin - once.handsMin).toBe(10);
  });

  it('lets branches go on beside each other, and adds the least wait', () => {
    const steps = [
      bathStep('scour', [], { key: 'a', after: [], durationMin: 60 }),
      bathStep('extract', [], { key: 'b', after: [], durationMin: 300, wait: { minMinutes: 600, maxMinutes: null } }),
      bathStep('dye', [], { key: 'c', after: ['a', 'b'], durationMin: 90, attended: true }),
    ];
    const effort = planEffort(planned(lot({ bases: [wool(2)], recipe: recipe({ steps }) })));
    const fibreMin = planned(lot()).steps[0]?.durationMin ?? 0;
    expect(effort.throughMin).toBe(fibreMin + 300 + 600 + 90);
  });
});
