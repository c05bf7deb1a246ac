import type { RecipeBody } from '@vestigia/contract';
import { recipeBody } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { draftBody, finishBody, finishDose, freshKey, newBody, newBodyInLiquor, newDose, newStep } from './draft';

const ID = '01890a5d-ac96-774b-bcce-b302099a8057';
const full: RecipeBody = recipeBody.parse({
  fibres: ['wool', 'silk'],
  liquorRatio: 30,
  minLiquorRatio: 20,
  allowedMetals: ['stainless'],
  water: { asks: 'hard', hardnessDh: 8 },
  practice: { mordantHeat: 'cold' },
  note: 'n',
  parts: [
    { key: 'a', name: 'light', sharePercent: 60 },
    { key: 'b', name: 'dark', sharePercent: 40 },
  ],
  placed: {
    lengthCm: 75,
    piece: 'skein',
    bleedPercent: 4,
    zones: [
      {
        title: 'z',
        way: 'dip',
        fromPercent: 0,
        toPercent: 30,
        order: 1,
        minutes: 5,
        waitMin: 0,
        mlPerPiece: null,
        materialId: null,
        spacingCm: null,
      },
    ],
  },
  steps: [
    {
      key: 'm',
      kind: 'mordant',
      title: 'M',
      instruction: 'i',
      temperatureC: 82,
      ceilingC: 88,
      durationMin: 60,
      attended: false,
      lookFor: 'l',
      usesBath: true,
      course: [
        { do: 'raise', toC: 82, minutes: 40 },
        { do: 'cool', minutes: 600 },
      ],
      wait: { minMinutes: 5, maxMinutes: 90 },
      targetPh: { low: 4, high: 5 },
      doses: [
        { materialId: ID, by: 'percentOwf', percentOwf: 15, form: 'dried' },
        { materialId: ID, by: 'gPerLitre', gPerL: 2 },
        { materialId: ID, by: 'solution', mlPer100G: 20, gPerL: 10 },
        { materialId: ID, by: 'perPiece', gPerPiece: 3 },
        { materialId: ID, by: 'packet' },
        { materialId: ID, by: 'spoons', spoonsPer100G: 2, unit: 'tsp', system: 'us' },
        { materialId: ID, by: 'toPh', targetPh: 5, reagent: 'citricAcid' },
      ],
    },
    {
      key: 'd',
      kind: 'dye',
      title: 'D',
      instruction: '',
      durationMin: 60,
      attended: false,
      lookFor: '',
      usesBath: true,
      after: ['m'],
      parts: ['b'],
      doses: [],
    },
  ],
});

describe('a recipe being written', () => {
  it('comes out of a draft as it went in, every way of dosing', () =>
    expect(finishBody(draftBody(full))).toEqual(full));
  it('begins as something the server takes', () =>
    expect(recipeBody.safeParse(finishBody(newBody())).error).toBeUndefined());
  it('gives every step a short name of its own', () => {
    expect(freshKey('dye', ['dye', 'dye 2'])).toBe('dye 3');
    expect(new Set(newBody().steps.map((s) => s.key)).size).toBe(6);
    const inLiquor = finishBody(newBodyInLiquor(ID));
    expect(recipeBody.safeParse(inLiquor).error).toBeUndefined();
    expect(inLiquor.steps.flatMap((s) => s.doses)).toEqual([{ materialId: ID, by: 'liquor' }]);
    expect(
      draftBody({ ...full, steps: full.steps.map((s) => ({ ...s, key: '', after: null })) }).steps.map((s) => s.key),
    ).toEqual(['mordant', 'dye']);
  });
  it('leaves out doses without a material, and sends missing figures for the server to name', () => {
    const draft = newBody();
    draft.steps = [newStep('dye', [], { doses: [newDose(), { ...newDose(), materialId: ID }] })];
    const reply = recipeBody.safeParse(finishBody(draft));
    expect(reply.error?.issues[0]?.message).toBe('Per cent of fibre must be a number from 0.001 to 2000 %.');
    expect(finishDose({ ...newDose('packet'), materialId: ID })).toEqual({ materialId: ID, by: 'packet' });
  });
});
