import { describe, expect, it } from 'vitest';
import { recipeFileIn, upgradeRecipeFile, upgradeStudioFile } from './index';

const second = {
  format: 'vestigia-studio',
  formatVersion: 2,
  vessels: [{ name: 'Kettle', mostC: 90 }],
  recipeVersions: [{ body: { liquorRatioLeast: 20, steps: [{ wait: { leastMin: 5, mostMin: null } }] } }],
  standings: [{ standing: 'proven', reason: 'its standing: good' }],
  stripTrials: [{ laid: [{ number: 1 }] }],
  lots: [
    {
      written: '2 hanks',
      asked: { also: [{ written: '1 reel' }], runs: 2 },
      plan: {
        batches: [{ run: 2, fill: { value: 80 } }],
        cautions: ['Two baths.'],
        steps: [
          {
            baths: [{ heating: { sentence: 'no' } }],
            cautions: ['Dye pots and spoons are never used for food again.', 'My own.'],
          },
        ],
      },
      checks: [{ sentence: 'Old.' }],
      note: 'sentence',
    },
  ],
  promises: [{ amount: 5 }],
  tags: [
    { kind: 'jar', jarId: 'j' },
    { kind: 'lot', jarId: null },
  ],
};
const newest = {
  format: 'vestigia-studio',
  formatVersion: 4,
  vessels: [{ name: 'Kettle', maxC: 90 }],
  recipeVersions: [{ body: { minLiquorRatio: 20, steps: [{ wait: { minMinutes: 5, maxMinutes: null } }] } }],
  recipeStatuses: [{ status: 'proven', reason: 'its standing: good' }],
  stripTrials: [{ layout: [{ number: 1 }] }],
  lots: [
    {
      quantityText: '2 hanks',
      extras: { also: [{ quantityText: '1 reel' }], fills: 2 },
      plan: {
        batches: [{ fill: 2, fillLevel: { value: 80 } }],
        cautions: [{ code: 'written', text: 'Two baths.' }],
        steps: [
          {
            baths: [{ heating: { message: 'no' } }],
            cautions: [{ code: 'neverForFood' }, { code: 'written', text: 'My own.' }],
          },
        ],
      },
      checks: [{ message: 'Old.' }],
      note: 'sentence',
    },
  ],
  reservations: [{ amount: 5 }],
  tags: [
    { kind: 'stockLot', stockLotId: 'j' },
    { kind: 'lot', stockLotId: null },
  ],
};

describe('a studio file of an earlier version', () => {
  it('gets the names of the glossary, and its texts stay as they are', () =>
    expect(upgradeStudioFile(second)).toEqual(newest));

  it('of the first version loses the unit in its amounts as well', () =>
    expect(
      upgradeStudioFile({
        formatVersion: 1,
        movements: [{ amount: 5, note: 'amountMg' }],
        runEntries: [{ weighing: { amountMg: 5 } }, { weighing: null }],
        lots: [
          {
            plan: {
              materials: [{ shortMg: 2, picks: [{ amountMg: 3 }] }],
              steps: [{ weighings: [{ toleranceG: 1 }] }],
            },
          },
        ],
      }),
    ).toEqual({
      formatVersion: 4,
      movements: [{ amount: 5, note: 'amountMg' }],
      runEntries: [{ weighing: { amount: 5 } }, { weighing: null }],
      lots: [
        { plan: { materials: [{ short: 2, picks: [{ amount: 3 }] }], steps: [{ weighings: [{ tolerance: 1 }] }] } },
      ],
    }));

  it('reads that a heat source is too weak as it was kept before its facts were', () => {
    const cautions = [{ code: 'bath', note: { code: 'tooLittleHeat', message: 'Too weak.' } }, { code: 'synthetic' }];
    expect(upgradeStudioFile({ formatVersion: 3, lots: [{ plan: { cautions } }] })).toEqual({
      formatVersion: 4,
      lots: [{ plan: { cautions: [{ code: 'written', text: 'Too weak.' }, { code: 'synthetic' }] } }],
    });
  });

  it.each([newest, { formatVersion: 9 }, null, 'text', [], 5])('is left alone where it is none: %j', (other) =>
    expect(upgradeStudioFile(other)).toEqual(other),
  );
});

describe('a recipe file of the first version', () => {
  const first = { format: 'vestigia-recipe', formatVersion: 1, standing: 'trial', body: { liquorRatioLeast: 20 } };
  it('is brought to this one', () =>
    expect(upgradeRecipeFile(first)).toEqual({
      format: 'vestigia-recipe',
      formatVersion: 2,
      status: 'trial',
      body: { minLiquorRatio: 20 },
    }));

  it('is read at every door that takes one', () => {
    const file = {
      ...first,
      name: 'Weld',
      number: 1,
      materials: [],
      body: {
        fibres: ['wool'],
        liquorRatio: 30,
        liquorRatioLeast: 20,
        allowedMetals: ['stainless'],
        note: '',
        steps: [
          {
            kind: 'dye',
            title: 'Dye',
            instruction: '',
            durationMin: 60,
            attended: false,
            lookFor: '',
            usesBath: true,
            wait: { leastMin: 5, mostMin: 10 },
            doses: [],
          },
        ],
      },
    };
    expect(recipeFileIn.parse(file).body).toMatchObject({
      minLiquorRatio: 20,
      steps: [{ wait: { minMinutes: 5, maxMinutes: 10 } }],
    });
  });
});
