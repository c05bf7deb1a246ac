import { getTableColumns } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { PRACTICE } from '@vestigia/core';
import { shownIn } from '../contract/common';
import { baseFacts, materialFacts } from '../contract/materials';
import { stockFacts } from '../contract/stores';
import { settingsEdit } from '../contract/studio';
import * as schema from '../server/db/schema';
import { fieldWord } from '../web/src/app/format/deed-fields';

/** What a trigger tells of by their columns. */
const TABLES = (
  [
    'colourways',
    'containers',
    'customers',
    'heatSources',
    'materials',
    'orders',
    'people',
    'recipes',
    'stockLots',
    'studio',
    'swatches',
    'vessels',
    'waters',
  ] as const
).map((name) => schema[name]);
/** Never told: what a row is found by, and how often it was changed. */
const UNTOLD = ['id', 'only', 'version'];

const keysIn = (group: string, { shape }: { readonly shape: Readonly<Record<string, z.ZodType>> }): string[] =>
  Object.keys(shape).map((key) => `${group}.${key}`);

const fields = [
  ...TABLES.flatMap((table) => Object.keys(getTableColumns(table)).filter((key) => !UNTOLD.includes(key))),
  ...keysIn('facts', materialFacts),
  ...keysIn('facts', stockFacts),
  ...keysIn('base', baseFacts),
  ...keysIn('shownIn', shownIn),
  ...keysIn('fineBalance', settingsEdit.shape.fineBalance.unwrap().unwrap()),
  ...PRACTICE.map((q) => `practice.${q.key}`),
];
/** Of these the group goes by the same word. */
const ALIKE = ['base.fibre', 'fineBalance.name'];

describe('who did what', () => {
  it('has a word for every field that can be changed, and for each of a group its own', () => {
    const isNamed = (field: string): boolean => {
      const [group = '', own] = field.split('.');
      const word = fieldWord(field);
      return word !== undefined && (own === undefined || word !== fieldWord(group));
    };
    expect([...new Set(fields)].filter((field) => !isNamed(field) && !ALIKE.includes(field))).toEqual([]);
  });
});
