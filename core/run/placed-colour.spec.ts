import { describe, expect, it } from 'vitest';
import type { PlacedZone } from '../recipe/placed';
import { bathStep, input, material, percent, planned, recipe, stockLot, wool } from '../scaling/plan-lot.fixture';
import { stepsOfZones } from '../scaling/placed-zones';
import { asReallyDone } from './as-really-done';
import { benchActs } from './bench-acts';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import { lookAgain } from './look-again';
import type { BroughtEntry, RunEntry } from './run-entry';
import { at, runEntry } from './run-entry.fixture';
import { placedAsDone } from './placed-as-done';
import { foldRun } from './run-record';
import { ruleOnEntry } from './run-rules';

const zone = (title: string, rest: Partial<PlacedZone>): PlacedZone => ({
  title,
  way: 'dip',
  fromPercent: 0,
  toPercent: 20,
  order: 1,
  minutes: 0,
  waitMin: 0,
  mlPerPiece: null,
  gPerPiece: null,
  materialId: null,
  spacingCm: null,
  ...rest,
});
const ZONES = [
  zone('Ties', { way: 'tie', fromPercent: 40, toPercent: 60 }),
  zone('Weak end', { fromPercent: 60, toPercent: 100, order: 2, minutes: 1, waitMin: 30 }),
  zone('Strong end', { fromPercent: 0, toPercent: 30, order: 2, minutes: 20 }),
  zone('Sprayed band', { way: 'spray', fromPercent: 32, toPercent: 38, order: 3, mlPerPiece: 6, materialId: 'liquor' }),
  zone('White', { way: 'leave', fromPercent: 38, toPercent: 40, order: 3 }),
  zone('Iron edge', { way: 'modify', fromPercent: 0, toPercent: 10, order: 4, minutes: 4 }),
];
const plan = planned(
  input({
    recipe: recipe({
      placed: { lengthCm: 80, piece: 'skein', bleedPercent: 1, zones: ZONES },
      steps: [
        bathStep('dye', [percent('weld', 50)], { key: 'd', strain: 'muslin', lookEveryMin: 5 }),
        bathStep('modify', [], { key: 'm' }),
      ],
    }),
    bases: [wool(2)],
    materials: [...input().materials, { ...material('liquor', stockLot('IRL-1', 500)), measure: 'volume' }],
  }),
);
const [dye, modify] = ['d', 'm'].map((key) => plan.steps.find((s) => s.key === key)!);
const d = dye!.index;
const weighings = dye!.weighings.map((w) =>
  runEntry('weigh', d, 2, {
    weighing: {
      batch: w.batch,
      materialId: w.materialId,
      stockLotId: w.picks[0]!.stockLotId,
      amount: w.target.value * 1000,
    },
  }),
);
const BEGUN = [runEntry('start', 0, 0), runEntry('finish', 0, 1), runEntry('start', d, 2), ...weighings];
const told = (
  minute: number,
  number: number,
  did: 'in' | 'done' | 'left',
  rest: object = {},
  text: string | null = null,
) => runEntry('zone', d, minute, { text, detail: { zone: number, did, ...rest } });
const actAt = (entries: readonly RunEntry[], minute: number) => {
  const act = benchActs([{ lotId: 'l', plan, entries }], Date.parse(at(minute)))[0];
  return act?.kind === 'zone'
    ? `${act.zone.title} ${act.piece ?? 'all'} ${act.inMs === null ? 'to do' : 'in'}`
    : act?.kind;
};
const ruled = (entries: readonly RunEntry[], detail: object | null, text: string | null = null): string => {
  const ruling = ruleOnEntry(
    { plan, entries, lotAt: at(-10), nowMs: Date.parse(at(500)), lotTag: 'Lot 1', elsewhere: [] },
    {
      id: 'new',
      kind: 'zone',
      stepIndex: d,
      replacesId: null,
      temperatureC: null,
      weighing: null,
      text,
      detail,
    } as BroughtEntry,
    Date.parse(at(400)),
  );
  return ruling.ok ? 'taken' : ruling.refusal.reason;
};
const deviations = (entries: readonly RunEntry[]): string[] =>
  findDeviations(dye!, foldRun(entries, plan.steps.length)[d]!, { tagOf: (id) => id }).map(sayDeviation);

describe('placed colour in a plan', () => {
  it('each zone stands at the step it is done at, in turns; what stays undyed is no work', () => {
    expect(dye!.zones?.map((z) => z.title)).toEqual(['Ties', 'Strong end', 'Weak end', 'Sprayed band']);
    expect(modify!.zones?.map((z) => z.title)).toEqual(['Iron edge']);
    expect(dye!.zones?.[1]).toMatchObject({ zone: 2, fromCm: 0, toCm: 24, minutes: 20, pieceByPiece: false });
    expect(plan.placed?.lengthCm).toBe(80);
  });
  it('no turn comes before the turn it follows, and what it needs is weighed at its step', () => {
    const late = [zone('Iron', { way: 'modify', order: 1 }), zone('Spray over it', { way: 'spray', order: 2 })];
    const placed = { lengthCm: 80, piece: 'skein' as const, bleedPercent: 1, zones: late };
    expect(stepsOfZones(placed, [{ kind: 'dye' }, { kind: 'modify' }])).toEqual([1, 1]);
    expect(stepsOfZones(placed, [{ kind: 'dye' }])).toEqual([0, 0]);
    expect(dye!.weighings.find((w) => w.materialId === 'liquor')?.target.value).toBe(12);
  });
  it('a recipe without it has none', () => expect(planned(input()).steps.some((s) => s.zones)).toBe(false));
});

describe('placed colour at the bench', () => {
  const tied = [...BEGUN, told(5, 0, 'done')];
  const dipped = [...tied, told(6, 2, 'in'), told(7, 1, 'in'), told(8, 1, 'done'), told(27, 2, 'done')];
  it.each([
    ['the first turn first', BEGUN, 4, 'Ties all to do'],
    ['then the next, all pieces together', tied, 6, 'Strong end all to do'],
    ['while one is in, hands turn to the next of its turn', [...tied, told(6, 2, 'in')], 7, 'Weak end all to do'],
    ['what is due comes out first', [...tied, told(6, 2, 'in'), told(7, 1, 'in')], 8.5, 'Weak end all in'],
    [
      'what is still in waits',
      [...tied, told(6, 2, 'in'), told(7, 1, 'in'), told(8, 1, 'done')],
      10,
      'Strong end all in',
    ],
    ['sprayed one piece after the other', dipped, 60, 'Sprayed band 1 to do'],
    ['and the next', [...dipped, told(60, 3, 'done', { piece: 1 })], 61, 'Sprayed band 2 to do'],
    [
      'then the step itself',
      [...dipped, told(60, 3, 'done', { piece: 1 }), told(61, 3, 'done', { piece: 2 })],
      62,
      'finish',
    ],
  ])('%s', (_what, entries, minute, expected) => expect(actAt(entries, minute)).toBe(expected));

  it('a turn waits as long as the one before it is to rest', () => {
    const act = benchActs([{ lotId: 'l', plan, entries: dipped }], Date.parse(at(30)))[0];
    expect(act).toMatchObject({ kind: 'zone', dueMs: Date.parse(at(38)) });
  });

  it.each([
    ['a zone of this step', { zone: 0, did: 'done' }, null, 'taken'],
    ['nothing said', null, null, 'missing'],
    ['a zone of another step', { zone: 5, did: 'done' }, null, 'noSuchZone'],
    ['a piece that the lot hasn’t', { zone: 3, did: 'done', piece: 3 }, null, 'noSuchPiece'],
    ['left out without a word', { zone: 3, did: 'left', piece: 1 }, '', 'reasonMissing'],
    ['left out, and why', { zone: 3, did: 'left', piece: 1 }, 'the bottle clogged', 'taken'],
  ])('%s', (_what, detail, text, reason) => expect(ruled(BEGUN, detail, text)).toBe(reason));

  it('is done once; a slip is taken back', () => {
    expect(ruled(tied, { zone: 0, did: 'done' })).toBe('zoneOver');
    expect(ruled([...tied, told(6, 2, 'in')], { zone: 2, did: 'in' })).toBe('zoneOver');
    const slip = tied.at(-1)!;
    expect(ruled([...tied, runEntry('takeBack', d, 6, { replacesId: slip.id })], { zone: 0, did: 'done' })).toBe(
      'taken',
    );
    expect(ruled(BEGUN.slice(0, 2), { zone: 0, did: 'done' })).toBe('notBegun');
  });

  it('what came otherwise is told, zone by zone and piece by piece', () => {
    expect(deviations(dipped).filter((m) => m.includes('“'))).toEqual([]);
    const otherwise = [
      ...tied,
      told(6, 2, 'in'),
      told(46, 2, 'done', {}, 'crept over the tie'),
      told(60, 3, 'done', { piece: 1, ml: 9 }),
      told(61, 3, 'left', { piece: 2 }, 'the bottle clogged'),
      runEntry('strained', d, 61, { detail: { way: 'leaveIn' } }),
      runEntry('finish', d, 62),
    ];
    const said = deviations(otherwise).join('\n');
    expect(said).toContain('“Strong end” was in for 40 min instead of 20 min, expect deeper there');
    expect(said).toContain('“Strong end”: crept over the tie');
    expect(said).toContain('“Weak end” was not put on');
    expect(said).toContain('“Sprayed band” on piece 1 got 9 ml instead of 6, and may have crept further');
    expect(said).toContain('“Sprayed band” left out on piece 2: the bottle clogged');
    expect(said).toContain('plant matter left in instead of through muslin');
    // Nobody told of the second piece: it is told for them.
    const silent = [...tied, told(60, 3, 'done', { piece: 1 }), runEntry('finish', d, 62)];
    expect(deviations(silent)).toContain('“Sprayed band” was not put on piece 2');
  });
});

describe('placed colour as it was really put on', () => {
  const written = { lengthCm: 80, piece: 'skein' as const, bleedPercent: 1, zones: ZONES };
  const done = (entries: readonly RunEntry[]) => placedAsDone(written, plan, foldRun(entries, plan.steps.length));
  const tied = [...BEGUN, told(5, 0, 'done')];
  it('what went as planned stays as it was written', () =>
    expect(done(tied)).toEqual({ placed: written, changes: [] }));
  it('times and liquid are as they were, what was left out is gone', () => {
    const { placed, changes } = done([
      ...tied,
      told(6, 2, 'in'),
      told(46, 2, 'done'),
      told(47, 1, 'left', {}, 'no weak bath was left'),
      told(60, 3, 'done', { piece: 1, ml: 9 }),
      told(61, 3, 'done', { piece: 2, ml: 10 }),
    ]);
    expect(placed.zones.map((z) => z.title)).not.toContain('Weak end');
    expect(placed.zones.find((z) => z.title === 'Strong end')?.minutes).toBe(40);
    expect(placed.zones.find((z) => z.title === 'Sprayed band')?.mlPerPiece).toBe(9.5);
    expect(changes.map((c) => c.message)).toEqual([
      '“Weak end” left out: no weak bath was left',
      '“Strong end” 40 min instead of 20 min',
      '“Sprayed band” 9.5 ml a piece instead of 6',
    ]);
  });
  it('left out of one piece of two, it stays', () =>
    expect(done([...tied, told(60, 3, 'left', { piece: 1 }, 'clogged')]).placed.zones).toHaveLength(ZONES.length));
  it('the chain and its colour are told as one', () => {
    const entries = [...tied, told(6, 2, 'in'), told(46, 2, 'done'), runEntry('finish', d, 62)];
    const steps = [
      bathStep('dye', [percent('weld', 50)], { key: 'd', strain: 'muslin', lookEveryMin: 5 }),
      bathStep('modify', [], { key: 'm' }),
    ];
    const records = foldRun(
      [...entries, runEntry('strained', d, 50, { detail: { way: 'leaveIn' } })],
      plan.steps.length,
    );
    const really = asReallyDone({ steps, placed: written }, plan, records);
    expect(really.steps[0]?.strain).toBe('leaveIn');
    expect(really.changes.map((c) => c.message)).toEqual(
      expect.arrayContaining(['plant matter left in', '“Strong end” 40 min instead of 20 min']),
    );
    expect(asReallyDone({ steps, placed: null }, plan, records).placed).toBeNull();
  });
});

describe('a step that is looked at every five minutes', () => {
  const look = (entries: readonly RunEntry[], minute: number, seenMinute = -1) =>
    lookAgain(dye!, foldRun(entries, plan.steps.length)[d]!, entries, {
      nowMs: Date.parse(at(minute)),
      seenMs: Date.parse(at(seenMinute)),
    });
  it('calls five minutes after it began, and after each look', () => {
    expect(look(BEGUN, 6)).toMatchObject({ isDue: false, dueMs: Date.parse(at(7)) });
    expect(look(BEGUN, 7)?.isDue).toBe(true);
    expect(look([...BEGUN, runEntry('sample', d, 7, { detail: { depth: 0.3 } })], 8)?.isDue).toBe(false);
    expect(look(BEGUN, 9, 8)).toMatchObject({ isDue: false, dueMs: Date.parse(at(13)) });
  });
  it('not before, not after, not where nobody asks', () => {
    expect(look(BEGUN.slice(0, 2), 6)).toBeUndefined();
    expect(look([...BEGUN, runEntry('finish', d, 9)], 30)).toBeUndefined();
    expect(
      lookAgain(modify!, foldRun(BEGUN, plan.steps.length)[modify!.index]!, BEGUN, { nowMs: 0, seenMs: 0 }),
    ).toBeUndefined();
  });
});
