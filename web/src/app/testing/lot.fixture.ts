import type { Bench, LotDetail, RunEntryView } from '@vestigia/contract';
import { input, planned, wool } from '../../../../core/scaling/plan-lot.fixture';

const LIGHT = { illuminant: 'D65' as const, observer: '10' as const };
export const NOW = '2026-06-01T12:00:00.000Z';

/** A lot of four hanks of wool, mordanted, extracted and dyed, as the bench reads it. */
export function lotFixture(entries: readonly RunEntryView[] = []): LotDetail {
  const plan = planned(input({ bases: [wool(4)] }));
  const stockLot = (id: string, materialId: string, place: string) => ({
    id,
    tag: id,
    materialId,
    place,
    measure: 'weight' as const,
    onHand: 9_000_000,
    reservedHere: 0,
  });
  const lot = {
    summary: {
      id: 'lot-1',
      tag: 'Lot 1',
      colourway: { id: 'c', name: 'Marram' },
      pieces: 4,
      pieceWeightG: 100,
      batches: plan.batches.length,
      state: 'planned',
      at: '2026-06-01T08:00:00.000Z',
      by: { id: 'p', name: 'Ada' },
      reorderOf: null,
      stations: plan.steps.map((s) => ({ kind: s.kind, title: s.title, state: 'waiting', hasDeviation: false })),
      undyed: { L: 90, a: 0, b: 8, ...LIGHT },
      master: { L: 74, a: -4, b: 50, ...LIGHT },
      result: null,
      deltaE: null,
      family: [],
      seen: null,
      next: null,
    },
    note: '',
    recipe: { versionId: 'v', name: 'Weld on alum', number: 2 },
    base: { id: 'hanks', name: 'hanks' },
    water: null,
    plan,
    checks: [],
    extras: {
      also: [],
      ownGoods: [],
      intake: { flags: [], syntheticPercent: null, marks: [] },
      doses: [],
      schools: [],
    },
    codeNames: null,
    zoneStandards: [],
    masterSpectrum: null,
    toleranceDeltaE: 2,
    formula: 'de00',
    entries: [...entries],
    deviations: [],
    readings: [],
    eyes: [],
    expected: [],
    judgeRule: 'eye',
    verdicts: [],
    factors: [],
    first: null,
    again: [],
    madeFrom: [],
    stockLots: [
      stockLot('RUG-1', 'hanks', 'Loft'),
      stockLot('ALU-1', 'alum', 'Shelf 2'),
      stockLot('WEL-1', 'weld', ''),
    ],
  };
  return lot as unknown as LotDetail;
}

/** The bench as the server tells it, with these lots. */
export function benchFixture(...lots: LotDetail[]): Bench {
  return {
    now: NOW,
    lots,
    vessels: [],
    waters: [],
    people: [],
    containers: [{ id: 'bowl', name: 'Blue bowl', tareMg: 200_000 }],
    putAway: [],
    room: { balanceCapacityG: 3000 },
  } as unknown as Bench;
}

export function runEntry(id: string, rest: Partial<RunEntryView>): RunEntryView {
  return {
    id,
    stepIndex: 0,
    kind: 'note',
    at: '2026-06-01T09:00:00.000Z',
    recordedAt: '2026-06-01T09:00:00.000Z',
    by: { id: 'p', name: 'Ada' },
    replacesId: null,
    temperatureC: null,
    text: null,
    detail: null,
    photos: [],
    weighing: null,
    ...rest,
  } as RunEntryView;
}
