import type { LotDetail, RunEntryView } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { entryLabel } from './entry-label';
import { LOT_STATE_LABELS, lotStateClass } from './lot-states';

const lot = {
  plan: { materials: [{ materialId: 'weld', name: 'Weld' }] },
  stockLots: [{ id: 'j', tag: 'WEL-2' }],
} as unknown as LotDetail;
const entry = (kind: RunEntryView['kind'], rest: object = {}): RunEntryView =>
  ({
    id: 'e',
    stepIndex: 0,
    kind,
    at: '',
    recordedAt: '',
    by: { id: 'p', name: 'Ada' },
    replacesId: null,
    temperatureC: null,
    text: null,
    weighing: null,
    detail: null,
    photos: [],
    ...rest,
  }) as RunEntryView;

describe('entryWords', () => {
  it.each<[RunEntryView, string]>([
    [entry('start'), 'begun'],
    [entry('finish'), 'finished'],
    [entry('finish', { text: 'no alum left' }), 'finished: no alum left'],
    [entry('skip', { text: 'done at the mill' }), 'skipped: done at the mill'],
    [entry('cancel', { text: 'withdrawn' }), 'lot called off: withdrawn'],
    [entry('note', { text: 'going dull' }), 'going dull'],
    [entry('temperature', { temperatureC: 78 }), '78 °C'],
    [
      entry('weigh', { weighing: { batch: 2, materialId: 'weld', stockLotId: 'j', amount: 1_200_000 } }),
      '1.2 kg Weld from WEL-2, batch 2',
    ],
  ])('$kind', (of, label) => expect(entryLabel(of, lot)).toBe(label));
});

describe('lot states', () => {
  it('has words and a shape for each, and no two words alike', () => {
    const label = Object.values(LOT_STATE_LABELS);
    expect(new Set(label).size).toBe(label.length);
    expect([lotStateClass('released'), lotStateClass('inWork'), lotStateClass('refused')]).toEqual([
      'state strong',
      'state open',
      'state',
    ]);
  });
});
