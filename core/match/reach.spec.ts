import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { seeded } from '../photo/seeded';
import { readFits } from './fits';
import { broadChannels } from './channels';
import type { Dyeing } from './dyeing';
import { gradedFamily, gradedWith } from './graded';
import type { Observation } from './posterior';
import { learn } from './posterior';
import { dyedBefore } from './dyed-before';
import type { ReachAsk } from './reach';
import { reachShade, reachWith } from './reach';
import { answerMatch } from './question';
import type { RescueAsk } from './rescue';
import { rescueLot, rescueWith } from './rescue';
import type { JarStrength } from './review';
import { sayRescue } from './write-rescue';
import { MASTER_DOSES, REFERENCES, dose, dyeing, pastLots, recipeFrom, trueShade } from './small-dyehouse.fixture';

const far = (x: Lab, y: Lab): number => ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE;
const readOf = (id: string, d: Dyeing): Observation => ({
  id,
  dyeing: d,
  colour: { lab: trueShade(d), spectrum: null },
  day: null,
});
/** Weld alone, madder alone, and both, at doses all over. */
const trials = Array.from({ length: 24 }, (_, i) => {
  const random = seeded(40 + i);
  const weld = dose('weld', 'weld 1', MASTER_DOSES.weld * (0.15 + 1.4 * random.uniform()));
  const madder = dose('madder', 'madder 1', MASTER_DOSES.madder * (0.15 + 1.4 * random.uniform()));
  return readOf(
    `trial ${i}`,
    dyeing(i % 3 === 0 ? [weld] : i % 3 === 1 ? [madder] : [weld, madder], { colourwayId: null }),
  );
});
const record = [...pastLots(20), ...trials];
const posterior = learn(broadChannels(), record, REFERENCES);
const SHELF = [
  { materialId: 'weld', role: 'dyestuff', usualPercent: 40, jars: [{ stockLotId: 'weld 1', ageYears: 0 }] },
  { materialId: 'madder', role: 'dyestuff', usualPercent: 8, jars: [{ stockLotId: 'madder 1', ageYears: 0 }] },
  { materialId: 'alum', role: 'mordant', usualPercent: 12, jars: [{ stockLotId: 'alum 1', ageYears: 0 }] },
] as const;
const { fibre, baseId, baseLotId, undyed, water, metal } = recipeFrom('weld 1');
const ground = { fibre, baseId, baseLotId, undyed, water, metal };
const toReach = (standard: Lab, rest: Partial<ReachAsk> = {}): ReachAsk => ({
  readings: record,
  strengths: REFERENCES,
  ground,
  standard,
  shelf: SHELF,
  onlyFromShelf: true,
  mostPercent: null,
  ...rest,
});

describe('which dyestuffs reach a shade', () => {
  const orange = dyeing([dose('weld', 'weld 1', 30), dose('madder', 'madder 1', 5)], { colourwayId: null });

  it('finds the two that make it, and doses that truly give it', () => {
    const [best] = reachWith(posterior, toReach(trueShade(orange))).pairs;
    expect(best?.dyestuffs.map((d) => d.materialId).sort()).toEqual(['madder', 'weld']);
    expect(best?.mordants).toEqual([{ materialId: 'alum', percentOwf: 12 }]);
    expect(far(trueShade(best!.dyeing), trueShade(orange))).toBeLessThan(2);
    expect(best?.dyeing.doses.find((d) => d.materialId === 'weld')?.percentOwf).toBeGreaterThan(18);
  });

  it('names the nearest by itself first, with what it stands on', () => {
    const yellow = dyeing([dose('weld', 'weld 1', 20)], { colourwayId: null });
    const [first, second] = reachWith(posterior, toReach(trueShade(yellow))).singles;
    expect(first?.dyestuffs).toMatchObject([
      { materialId: 'weld', stockLotId: 'weld 1', isAtMost: false, readings: 36, onFibre: 36 },
    ]);
    expect(far(trueShade(first!.dyeing), trueShade(yellow))).toBeLessThan(1);
    expect(second?.dyestuffs[0]?.materialId).toBe('madder');
    expect(second?.deltaE00).toBeGreaterThan(5);
  });

  it('says where as much as may go in is not enough', () => {
    const [only] = reachWith(posterior, toReach(trueShade(orange), { mostPercent: 2 })).pairs;
    expect(only?.dyestuffs.find((d) => d.materialId === 'weld')).toMatchObject({ isAtMost: true });
    expect(only?.dyeing.doses.every((d) => d.role !== 'dyestuff' || d.percentOwf <= 2 + 1e-9)).toBe(true);
  });

  it('leaves out what isn’t on the shelf, or names it as its reference when asked to', () => {
    const bare = SHELF.filter((m) => m.materialId !== 'madder');
    const standard = trueShade(orange);
    const here = reachWith(posterior, toReach(standard, { shelf: bare }));
    expect(here.singles.map((s) => s.dyestuffs[0]?.materialId)).toEqual(['weld']);
    expect(here.pairs).toEqual([]);
    const anywhere = reachWith(posterior, toReach(standard, { shelf: bare, onlyFromShelf: false }));
    const gathered = reachWith(posterior, toReach(standard, { shelf: bare, inSeason: ['madder'] }));
    expect(gathered.singles.map((s) => s.dyestuffs.map((d) => [d.materialId, d.stockLotId]))).toContainEqual([
      ['madder', null],
    ]);
    expect(anywhere.pairs[0]?.dyestuffs.find((d) => d.materialId === 'madder')?.stockLotId).toBeNull();
  });

  it('says nothing of what was dyed once or twice, or never', () => {
    const few = [
      ...record,
      readOf('one', dyeing([dose('woad', 'woad 1', 5)])),
      readOf('two', dyeing([dose('woad', 'woad 1', 9)])),
    ];
    expect(dyedBefore(few, 'wool').map((p) => p.materialId)).toEqual(['madder', 'weld']);
    expect(dyedBefore(few, 'silk').map((p) => p.onFibre)).toEqual([0, 0]);
    expect(reachShade(toReach(trueShade(orange), { readings: record.slice(0, 2) }))).toEqual({
      state: 'tooFew',
      readings: 2,
      needed: 3,
    });
  });
});

describe('a lot that missed', () => {
  const standard = trueShade(recipeFrom('weld 1'));
  const lot = (weld: number, madder: number): Dyeing =>
    dyeing([dose('weld', 'weld 1', weld), dose('madder', 'madder 1', madder)]);
  const toRescue = (d: Dyeing, rest: Partial<RescueAsk> = {}): RescueAsk => ({
    readings: [...record, readOf('the lot', d)],
    strengths: REFERENCES,
    dyeing: d,
    read: trueShade(d),
    standard,
    shelf: SHELF,
    others: [],
    ...rest,
  });
  const dyedOn = (d: Dyeing, added: readonly { materialId: string; percentOwf: number }[]): Dyeing => ({
    ...d,
    doses: d.doses.map((x) => ({
      ...x,
      percentOwf: x.percentOwf + (added.find((a) => a.materialId === x.materialId)?.percentOwf ?? 0),
    })),
  });

  it('is told what to add, and that truly brings it nearer', () => {
    const pale = lot(38, 4);
    const { missedBy, isDeeper, ways } = rescueWith(posterior, toRescue(pale));
    expect(missedBy).toBeCloseTo(far(standard, trueShade(pale)), 6);
    expect(isDeeper).toBe(false);
    const more = ways.find((w) => w.how === 'moreDye');
    expect(more?.added.map((a) => a.materialId)).toContain('madder');
    expect(more?.added.find((a) => a.materialId === 'madder')?.percentOwf).toBeGreaterThan(2.5);
    expect(far(standard, trueShade(dyedOn(pale, more!.added)))).toBeLessThan(missedBy / 3);
    expect(more?.expectedDeltaE).toBeLessThan(missedBy);
  });

  it('comes out within what is said about four times in five', () => {
    const random = seeded(21);
    let [inside, told] = [0, 0];
    for (let i = 0; i < 40; i += 1) {
      const missed = lot(40 * (0.45 + 0.5 * random.uniform()), 8 * (0.45 + 0.5 * random.uniform()));
      const more = rescueWith(posterior, toRescue(missed)).ways.find((w) => w.how === 'moreDye');
      if (!more) continue;
      told += 1;
      if (far(more.lab, trueShade(dyedOn(missed, more.added))) <= more.within80) inside += 1;
    }
    expect(told).toBeGreaterThan(30);
    expect(inside / told).toBeGreaterThan(0.7);
  });

  it('is never told to weigh out of a jar that is used up', () => {
    const pale = lot(38, 4);
    const without = SHELF.map((m) =>
      m.materialId === 'madder' ? { ...m, jars: [{ stockLotId: 'madder 2', ageYears: 0 }] } : m,
    );
    const { ways } = rescueWith(posterior, toRescue(pale, { shelf: without }));
    expect(ways.length).toBeGreaterThan(0);
    expect(ways.flatMap((w) => w.added.map((a) => a.stockLotId))).not.toContain('madder 1');
  });

  it('is never told to take anything out', () => {
    const random = seeded(9);
    let told = 0;
    for (let i = 0; i < 12; i += 1) {
      const missed = lot(40 * (0.4 + 1.4 * random.uniform()), 8 * (0.4 + 1.4 * random.uniform()));
      for (const way of rescueWith(posterior, toRescue(missed)).ways) {
        told += 1;
        expect(way.longerMin).toBeGreaterThanOrEqual(0);
        for (const a of way.added) expect(a.percentOwf).toBeGreaterThan(0);
      }
    }
    expect(told).toBeGreaterThan(8);
  });

  it('that was dyed in dips is dipped once more, not left in for minutes', () => {
    let longer = 0;
    for (const weld of [30, 32, 34, 36]) {
      const whole = toRescue(lot(weld, (8 * weld) / 40), { shelf: [], dips: 3 });
      const courses = whole.dyeing.courses.map((c) => ({
        ...c,
        points: c.points.map((p) => ({ ...p, minute: p.minute / (c.stage === 'dye' ? 4 : 1) })),
      }));
      const missed = { ...whole, dyeing: { ...whole.dyeing, courses } };
      for (const way of rescueWith(posterior, missed).ways.filter((w) => w.how === 'longer')) {
        longer += 1;
        expect(way.dipsMore).toBeGreaterThanOrEqual(1);
        expect(way.longerMin).toBeCloseTo(5 * way.dipsMore, 6);
        expect(sayRescue(way, 100, { material: String, jar: String, water: String })).toMatch(
          /^(one dip|\d dips) more$/,
        );
      }
    }
    expect(longer).toBeGreaterThan(0);
  });

  it('is told so when it came out deeper all over: nothing that is added helps', () => {
    const deep = rescueWith(posterior, toRescue(lot(70, 15)));
    expect(deep).toMatchObject({ isDeeper: true, ways: [] });
  });

  it('may be sold as another colourway within whose tolerance it lies, else the nearest is named', () => {
    const missed = lot(20, 8);
    const near = { ...trueShade(missed), L: trueShade(missed).L + 0.5 };
    const others = [
      { id: 'samphire', lab: near, toleranceDeltaE: 1.5 },
      { id: 'sea pink', lab: { L: 70, a: 30, b: 0 }, toleranceDeltaE: 1.5 },
    ];
    const { soldAs } = rescueWith(posterior, toRescue(missed, { others }));
    expect(soldAs).toMatchObject([{ id: 'samphire', isWithin: true }]);
    expect(rescueWith(posterior, toRescue(missed, { others: others.slice(1) })).soldAs).toMatchObject([
      { id: 'sea pink', isWithin: false },
    ]);
  });

  it('says nothing before three were read', () => {
    expect(rescueLot({ ...toRescue(lot(38, 4)), readings: [] })).toEqual({ state: 'tooFew', readings: 0, needed: 3 });
  });
});

describe('a graded family', () => {
  /** Pulled early: the dyehouse of the fixture takes up at once, so a short stay is told by what was read of one. */
  const pulled = [6, 12, 20, 30].flatMap((minute) => {
    const d = recipeFrom('weld 1');
    const share = 1 - Math.exp(-0.05 * minute);
    const short = dyeing([dose('weld', 'weld 1', 40 * share), dose('madder', 'madder 1', 8 * share)]);
    const points = [
      { minute: 0, celsius: 80 },
      { minute, celsius: 80 },
    ];
    const courses = d.courses.map((c) => (c.stage === 'dye' ? { ...c, points } : c));
    return [{ ...readOf(`pulled ${minute}`, { ...d, courses }), colour: { lab: trueShade(short), spectrum: null } }];
  });
  const ask = {
    readings: [...record, ...pulled],
    strengths: REFERENCES,
    dyeing: recipeFrom('weld 1'),
    shades: 6,
    palestShare: 0.3,
  };

  it('steps evenly by eye from the palest to the recipe, by dose', () => {
    const way = gradedWith(posterior, ask).ways.find((w) => w.how === 'dose');
    expect(way?.shades).toHaveLength(6);
    expect(way?.unevenness).toBeLessThan(1.1);
    expect(way?.shades.at(-1)?.by).toBeCloseTo(1, 6);
    const truly = way!.shades.map(({ by }) =>
      trueShade(dyeing([dose('weld', 'weld 1', 40 * by), dose('madder', 'madder 1', 8 * by)])),
    );
    const steps = truly.slice(1).map((lab, i) => far(lab, truly[i]!));
    const mean = steps.reduce((sum, s) => sum + s, 0) / steps.length;
    for (const s of steps) expect(Math.abs(s / mean - 1)).toBeLessThan(0.35);
  });

  it('pulls out of one bath at rising minutes, the last at the end', () => {
    const way = gradedWith(posterior, ask).ways.find((w) => w.how === 'minutes');
    const minutes = way!.shades.map((s) => s.by);
    expect(minutes.at(-1)).toBeCloseTo(60, 6);
    expect(minutes).toEqual([...minutes].sort((x, y) => x - y));
    expect(way?.dyeShare).toBe(1);
  });

  it('says nothing by minutes where nothing was dyed shorter', () => {
    const told = gradedWith(posterior, { ...ask, readings: record });
    expect(told.isPaceKnown).toBe(false);
    expect(told.ways.map((w) => w.how).sort()).toEqual(['dips', 'dose']);
  });

  it('puts first what reaches both ends with least dye', () => {
    const { ways } = gradedWith(posterior, ask);
    expect(ways.map((w) => w.how).sort()).toEqual(['dips', 'dose', 'minutes']);
    const reaching = ways.filter((w) => w.reaches);
    expect(ways.slice(0, reaching.length)).toEqual(reaching);
    expect(reaching.map((w) => w.dyeShare)).toEqual(reaching.map((w) => w.dyeShare).sort((x, y) => x - y));
  });

  it.each([
    [{ shades: 1 }, /2 to 24/],
    [{ shades: 2.5 }, /2 to 24/],
    [{ palestShare: 1 }, /below 1/],
  ])('refuses %o', (rest, message) => expect(() => gradedWith(posterior, { ...ask, ...rest })).toThrow(message));

  it('says nothing before three were read', () =>
    expect(gradedFamily({ ...ask, readings: record.slice(0, 1) })).toEqual({
      state: 'tooFew',
      readings: 1,
      needed: 3,
    }));
});

describe('how deep a dyestuff dyes', () => {
  const told = readFits(record, REFERENCES)!;

  it('stands on what was dyed with it alone, and says how far each lies from the curve', () => {
    const weld = told.fits.find((f) => f.kind === 'dose' && f.materialId === 'weld');
    expect(weld).toMatchObject({ fibre: 'wool', mordantIds: ['alum'] });
    expect(weld?.points.map((p) => p.id)).toEqual(trials.filter((_, i) => i % 3 === 0).map((t) => t.id));
    expect(weld?.medianResidual).toBeLessThan(0.6);
  });

  it('runs as the truth does, rising and levelling off, the truth within what is said', () => {
    const weld = told.fits.find((f) => f.kind === 'dose' && f.materialId === 'weld')!;
    const truth = (percent: number): number =>
      far(undyed.lab, trueShade(dyeing([dose('weld', 'weld 1', percent)], { colourwayId: null })));
    for (const p of weld.curve.filter((c) => c.at > 10)) {
      expect(Math.abs(p.fromUndyed - truth(p.at))).toBeLessThan(Math.max(1, 1.5 * p.within80));
      expect(p.within80).toBeGreaterThan(0);
    }
    const depths = weld.curve.map((c) => c.fromUndyed);
    expect(depths).toEqual([...depths].sort((x, y) => x - y));
  });

  it('declines what was dyed alone once or twice, and says so', () => {
    const few = readFits([...record, readOf('one', dyeing([dose('woad', 'woad 1', 5)]))], REFERENCES)!;
    expect(few.fits.map((f) => f.materialId)).not.toContain('woad');
    expect(few.declined).toEqual([
      { kind: 'dose', materialId: 'woad', mordantIds: ['alum'], modifierId: null, fibre: 'wool', readings: 1 },
    ]);
    expect(readFits(record.slice(0, 2), REFERENCES)).toBeUndefined();
  });
});

describe('a question to the match', () => {
  it('is answered as asked, the same each time', () => {
    const { strengths } = toReach(undyed.lab);
    const jars = { readings: record, strengths, stockLotIds: ['weld 2', 'weld 3'] };
    const told = answerMatch({ question: 'strengths', ask: jars });
    expect(told).toEqual(answerMatch({ question: 'strengths', ask: jars }));
    expect(told).toMatchObject([{ stockLotId: 'weld 2' }, { stockLotId: 'weld 3', readings: 0 }]);
    const [weak] = told as readonly JarStrength[];
    expect(weak?.fromPercent).toBeLessThan(70);
    expect(weak?.toPercent).toBeGreaterThan(70);
    expect(answerMatch({ question: 'review', ask: { ...jars, readings: record.slice(0, 2) } })).toBeNull();
    expect(answerMatch({ question: 'fits', ask: jars })).toEqual(readFits(record, REFERENCES));
  });
});
