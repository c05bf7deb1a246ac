import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { z } from 'zod';
import { describe, expect, it } from 'vitest';
import { materialFacts, newMaterial } from './materials';
import { settingsEdit } from './studio';
import { conversion, delivery, stockFacts, taking } from './stores';
import { liquorEntry } from './liquor';
import { stockLotRecord, storesDocument, storesSchema } from './transfer';

const ID = '01900000-0000-7000-8000-000000000000';
const first = (schema: z.ZodType, value: unknown): string =>
  schema.safeParse(value).error?.issues[0]?.message ?? 'taken';
const material = { id: ID, name: 'Weld', kind: 'dyestuff', measure: 'weight', hazards: [], note: '', base: null };
const came = {
  id: ID,
  movementId: ID,
  materialId: ID,
  tag: '',
  quantityText: '1 kg',
  receivedOn: '2026-05-01',
  bestBefore: null,
  place: '',
  source: '',
  note: '',
};

describe('stores at the edge', () => {
  it('fills in what was left unsaid', () => {
    expect(newMaterial.parse(material).facts).toEqual(materialFacts.parse({}));
    expect(delivery.parse(came)).toMatchObject({
      cost: '',
      grossText: '',
      facts: { origin: 'receipt', strengthPercent: null, gathering: null },
    });
    expect(
      stockLotRecord.parse({
        id: ID,
        materialId: ID,
        tag: 'A',
        receivedOn: '2026-05-01',
        bestBefore: null,
        place: '',
        source: '',
        note: '',
      }),
    ).toMatchObject({ costMinor: null, liquor: null, facts: { reference: false } });
    expect(
      settingsEdit.parse({
        version: 1,
        name: 'House',
        zone: 'UTC',
        signInNote: '',
        balanceName: 'b',
        balanceResolutionG: 0.1,
        balanceCapacityG: 3000,
      }),
    ).toMatchObject({ volumeSystem: null, currency: 'EUR' });
  });

  it.each<[string, z.ZodType, unknown, RegExp]>([
    [
      'a salt that is not offered',
      newMaterial,
      { ...material, name: 'Lead acetate' },
      /Chrome, tin, lead and mercury salts are not/,
    ],
    ['a fibre without its base', newMaterial, { ...material, kind: 'fibre' }, /needs its base facts/],
    [
      'packets kept by weight',
      newMaterial,
      { ...material, facts: { packet: { contentsG: 10, fibreG: 100, auxiliaries: [] } } },
      /counted in pieces/,
    ],
    ['pH upside down', newMaterial, { ...material, facts: { phLow: 9, phHigh: 4 } }, /Swap them/],
    ['a thirteenth month', newMaterial, { ...material, facts: { season: { fromMonth: 13, toMonth: 2 } } }, /1 to 12/],
    ['an unknown kind', newMaterial, { ...material, kind: 'spell' }, /Choose what kind/],
    ['a boiling ceiling', newMaterial, { ...material, facts: { ceilingC: 300 } }, /0 to 110 °C/],
    ['a lead time of years', newMaterial, { ...material, facts: { leadTimeDays: 4000 } }, /two years/],
    [
      'a harvest without leave',
      stockFacts,
      { gathering: { permission: ' ', sharePercent: 10 } },
      /permission there was is empty/,
    ],
    [
      'more of a stand than there is',
      stockFacts,
      { gathering: { permission: 'ours', sharePercent: 120 } },
      /0 to 100 %/,
    ],
    ['a strength of nothing', stockFacts, { strengthPercent: 0 }, /1 to 1000 %/],
    ['a tag too long', delivery, { ...came, tag: 'x'.repeat(21) }, /20 characters/],
    ['a day that is none', delivery, { ...came, receivedOn: '31.5.2026' }, /year-month-day/],
    [
      'a taking that is neither',
      taking,
      { id: ID, kind: 'lose', quantityText: '1 g', note: '' },
      /used, spoiled or given away/,
    ],
    [
      'a conversion of nothing',
      conversion,
      { id: ID, kind: 'dry', inputs: [], output: null, note: '' },
      /Choose what goes in/,
    ],
    ['a look that saw nothing', liquorEntry, { id: ID, kind: 'check', signs: [], note: '' }, /Say what you saw/],
    [
      'an uptake beyond all',
      liquorEntry,
      {
        id: ID,
        kind: 'use',
        movementId: ID,
        fibreText: '1 kg',
        carriedOffText: '0',
        uptakePercent: 130,
        measuredLeftG: null,
        note: '',
      },
      /0 to 100 %/,
    ],
    ['another program’s file', storesDocument, { format: 'shelf-export' }, /not a stores file made by Vestigia/],
    ['a file from later', storesDocument, { format: 'vestigia-stores', formatVersion: 9 }, /newer version/],
    ['markup in a place', delivery, { ...came, place: '<img src=x>' }, /can’t hold the signs/],
    [
      'a currency in words',
      settingsEdit,
      {
        version: 1,
        name: 'House',
        zone: 'UTC',
        signInNote: '',
        balanceName: 'b',
        balanceResolutionG: 0.1,
        balanceCapacityG: 3000,
        currency: 'pounds',
      },
      /three capital letters/,
    ],
  ])('refuses %s', (_name, schema, value, message) => expect(first(schema, value)).toMatch(message));
});

describe('the schema of the stores file', () => {
  it('is published as the contract has it; npm run schema writes it anew', () => {
    expect(JSON.parse(readFileSync(join(import.meta.dirname, '..', 'docs', 'stores.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(storesSchema())),
    );
  });
});
