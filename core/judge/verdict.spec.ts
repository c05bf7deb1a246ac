import { describe, expect, it } from 'vitest';
import type { EyeReading, EyeSeen } from './by-eye';
import { isSeenSame, sayEye } from './by-eye';
import type { ShadeReading, VerdictCase } from './verdict';
import { checkVerdict, lotColour, settledReadings, verdictRestsOn } from './verdict';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const WHOLE = { group: null, zone: null, piece: null, dip: null };
const read = (
  batch: number,
  state: ShadeReading['state'],
  L = 60,
  conditions: Pick<ShadeReading, 'illuminant' | 'observer'> = D65,
): ShadeReading => ({ ...WHOLE, batch, state, lab: { L, a: 5, b: 40 }, ...conditions });
const SAME: EyeSeen = {
  against: 'master',
  depth: 0,
  hue: null,
  clarity: 0,
  evenness: 'even',
  where: '',
  light: 'daylight',
};
const eye = (batch: number, byId = 'ada', seen: Partial<EyeSeen> = {}, rest: Partial<EyeReading> = {}): EyeReading => ({
  ...WHOLE,
  batch,
  state: 'dry',
  seen: { ...SAME, ...seen },
  byId,
  ...rest,
});
const standard = { L: 60, a: 5, b: 40, ...D65 };
const good: VerdictCase = {
  verdict: 'pass',
  reason: '',
  standardOf: () => standard,
  toleranceDeltaE: 2,
  units: [1, 2].map((batch) => ({ ...WHOLE, batch, label: `Batch ${batch}` })),
  readings: [read(1, 'wet', 50), read(1, 'dry'), read(2, 'dry')],
  eyes: [],
  rule: 'eye',
  openSteps: 0,
};
const nobody = () => null;

describe('checkVerdict', () => {
  it.each<[string, Partial<VerdictCase>, string | undefined]>([
    ['passes a lot that is dry, done and within tolerance', {}, undefined],
    ['a wet reading can’t pass a lot', { readings: [read(1, 'wet'), read(2, 'wet')] }, 'onlyWet'],
    ['nothing read', { readings: [] }, 'noReading'],
    ['one batch unread', { readings: [read(1, 'dry')] }, 'batchUnread'],
    ['one batch only wet', { readings: [read(1, 'dry'), read(2, 'wet')] }, 'batchUnread'],
    [
      'read under another light',
      { readings: [read(1, 'dry', 60, { illuminant: 'A', observer: '10' }), read(2, 'dry')] },
      'otherConditions',
    ],
    ['steps open', { openSteps: 1 }, 'stepsOpen'],
    ['beyond tolerance without a word', { readings: [read(1, 'dry', 70), read(2, 'dry')] }, 'reasonMissing'],
    [
      'beyond tolerance with a reason',
      { readings: [read(1, 'dry', 70), read(2, 'dry')], reason: 'sold as its own set' },
      undefined,
    ],
    ['held without a reason', { verdict: 'hold' }, 'reasonMissing'],
    [
      'held while wet, with a reason',
      { verdict: 'hold', reason: 'looks patchy', readings: [read(1, 'wet')] },
      undefined,
    ],
    ['refused without a reason', { verdict: 'refuse', reason: '  ' }, 'reasonMissing'],
    ['passed as it came out, where nothing was wanted beforehand', { standardOf: nobody }, undefined],
    ['without a master, still not while wet', { standardOf: nobody, readings: [read(1, 'wet')] }, 'onlyWet'],
    ['passed by one eye', { readings: [], eyes: [eye(1), eye(2)] }, undefined],
    ['one batch read, the other seen', { readings: [read(1, 'dry')], eyes: [eye(2)] }, undefined],
    ['one batch seen by nobody', { readings: [], eyes: [eye(1)] }, 'batchUnread'],
    ['seen only wet', { readings: [], eyes: [eye(1, 'ada', {}, { state: 'wet' })] }, 'onlyWet'],
    ['seen paler, without a word', { readings: [], eyes: [eye(1), eye(2, 'ada', { depth: -1 })] }, 'reasonMissing'],
    [
      'seen paler, with a reason',
      { readings: [], eyes: [eye(1), eye(2, 'ada', { depth: -1 })], reason: 'its own set' },
      undefined,
    ],
    ['seen otherwise where it was read as right', { eyes: [eye(1, 'ada', { hue: 'redder' })] }, undefined],
    [
      'one pair of eyes where two are asked for',
      { rule: 'twoEyes', readings: [], eyes: [eye(1), eye(2)] },
      'secondEye',
    ],
    [
      'two looks of one person are one pair of eyes',
      { rule: 'twoEyes', readings: [], eyes: [eye(1), eye(1), eye(2), eye(2)] },
      'secondEye',
    ],
    ['two people', { rule: 'twoEyes', readings: [], eyes: [eye(1), eye(2), eye(1, 'bo'), eye(2, 'bo')] }, undefined],
    ['an eye where only a reading passes', { rule: 'reading', readings: [], eyes: [eye(1), eye(2)] }, 'readingWanted'],
    [
      'an eye for one batch where only a reading passes',
      { rule: 'reading', readings: [read(1, 'dry')], eyes: [eye(2)] },
      'readingWanted',
    ],
    ['all of it held or refused by itself', { units: [], readings: [] }, 'nothingLeft'],
    [
      'a piece by itself, seen only as part of its batch',
      { units: [{ ...WHOLE, batch: 1, piece: '2', label: 'piece 2' }], readings: [read(1, 'dry')] },
      undefined,
    ],
    [
      'a batch of which one piece alone was seen',
      { units: [{ ...WHOLE, batch: 1, label: 'Batch 1' }], readings: [{ ...read(1, 'dry'), piece: '2' }] },
      'batchUnread',
    ],
    ['held by eye, whatever the rule', { rule: 'reading', verdict: 'hold', reason: 'patchy', readings: [] }, undefined],
  ])('%s', (_name, change, code) => expect(checkVerdict({ ...good, ...change })?.code).toBe(code));

  it('takes a tolerance met exactly as met', () => {
    const readings = [read(1, 'dry', 62), read(2, 'dry')];
    const exact = lotColour(standard, readings).worstDeltaE;
    expect(checkVerdict({ ...good, readings, toleranceDeltaE: exact })).toBeUndefined();
    expect(checkVerdict({ ...good, readings, toleranceDeltaE: exact - 0.001 })?.code).toBe('reasonMissing');
  });

  it('knows what it rests on, and so how sure it is', () => {
    const rest = (change: Partial<VerdictCase>) => verdictRestsOn({ ...good, ...change });
    expect(rest({})).toBe('reading');
    expect(rest({ readings: [read(1, 'dry')], eyes: [eye(2)] })).toBe('eye');
    expect(rest({ readings: [read(1, 'dry')], eyes: [eye(2), eye(2, 'bo')] })).toBe('twoEyes');
    expect(rest({ readings: [read(1, 'dry')] })).toBeNull();
  });
});

describe('what an eye says', () => {
  it.each<[Partial<EyeSeen>, string]>([
    [{}, 'the same as the master swatch, even, in daylight'],
    [{ depth: -1, hue: 'redder' }, 'paler and redder than the master swatch, even, in daylight'],
    [
      { depth: 2, clarity: -1, evenness: 'patchy', where: 'one sleeve', light: 'lamp' },
      'much deeper and duller than the master swatch, patchy (one sleeve), under a lamp',
    ],
    [{ against: 'nothing' }, 'looked at by itself, even, in daylight'],
    [{ against: 'nothing', depth: -1 }, 'paler than hoped, even, in daylight'],
  ])('%j: %s', (seen, said) => expect(sayEye({ ...SAME, ...seen })).toBe(said));
  it('is the same only where nothing at all was seen otherwise', () => {
    expect(isSeenSame(SAME)).toBe(true);
    for (const seen of [{ depth: 1 }, { hue: 'bluer' as const }, { clarity: 1 }, { evenness: 'spotted' as const }])
      expect(isSeenSame({ ...SAME, ...seen })).toBe(false);
  });
});

describe('settledReadings and lotColour', () => {
  it('tells how far batches lie apart where there is no standard, and nothing of one', () => {
    const { worstDeltaE, betweenBatchesDeltaE } = lotColour(null, [read(1, 'dry', 60), read(2, 'dry', 63)]);
    expect(worstDeltaE).toBeNull();
    expect(betweenBatchesDeltaE).toBeGreaterThan(2);
  });

  it('takes the newest reading of each batch that is not wet', () => {
    const settled = settledReadings([read(1, 'dry', 60), read(1, 'cured', 61), read(1, 'wet', 40), read(2, 'dry', 63)]);
    expect(settled.map((r) => [r.batch, r.lab.L])).toEqual([
      [1, 61],
      [2, 63],
    ]);
  });

  it('keeps the shades of a batch apart', () => {
    const linen = { ...read(1, 'dry', 70), group: 'linen' };
    expect(settledReadings([read(1, 'dry', 60), linen]).map((r) => r.lab.L)).toEqual([60, 70]);
  });

  it('is the mean of the batches, judged by the furthest', () => {
    const colour = lotColour({ L: 60, a: 5, b: 40 }, [read(1, 'dry', 60), read(2, 'dry', 64)]);
    expect(colour.lab.L).toBe(62);
    expect(colour.worstDeltaE).toBeCloseTo(colour.betweenBatchesDeltaE, 10);
    expect(() => lotColour({ L: 60, a: 5, b: 40 }, [])).toThrow(RangeError);
  });
});
