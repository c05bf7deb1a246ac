import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { lotExtras, readRecipeBody, recipeBody, recipeFile, recipeFileSchema } from './index';

const ID = '01890a5d-ac96-774b-bcce-b302099a8057';
const step = {
  kind: 'dye',
  title: 'Dye',
  instruction: '',
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: true,
  doses: [] as object[],
};
const body = (change: object = {}): object => ({
  fibres: ['wool'],
  liquorRatio: 30,
  allowedMetals: ['stainless'],
  note: '',
  steps: [step],
  ...change,
});
const dosed = (dose: object): object => body({ steps: [{ ...step, doses: [{ materialId: ID, ...dose }] }] });
const refusal = (value: object): string => recipeBody.safeParse(value).error?.issues[0]?.message ?? '';

describe('the recipe file', () => {
  it('has its schema published as the contract has it', () =>
    expect(JSON.parse(readFileSync(join(import.meta.dirname, '..', 'docs', 'recipe.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(recipeFileSchema())),
    ));
  it('refuses a newer version and another program’s file, in a sentence', () => {
    const file = {
      format: 'vestigia-recipe',
      formatVersion: 2,
      name: 'Weld',
      number: 1,
      status: 'trial',
      body: body(),
      materials: [],
    };
    expect(recipeFile.safeParse(file).success).toBe(true);
    expect(recipeFile.safeParse({ ...file, formatVersion: 3 }).error?.issues[0]?.message).toMatch(
      /newer version. Update the program/,
    );
    expect(recipeFile.safeParse({ ...file, format: 'x' }).error?.issues[0]?.message).toMatch(/not a recipe file/);
  });
});

describe('a recipe body', () => {
  it('takes a dose that says no way as per cent of fibre', () =>
    expect(recipeBody.parse(dosed({ percentOwf: 15 })).steps[0]?.doses[0]).toEqual({
      materialId: ID,
      by: 'percentOwf',
      percentOwf: 15,
    }));
  it('is read as it was kept even where today’s rules would refuse it', () => {
    const kept = body({ steps: [{ ...step, temperatureC: 95, ceilingC: 80 }] });
    expect(refusal(kept)).toMatch(/above its own ceiling/);
    expect(readRecipeBody(kept).steps[0]).toMatchObject({ temperatureC: 95, after: null, course: [], repeats: 1 });
  });
  it.each<[string, object, RegExp]>([
    ['a per cent below nothing', dosed({ by: 'percentOwf', percentOwf: -1 }), /from 0.001 to 2000 %/],
    ['a per cent over 2,000', dosed({ percentOwf: 2000.5 }), /from 0.001 to 2000 %/],
    ['a pH nobody works at', dosed({ by: 'toPh', targetPh: 13, reagent: 'sodaAsh' }), /pH to come to/],
    ['too strong a solution', dosed({ by: 'solution', mlPer100G: 5, gPerL: 5000 }), /strength of the solution/],
    ['sixty-one steps', body({ steps: Array.from({ length: 61 }, () => step) }), /at most 60 steps/],
    [
      'parts that aren’t the whole',
      body({ parts: [{ key: 'a', name: 'a', sharePercent: 40 }] }),
      /come to 40 %, not 100 %/,
    ],
    [
      'no length to place colour on',
      body({ placed: { lengthCm: 0, piece: 'skein', bleedPercent: 0, zones: [] } }),
      /Measure it laid flat/,
    ],
  ])('refuses %s', (_name, value, message) => expect(refusal(value)).toMatch(message));
});

it('asks nothing more of a lot than its colourway and size', () =>
  expect(lotExtras.parse({})).toEqual({
    ownGoods: [],
    also: [],
    intake: { flags: [], syntheticPercent: null, marks: [] },
    doses: [],
    corrected: [],
    added: [],
    outOf: [],
    strikeOff: false,
    dyeTimeShare: 1,
    pullMinutes: [],
    schools: [],
  }));
