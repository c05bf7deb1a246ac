import type { LotDetail } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { nextAct } from './next-act';

const pick = (stockLotId: string | null, amount: number) => ({ stockLotId, amount });
const weighing = (batch: number, ...picks: ReturnType<typeof pick>[]) => ({ batch, materialId: 'weld', materialName: 'Weld', target: { value: 100, unit: 'g', working: { formula: '', inputs: [], notes: [] } }, toleranceG: 2, picks });
const taken = (id: string, batch: number, stockLotId: string, replacesId: string | null = null) => ({ id, stepIndex: 0, kind: 'weigh', replacesId, weighing: { batch, materialId: 'weld', stockLotId, amount: 1 } });
const lot = (startedAt: string | null, entries: object[], weighings = [weighing(1, pick('W1', 60), pick('W2', 40)), weighing(2, pick('W2', 100))], state = 'inWork') =>
  ({ summary: { state, next: { index: 0, startedAt } }, plan: { steps: [{ index: 0, durationMin: 60, weighings }] }, entries }) as unknown as LotDetail;
const BEGUN = '2026-06-01T09:00:00.000Z';

describe('nextAct', () => {
  it('begins a step before anything', () => expect(nextAct(lot(null, []))?.kind).toBe('begin'));
  it('weighs batch by batch, jar by jar', () => {
    expect(nextAct(lot(BEGUN, []))).toMatchObject({ kind: 'weigh', target: 60, pick: { stockLotId: 'W1' } });
    expect(nextAct(lot(BEGUN, [taken('a', 1, 'W1')]))).toMatchObject({ target: 40, pick: { stockLotId: 'W2' } });
    expect(nextAct(lot(BEGUN, [taken('a', 1, 'W1'), taken('b', 1, 'W2')]))).toMatchObject({ weighing: { batch: 2 } });
  });
  it('takes as many weighings from another jar as answered the picks', () => expect(nextAct(lot(BEGUN, [taken('a', 1, 'X'), taken('b', 1, 'Y')]))).toMatchObject({ weighing: { batch: 2 } }));
  it('does not count a corrected weighing twice', () => expect(nextAct(lot(BEGUN, [taken('a', 2, 'W2'), taken('b', 1, 'X'), taken('c', 1, 'X', 'b')]))).toMatchObject({ weighing: { batch: 1 } }));
  it('finishes when all is weighed, at its hour', () => expect(nextAct(lot(BEGUN, [taken('a', 1, 'W1'), taken('b', 1, 'W2'), taken('c', 2, 'W2')]))).toMatchObject({ kind: 'finish', endsAt: '2026-06-01T10:00:00.000Z' }));
  it('judges when the steps are over, and leaves a closed lot alone', () => {
    expect(nextAct(lot(null, [], [], 'toJudge'))?.kind).toBe('judge');
    expect(nextAct(lot(null, [], [], 'released'))).toBeUndefined();
  });
});
