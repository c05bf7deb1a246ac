import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { BANDS_NM, labOfSpectrum } from '../colour/spectrum';
import { seeded } from '../photo/seeded';
import { worthMinutes } from './bath-heat';
import { MATCH_CONDITIONS, broadChannels, labSlopes, spectralChannels } from './channels';
import { correct, wayToStrikeOff } from './correct';
import { uncorrected } from './uncorrected';
import { differenceMetric } from './difference-metric';
import { forward } from './forward';
import { outOfReference } from './lot-dyeing';
import { learnMore } from './learn-more';
import { factorise, invertFactorised, logDeterminant, solveFactorised } from './linear-algebra';
import { bookFor, learn, usualDoses } from './posterior';
import { effectBetween, predict } from './predict';
import { isStrikeOffWorth } from './strike-off-worth';
import { MASTER_DOSES, REFERENCES, dose, dyeing, pastLots, recipeFrom, trueShade } from './small-dyehouse.fixture';

const far = (x: Lab, y: Lab): number => ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE;
const space = broadChannels();
const master = trueShade(recipeFrom('weld 1'));
const shelf = [
  { materialId: 'weld', role: 'dyestuff' as const, usualPercent: 40, jars: [{ stockLotId: 'weld 2', ageYears: 0 }] },
];
const learnt = learn(space, pastLots(14), REFERENCES);

describe('sums of matrices', () => {
  it('factor, solve, invert and measure one', () => {
    const cells = Float64Array.of(4, 1, 0.5, 1, 3, 0.2, 0.5, 0.2, 2);
    const low = factorise({ n: 3, cells });
    const x = solveFactorised(low, Float64Array.of(1, 2, 3));
    for (let i = 0; i < 3; i += 1)
      expect([0, 1, 2].reduce((s, k) => s + (cells[i * 3 + k] ?? 0) * (x[k] ?? 0), 0)).toBeCloseTo(i + 1);
    const inverse = invertFactorised(low).cells;
    for (let i = 0; i < 3; i += 1)
      for (let j = 0; j < 3; j += 1)
        expect([0, 1, 2].reduce((s, k) => s + (cells[i * 3 + k] ?? 0) * (inverse[k * 3 + j] ?? 0), 0)).toBeCloseTo(
          i === j ? 1 : 0,
        );
    expect(logDeterminant(low)).toBeCloseTo(Math.log(4 * (6 - 0.04) - (2 - 0.1) + 0.5 * (0.2 - 1.5)));
  });
});

describe('channels', () => {
  it('of L*a*b* give it back, and turn as they say', () => {
    const lab = { L: 55, a: 22, b: 31 };
    const seen = space.see(space.reflectances({ lab, spectrum: null }));
    expect(far(space.lab(seen.values), lab)).toBeLessThan(1e-4);
    expect(labSlopes(space, seen.values)[0]?.[0]).toBeCloseTo(1);
  });
  it('of a spectrum lie near its own colour', () => {
    const bands = spectralChannels();
    const spectrum = BANDS_NM.map((nm) => 0.1 + 0.5 / (1 + Math.exp(-(nm - 560) / 25)));
    const lab = labOfSpectrum(spectrum, MATCH_CONDITIONS);
    expect(far(bands.lab(bands.of({ lab, spectrum })), lab)).toBeLessThan(0.3);
    expect(far(bands.lab(bands.of({ lab, spectrum: null })), lab)).toBeLessThan(0.3);
  });
  it('a difference is measured as CIEDE2000 does, near the standard', () => {
    const random = seeded(9);
    for (const standard of [master, { L: 40, a: 20, b: 10 }, { L: 70, a: -20, b: -8 }])
      for (let i = 0; i < 20; i += 1) {
        const d = [random.normal(), random.normal(), random.normal()].map((x) => 0.4 * x);
        const [L = 0, a = 0, b = 0] = d;
        const near = Math.hypot(
          ...differenceMetric(standard).map((m) => m.reduce((s, w, k) => s + w * (d[k] ?? 0), 0)),
        );
        const exact = far(standard, { L: standard.L + L, a: standard.a + a, b: standard.b + b });
        expect(near).toBeGreaterThan(0.8 * exact);
        expect(near).toBeLessThan(1.2 * exact + 0.02);
      }
  });
});

describe('heat', () => {
  it('an hour at 80 °C is an hour; hotter is worth more, colder less', () => {
    const at = (celsius: number): number =>
      worthMinutes(
        {
          stage: 'dye',
          points: [
            { minute: 0, celsius },
            { minute: 60, celsius },
          ],
        },
        4.5,
      ).minutes;
    expect(at(80)).toBeCloseTo(60);
    expect(at(90)).toBeGreaterThan(80);
    expect(at(60)).toBeLessThan(30);
    expect(worthMinutes(undefined, 4.5).minutes).toBe(0);
  });
});

describe('what the model says of a dyeing', () => {
  it.each(['copper', 'iron'])('turns with each number as its slopes say, in a pot of %s', (metal) => {
    const d = dyeing(
      [
        dose('weld', 'weld 1', 30, { ageYears: 1 }),
        dose('weld', 'weld 2', 12),
        dose('madder', 'madder 1', 8),
        dose('iron', 'iron 1', 1, { stage: 'modifier', role: 'modifier' }),
      ],
      {
        water: { id: 'well', ph: 6.2, hardnessDh: 3, ironMgPerL: 0.2 },
        metal,
        dip: 2,
        purpose: 'strip',
        courses: [
          {
            stage: 'dye',
            points: [
              { minute: 0, celsius: 30 },
              { minute: 50, celsius: 85 },
            ],
          },
          {
            stage: 'modifier',
            points: [
              { minute: 0, celsius: 40 },
              { minute: 10, celsius: 40 },
            ],
          },
        ],
      },
    );
    const book = bookFor(REFERENCES, {});
    const usual = usualDoses(pastLots(4));
    forward({ space, book, usual, values: new Float64Array(0) }, d, 'today');
    const random = seeded(4);
    const values = Float64Array.from(
      { length: book.size },
      (_, i) => book.at(i).mean + 0.15 * book.at(i).sd * random.normal(),
    );
    const said = forward({ space, book, usual, values }, d, 'today');
    for (let place = 0; place < values.length; place += 1) {
      const step = 1e-5;
      const moved = (by: number): Float64Array => {
        const next = Float64Array.from(values);
        next[place] = (next[place] ?? 0) + by;
        return forward({ space, book, usual, values: next }, d, 'today').channels;
      };
      const [up, down] = [moved(step), moved(-step)];
      for (let c = 0; c < space.count; c += 1) {
        const slope = ((up[c] ?? 0) - (down[c] ?? 0)) / (2 * step);
        const told = said.slopes.get(place)?.[c] ?? 0;
        expect(Math.abs(told - slope), book.at(place).key).toBeLessThan(1e-4 * Math.max(1, Math.abs(slope)));
      }
    }
    expect(forward({ space, book, usual, values }, d, 'today', false).channels).toEqual(said.channels);
  });
});

describe('what was learnt', () => {
  it('foretells lots it never saw, about as often within its interval as it says', () => {
    let inside = 0;
    const fresh = pastLots(40, 77);
    for (const { dyeing: d } of fresh) {
      const { lab, within80 } = predict(learnt, d);
      const off = far(lab, trueShade(d));
      expect(off).toBeLessThan(2);
      if (off <= within80) inside += 1;
    }
    expect(inside / fresh.length).toBeGreaterThan(0.75);
  });
  it('knows a weak jar by what it dyed, and says less of one it never saw', () => {
    const weak = learnt.book.find('jar/weld 2') ?? -1;
    expect(Math.exp(learnt.values[weak] ?? 0)).toBeGreaterThan(0.6);
    expect(Math.exp(learnt.values[weak] ?? 0)).toBeLessThan(0.85);
    expect(predict(learnt, recipeFrom('weld 3')).within80).toBeGreaterThan(
      1.5 * predict(learnt, recipeFrom('weld 2')).within80,
    );
  });
  it('is the same for the same readings', () => {
    const again = learn(space, pastLots(14), REFERENCES);
    expect([...again.values]).toEqual([...learnt.values]);
  });
  it('a reading that may be far off, of a photograph or by eye, teaches as much less', () => {
    const jarOf = (within: number | null): { value: number; sd: number } => {
      const [first, ...rest] = pastLots(12);
      const d = recipeFrom('weld 3');
      const odd = {
        ...first!,
        id: 'odd',
        dyeing: d,
        colour: { lab: trueShade(d), spectrum: null },
        readWithin80: within,
      };
      const post = learn(broadChannels(), [first!, ...rest, odd], REFERENCES);
      const place = post.book.find('jar/weld 3')!;
      return { value: post.values[place]!, sd: Math.sqrt(post.covariance.cells[place * post.learnt + place]!) };
    };
    const [close, photo, eye] = [jarOf(null), jarOf(2), jarOf(8)];
    expect(photo.sd).toBeGreaterThan(close.sd);
    expect(eye.sd).toBeGreaterThan(photo.sd);
    expect(Math.abs(eye.value)).toBeLessThan(Math.abs(close.value));
  });
  it('one reading more sharpens it as learning everything anew does', () => {
    const d = recipeFrom('weld 3');
    const struck = { id: 'struck', dyeing: d, colour: { lab: trueShade(d), spectrum: null }, day: null };
    const more = learnMore(learnt, struck);
    const anew = learn(space, [...pastLots(14), struck], REFERENCES);
    const [one, other] = [predict(more, d), predict(anew, d)];
    expect(far(one.lab, other.lab)).toBeLessThan(0.5);
    expect(one.within80).toBeLessThan(0.7 * predict(learnt, d).within80);
    expect(one.within80 / other.within80).toBeGreaterThan(0.7);
    expect(one.within80 / other.within80).toBeLessThan(1.4);
  });
  it('a recipe means its doses at the reference’s strength: of a weaker jar the plan weighed more', () => {
    const proven = uncorrected(
      recipeFrom('weld 2'),
      { corrected: [], added: [], dyeTimeShare: 1 },
      new Map([['weld 2', 0.8]]),
    );
    const { doses } = outOfReference(proven);
    const weld = doses.find((d) => d.materialId === 'weld');
    expect(weld?.percentOwf).toBeCloseTo(0.8 * MASTER_DOSES.weld, 9);
    expect(weld?.stockLotId).toBe('reference of weld');
  });
  it('one lot out of an iron pot says little of what comes out of another', () => {
    const { L, a, b } = master;
    const dented = {
      id: 'dented',
      dyeing: { ...recipeFrom('weld 1'), metal: 'iron' },
      colour: { lab: { L: L - 6, a: 0.8 * a, b: 0.8 * b }, spectrum: null },
      day: null,
    };
    const meant = {
      id: 'master',
      dyeing: outOfReference(recipeFrom('weld 1')),
      colour: { lab: master, spectrum: null },
    };
    const young = learn(space, [{ ...meant, day: null, isMaster: true }, dented], REFERENCES);
    const offIn = (metal: string): number => far(predict(young, { ...recipeFrom('weld 1'), metal }).lab, master);
    expect(offIn('stainless')).toBeLessThan(1.5);
    expect(offIn('iron')).toBeGreaterThan(2.5);
  });
  it('a lot that went wrong pulls little', () => {
    const lots = pastLots(14);
    const [spoiled, ...rest] = lots;
    const bad = { ...spoiled!, colour: { lab: { L: 40, a: 5, b: 5 }, spectrum: null } };
    const after = learn(space, [bad, ...rest], REFERENCES);
    expect(far(predict(after, recipeFrom('weld 1')).lab, master)).toBeLessThan(1.5);
  });
});

describe('a correction', () => {
  const plan = recipeFrom('weld 2');
  const ways = correct(learnt, plan, master, { shelf, waters: [plan.water] });
  it('brings a weak jar’s lot near to the master, by more of it', () => {
    const [best] = ways;
    expect(far(trueShade(plan), master)).toBeGreaterThan(1.2);
    expect(far(trueShade(best!.dyeing), master)).toBeLessThan(0.8);
    expect(best?.dyeing.doses.find((d) => d.materialId === 'weld')?.percentOwf).toBeGreaterThan(
      1.15 * MASTER_DOSES.weld,
    );
  });
  it('has the recipe unchanged among its ways, and leaves it alone where it comes out right', () => {
    expect(ways.map((w) => w.how)).toContain('unchanged');
    expect(correct(learnt, recipeFrom('weld 1'), master, { shelf: [], waters: [] })[0]?.how).toBe('unchanged');
  });
  it('never asks for less than nothing, nor for more than may go in', () => {
    for (const way of correct(learnt, plan, { L: 20, a: 5, b: 5 }, { shelf, waters: [], mostShare: 1.5 }))
      for (const d of way.dyeing.doses) {
        expect(d.percentOwf).toBeGreaterThan(0);
        const planned = plan.doses.find((p) => p.materialId === d.materialId)?.percentOwf ?? 40;
        expect(d.percentOwf).toBeLessThanOrEqual(1.5 * planned + 1e-9);
      }
  });
  it('wants a strike-off where a jar was never dyed with, and none where all is known', () => {
    const unknown = correct(learnt, recipeFrom('weld 3'), master, { shelf: [], waters: [] });
    const isWorth = (all: typeof ways): boolean => isStrikeOffWorth(all[0]!, wayToStrikeOff(all)!, 2);
    expect([isWorth(unknown), isWorth(ways)]).toEqual([true, false]);
  });
  it('what a jar does is told with how sure that is', () => {
    const known = effectBetween(learnt, recipeFrom('weld 1'), recipeFrom('weld 2'));
    expect(known.deltaE00).toBeGreaterThan(1);
    expect(known.within80).toBeLessThan(known.deltaE00);
    expect(effectBetween(learnt, recipeFrom('weld 1'), recipeFrom('weld 3')).within80).toBeGreaterThan(known.within80);
  });
});
