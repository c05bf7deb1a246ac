import { describe, expect, it } from 'vitest';
import { fadedAfter, fitFading } from '../judge/fastness';
import { seeded } from '../photo/seeded';
import type { FastnessCard } from './fastness-learnt';
import { FASTNESS_WINDOW_DAYS, learnFastness } from './fastness-learnt';

const wool = { fibre: 'wool', mordants: ['alum'] };
const card = (dyestuff: string, deltaE00: number, rest: Partial<FastnessCard> = {}): FastnessCard => ({
  kind: 'light',
  place: 'window',
  ...wool,
  dyestuffs: [dyestuff],
  readings: [{ days: FASTNESS_WINDOW_DAYS, deltaE00, grade: 3 }],
  curve: null,
  ...rest,
});
const width = (f: { fromDeltaE00: number; toDeltaE00: number } | null): number =>
  f === null ? NaN : Math.log(f.toDeltaE00 / f.fromDeltaE00);

describe('what fastness cards teach', () => {
  const cards = [card('weld', 4), card('weld', 5), card('madder', 0.8), card('madder', 1)];
  const light = learnFastness(cards, 'light');

  it('a fugitive dyestuff is told from a fast one, each near what its cards showed', () => {
    const [weld, madder] = ['weld', 'madder'].map((d) => light.foretell({ ...wool, dyestuffs: [d] }));
    expect(weld?.deltaE00).toBeGreaterThan(3);
    expect(weld?.deltaE00).toBeLessThan(5);
    expect(madder?.deltaE00).toBeLessThan(1.3);
    expect([weld?.cards, madder?.cards]).toEqual([2, 2]);
    expect(weld!.fromDeltaE00).toBeLessThan(4);
    expect(weld!.toDeltaE00).toBeGreaterThan(4.5);
  });
  it('over another mordant or on another fibre it is told too, less surely; more cards make it surer', () => {
    const known = light.foretell({ ...wool, dyestuffs: ['weld'] });
    const elsewhere = light.foretell({ fibre: 'silk', mordants: ['iron'], dyestuffs: ['weld'] });
    expect(elsewhere?.deltaE00).toBeGreaterThan(2.5);
    expect(width(elsewhere)).toBeGreaterThan(1.1 * width(known));
    const more = learnFastness([...cards, ...[4, 4.5, 5].map((d) => card('weld', d))], 'light');
    expect(width(more.foretell({ ...wool, dyestuffs: ['weld'] }))).toBeLessThan(width(known));
  });
  it('of a mixture its least fast is what shows; of what was never tried nothing is said', () => {
    expect(light.foretell({ ...wool, dyestuffs: ['madder', 'weld'] })?.deltaE00).toBe(
      light.foretell({ ...wool, dyestuffs: ['weld'] })?.deltaE00,
    );
    expect(light.foretell({ ...wool, dyestuffs: ['weld', 'logwood'] })).toBeNull();
    expect(light.foretell({ ...wool, dyestuffs: [] })).toBeNull();
    expect(learnFastness(cards, 'wash').foretell({ ...wool, dyestuffs: ['weld'] })).toBeNull();
    expect(learnFastness([], 'light').foretell({ ...wool, dyestuffs: ['weld'] })).toBeNull();
    expect(
      learnFastness([card('weld', 4, { readings: [] })], 'light').foretell({ ...wool, dyestuffs: ['weld'] }),
    ).toBeNull();
  });
  it('a card is told by its curve; one on a shelf saw a tenth of the light, and one read once is carried on', () => {
    const seen = [7, 14, 28, 56].map((days) => ({ days, deltaE00: 6 * (1 - Math.exp(-days / 40)), grade: 3 as const }));
    const curve = fitFading(seen, 'window')!;
    const at28 = fadedAfter(curve, FASTNESS_WINDOW_DAYS, 'window');
    const many = (made: FastnessCard) =>
      learnFastness(
        Array.from({ length: 40 }, () => made),
        'light',
      ).foretell({ ...wool, dyestuffs: ['weld'] })!.deltaE00;
    expect(many(card('weld', 0, { readings: seen, curve }))).toBeCloseTo(at28, 1);
    const shelf = card('weld', 0, { place: 'openShelf', readings: [{ days: 280, deltaE00: 3, grade: 3 }] });
    expect(many(shelf)).toBeCloseTo(3, 1);
    const early = card('weld', 0, { readings: [{ days: 14, deltaE00: 1.5, grade: 4 }] });
    expect(many(early)).toBeGreaterThan(2.2);
    expect(many(early)).toBeLessThan(3);
  });
  it('an eye’s grade counts as its step of the grey scale, less surely', () => {
    const byEye = [2, 2, 2].map(() =>
      card('weld', 0, { kind: 'wash', place: null, readings: [{ days: 1, deltaE00: null, grade: 3 }] }),
    );
    const read = [2, 2, 2].map(() =>
      card('weld', 0, { kind: 'wash', place: null, readings: [{ days: 1, deltaE00: 3.4, grade: 3 }] }),
    );
    const [eye, reader] = [byEye, read].map((all) =>
      learnFastness(all, 'wash').foretell({ ...wool, dyestuffs: ['weld'] }),
    );
    expect(eye?.deltaE00).toBeGreaterThan(2);
    expect(width(eye!)).toBeGreaterThan(width(reader!));
  });
  it('holds what the next card shows four times in five', () => {
    const random = seeded(11);
    let [held, asked] = [0, 0];
    for (let house = 0; house < 120; house += 1) {
      const middle = Math.log(2.5) + random.normal();
      const dyes = ['a', 'b', 'c', 'd'].map((d) => [d, 0.8 * random.normal()] as const);
      const over = { alum: 0.35 * random.normal(), iron: 0.35 * random.normal() };
      const on = { wool: 0.25 * random.normal(), silk: 0.25 * random.normal() };
      const shows = (d: number, m: 'alum' | 'iron', f: 'wool' | 'silk'): number =>
        Math.exp(middle + (dyes[d]?.[1] ?? 0) + over[m] + on[f] + 0.3 * random.normal());
      const read = dyes.flatMap(([name], d) =>
        (d % 2 === 0 ? (['alum'] as const) : (['alum', 'iron'] as const)).map((m) =>
          card(name, shows(d, m, 'wool'), { mordants: [m] }),
        ),
      );
      const learnt = learnFastness(read, 'light');
      for (const [d, [name]] of dyes.entries()) {
        const said = learnt.foretell({ fibre: 'silk', mordants: ['iron'], dyestuffs: [name] })!;
        const got = shows(d, 'iron', 'silk');
        asked += 1;
        if (got >= said.fromDeltaE00 && got <= said.toDeltaE00) held += 1;
      }
    }
    expect(held / asked).toBeGreaterThan(0.74);
    expect(held / asked).toBeLessThan(0.86);
  });
});
