import { describe, expect, it } from 'vitest';
import { formatAmount, readAmount } from './amount';
import { learnSpoon, planInSpoons } from './spoon';
import type { VolumeSystem } from './volume';
import { kitchenUnitMl, readVolume } from './volume';

describe('readVolume', () => {
  it.each<[string, VolumeSystem | undefined, number]>([
    ['500 ml', undefined, 500],
    ['1,5 l', undefined, 1500],
    ['2 dl', undefined, 200],
    ['½ l', undefined, 500],
    ['1 1/2 litres', undefined, 1500],
    ['1 US gal', undefined, 3785.411784],
    ['1 imperial gallon', undefined, 4546.09],
    ['1 uk gallon', undefined, 4546.09],
    ['2 US cups', undefined, 473.176473],
    ['1 metric cup', undefined, 250],
    ['1 gal', 'us', 3785.411784],
    ['1 gal', 'imperial', 4546.09],
    ['3 tsp', 'metric', 15],
    ['1/2 tsp', 'us', 2.46446],
    ['8 US fl oz', undefined, 236.588],
    ['1 imperial pint 3 fl oz', undefined, 653.5],
    ['1 tbsp.', 'metric', 15],
  ])('reads %s (%s)', (text, system, ml) => {
    const read = readVolume(text, { system });
    expect(read.ok && read.volumeMl).toBeCloseTo(ml, 1);
  });

  it.each<[string, VolumeSystem | undefined, string]>([
    ['1 cup', undefined, 'whichSystem'],
    ['2 gal', undefined, 'whichSystem'],
    ['1 gallon', 'metric', 'unknownUnit'],
    ['5', undefined, 'noUnit'],
    ['3 barrels', undefined, 'unknownUnit'],
    ['-1 l', undefined, 'notPositive'],
    ['0 ml', undefined, 'notPositive'],
    ['', undefined, 'notAVolume'],
    ['some', undefined, 'notAVolume'],
    ['2000 l', undefined, 'tooMuch'],
    ['3 constructor', undefined, 'unknownUnit'],
  ])('refuses “%s” (%s): %s', (text, system, code) => {
    const read = readVolume(text, { system });
    expect(read).toMatchObject({ ok: false, code });
    expect(!read.ok && read.message).toMatch(/[.]$/);
  });

  it('never confuses an imperial gallon with a US one: the whole family differs', () => {
    for (const unit of ['tsp', 'tbsp', 'flOz', 'pint', 'gallon'] as const) {
      const [us, imperial] = [kitchenUnitMl(unit, 'us') ?? 0, kitchenUnitMl(unit, 'imperial') ?? 0];
      expect(us).toBeGreaterThan(0);
      expect(Math.abs(us - imperial) / us).toBeGreaterThan(0.03);
    }
  });

  it('says which spoon was taken', () => {
    expect(readVolume('2 tsp', { system: 'imperial' })).toMatchObject({ note: 'imperial tsp of 5.92 ml' });
  });
});

describe('readAmount', () => {
  it('weighs a volume only by the material’s own bulk density', () => {
    expect(readAmount('2 tsp', 'weight', { system: 'metric' })).toMatchObject({ ok: false });
    expect(readAmount('2 tsp', 'weight', { system: 'metric', bulkDensityGPerMl: 0.9 })).toMatchObject({
      ok: true,
      amount: 9000,
    });
    expect(readAmount('8 oz', 'weight', { system: 'us', bulkDensityGPerMl: 0.9 })).toMatchObject({
      ok: true,
      amount: 226_796,
    });
  });
  it.each<[string, number]>([
    ['3', 3],
    ['12 packets', 12],
    ['1 piece', 1],
    ['2 x', 2],
  ])('counts “%s”', (text, amount) => expect(readAmount(text, 'pieces')).toEqual({ ok: true, amount }));
  it.each(['1.5 packets', '0', '-2', 'few', '1/2', '3 kg', '2000000'])('refuses “%s” of packets', (text) =>
    expect(readAmount(text, 'pieces').ok).toBe(false),
  );
  it('writes pieces as people do', () =>
    expect([formatAmount(1, 'pieces'), formatAmount(6, 'pieces')]).toEqual(['1 piece', '6 pieces']));
});

describe('a taught spoon', () => {
  const spoon = learnSpoon([4.8, 5.0, 5.2, 5.0], 5);
  it('keeps mean, spread and bulk density', () => {
    expect(spoon).toMatchObject({ meanG: 5, weighings: 4 });
    expect(spoon.spreadG).toBeCloseTo(0.1633, 3);
    expect(spoon.bulkDensity.value).toBe(1);
  });
  it('plans to the quarter and says what that costs', () => {
    expect(planInSpoons(18, spoon, 'tsp')).toMatchObject({ value: 3.5, unit: 'tsp' });
    expect(planInSpoons(18, spoon, 'tsp').working.notes.join(' ')).toMatch(
      /3 % less than wanted.*17\.0?\d* g|3 % less/,
    );
    expect(planInSpoons(0.2, spoon, 'tsp').value).toBe(0.25);
  });
  it('widens with fewer weighings and more spoons', () => {
    const width = (doseG: number): number => {
      const [low = 0, high = 0] = [
        ...(planInSpoons(doseG, spoon, 'tsp').working.notes[1] ?? '').matchAll(/([\d.]+) g/g),
      ].map((m) => Number(m[1]));
      return high - low;
    };
    expect(width(50)).toBeGreaterThan(width(10));
    expect(learnSpoon([5], 5).bulkDensity.working.notes[0]).toMatch(/1 weighing only/);
  });
  it('refuses what can’t be learned from', () => {
    expect(() => learnSpoon([], 5)).toThrow(RangeError);
    expect(() => learnSpoon([5, 0], 5)).toThrow(RangeError);
    expect(() => planInSpoons(0, spoon, 'tsp')).toThrow(RangeError);
  });
});
