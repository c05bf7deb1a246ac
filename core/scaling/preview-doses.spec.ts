import { describe, expect, it } from 'vitest';
import type { Dose } from '../recipe/dose';
import { recipeStep } from '../recipe/recipe-step';
import type { DosedMaterial } from './dose-context';
import { previewDoses } from './preview-doses';

const MATERIALS: Readonly<Record<string, Partial<DosedMaterial> & Pick<DosedMaterial, 'measure'>>> = {
  weld: { measure: 'weight' },
  vinegar: { measure: 'volume' },
  packets: { measure: 'pieces' },
};
const materialOf = (id: string): DosedMaterial | undefined => {
  const known = MATERIALS[id];
  return known && { name: id, packet: null, spoons: [], ...known };
};
const BALANCE = { name: 'bench', resolutionG: 0.1, capacityG: 30_000 };
const KILO = { wofG: 1000, pieces: 10 };
const preview = (dose: Dose, ratio: number | null = null) =>
  previewDoses(
    {
      liquorRatio: 30,
      steps: [recipeStep({ kind: 'dye', title: 'Dye', usesBath: true, liquorRatio: ratio, doses: [dose] })],
    },
    materialOf,
    KILO,
    BALANCE,
  )[0];

describe('what a recipe would need for so much fibre', () => {
  it.each<[string, Dose, string]>([
    ['per cent', { materialId: 'weld', by: 'percentOwf', percentOwf: 15 }, '150 g'],
    ['rounded to the balance', { materialId: 'weld', by: 'percentOwf', percentOwf: 0.1234 }, '1.2 g'],
    ['by the litre of its liquor', { materialId: 'weld', by: 'gPerLitre', gPerL: 2 }, '60 g'],
    ['by the piece', { materialId: 'weld', by: 'perPiece', gPerPiece: 3 }, '30 g'],
    ['a solution', { materialId: 'vinegar', by: 'solution', mlPer100G: 12, gPerL: null }, '120 ml'],
    ['what depends on the shelf stands as written', { materialId: 'weld', by: 'allThere' }, 'as much as there is'],
    ['half-written stands as a dash', { materialId: 'weld', by: 'percentOwf', percentOwf: NaN }, '– % WOF'],
  ])('%s', (_name, dose, amount) =>
    expect(preview(dose)).toMatchObject({ liquor: '30 l', doses: [{ name: dose.materialId, amount }] }),
  );

  it('makes up a liquor that steps share once', () => {
    const step = (title: string, bath: string) => recipeStep({ kind: 'dye', title, usesBath: true, bath });
    const steps = [step('Extract', 'weld'), step('Dye', 'weld'), step('Sadden', '')];
    const shown = previewDoses({ liquorRatio: 30, steps }, materialOf, KILO, BALANCE);
    expect(shown.map((s) => s.liquor)).toEqual(['30 l', undefined, '30 l']);
  });

  it('goes by a ratio of the step’s own, and leaves out what names no material yet', () => {
    expect(preview({ materialId: 'weld', by: 'gPerLitre', gPerL: 2 }, 20)).toMatchObject({
      liquor: '20 l',
      doses: [{ amount: '40 g' }],
    });
    expect(preview({ materialId: '', by: 'percentOwf', percentOwf: 15 })?.doses).toEqual([]);
  });
});
