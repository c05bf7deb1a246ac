import { describe, expect, it } from 'vitest';
import { heatBath } from '../bath/heating';
import { isPlanCaution, sayBathNote } from './bath-note';
import { bathNotes } from './bath-notes';
import type { KeptPlan } from './kept-plan';
import { completePlan } from './kept-plan';
import { readPlanCaution, sayPlanCaution } from './plan-caution';
import { ROOM, bathStep, input, material, percent, planned, pot, recipe, stockLot, wool } from './plan-lot.fixture';

const WEAK = { id: 'w', name: 'Small ring', powerW: 400, efficiencyPercent: 50 };

describe('heating to where a burner settles', () => {
  const bath = { liquorMl: 30_000, wofG: 0, fromC: 12 };
  const far = heatBath({ ...bath, toC: 99 }, WEAK, ROOM);
  if (far.ok) throw new Error('a small ring should not boil thirty litres');

  it('says to which degree it gets, and counts two degrees under that as not getting there', () => {
    const reaches = far.reachesC;
    expect(reaches).toBeGreaterThan(40);
    expect(heatBath({ ...bath, toC: reaches - 3 }, WEAK, ROOM).ok).toBe(true);
    expect(heatBath({ ...bath, toC: reaches - 0.9 }, WEAK, ROOM).ok).toBe(false);
  });

  it('settles as much hotter as the room is, and at twice the rise for twice the power', () => {
    const warmer = heatBath({ ...bath, toC: 99 }, WEAK, { ...ROOM, roomC: 28 });
    const double = heatBath({ liquorMl: 30_000, wofG: 0, fromC: 12, toC: 400 }, { ...WEAK, powerW: 800 }, ROOM);
    expect([warmer.ok, double.ok]).toEqual([false, false]);
    expect(warmer).toMatchObject({ reachesC: far.reachesC + 10 });
    const rise = (reachesC: number): number => reachesC - ROOM.roomC;
    expect(rise('reachesC' in double ? double.reachesC : 0) / rise(far.reachesC)).toBeCloseTo(2, 1);
  });
});

describe('notes on a bath', () => {
  const plan = (temperatureC: number, rest: Parameters<typeof pot>[2] = {}) =>
    planned(
      input({
        bases: [wool(2)],
        vessels: [pot('tub', 30, rest)],
        materials: [material('alum', stockLot('A', 900))],
        recipe: recipe({
          allowedMetals: ['stainless', 'plastic'],
          steps: [bathStep('mordant', [percent('alum', 10)], { temperatureC })],
        }),
      }),
    );

  it('that it is too hot for the vessel is a caution of the plan', () => {
    const hot = plan(80, { metal: 'plastic', maxC: 60 });
    expect(hot.cautions.map(sayPlanCaution)).toContain(
      'tub (plastic) takes 60 °C at most; this step goes to 80 °C. Choose another vessel.',
    );
    expect(plan(60, { metal: 'plastic', maxC: 60 }).cautions.map(sayPlanCaution).join()).not.toContain('at most');
  });

  it('that a burner never gets it there is a caution of the plan, once for all steps that share the bath', () => {
    const slow = plan(95, { heatSource: { ...WEAK, powerW: 150 } });
    expect(slow.cautions.map(sayPlanCaution).filter((c) => c.includes('no further'))).toHaveLength(1);
  });

  it('that water can be mixed for it is not', () => {
    const warm = plan(40);
    expect(
      warm.steps
        .flatMap((s) => s.baths)
        .flatMap((b) => b.notes)
        .join(),
    ).toContain('of hot and');
    expect(warm.cautions.map(sayPlanCaution).join()).not.toContain('of hot and');
  });

  it('are facts with a code, each with a sentence of its own', () => {
    const notes = bathNotes(
      {
        vessel: pot('tub', 80, { metal: 'plastic', maxC: 40 }),
        toC: 50,
        liquorMl: 60_000,
        wofG: 8000,
        turns: 2,
        pieces: 5,
        shares: 2,
        heating: { ok: false, reachesC: 45 },
        fullWeight: { value: 70, unit: 'kg', working: { formula: '', inputs: [], notes: [] } },
        withPieces: true,
      },
      input(),
    );
    expect(notes.map((n) => n.code)).toEqual([
      'sharedBath',
      'turns',
      'tooLittleHeat',
      'mixWater',
      'tooHotForVessel',
      'heavyPot',
      'heavyPieces',
    ]);
    expect(notes.filter(isPlanCaution).map((n) => n.code)).toEqual(['tooLittleHeat', 'tooHotForVessel']);
    expect(new Set(notes.map(sayBathNote)).size).toBe(7);
    for (const note of notes) expect(sayBathNote(note)).toMatch(/^[A-Z0-9].*\.$|^tub .*\.$/);
  });
});

describe('a plan kept long ago', () => {
  it('keeps the sentence of a caution whose facts were not kept', () => {
    const weak = { code: 'bath', note: { code: 'tooLittleHeat', message: 'Too weak.' } } as const;
    expect([readPlanCaution(weak), readPlanCaution('Two baths.')].map(sayPlanCaution)).toEqual([
      'Too weak.',
      'Two baths.',
    ]);
  });
  it('is read with everything it does not say', () => {
    const [first] = planned(input({ bases: [wool(2)] })).batches;
    if (!first) throw new Error('no batch');
    const { groups: _groups, fill: _fill, ...batch } = first;
    const figure = { value: 1, unit: 'g', working: { formula: '', inputs: [], notes: [] } };
    const bare = {
      index: 0,
      kind: 'dye' as const,
      title: 'Dye',
      instruction: '',
      durationMin: 60,
      attended: false,
      lookFor: '',
      usesBath: true,
      cautions: [],
    };
    const kept: KeptPlan = {
      pieces: 2,
      pieceWeightG: 100,
      wof: figure,
      liquorRatio: 30,
      batches: [batch],
      cautions: [],
      materials: [{ materialId: 'alum', name: 'Alum', total: figure, picks: [], short: 0, notes: [] }],
      steps: [
        { ...bare, weighings: [] },
        {
          ...bare,
          index: 1,
          weighings: [{ batch: 3, materialId: 'alum', materialName: 'Alum', target: figure, tolerance: 1, picks: [] }],
        },
      ],
    };
    const plan = completePlan(kept);
    expect(plan.groups).toEqual([]);
    expect(plan.batches[0]).toMatchObject({ groups: [], fill: 1 });
    expect(plan.materials[0]?.measure).toBe('weight');
    expect(plan.steps[0]?.after).toEqual([]);
    expect(plan.steps[1]).toMatchObject({
      key: '',
      after: [0],
      finishedBy: 'clock',
      wait: null,
      course: [],
      repeats: 1,
      strain: null,
      targetPh: null,
      forWhom: '',
      baths: [],
      weighings: [{ forBatches: [3], measure: 'weight', advice: [] }],
    });
  });

  it('made today comes back as it is', () => {
    const plan = planned(input());
    expect(completePlan(plan)).toEqual(plan);
  });
});
