import { describe, expect, it } from 'vitest';
import { CATALOGUE, refusedSalt } from '../catalogue/catalogue';
import { findBadNeighbours } from '../safety/neighbours';
import { judgeSigns } from '../stock/material-facts';
import { changeLiquor, contentsAtVolume, ladderStrength, leftAfterUse, replenish } from './saved-bath';
import { granted } from '../result.fixture';

describe('a saved bath', () => {
  it('keeps what fibre left, by assumption or as measured', () => {
    expect(leftAfterUse(240, { uptakeShare: 0.6 })).toMatchObject({
      value: 96,
      working: { notes: [expect.stringMatching(/assumed/)] },
    });
    expect(leftAfterUse(240, { uptakeShare: 0.6, measuredLeftG: 110 })).toMatchObject({
      value: 110,
      working: { notes: ['measured, not assumed'] },
    });
    expect(() => leftAfterUse(240, { uptakeShare: 1.2 })).toThrow(RangeError);
  });
  it('says what to add for the fibre that is next, never less than nothing', () => {
    expect(replenish(96, 15, 1000)).toMatchObject({ value: 54 });
    expect(replenish(200, 15, 1000)).toMatchObject({
      value: 0,
      working: { notes: [expect.stringMatching(/50 g more/)] },
    });
    expect(() => replenish(1, 0, 10)).toThrow(RangeError);
  });
  it('loses its contents with its volume', () => {
    expect(contentsAtVolume([{ materialId: null, name: 'alum', grams: 96 }], 24_000, 6000)[0]?.grams).toBe(24);
    expect(contentsAtVolume([{ materialId: null, name: 'alum', grams: 96 }], 0, 0)[0]?.grams).toBe(0);
  });
  const bath = { volumeMl: 12_000, contents: [{ materialId: 'w', name: 'weld', grams: 60 }] };
  it('boiled from twelve litres down to four holds all its dye', () =>
    expect(changeLiquor(bath, { kind: 'steamedOff', ml: 8000 })).toEqual({ ...bath, volumeMl: 4000 }));
  it('gives a share away with what is poured off, and gets nothing with water', () => {
    expect(changeLiquor(bath, { kind: 'pouredOff', ml: 3000 })).toMatchObject({
      volumeMl: 9000,
      contents: [{ grams: 45 }],
    });
    expect(changeLiquor(bath, { kind: 'water', ml: 3000 })).toEqual({ ...bath, volumeMl: 15_000 });
    expect(contentsAtVolume(bath.contents, 12_000, 15_000)).toEqual(bath.contents);
  });
  it('loses to fibre what it draws, and its share of the rest with the liquor that fibre carries off', () => {
    const used = changeLiquor(
      { volumeMl: 10_000, contents: [...bath.contents, { materialId: 'v', name: 'vinegar', grams: 10 }] },
      { kind: 'fibre', takenShare: 0.6, carriedMl: 1000, draws: (c) => c.name === 'weld' },
    );
    expect(used).toMatchObject({ volumeMl: 9000, contents: [{ grams: 21.6 }, { grams: 9 }] });
    // The same rule for a liquor in Stores: 60 g × 0.4 × 0.9.
    expect(leftAfterUse(60, { uptakeShare: 0.6, carriedShare: 0.1 }).value).toBe(21.6);
  });
  it('takes more of what is in it already together with that', () => {
    const added = changeLiquor(bath, { kind: 'dosed', content: { materialId: 'w', name: 'weld', grams: 5 } });
    expect(added.contents).toEqual([{ materialId: 'w', name: 'weld', grams: 65 }]);
    expect(() => changeLiquor(bath, { kind: 'water', ml: -1 })).toThrow(RangeError);
  });
  it('is judged by its signs', () =>
    expect([judgeSigns(['clear']), judgeSigns(['cloudy']), judgeSigns(['clear', 'growth'])]).toEqual([
      'use',
      'test first',
      'discard',
    ]));
});

describe('an iron liquor against a ladder', () => {
  const ladder = [
    { percentOwf: 0.5, lightness: 61 },
    { percentOwf: 1, lightness: 54 },
    { percentOwf: 2, lightness: 46 },
    { percentOwf: 4, lightness: 38 },
  ];
  const strip = { lightness: 46, liquorMl: 40, fibreG: 10 };
  it('has the strength of the rung it matches', () =>
    expect(ladderStrength(ladder, strip)).toMatchObject({ ok: true, strength: { value: 5 } }));
  it('lies between its neighbours, which are its band', () => {
    const read = ladderStrength(ladder, { ...strip, lightness: 50 });
    expect(read).toMatchObject({ ok: true, lowGPerL: 2.5, highGPerL: 5 });
    expect(granted(read).strength.value).toBeGreaterThan(2.5);
    expect(granted(read).strength.value).toBeLessThan(5);
  });
  it.each<[string, typeof ladder, typeof strip, RegExp]>([
    ['darker than all', ladder, { ...strip, lightness: 30 }, /darker than the strongest/],
    ['lighter than all', ladder, { ...strip, lightness: 70 }, /lighter than the weakest/],
    ['one rung', ladder.slice(0, 1), strip, /two strips or more/],
    [
      'a ladder that does not darken',
      [
        { percentOwf: 1, lightness: 50 },
        { percentOwf: 2, lightness: 52 },
      ],
      strip,
      /darken step by step/,
    ],
    ['no liquor', ladder, { ...strip, liquorMl: 0 }, /how much liquor/],
  ])('refuses %s', (_name, rungs, read, message) => {
    const result = ladderStrength(rungs, read);
    expect(!result.ok && result.message).toMatch(message);
  });
});

describe('the catalogue', () => {
  it('holds forty dyestuffs and twenty-five others, each once', () => {
    expect(CATALOGUE.filter((e) => e.kind === 'dyestuff').length).toBeGreaterThanOrEqual(40);
    expect(CATALOGUE.filter((e) => e.kind !== 'dyestuff').length).toBeGreaterThanOrEqual(25);
    for (const of of ['key', 'name'] as const) expect(new Set(CATALOGUE.map((e) => e[of])).size).toBe(CATALOGUE.length);
  });
  it('leaves out chrome, tin, lead and mercury, with a sentence, and flags copper', () => {
    for (const entry of CATALOGUE) expect(refusedSalt(entry.name), entry.name).toBeUndefined();
    for (const name of [
      'Potassium dichromate',
      'Chrome mordant',
      'Tin crystals',
      'Stannous chloride',
      'Lead acetate',
      'Mercuric chloride',
    ])
      expect(refusedSalt(name), name).toMatch(/not in this catalogue/);
    expect(refusedSalt('Tincture of rust')).toBeUndefined();
    expect(CATALOGUE.filter((e) => /copper/i.test(e.name)).every((e) => e.hazards.includes('copperSalt'))).toBe(true);
  });
});

describe('bad neighbours', () => {
  const stockLot = (
    name: string,
    place: string,
    ...hazards: Parameters<typeof findBadNeighbours>[0][number]['hazards']
  ) => ({ id: name, name, place, hazards });
  it('flags acid by bleach and by carbonate in one place, not across places', () => {
    const found = findBadNeighbours([
      stockLot('vinegar', 'sink', 'acid'),
      stockLot('bleach', 'sink', 'chlorineBleach', 'caustic'),
      stockLot('chalk', 'sink', 'carbonate'),
      stockLot('soda', 'loft', 'carbonate'),
      stockLot('citric', '', 'acid'),
    ]);
    expect(found.map((b) => [b.first.name, b.second.name, b.why.split(' ').slice(0, 3).join(' ')])).toEqual([
      ['vinegar', 'bleach', 'acid on chlorine'],
      ['vinegar', 'chalk', 'acid on carbonate'],
    ]);
  });
});
