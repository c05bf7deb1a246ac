import type { Deed } from '@vestigia/contract';
import { HAZARD_LABELS, PRACTICE } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import { sayBrowser, sayChanges, sayDeed } from './deed-words';

const deed = (rest: Partial<Deed>): Deed => ({
  id: 'd',
  seq: 1,
  at: '2026-06-01T09:00:00.000Z',
  by: { id: 'a', name: 'Ada' },
  kind: 'changed',
  thing: 'vessel',
  thingId: 'v',
  name: 'Kettle',
  changes: {},
  note: '',
  ...rest,
});

const calendar = {
  formatDay: (day: string): string => `the day ${day}`,
  formatMoment: (at: string): string => `the moment ${at}`,
};

describe('who did what, in words', () => {
  it.each([
    [{}, 'Ada changed the vessel Kettle'],
    [{ thing: 'studio', name: 'Saltgrass' } as const, 'Ada changed the studio’s settings'],
    [{ kind: 'cameIn', thing: 'person', name: 'Bo' } as const, 'Bo came in'],
    [
      { kind: 'turnedAway', thing: 'person', name: 'Bo', by: null, note: '10.0.0.7' } as const,
      'Somebody was turned away who gave the name of Bo, from 10.0.0.7',
    ],
    [{ kind: 'brought', thing: 'file', name: 'jars.csv' } as const, 'Ada brought in a file: jars.csv'],
    [{ kind: 'added', by: null } as const, 'The program added the vessel Kettle'],
  ])('%j', (rest, said) => expect(sayDeed(deed(rest))).toBe(said));

  it('tells what was and what is, a secret by its name, and what came by itself', () => {
    expect(
      sayChanges(
        {
          heldIron: [false, true],
          note: ['', 'scratched'],
          codeHash: [null, null],
          materials: [null, 12],
          'facts.botanicalName': [null, 'Reseda luteola'],
          heatSourceId: ['01994cf5-c800-7bbd-a18b-33c05ec057ec', null],
          asOf: [null, '2026-06-01T09:05:00.000Z'],
          wantedOn: ['', '2026-12-01'],
        },
        calendar,
      ),
    ).toEqual([
      'held iron: no → yes',
      'note: nothing → scratched',
      'a code for coming in',
      'materials: 12',
      'botanical name: Reseda luteola',
      'heat source',
      'as it was on: the moment 2026-06-01T09:05:00.000Z',
      'wanted on: nothing → the day 2026-12-01',
    ]);
  });

  it('says what is chosen from a list by its words, and what was written as it was written', () => {
    expect(
      sayChanges(
        {
          role: ['helper', 'dyer'],
          state: ['asked', 'calledOff'],
          hazards: [[], ['acid', 'caustic']],
          'facts.forms': [['dried'], ['dried', 'chips']],
          'practice.mordantOnTannin': ['none', 'always'],
          name: ['acid', 'none'],
        },
        calendar,
      ),
    ).toEqual([
      'role: helper → dyer',
      'state: asked for → called off',
      `hazards: nothing → ${HAZARD_LABELS.acid} · ${HAZARD_LABELS.caustic}`,
      'forms: dried → dried, chips',
      `${PRACTICE[0]?.question}: none needed → always mordant`,
      'name: acid → none',
    ]);
  });

  it('names a browser shortly', () => {
    expect(sayBrowser({ browser: 'Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) Version/17.0 Safari/604.1' })).toBe(
      'Safari on iPad',
    );
    expect(sayBrowser({ browser: 'Mozilla/5.0 (X11; Linux x86_64) Chrome/140.0 Safari/537.36' })).toBe(
      'Chrome on Linux',
    );
    expect(sayBrowser({ browser: '' })).toBe('another program on another machine');
  });
});
