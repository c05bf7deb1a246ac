import type { ShelfRow } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { inOrder } from '../../../ui/in-order';
import type { ShownRow } from './shelf-rows';
import { SHELF_COLUMNS, sayNeighbours, wantedRows } from './shelf-rows';

const row = (tag: string, rest: Partial<ShownRow> = {}): ShownRow => ({
  id: tag,
  tag,
  material: 'Weld',
  measure: 'weight',
  place: 'Loft',
  kind: 'dyestuff',
  onHand: 100,
  reserved: 0,
  free: 100,
  bestBefore: null,
  past: false,
  ...rest,
});
const shelf = [
  row('WEL-10', { bestBefore: '2027-01-01', free: -5 }),
  row('WEL-2', { material: 'Alum', onHand: 900, free: 900 }),
  row('OLD-1', { onHand: 0, free: 0 }),
  row('OLD-2', { onHand: 0, reserved: 5, free: -5, bestBefore: '2026-01-01' }),
];
const tags = (column: string, up: boolean, label = '', withEmpty = true): string[] =>
  inOrder(wantedRows(shelf, label, withEmpty), SHELF_COLUMNS.find((c) => c.key === column)?.by ?? (() => null), up).map(
    (r) => r.tag,
  );

describe('the rows of the shelf', () => {
  it.each<[string, boolean, string[]]>([
    ['tag', true, ['OLD-1', 'OLD-2', 'WEL-2', 'WEL-10']],
    ['tag', false, ['WEL-10', 'WEL-2', 'OLD-2', 'OLD-1']],
    ['onHand', false, ['WEL-2', 'WEL-10', 'OLD-1', 'OLD-2']],
    ['bestBefore', true, ['OLD-2', 'WEL-10', 'WEL-2', 'OLD-1']],
    ['bestBefore', false, ['WEL-10', 'OLD-2', 'WEL-2', 'OLD-1']],
  ])('are sorted by %s, up: %s', (column, up, order) => expect(tags(column, up)).toEqual(order));
  it('leave empty jars out, but not those that are promised from', () =>
    expect(tags('tag', true, '', false)).toEqual(['OLD-2', 'WEL-2', 'WEL-10']));
  it.each<[string, string[]]>([
    ['alum', ['WEL-2']],
    ['  LOFT ', ['OLD-1', 'OLD-2', 'WEL-2', 'WEL-10']],
    ['wel-1', ['WEL-10']],
    ['nothing', []],
  ])('are found by “%s”', (label, found) => expect(tags('tag', true, label)).toEqual(found));
});

describe('bad neighbours in words', () => {
  const stockLot = (tag: string, place: string, hazards: ShelfRow['hazards'], onHand = 5): ShelfRow => ({
    ...row(tag, { place, onHand }),
    materialId: tag,
    source: '',
    receivedOn: '2026-01-01',
    form: null,
    strengthPercent: null,
    kind: 'modifier',
    hazards,
  });
  it('name a place and a danger once, with every jar that has a part in it', () => {
    const spoken = sayNeighbours([
      stockLot('VIN-1', 'sink', ['acid']),
      stockLot('VIN-2', 'sink', ['acid']),
      stockLot('BLE', 'sink', ['chlorineBleach']),
      stockLot('CHA', 'loft', ['carbonate']),
    ]);
    expect(spoken).toEqual([
      'sink: acid on chlorine bleach sets free poisonous chlorine gas. Move one side elsewhere: VIN-1, Weld; BLE, Weld; VIN-2, Weld.',
    ]);
  });
  it('say nothing of jars with nothing in them', () =>
    expect(
      sayNeighbours([stockLot('VIN-1', 'sink', ['acid']), stockLot('BLE', 'sink', ['chlorineBleach'], 0)]),
    ).toEqual([]));
});
