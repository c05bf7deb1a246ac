import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import type { Call } from './api';
import { api } from './api';
import { lineOf, nameOf, noteOf, numberIn } from './common';
import { newRunEntry } from './run-entry';
import { proposalAsk } from './proposal';
import { PROBLEM_CODES } from './problem';
import { recipeBody } from './recipe-body';
import { newMaterial } from './materials';

const calls = Object.entries(api) as [string, Call][];
const ID = '01900000-0000-7000-8000-000000000000';
const messages = (schema: z.ZodType, value: unknown): string[] =>
  schema.safeParse(value).error?.issues.map((i) => i.message) ?? [];

describe('the table of calls', () => {
  it('names each method and path once', () => {
    const seen = calls.map(([, c]) => `${c.method} ${c.path}`);
    expect(new Set(seen).size).toBe(seen.length);
  });

  /** What these do needs no more than being asked. */
  const ASKED_ALONE = ['makeCopy', 'giveCode', 'newCalendarAddress'];
  it.each(calls)('%s is described whole', (name, call) => {
    expect(call.path).toMatch(/^\/api\/[a-z-/{}.]+$/);
    expect(call.summary.length).toBeGreaterThan(3);
    expect(
      call.method === 'get' || call.method === 'delete' || call.path.endsWith('/run') || ASKED_ALONE.includes(name)
        ? 'nothing'
        : (call.body ?? call.upload),
      'a body or a file',
    ).toBeDefined();
    expect(() => z.toJSONSchema(call.reply, { unrepresentable: 'any' })).not.toThrow();
    if (call.body) expect(() => z.toJSONSchema(call.body as z.ZodType, { unrepresentable: 'any' })).not.toThrow();
  });

  it('lets a stranger reach the door, the health and a calendar by its private address alone', () => {
    expect(
      calls
        .filter(([, c]) => c.open)
        .map(([name]) => name)
        .sort(),
    ).toEqual([
      'authState',
      'calendarByKey',
      'copiesAtDoor',
      'health',
      'openCopy',
      'openDocument',
      'openStudio',
      'openingDocument',
      'setPassphrase',
      'signIn',
      'signOut',
      'stopOpening',
    ]);
  });

  it('gives every code of refusal a status of its kind', () => {
    for (const [code, status] of Object.entries(PROBLEM_CODES))
      expect(status >= 400 && (status < 500 || ['broken', 'databaseAway', 'diskFull'].includes(code)), code).toBe(true);
  });
});

describe('words at the edge', () => {
  it.each<[string, z.ZodType, unknown, string]>([
    ['an empty name', nameOf(() => 'The name'), '   ', 'The name is empty. Write something.'],
    ['no name at all', nameOf(() => 'The name'), undefined, 'The name is missing.'],
    [
      'a name of 121 letters',
      nameOf(() => 'The name'),
      'x'.repeat(121),
      'The name is too long: 120 characters at most.',
    ],
    [
      'markup in a name',
      nameOf(() => 'The name'),
      '<b>Weld</b>',
      'The name can’t hold the signs < or >. Write it in words.',
    ],
    [
      'a control sign in a name',
      nameOf(() => 'The name'),
      'We\u0000ld',
      'The name can’t hold the signs < or >. Write it in words.',
    ],
    [
      'a line break in a line',
      lineOf(() => 'The place'),
      'a\nb',
      'The place can’t hold the signs < or >. Write it in words.',
    ],
    ['a number out of range', numberIn(() => 'pH', 0, 14), 15, 'pH must be a number from 0 to 14.'],
    ['a number that is none', numberIn(() => 'pH', 0, 14), Number.NaN, 'pH must be a number from 0 to 14.'],
    [
      'a word for a number',
      numberIn(() => 'The ceiling', 0, 110, '°C'),
      'hot',
      'The ceiling must be a number from 0 to 110 °C.',
    ],
  ])('refuses %s in a plain sentence', (_name, schema, value, message) =>
    expect(messages(schema, value)[0]).toBe(message),
  );

  it('takes names in any script, trimmed, and line breaks in notes', () => {
    expect(nameOf(() => 'The name').parse('  Färberwau, 第二 ')).toBe('Färberwau, 第二');
    expect(noteOf(() => 'The note').parse('one\ntwo')).toBe('one\ntwo');
    expect(nameOf(() => 'The name').parse('x'.repeat(120))).toHaveLength(120);
  });
});

describe('schemas with a rule of their own', () => {
  const step = {
    kind: 'dye',
    title: 'Dye',
    instruction: '',
    durationMin: 60,
    attended: false,
    lookFor: '',
    usesBath: true,
    doses: [],
  };
  const body = { fibres: ['wool'], liquorRatio: 30, allowedMetals: ['stainless'], note: '', steps: [step] };
  it.each<[string, object, RegExp]>([
    [
      'hotter than its ceiling',
      { ...body, steps: [{ ...step, temperatureC: 90, ceilingC: 80 }] },
      /above its own ceiling/,
    ],
    ['no fibre', { ...body, fibres: [] }, /which fibres/],
    ['no metal', { ...body, allowedMetals: [] }, /which metals/],
    ['no step', { ...body, steps: [] }, /at least one step/],
    ['a ratio of nothing', { ...body, liquorRatio: 0 }, /liquor ratio/],
  ])('refuses a recipe with %s', (_name, value, message) =>
    expect(messages(recipeBody, value).join(' ')).toMatch(message),
  );
  it('takes a step as hot as its ceiling', () =>
    expect(messages(recipeBody, { ...body, steps: [{ ...step, temperatureC: 80, ceilingC: 80 }] })).toEqual([]));

  it('wants base facts of a fibre and of nothing else', () => {
    const weld = { id: ID, name: 'Weld', kind: 'dyestuff', measure: 'weight', hazards: [], note: '', base: null };
    expect(messages(newMaterial, weld)).toEqual([]);
    expect(messages(newMaterial, { ...weld, kind: 'fibre' })[0]).toMatch(/base facts/);
  });

  it('refuses temperatures no pot has and sizes no person writes', () => {
    const entry = {
      id: ID,
      stepIndex: 0,
      kind: 'temperature',
      replacesId: null,
      temperatureC: 4000,
      text: null,
      weighing: null,
    };
    expect(messages(newRunEntry, entry)[0]).toBe('The temperature must be a number from -5 to 130 °C.');
    expect(
      messages(proposalAsk, { colourwayId: ID, quantityText: 'x'.repeat(201), waterId: null, reorderOfId: null })[0],
    ).toMatch(/too long to be a quantity/);
  });
});
