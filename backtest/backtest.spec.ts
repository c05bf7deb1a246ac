import { describe, expect, it } from 'vitest';
import { learnPast, playOrder } from './play';
import { WAYS, reportOf, spreadOf } from './score';
import type { Scored } from './score';
import type { Dyehouse, World } from './world';
import pigments from './worlds/pigments';
import saltgrass from './worlds/saltgrass';

describe.each<[string, World]>([
  ['saltgrass', saltgrass],
  ['pigments', pigments],
])('the world %s', (_name, world) => {
  const house = world.create(1);
  it('is the same for the same seed, and dyes the same for the same attempt', () => {
    const again = world.create(1);
    expect(again.history(4)).toEqual(house.history(4));
    expect(again.orders(4, 2)).toEqual(house.orders(4, 2));
    const [past] = house.history(2);
    expect(again.dye(past!.asked, 1)).toEqual(house.dye(past!.asked, 1));
    expect(house.dye(past!.asked, 2).truth).not.toEqual(house.dye(past!.asked, 1).truth);
  });
  it('tells of about as many lots as it is asked for, and never of a jar that came later', () => {
    const came = new Map(house.setting.materials.flatMap((m) => m.stockLots.map((j) => [j.id, j.receivedOn])));
    const past = house.history(12);
    expect(past.filter((p) => p.asked.purpose === 'lot')).toHaveLength(12);
    for (const { asked } of past) for (const d of asked.doses) expect(came.get(d.stockLotId)! <= asked.on).toBe(true);
  });
});

describe('a world that nobody here wrote', () => {
  it('comes in whatever it calls things, and whatever fibres, pots and figures it has', async () => {
    const own = saltgrass.create(1);
    const { setting } = own;
    const house: Dyehouse = {
      setting: {
        ...setting,
        bases: setting.bases.map((b) => ({ ...b, name: 'The <same>', fibre: b.fibre === 'wool' ? 'nettle' : b.fibre })),
        materials: setting.materials.map((m) => ({
          ...m,
          name: 'The <same>',
          stockLots: m.stockLots.map((j) => ({ ...j, receivedOn: `${j.receivedOn}T07:30:00.000Z` })),
        })),
        vessels: setting.vessels.map((v) => ({ ...v, name: 'pot', metal: 'tin', litres: 9000 })),
        colourways: setting.colourways.map((c) => ({ ...c, name: '', toleranceDeltaE00: 0.01 })),
      },
      history: (lots) => own.history(lots),
      orders: (lots, count) => own.orders(lots, count),
      dye: (asked, attempt) => own.dye(asked, attempt),
    };
    const past = house.history(6);
    const { translate } = await learnPast(house, past);
    const read = translate.readings.filter((r) => !r.isMaster);
    expect(read).toHaveLength(past.length);
    const [order] = house.orders(6, 1);
    const asked = translate.dyeing(translate.order(order!));
    const known = read.filter((r) => r.dyeing.baseId === asked.baseId);
    // What is asked stands in the same words as what was learnt.
    for (const { dyeing } of known) expect([dyeing.fibre, dyeing.metal]).toEqual([asked.fibre, asked.metal]);
    expect(playOrder(house, past, await learnPast(house, past), order!).ways.corrected).toBeGreaterThanOrEqual(0);
  });
});

describe('what is measured', () => {
  const scored = (ways: Partial<Record<(typeof WAYS)[number], number>>, rest: Partial<Scored> = {}): Scored => ({
    foretold: { off: 1, within80: 2 },
    ways: Object.fromEntries(WAYS.map((w) => [w, ways[w] ?? 1])) as Scored['ways'],
    askedForStrikeOff: false,
    limit: null,
    ...rest,
  });
  it('is the middle and the far end of each way, and how often the truth lay inside', () => {
    const all = [
      scored({ unchanged: 3, corrected: 2, struckOff: 1 }, { askedForStrikeOff: true }),
      scored(
        { unchanged: 5, corrected: 1, struckOff: 0.9 },
        { foretold: { off: 4, within80: 2 }, askedForStrikeOff: true },
      ),
      scored({ unchanged: 4 }, { limit: { doses: 0.5, allLevers: 0.2 } }),
      scored({ unchanged: 4 }, { foretold: null }),
    ];
    const report = reportOf(all, { '2': all.slice(0, 1) });
    expect(report.reorders.unchanged).toEqual({ median: 4, p95: 5 });
    expect(report.coverage80).toBeCloseTo(2 / 3, 3);
    expect(report.strikeOffs).toEqual({ asked: 2, worthIt: 1, of: 4 });
    expect(report.limit?.allLevers).toEqual({ median: 0.2, p95: 0.2 });
    expect(report.byHistory['2']?.reorders.unchanged).toEqual({ median: 3, p95: 3 });
    expect(spreadOf([])).toBeNull();
  });
  it('a studio of ten lots in the simple world is helped: nearer than the recipe unchanged, nearer still after a strike-off', async () => {
    const house = saltgrass.create(2);
    const past = house.history(10);
    const learnt = await learnPast(house, past);
    const { reorders } = reportOf(house.orders(10, 8).map((o) => playOrder(house, past, learnt, o)));
    expect(reorders.corrected!.median).toBeLessThan(reorders.unchanged!.median);
    expect(reorders.struckOff!.median).toBeLessThan(Math.min(1.2, reorders.unchanged!.median));
  });
});
