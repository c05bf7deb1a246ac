import { describe, expect, it } from 'vitest';
import { addAfterDye, addToDye, correctDoses, dyeDips, stretchDye, wholeMaterials } from '../recipe/corrected-doses';
import { recipeStep } from '../recipe/recipe-step';
import { bathStep, percent } from '../scaling/plan-lot.fixture';
import { ciede2000 } from '../colour/ciede2000';
import { costOfDoses } from './dose-cost';
import type { Dyeing } from './dyeing';
import type { ReorderAsk, ReorderBounds, ReorderWay } from './reorder';
import { answerReorder } from './reorder';
import { MASTER_DOSES, REFERENCES, dose, dyeing, pastLots, recipeFrom, trueShade } from './small-dyehouse.fixture';
import { figureOfShade } from './work-out';
import type { LetterNames } from './write-letter';
import { sayWay, writeLetter } from './write-letter';

const standard = trueShade(recipeFrom('weld 1'));
const NAMES: LetterNames = {
  material: (id) => (id === 'weld' ? 'Weld' : id === 'madder' ? 'Madder' : 'Alum'),
  jar: (id) => `jar ${id}`,
  water: (id) => `the ${id} water`,
};
const ask = (plan: Dyeing, rest: Partial<ReorderAsk> = {}): ReorderAsk => ({
  readings: pastLots(14),
  strengths: REFERENCES,
  plan,
  recipe: plan,
  then: null,
  standard,
  toleranceDeltaE: 2,
  shelf: [],
  waters: [],
  ...rest,
});
const told = (asked: ReorderAsk) => {
  const answer = answerReorder(asked);
  if (answer.state !== 'told') throw new Error('nothing was told');
  return { answer, letter: writeLetter(answer, asked.standard, asked.plan, NAMES) };
};

describe('the letter about a lot to come', () => {
  it('says what will come out of a weak jar, and what to weigh instead', () => {
    const { answer, letter } = told(ask(recipeFrom('weld 2')));
    expect(letter.opening).toMatch(/^As it is planned it should come out .*duller.* \(ΔE00 1\.\d\), within ΔE00/);
    expect(letter.advice).toMatch(/^With Weld \d\d % more/);
    expect(letter.strikeOff).toBe('');
    expect(letter.standsOn).toBe('It stands on 14 readings of this colourway and 14 in all.');
    const [way] = answer.ways;
    const shares = way?.turned.map((t) => t.share) ?? [];
    expect(Math.max(...shares.map((s) => s ?? 0))).toBeGreaterThan(1.15);
  });
  it('leaves the recipe alone where it comes out right', () => {
    const { answer, letter } = told(ask(recipeFrom('weld 1')));
    expect(answer.ways).toEqual([]);
    expect(letter.opening).toContain('come out as the master');
    expect(letter.advice).toContain('dye it as the recipe says');
  });
  it('does not leave alone what looks right only because nobody knows the jar, where a known one stands beside it', () => {
    const weld = {
      materialId: 'weld',
      role: 'dyestuff' as const,
      usualPercent: 40,
      jars: ['weld 3', 'weld 1'].map((stockLotId) => ({ stockLotId, ageYears: 0 })),
    };
    const { answer } = told(ask(recipeFrom('weld 3'), { shelf: [weld] }));
    expect(answer.unchanged.deltaE00).toBeLessThan(0.5);
    expect(answer.unchanged.expectedDeltaE).toBeGreaterThan(1);
    expect(answer.ways[0]?.turned.some((t) => t.stockLotId === 'weld 1' && t.isOtherJar)).toBe(true);
  });
  it('takes the known jar of each dyestuff where both are unsure', () => {
    const plan = dyeing([dose('weld', 'weld 3', MASTER_DOSES.weld), dose('madder', 'madder 2', MASTER_DOSES.madder)]);
    const shelf = ['weld', 'madder'].map((materialId) => ({
      materialId,
      role: 'dyestuff' as const,
      usualPercent: 20,
      jars: [{ stockLotId: `${materialId} 1`, ageYears: 0 }],
    }));
    const [best] = told(ask(plan, { shelf })).answer.ways;
    const dyes = best?.doses.filter((d) => d.role === 'dyestuff') ?? [];
    expect(dyes.map((d) => d.stockLotId).sort()).toEqual(['madder 1', 'weld 1']);
    expect(best?.expectedDeltaE).toBeLessThan(0.6);
  });
  it('asks for a strike-off out of a jar that nobody dyed with, and says what to weigh for it', () => {
    const plan = recipeFrom('weld 3');
    const { letter } = told(ask(plan));
    expect(letter.strikeOff).toMatch(/^A strike-off is worth its while/);
    expect(letter.advice).not.toContain('dye it as the recipe says');
    expect(letter.strikeOff).toContain('at 1:20');
    expect(letter.strikeOff).toMatch(/Alum 2\.4 g/);
    const read = { id: 'struck off', dyeing: plan, colour: { lab: trueShade(plan), spectrum: null }, day: null };
    const after = told(ask(plan, { readings: [...pastLots(14), read] }));
    expect(after.letter.strikeOff).toBe('');
    expect(after.letter.advice).toMatch(/Weld .* less|dye it as the recipe says/);
    expect(ciede2000(after.answer.unchanged.lab, trueShade(plan), { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(0.8);
  });
  it('goes out from a strike-off that was read, however it was dyed, while its jars and its fibre are there', () => {
    const plan = recipeFrom('weld 3');
    const struck = {
      ...dyeing([dose('weld', 'weld 3', 50), dose('madder', 'madder 1', 7)]),
      purpose: 'strikeOff' as const,
    };
    const readings = [
      ...pastLots(14),
      { id: 'struck off', dyeing: struck, colour: { lab: trueShade(struck), spectrum: null }, day: null },
    ];
    const [best] = told(ask(plan, { readings })).answer.ways;
    expect(best?.isStruckOff).toBe(true);
    const dyed = { ...plan, doses: best!.doses };
    const off = (d: Dyeing): number => ciede2000(standard, trueShade(d), { kL: 1, kC: 1, kH: 1 }).deltaE;
    expect(off(dyed)).toBeLessThan(0.6);
    expect(off(dyed)).toBeLessThan(off(plan));
    const elsewhere = told(ask({ ...plan, baseLotId: 'bale 2' }, { readings })).answer.ways;
    expect(elsewhere.every((w) => !w.isStruckOff)).toBe(true);
    const emptied = {
      ...plan,
      doses: plan.doses.map((d) => (d.materialId === 'weld' ? { ...d, stockLotId: 'weld 2' } : d)),
    };
    expect(told(ask(emptied, { readings })).answer.ways.every((w) => !w.isStruckOff)).toBe(true);
  });
  it('ranks what is otherwise now by what it does, with how sure that is', () => {
    const then = dyeing([dose('weld', 'weld 1', MASTER_DOSES.weld), dose('madder', 'madder 1', MASTER_DOSES.madder)], {
      liquorRatio: 22,
      water: { id: 'rain', ph: 6.4, hardnessDh: 1, ironMgPerL: 0 },
    });
    const { answer } = told(ask(recipeFrom('weld 2'), { then }));
    expect(answer.factors.map((f) => (f.factor.of === 'material' ? f.factor.materialId : f.factor.of)).sort()).toEqual([
      'bath',
      'water',
      'weld',
    ]);
    const effects = answer.factors.map((f) => f.effect.deltaE00);
    expect(effects).toEqual([...effects].sort((x, y) => y - x));
  });
  it('says so where too little was read, and what would let it', () => {
    const answer = answerReorder(ask(recipeFrom('weld 1'), { readings: pastLots(1) }));
    expect(answer).toEqual({ state: 'tooFew', readings: 1, needed: 3 });
    expect(writeLetter(answer, standard, recipeFrom('weld 1'), NAMES).opening).toMatch(/1 reading, and 3 are needed/);
  });
  it('corrects nothing where the lot would be nothing like the master', () => {
    const { answer, letter } = told(
      ask(dyeing([dose('weld', 'weld 1', 1), dose('madder', 'madder 1', 0.3)]), { recipe: recipeFrom('weld 1') }),
    );
    expect(answer.ways).toEqual([]);
    expect(letter.opening).toMatch(/nothing like the master/);
    expect(letter.advice).toMatch(/Look at what it is dyed with now/);
  });
  it('works a shade out step by step, from the recipe to what is foretold, with what each stands on', () => {
    const plan = dyeing([dose('weld', 'weld 2', MASTER_DOSES.weld), dose('madder', 'madder 1', MASTER_DOSES.madder)], {
      water: { id: 'rain', ph: 6, hardnessDh: 1, ironMgPerL: 0 },
    });
    const { unchanged } = told(ask(plan)).answer;
    const { worked } = unchanged;
    expect(worked.steps[0]?.from).toEqual(worked.start);
    worked.steps.slice(1).forEach((s, i) => expect(s.from).toEqual(worked.steps[i]?.to));
    expect(worked.end).toEqual(unchanged.lab);
    expect(ciede2000(worked.steps.at(-1)!.to, worked.end, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeLessThan(0.05);
    const weld = worked.steps.find((s) => s.what.of === 'jar' && s.what.materialId === 'weld');
    expect(weld?.what).toMatchObject({ stockLotIds: ['weld 2'], readings: 7 });
    expect(weld?.deltaE00).toBeGreaterThan(0.5);
    const { working, value, unit } = figureOfShade(worked, standard, unchanged.within80, NAMES);
    expect([value, unit]).toEqual([ciede2000(standard, worked.end, { kL: 1, kC: 1, kH: 1 }).deltaE, 'ΔE00']);
    expect(working.inputs.map((i) => i.name)).toContain('Weld out of jar weld 2');
    expect(working.inputs.at(-1)).toMatchObject({ name: 'The master' });
    expect(working.notes.join(' ')).toContain('Learnt from 14 readings');
  });
  it('keeps to the bounds that are set: the jars and water of the plan, and no more than is planned', () => {
    const shelf = [
      {
        materialId: 'weld',
        role: 'dyestuff' as const,
        usualPercent: 40,
        jars: ['weld 1', 'weld 2'].map((stockLotId) => ({ stockLotId, ageYears: 0 })),
      },
    ];
    const waters = [{ id: 'rain', ph: 6, hardnessDh: 1, ironMgPerL: 0 }];
    const free = { onlyPlannedJars: false, onlyPlannedWater: false, noMoreThanPlanned: false, noDearer: false };
    const ways = (bounds: Partial<ReorderBounds>): readonly ReorderWay[] =>
      told(ask(recipeFrom('weld 2'), { shelf, waters, bounds: { ...free, ...bounds } })).answer.ways;
    expect(ways({}).some((w) => w.turned.some((t) => t.isOtherJar))).toBe(true);
    const own = ways({ onlyPlannedJars: true, onlyPlannedWater: true });
    expect(own.length).toBeGreaterThan(0);
    expect(own.every((w) => w.waterId === null && w.turned.every((t) => !t.isOtherJar))).toBe(true);
    const most = (of: readonly ReorderWay[]): number =>
      Math.max(1, ...of.flatMap((w) => w.turned.map((t) => t.share ?? 1)));
    expect(most(ways({}))).toBeGreaterThan(1.1);
    expect(most(ways({ mostShare: 1.1 }))).toBeLessThanOrEqual(1.1 + 1e-6);
    for (const w of ways({ noMoreThanPlanned: true }))
      for (const t of w.turned) expect(t.share ?? 2).toBeLessThanOrEqual(1.05);
  });
  it('turns nothing of what goes in whole, and takes nothing dearer where it is told not to', () => {
    const plan = recipeFrom('weld 2');
    const whole = told(ask(plan, { fixed: ['weld'] })).answer.ways;
    for (const w of whole) expect(w.turned.map((t) => t.materialId)).not.toContain('weld');
    const costMinorPerG = new Map([['weld 2', 2] as const, ['madder 1', 9] as const, ['alum 1', 1] as const]);
    const bounds = { onlyPlannedJars: false, onlyPlannedWater: false, noMoreThanPlanned: false, noDearer: true };
    const dear = told(ask(plan, { costMinorPerG })).answer.ways;
    const cheap = told(ask(plan, { costMinorPerG, bounds })).answer.ways;
    const cost = (doses: Dyeing['doses']): number => costOfDoses(doses, 1000, costMinorPerG).minor;
    expect(Math.max(...dear.map((w) => cost(w.doses)))).toBeGreaterThan(cost(plan.doses));
    for (const w of cheap) expect(cost(w.doses)).toBeLessThanOrEqual(1.05 * cost(plan.doses));
  });
  it('weighs no more out of a jar than it holds', () => {
    const plan = recipeFrom('weld 2');
    const planned = plan.doses.find((d) => d.materialId === 'weld')!.percentOwf;
    const mostPercent = new Map([['weld 2', 1.05 * planned] as const]);
    const ways = told(ask(plan, { mostPercent })).answer.ways;
    for (const w of ways)
      for (const d of w.doses.filter((x) => x.stockLotId === 'weld 2'))
        expect(d.percentOwf).toBeLessThanOrEqual(1.05 * planned + 1e-6);
  });
  it('goes by what the colourway is judged by', () => {
    const plan = recipeFrom('weld 3');
    const { answer, letter } = told(ask(plan, { formula: 'cmc21' }));
    expect(letter.strikeOff).toMatch(/likely to lie CMC 2:1 \d\.\d from the master/);
    expect(answer.strikeOff?.withoutDeltaE).not.toBeCloseTo(told(ask(plan)).answer.strikeOff?.withoutDeltaE ?? 0, 2);
  });
  it('takes another lot of the base where the planned one is too yellow, unless it is held to what is planned', () => {
    const yellow = { lab: { L: 78, a: 3, b: 26 }, spectrum: null };
    const { baseLotId, undyed, ...rest } = recipeFrom('weld 1');
    const plan = { ...rest, baseLotId: 'bale 9', undyed: yellow };
    const baseLots = [
      { baseLotId: 'bale 9', undyed: yellow },
      { baseLotId, undyed },
    ];
    const { answer, letter } = told(ask(plan, { baseLots }));
    expect(answer.unchanged.deltaE00).toBeGreaterThan(1);
    expect(answer.ways[0]).toMatchObject({ how: 'baseLot', baseLotId });
    expect(answer.ways[0]!.deltaE00).toBeLessThan(0.5);
    expect(letter.advice).toMatch(/^On jar bale 1, another lot of the base/);
    const bounds = { onlyPlannedJars: true, onlyPlannedWater: false, noMoreThanPlanned: false, noDearer: false };
    for (const w of told(ask(plan, { baseLots, bounds })).answer.ways) expect(w.baseLotId).toBeNull();
  });
  it('turns a dye in dips by whole dips', () => {
    // Nothing else may be turned: what a weak jar lacks only the stay can give.
    const plan = recipeFrom('weld 2');
    const briefly = pastLots(14).map((r, i) => {
      const share = [1, 0.5, 0.25][i % 3]!;
      const courses = r.dyeing.courses.map((c) => ({
        ...c,
        points: c.points.map((p) => ({ ...p, minute: c.stage === 'dye' ? p.minute * share : p.minute })),
      }));
      const { L, a, b } = r.colour.lab;
      const paler = { L: L + 6 * (1 - share), a: a - 3 * (1 - share), b: b - 14 * (1 - share) };
      return { ...r, dyeing: { ...r.dyeing, courses }, colour: { lab: paler, spectrum: null } };
    });
    const held = { readings: briefly, fixed: ['weld', 'madder', 'alum'] };
    const ways = told(ask(plan, { ...held, dips: 4 })).answer.ways;
    expect(ways.length).toBeGreaterThan(0);
    for (const w of ways) {
      expect(w.dipsMore).not.toBe(0);
      expect(w.timeShare).toBeCloseTo(1 + w.dipsMore / 4, 9);
    }
    for (const w of told(ask(plan, held)).answer.ways) expect(w.dipsMore).toBe(0);
  });
  it('the same record gives the same letter', () =>
    expect(told(ask(recipeFrom('weld 2'))).letter).toEqual(told(ask(recipeFrom('weld 2'))).letter));
});

describe('a way, as it is said to whoever weighs', () => {
  const way = (rest: Partial<ReorderWay>): ReorderWay => ({
    how: 'doses',
    isStruckOff: false,
    lab: standard,
    deltaE00: 0,
    within80: 1,
    expectedDeltaE: 1,
    turned: [],
    worked: { start: standard, steps: [], end: standard, readings: 0 },
    doses: [],
    courses: [],
    waterId: null,
    baseLotId: null,
    dipsMore: 0,
    timeShare: 1,
    ...rest,
  });
  const turned = { materialId: 'weld', stockLotId: 'B', percentOwf: 44, share: 1.1, isOtherJar: false };
  it.each<[string, Partial<ReorderWay>]>([
    ['as the recipe says', {}],
    ['Weld 10 % more', { turned: [turned] }],
    ['Weld 20 % less and 15 % longer in the dye', { turned: [{ ...turned, share: 0.8 }], timeShare: 1.15 }],
    [
      'Weld 30.0 % out of jar A and 14.0 % out of jar B, 10 % more in all',
      {
        turned: [turned, { ...turned, stockLotId: 'B', isOtherJar: true }],
        doses: [dose('weld', 'A', 30), dose('weld', 'B', 14), dose('madder', 'M', 8)],
      },
    ],
    [
      'Weld 40.0 % out of jar B',
      { turned: [{ ...turned, share: 1, isOtherJar: true }], doses: [dose('weld', 'B', 40)] },
    ],
    [
      'a little Madder, 0.40 % of the fibre',
      { turned: [{ ...turned, materialId: 'madder', percentOwf: 0.4, share: null, isOtherJar: true }] },
    ],
    [
      'a touch of Madder after the dye, 0.40 % of the fibre',
      {
        turned: [{ ...turned, materialId: 'madder', percentOwf: 0.4, share: null, isOtherJar: true }],
        doses: [dose('madder', 'M', 0.4, { stage: 'modifier', role: 'modifier' })],
      },
    ],
    ['Weld 10 % more and in the rain water', { turned: [turned], waterId: 'rain' }],
    ['on jar bale 2, another lot of the base and one dip more', { baseLotId: 'bale 2', dipsMore: 1, timeShare: 1.2 }],
    ['2 dips fewer', { dipsMore: -2, timeShare: 0.7 }],
  ])('%s', (said, rest) => expect(sayWay(way(rest), NAMES)).toBe(said));
});

describe('doses corrected for one lot', () => {
  const steps = [
    bathStep('mordant', [percent('alum', 12)]),
    bathStep('dye', [
      percent('weld', 40),
      { materialId: 'chalk', by: 'gPerLitre', gPerL: 2 },
      { materialId: 'sachet', by: 'packet' },
    ]),
  ];
  it('are so much more or less of one material, in whatever way it is written; what is counted stays', () => {
    const [mordant, dye] = correctDoses(steps, [
      { materialId: 'weld', share: 1.1 },
      { materialId: 'chalk', share: 0.5 },
      { materialId: 'sachet', share: 2 },
    ]);
    expect(mordant?.doses).toEqual(steps[0]?.doses);
    expect(dye?.doses).toMatchObject([{ percentOwf: 44 }, { gPerL: 1 }, { by: 'packet' }]);
  });

  it('of what is counted, poured whole or tried by pH no share can be taken', () =>
    expect(
      wholeMaterials([
        ...steps,
        bathStep('dye', [
          { materialId: 'vat', by: 'allThere' },
          { materialId: 'kept', by: 'liquor', ofBathPercent: 20 } as never,
        ]),
      ]),
    ).toEqual(['sachet', 'vat', 'kept']));

  it('a little of another goes into the last dye bath, and the hold is what is longer', () => {
    const long = bathStep('dye', [percent('weld', 40)], {
      durationMin: 90,
      course: [
        { do: 'raise', toC: 80, minutes: 30 },
        { do: 'hold', toC: 80, minutes: 60 },
      ],
    });
    const [first, second] = addToDye([long, long], [{ materialId: 'madder', percentOwf: 0.4 }]);
    expect(first?.doses).toHaveLength(1);
    expect(second?.doses.at(-1)).toEqual({ by: 'percentOwf', materialId: 'madder', percentOwf: 0.4 });
    const [longer] = stretchDye([long], 1.2);
    expect(longer?.durationMin).toBe(108);
    expect(longer?.course.map((leg) => leg.minutes)).toEqual([30, 78]);
    expect(stretchDye(steps, 1)).toEqual(steps);
    const dips = bathStep('dye', [percent('weld', 40)], { repeats: 4 });
    expect([1.25, 0.5, 1.13].map((share) => stretchDye([dips], share)[0]?.repeats)).toEqual([5, 2, 5]);
    expect([dyeDips([dips, long]), dyeDips([long])]).toEqual([4, 1]);
    expect(stretchDye(steps, 1.5).map((s) => s.durationMin)).toEqual([60, 90]);
  });

  it('a touch after the dye goes into the bath that modifies, or into one of its own that what followed the dye follows', () => {
    const iron = [{ materialId: 'iron', percentOwf: 0.2 }];
    const [mordant, dye] = steps;
    const rinse = recipeStep({ kind: 'rinse', title: 'Rinse', after: ['d'] });
    const chain = addAfterDye([mordant!, { ...dye!, key: 'd' }, rinse], iron);
    expect(chain.map((s) => s.kind)).toEqual(['mordant', 'dye', 'modify', 'rinse']);
    expect(chain[2]).toMatchObject({ usesBath: true, doses: [{ by: 'percentOwf', ...iron[0] }] });
    expect(chain[3]?.after).toEqual([chain[2]?.key]);
    const sadden = recipeStep({ kind: 'modify', title: 'Sadden' });
    const [, , more] = addAfterDye([mordant!, dye!, sadden], iron);
    expect(more).toMatchObject({ title: 'Sadden', doses: iron });
    expect(addAfterDye(steps, [])).toEqual(steps);
    expect(addAfterDye([mordant!], iron)).toEqual([mordant]);
  });
});
