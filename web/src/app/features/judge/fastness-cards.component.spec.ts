import type { FastnessTest } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { fastnessFamilies } from './fastness-cards';

const test = (kind: 'light' | 'wash', dyestuff: string, readings: object[], rest: object = {}): FastnessTest =>
  ({
    kind,
    place: kind === 'light' ? 'window' : null,
    madeWith: { fibre: 'wool', dyestuffs: [dyestuff], mordants: ['Alum'] },
    readings,
    curve: null,
    ...rest,
  }) as unknown as FastnessTest;
const read = (id: string, days: number, deltaE00: number | null, rest: object = {}): object => ({
  id,
  cloth: null,
  days,
  deltaE00,
  grade: 3,
  replacesId: null,
  ...rest,
});

describe('what cards say of each family', () => {
  it('is a line for each, the least fast first; white cloth and what was corrected count for nothing', () => {
    const lines = fastnessFamilies([
      test('light', 'Madder', [read('a', 28, 0.8)]),
      test('light', 'Weld', [read('b', 28, 40), read('c', 28, 5, { replacesId: 'b' })]),
      test('wash', 'Weld', [read('d', 1, 0.5), read('e', 1, 30, { cloth: 'wool' })]),
    ]);
    expect(lines.map((l) => [l.name, l.cards])).toEqual([
      ['Weld over Alum, wool', 2],
      ['Madder over Alum, wool', 1],
    ]);
    expect(lines[0]!.light.value).toMatch(/^[345]\.\d$/);
    expect(lines[0]!.light.span).toMatch(/^\d\.\d to \d+\.\d$/);
    expect(lines[0]!.wash.value).toMatch(/^0\.\d$/);
    expect(lines[1]!.wash).toEqual({ value: 'not tested', span: '' });
  });
  it('says nothing of a card that nobody read, or of what no lot gave', () => {
    const unknown = { madeWith: { fibre: '', dyestuffs: [], mordants: [] } };
    expect(fastnessFamilies([test('light', 'Weld', []), test('light', 'x', [read('a', 28, 3)], unknown)])).toEqual([]);
  });
});
