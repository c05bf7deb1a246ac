import { describe, expect, it } from 'vitest';
import type { BatchReading, VerdictCase } from './verdict';
import { checkVerdict, lotColour, settledReadings } from './verdict';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const read = (
  batch: number,
  state: BatchReading['state'],
  L = 60,
  conditions: Pick<BatchReading, 'illuminant' | 'observer'> = D65,
): BatchReading => ({ batch, state, lab: { L, a: 5, b: 40 }, ...conditions });
const master = { lab: { L: 60, a: 5, b: 40 }, ...D65, toleranceDeltaE: 2 };
const good: VerdictCase = {
  verdict: 'pass',
  reason: '',
  master,
  batches: 2,
  readings: [read(1, 'wet', 50), read(1, 'dry'), read(2, 'dry')],
  openSteps: 0,
};

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
    ['passed as it came out, where nothing was wanted beforehand', { master: null }, undefined],
    ['without a master, still not while wet', { master: null, readings: [read(1, 'wet')] }, 'onlyWet'],
  ])('%s', (_name, change, code) => expect(checkVerdict({ ...good, ...change })?.code).toBe(code));

  it('takes a tolerance met exactly as met', () => {
    const readings = [read(1, 'dry', 62), read(2, 'dry')];
    const exact = lotColour(master.lab, readings).worstDeltaE;
    expect(checkVerdict({ ...good, readings, master: { ...master, toleranceDeltaE: exact } })).toBeUndefined();
    expect(checkVerdict({ ...good, readings, master: { ...master, toleranceDeltaE: exact - 0.001 } })?.code).toBe(
      'reasonMissing',
    );
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
    expect([...settled].map(([batch, r]) => [batch, r.lab.L])).toEqual([
      [1, 61],
      [2, 63],
    ]);
  });

  it('is the mean of the batches, judged by the furthest', () => {
    const colour = lotColour({ L: 60, a: 5, b: 40 }, [read(1, 'dry', 60), read(2, 'dry', 64)]);
    expect(colour.lab.L).toBe(62);
    expect(colour.worstDeltaE).toBeCloseTo(colour.betweenBatchesDeltaE, 10);
    expect(() => lotColour({ L: 60, a: 5, b: 40 }, [])).toThrow(RangeError);
  });
});
