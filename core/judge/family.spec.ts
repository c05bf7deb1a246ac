import { describe, expect, it } from 'vitest';
import {
  bathStep,
  input,
  linen,
  material,
  percent,
  planned,
  recipe,
  stockLot,
  wool,
} from '../scaling/plan-lot.fixture';
import { foldFamily, placeShade, standardFor, unitsOf } from './family';
import { isWholeLot, isWithin, judgedAlone, sayAlone, seenOfRest, seenOfShade } from './judged-alone';
import { WHOLE, dipsOf, hasShade } from '../scaling/shade-of';
import type { ShadeReading } from './verdict';
import { unseenUnits } from './verdict';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const master = { L: 60, a: 5, b: 40, ...D65 };
const onLinen = { L: 68, a: 3, b: 30, ...D65, baseMaterialId: 'linen' };
const plan = planned(
  input({
    recipe: recipe({ fibres: ['wool', 'linen'], steps: [bathStep('dye', [percent('weld', 50)])] }),
    bases: [wool(4), linen(2, 150)],
    materials: [material('weld', stockLot('WEL-1', 2000))],
  }),
);
const [woolKey, linenKey] = plan.groups.map((g) => g.key);
const standards = { master, expected: [{ ...onLinen, baseMaterialId: plan.groups[1]?.baseId ?? '' }] };
const read = (group: string | null, L: number, rest: Partial<ShadeReading> = {}): ShadeReading => ({
  batch: 1,
  group,
  zone: null,
  piece: null,
  dip: null,
  state: 'dry',
  lab: { L, a: 5, b: 40 },
  ...D65,
  ...rest,
});

describe('the shades of a lot', () => {
  it('are a family, each held against its own: the master, or what its base is expected to come out', () => {
    const family = foldFamily(plan, standards, [read(woolKey ?? null, 60.5), read(linenKey ?? null, 68.5)]);
    expect(family.map((m) => [m.label, m.standard?.L, m.lab?.L])).toEqual([
      [plan.groups[0]?.baseName, 60, 60.5],
      [plan.groups[1]?.baseName, 68, 68.5],
    ]);
    expect(family[0]?.deltaE).toBeLessThan(1);
  });
  it('are there before they are read, and a piece or a zone joins them once it is', () => {
    expect(foldFamily(plan, standards, []).map((m) => m.lab)).toEqual([null, null]);
    const family = foldFamily(plan, standards, [
      read(woolKey ?? null, 50, { piece: '3' }),
      read(null, 40, { zone: 'tide' }),
    ]);
    expect(family).toHaveLength(4);
    expect(family.map((m) => m.label)).toContain(`${plan.groups[0]?.baseName}, piece 3`);
    expect(family.find((m) => m.label === 'tide')?.standard).toBeNull();
  });
  it('nobody said what pieces that went another way are to be', () => {
    const parted = { ...plan, groups: plan.groups.map((g, i) => ({ ...g, part: i === 0 ? 'gold' : 'marsh' })) };
    expect(standardFor(parted, { group: linenKey ?? null, zone: null, piece: null, dip: null }, standards)).toBeNull();
  });
  it('have to be seen one by one, and a batch of one group is that group', () => {
    expect(unitsOf(plan).map((u) => [u.batch, u.group])).toEqual(
      plan.batches.flatMap((b) => b.groups.map((g) => [b.number, g.key])),
    );
    const single = plan.batches.find((b) => b.groups.length === 1);
    const whole = { batch: single?.number ?? 0, group: null, zone: null, piece: null, dip: null };
    expect(single === undefined || placeShade(plan, whole).group === single.groups[0]?.key).toBe(true);
  });
  it('of a lot of one base are one, whatever it is called', () => {
    const alone = { ...plan, groups: plan.groups.slice(0, 1) };
    expect(placeShade(alone, read('anything', 1)).group).toBeNull();
    expect(unitsOf(alone).every((u) => u.group === null)).toBe(true);
    expect(foldFamily(alone, standards, [])).toHaveLength(1);
  });
  it('are judged without what is held or refused by itself, wherever that was', () => {
    const alone = judgedAlone([
      {
        verdict: 'hold',
        of: { batch: 1, group: linenKey ?? null, zone: null, piece: null, dip: null },
        at: '1',
        takenBack: null,
      },
      {
        verdict: 'refuse',
        of: { batch: 1, group: linenKey ?? null, zone: null, piece: null, dip: null },
        at: '2',
        takenBack: null,
      },
      {
        verdict: 'pass',
        of: { batch: 1, group: woolKey ?? null, zone: null, piece: '1', dip: null },
        at: '3',
        takenBack: null,
      },
      { verdict: 'hold', of: null, at: '4', takenBack: null },
    ]);
    expect(alone.map((v) => [v.verdict, v.of.piece])).toEqual([
      ['refuse', null],
      ['pass', '1'],
    ]);
    const readings = [read(woolKey ?? null, 60.5), read(linenKey ?? null, 40)];
    const batches = plan.batches
      .slice(0, 1)
      .map((b) => ({ ...b, groups: plan.groups.map(({ key, pieces }) => ({ key, pieces })) }));
    const one = { ...plan, batches };
    const family = foldFamily(one, standards, readings, alone);
    expect(family.map((m) => [m.label, m.lab?.L, m.apart])).toEqual([
      [plan.groups[0]?.baseName, 60.5, null],
      [plan.groups[1]?.baseName, 40, 'refuse'],
    ]);
    const rest = seenOfRest({ units: unitsOf(one), readings, eyes: [] }, alone);
    expect([rest.units.map((u) => u.group), rest.readings.length]).toEqual([[woolKey], 1]);
    const linen = seenOfShade({ units: [], readings, eyes: [] }, alone[0]!.of, one);
    expect([linen.units[0]?.label, linen.readings[0]?.lab.L]).toEqual([plan.groups[1]?.baseName, 40]);
  });
  it('are all of a lot, or one of it: a batch, a base, a zone or a piece', () => {
    const of = { batch: 1, group: null, zone: null, piece: null, dip: null };
    const small = { groups: plan.groups.slice(0, 1), batches: plan.batches.slice(0, 1) };
    expect(isWholeLot(small, of)).toBe(true);
    expect(isWholeLot(small, { ...of, piece: '2' })).toBe(false);
    expect(isWholeLot(small, { ...of, zone: 'hem' })).toBe(false);
    expect(sayAlone(small, { ...of, piece: '2' })).toBe('piece 2');
    expect(sayAlone(small, of)).toBe('batch 1');
    const two = { ...small, batches: [plan.batches[0]!, { ...plan.batches[0]!, number: 2 }] };
    expect(isWholeLot(two, of)).toBe(false);
    expect(sayAlone(two, { ...of, batch: 2, piece: '2' })).toBe('batch 2, piece 2');
    expect(isWithin({ ...of, group: 'linen', piece: '2' }, { ...of, group: 'linen' })).toBe(true);
    expect(isWithin({ ...of, group: 'linen' }, { ...of, piece: '2' })).toBe(false);
  });
  it('are each dip of several too: seen beside the last, held against nothing, and passing nothing', () => {
    const one = planned(
      input({
        recipe: recipe({ steps: [{ ...bathStep('dye', [percent('weld', 50)]), repeats: 3 }] }),
        materials: [material('weld', stockLot('WEL-1', 2000))],
      }),
    );
    expect(dipsOf(one, null)).toBe(3);
    expect([1, 3, 4].map((dip) => hasShade(one, { ...WHOLE, dip }))).toEqual([true, true, false]);
    const seen = [read(null, 60), read(null, 72, { dip: 1 })];
    const family = foldFamily(one, standards, seen);
    expect(family.map((m) => [m.label, m.lab?.L, m.standard?.L])).toEqual([
      ['', 60, 60],
      ['after dip 1', 72, undefined],
    ]);
    const units = unitsOf(one);
    expect(unseenUnits({ units, readings: seen.slice(1), eyes: [], rule: 'reading' })).toEqual(units);
    expect(isWithin({ ...WHOLE, dip: 1 }, WHOLE)).toBe(false);
    expect(isWholeLot(one, { ...WHOLE, dip: 1 })).toBe(false);
  });
  it('that the lot hasn’t are told from those it has', () => {
    const of = { batch: 1, group: null, zone: null, piece: null, dip: null };
    expect(hasShade(plan, of, [])).toBe(true);
    expect(hasShade(plan, { ...of, batch: 9 }, [])).toBe(false);
    expect(hasShade(plan, { ...of, group: 'silk' }, [])).toBe(false);
    expect(hasShade(plan, { ...of, zone: 'tide' }, ['tide'])).toBe(true);
    expect(hasShade(plan, { ...of, zone: 'hem' }, ['tide'])).toBe(false);
    expect(['1', '6', 'red thread'].map((piece) => hasShade(plan, { ...of, piece }, []))).toEqual([true, true, true]);
    expect(['0', '7', '70'].map((piece) => hasShade(plan, { ...of, piece }, []))).toEqual([false, false, false]);
  });
});
