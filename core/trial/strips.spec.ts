import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAX_TAGS, knotTag, readKnotTag, sayKnotTag } from './knot-tag';
import type { PlacedPlan, PlacedZone } from '../recipe/placed';
import { findPlacedFault, layOutPlaced } from '../recipe/placed';
import { sayPlacedCaution, sayPlacedFault } from '../recipe/placed-fault';
import { bathStep, input, material, percent, planned, recipe, stockLot } from '../scaling/plan-lot.fixture';
import type { StripTrial } from './strips';
import { applyLevel, layLiquorStrips, layStrips, levelLabel, rankStrips } from './strips';
import { sayStripRefusal } from './strip-refusal';

describe('knot tags', () => {
  it.each<[number, number[], string]>([
    [1, [1], '1 knot'],
    [4, [4], '4 knots close together'],
    [5, [1, 1], '1 knot, a thumb’s width, 1 knot'],
    [20, [4, 4], '4 knots close together, a thumb’s width, 4 knots close together'],
    [21, [1, 0, 1], '1 knot, a thumb’s width, a gap of a thumb, a thumb’s width, 1 knot'],
  ])('%i is %j', (n, groups, label) => {
    expect(knotTag(n)).toEqual(groups);
    expect(sayKnotTag(groups)).toBe(label);
  });
  it('tells a hundred apart, and is read back', () => {
    const all = Array.from({ length: MAX_TAGS }, (_, i) => knotTag(i + 1));
    expect(new Set(all.map(String)).size).toBe(100);
    all.forEach((groups, i) => expect(readKnotTag(groups)).toBe(i + 1));
    expect(all.every((g) => g.at(-1) !== 0)).toBe(true);
  });
  it.each([0, 101, 1.5])('has no tag for %s', (n) => expect(() => knotTag(n)).toThrow(RangeError));
});

const context = { balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 }, water: null, today: '2026-06-01' };
const materials = [material('alum'), material('weld')];
const level = (value: number | null, refId: string | null = null) => ({
  value,
  refId,
  label: value === null ? 'choice' : `${value}`,
});
const trial = (change: Partial<StripTrial> = {}): StripTrial => ({
  factor: 'dose',
  materialId: 'weld',
  totalG: 60,
  levels: [25, 50, 75, 100, 150, 200].map((v) => level(v)),
  ...change,
});

describe('strips in bowls, by no recipe', () => {
  const levels = ['coffee, strained', 'coffee, grounds in', 'red onion'].map((label) => ({ ...level(null), label }));
  it('need a name for each bowl and nothing else: no balance, no shelf', () => {
    const layout = layLiquorStrips({ totalG: null, levels });
    if (!layout.ok) throw new Error(sayStripRefusal(layout.refusal));
    expect(layout.strips.map((s) => [s.label, s.knots, s.weight, s.weighings.length])).toEqual([
      ['coffee, strained', [1], null, 0],
      ['coffee, grounds in', [2], null, 0],
      ['red onion', [3], null, 0],
    ]);
  });
  it('know their share where they were weighed together', () => {
    const layout = layLiquorStrips({ totalG: 45, levels });
    expect(layout.ok && layout.strips.map((s) => s.weight?.value)).toEqual([15, 15, 15]);
  });
  it('are two or more', () =>
    expect(layLiquorStrips({ totalG: null, levels: levels.slice(0, 1) })).toMatchObject({
      ok: false,
      refusal: { code: 'numberOfStrips' },
    }));
});

describe('strip trials', () => {
  it('cuts equal strips of a weighed total, each with its own dose and its knots', () => {
    const layout = layStrips(trial(), recipe(), materials, context);
    if (!layout.ok) throw new Error(sayStripRefusal(layout.refusal));
    expect(layout.strips.map((s) => s.weight?.value)).toEqual([10, 10, 10, 10, 10, 10]);
    expect(layout.strips.map((s) => s.weighings.find((w) => w.materialId === 'weld')?.target.value)).toEqual([
      2.5, 5, 7.5, 10, 15, 20,
    ]);
    expect(layout.strips.map((s) => s.weighings.find((w) => w.materialId === 'alum')?.target.value)).toEqual(
      Array(6).fill(1.5),
    );
    expect(layout.strips.map((s) => s.knots)).toEqual([[1], [2], [3], [4], [1, 1], [2, 1]]);
  });
  it('counts a jar’s strength as lots do, and each source by its own', () => {
    const stock = [
      stockLot('OLD', 500, { strengthPercent: 50 }),
      stockLot('NEW', 500, { strengthPercent: 125, receivedOn: '2026-02-01' }),
    ];
    const weld = { ...material('weld'), stock };
    const gramsOf = (change: Partial<StripTrial>): (number | undefined)[] => {
      const layout = layStrips(trial(change), recipe(), [material('alum'), weld], context);
      if (!layout.ok) throw new Error(sayStripRefusal(layout.refusal));
      return layout.strips.map((s) => s.weighings.find((w) => w.materialId === 'weld')?.target.value);
    };
    // The jar received first is half as strong: twice as much of it.
    expect(gramsOf({ levels: [25, 50].map((v) => level(v)) })).toEqual([15, 30]);
    expect(gramsOf({ factor: 'source', levels: [level(null, 'OLD'), level(null, 'NEW')] })).toEqual([60, 24]);
  });
  it('keeps the source of a strip that is promoted: the next lot takes that jar first', () => {
    const sources = { factor: 'source' as const, materialId: 'weld' };
    const steps = applyLevel(recipe().steps, sources, { value: null, refId: 'NEW', label: 'NEW' });
    const dose = steps.flatMap((s) => s.doses).find((d) => d.materialId === 'weld');
    expect(dose).toMatchObject({ percentOwf: 100, source: { stockLotId: 'NEW', tag: 'NEW' } });
    const picksOf = (newG: number) => {
      const weld = material('weld', stockLot('OLD', 5000), stockLot('NEW', newG, { receivedOn: '2026-02-01' }));
      const plan = planned(
        input({ recipe: recipe({ steps }), materials: [material('alum', stockLot('ALU-1', 900)), weld] }),
      );
      return plan.materials.find((m) => m.materialId === 'weld');
    };
    expect(picksOf(3000)?.picks.map((p) => p.stockLotId)).toEqual(['NEW']);
    expect(picksOf(100)?.notes[0]).toMatch(/proven with NEW, which doesn’t hold enough/);
  });
  it.each<[string, Partial<StripTrial>, RegExp]>([
    ['one strip', { levels: [level(10)] }, /2 to 24 strips/],
    ['nothing weighed', { totalG: 0 }, /Weigh all strips/],
    ['crumbs', { totalG: 6 }, /too little for a balance/],
    ['a material dosed elsewhere', { factor: 'mordant', materialId: 'weld' }, /weld is not dosed where the mordant is/],
  ])('refuses %s', (_name, change, message) => {
    const layout = layStrips(trial(change), recipe(), materials, context);
    expect(layout.ok ? '' : sayStripRefusal(layout.refusal)).toMatch(message);
  });
  it('makes one level a recipe: a dose, a time, a salt, nothing at all', () => {
    const { steps } = recipe({
      steps: [
        bathStep('mordant', [percent('alum', 15)]),
        bathStep('extract', [percent('weld', 100)]),
        bathStep('dye', [], {
          durationMin: 60,
          course: [
            { do: 'raise', toC: 75, minutes: 30 },
            { do: 'hold', toC: 75, minutes: 60 },
          ],
        }),
      ],
    });
    expect(applyLevel(steps, trial(), level(75))[1]?.doses).toEqual([percent('weld', 75)]);
    expect(applyLevel(steps, trial({ factor: 'time', materialId: null }), level(90))[2]).toMatchObject({
      durationMin: 90,
      course: [{ minutes: 30 }, { minutes: 90 }],
    });
    expect(applyLevel(steps, trial({ factor: 'mordant', materialId: 'alum' }), level(10, 'acetate'))[0]?.doses).toEqual(
      [percent('acetate', 10)],
    );
    expect(applyLevel(steps, trial({ factor: 'mordant', materialId: 'alum' }), level(0))[0]?.doses).toEqual([]);
    expect(applyLevel(steps, trial({ factor: 'water', materialId: null }), level(null, 'jar'))).toEqual(steps);
    expect(levelLabel('time', 40)).toBe('40 min');
  });
  it('ranks by depth, or by the shade wanted', () => {
    const undyed = { L: 84, a: 1, b: 12 };
    const readings = [
      { number: 1, lab: { L: 80, a: 0, b: 30 } },
      { number: 2, lab: { L: 70, a: -2, b: 55 } },
      { number: 3, lab: { L: 75, a: -2, b: 45 } },
    ];
    expect(rankStrips(readings, undyed, null).map((r) => r.number)).toEqual([2, 3, 1]);
    expect(rankStrips(readings, undyed, { L: 75, a: -2, b: 45 }).map((r) => [r.number, r.toWanted])[0]).toEqual([3, 0]);
  });
});

const zone = (title: string, fromPercent: number, toPercent: number, rest: Partial<PlacedZone> = {}): PlacedZone => ({
  title,
  way: 'dip',
  fromPercent,
  toPercent,
  order: 1,
  minutes: 30,
  waitMin: 0,
  mlPerPiece: null,
  gPerPiece: null,
  materialId: null,
  spacingCm: null,
  ...rest,
});
const placed = (...zones: PlacedZone[]): PlacedPlan => ({ lengthCm: 75, piece: 'skein', bleedPercent: 4, zones });

describe('placed colour', () => {
  it.each<[string, PlacedPlan, string, RegExp]>([
    ['no length', { ...placed(zone('a', 0, 50)), lengthCm: 0 }, 'noLength', /Measure it/],
    ['no zone', placed(), 'noZone', /no zone/],
    ['beyond the piece', placed(zone('a', 60, 101)), 'outside', /from 60 % to 101 %/],
    ['backwards', placed(zone('a', 50, 50)), 'backwards', /ends before/],
    [
      'overlapping in one turn',
      placed(zone('a', 0, 50), zone('b', 40, 80)),
      'overlap',
      /overlap between 40 % and 50 %/,
    ],
    ['sprayed without ml', placed(zone('a', 0, 50, { way: 'spray' })), 'noMl', /how many ml/],
  ])('finds %s', (_name, plan, code, message) => {
    const fault = findPlacedFault(plan);
    expect(fault?.code).toBe(code);
    expect(fault && sayPlacedFault(fault)).toMatch(message);
  });
  it('lets a later turn dye over an earlier one', () =>
    expect(findPlacedFault(placed(zone('a', 0, 60), zone('b', 40, 100, { order: 2 })))).toBeUndefined());
  it('lays zones, ties and turns out alike for every piece', () => {
    const layout = layOutPlaced(
      placed(
        zone('ends', 80, 100, { order: 2, minutes: 20, waitMin: 60 }),
        zone('ties', 20, 60, { way: 'tie', spacingCm: 10, minutes: 0 }),
        zone('spots', 0, 10, { way: 'pour', mlPerPiece: 12, order: 3, minutes: 5 }),
      ),
      12,
    );
    expect(layout.zones.map((z) => [z.title, z.fromCm, z.toCm, z.startsMin])).toEqual([
      ['ties', 15, 45, 0],
      ['ends', 60, 75, 0],
      ['spots', 0, 7.5, 80],
    ]);
    expect(layout.zones[0]?.pointsCm).toEqual([20, 30, 40]);
    expect(layout.zones[2]?.totalMl).toBe(144);
    expect(layout.totalMin).toBe(85);
    expect(layout.cautions.map(sayPlacedCaution).join(' ')).toContain('undyed cord');
  });
  it('warns where wet zones stand nearer than liquid creeps', () =>
    expect(layOutPlaced(placed(zone('a', 0, 40), zone('b', 42, 90)), 1).cautions.map(sayPlacedCaution)[0]).toMatch(
      /“a” and “b” stand 2 % apart, nearer than the 4 %/,
    ));
  it('keeps every tie within its zone, evenly', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 5, max: 40 }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.integer({ min: 20, max: 500 }),
        (from, width, spacingCm, lengthCm) => {
          const [layout] = layOutPlaced(
            { ...placed(zone('t', from, from + width, { way: 'tie', spacingCm })), lengthCm },
            3,
          ).zones;
          const points = layout?.pointsCm ?? [];
          expect(points.length).toBeGreaterThan(0);
          for (const p of points) expect(p >= (layout?.fromCm ?? 0) - 0.1 && p <= (layout?.toCm ?? 0) + 0.1).toBe(true);
          const gaps = points.slice(1).map((p, i) => p - (points[i] ?? 0));
          if (gaps.length > 1) expect(Math.max(...gaps) - Math.min(...gaps)).toBeLessThanOrEqual(0.21);
        },
      ),
      { seed: 64 },
    );
  });
});
