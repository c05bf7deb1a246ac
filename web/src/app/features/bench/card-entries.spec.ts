import type { LotDetail } from '@vestigia/contract';
import type { PlannedStep } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { entriesOf } from './card-entries';
import { instantOf } from '@vestigia/core';

const DAY = '2026-06-01';
const inLondon = (day: string, clock: string): number => instantOf(day, clock, 'Europe/London');
import { clockLabel } from './clock-label';
import { readNumber } from './read-number';

const step = (index: number): PlannedStep =>
  ({ index, title: `step ${index}`, kind: 'dye', weighings: [] }) as unknown as PlannedStep;
const keyed = (index: number, rest: object = {}) => ({
  step: step(index),
  open: true,
  day: '',
  begun: '',
  finished: '',
  hottest: '',
  ph: '',
  note: '',
  weighings: [],
  ...rest,
});
const lot = { entries: [], plan: { steps: [step(0), step(1), step(2)] } } as unknown as LotDetail;
/** British summer time, whatever the zone of the machine. */
const local = (text: string): string => new Date(`${text}+01:00`).toISOString();

describe('a card keyed in', () => {
  it('becomes entries in the order they were done, with their times; what goes past midnight is of the next day', () => {
    const entries = entriesOf(
      [
        keyed(0, {
          begun: '9:40',
          finished: '10.05',
          hottest: '81,5',
          ph: '6,9',
          note: 'even',
          weighings: [{ batch: 1, materialId: 'm', stockLotId: 'j', quantityText: '90 g' }],
        }),
        keyed(1, { begun: '22:10', finished: '0600' }),
        keyed(2),
      ],
      lot,
      DAY,
      inLondon,
    );
    expect(entries.map((e) => [e.stepIndex, e.kind, e.at])).toEqual([
      [0, 'start', local('2026-06-01T09:40')],
      [0, 'weigh', local('2026-06-01T09:40')],
      [0, 'temperature', local('2026-06-01T09:40')],
      [0, 'ph', local('2026-06-01T09:40')],
      [0, 'note', local('2026-06-01T09:40')],
      [0, 'finish', local('2026-06-01T10:05')],
      [1, 'start', local('2026-06-01T22:10')],
      [1, 'finish', local('2026-06-02T06:00')],
    ]);
    expect(entries[2]).toMatchObject({ temperatureC: 81.5, detail: { readBy: 'card' } });
    expect(entries[3]).toMatchObject({ detail: { ph: 6.9, readBy: 'card' } });
    expect(new Set(entries.map((e) => e.id)).size).toBe(8);
  });
  it('says so when something stands planned and nobody wrote what was weighed', () => {
    const [, finish] = entriesOf(
      [
        keyed(0, {
          begun: '9:40',
          finished: '9:50',
          weighings: [{ batch: 1, materialId: 'm', stockLotId: 'j', quantityText: '' }],
        }),
      ],
      lot,
      DAY,
      inLondon,
    );
    expect(finish).toMatchObject({ kind: 'finish', text: 'not written on the card what was weighed' });
  });
  it('leaves steps alone that are recorded or have no time', () =>
    expect(entriesOf([keyed(0, { open: false, begun: '9:40' }), keyed(1, { note: 'x' })], lot, DAY, inLondon)).toEqual(
      [],
    ));
  it('takes several days, about right times and lengths, and keeps how they were told', () => {
    const entries = entriesOf(
      [
        keyed(0, { begun: 'about 4 pm', finished: 'overnight' }),
        keyed(1, { begun: '10:00', finished: 'an hour or so' }),
        keyed(2, { day: '2026-06-09', begun: 'morning', finished: '40 min' }),
      ],
      lot,
      DAY,
      inLondon,
    );
    expect(entries.map((e) => [e.kind, e.at, e.detail && 'about' in e.detail ? e.detail.about : ''])).toEqual([
      ['start', local('2026-06-01T16:00'), 'about 4 pm'],
      ['finish', local('2026-06-02T08:00'), 'overnight'],
      ['start', local('2026-06-02T10:00'), ''],
      ['finish', local('2026-06-02T11:00'), 'an hour or so'],
      ['start', local('2026-06-09T09:00'), 'morning'],
      ['finish', local('2026-06-09T09:40'), ''],
    ]);
  });
  it('takes from no jar what was weighed before the books began', () =>
    expect(
      entriesOf(
        [keyed(0, { begun: '9:40', weighings: [{ batch: 1, materialId: 'm', stockLotId: '', quantityText: '9 g' }] })],
        lot,
        DAY,
        inLondon,
      )[1],
    ).toMatchObject({ kind: 'weigh', weighing: { stockLotId: null } }));
});

describe('figures at the bench', () => {
  it.each([
    [0, '0:00'],
    [-5000, '0:00'],
    [65_000, '1:05'],
    [3_599_000, '59:59'],
    [3_600_000, '1 h'],
    [5_400_000, '1 h 30 min'],
  ])('%i ms are %s', (ms, label) => expect(clockLabel(ms)).toBe(label));
  it.each([
    ['81,5', 81.5],
    ['81.5 °C', 81.5],
    ['6.9', 6.9],
    ['12 ml', 12],
    ['', undefined],
    ['hot', undefined],
  ])('%s is %s', (text, value) => expect(readNumber(text)).toBe(value));
});
