import type { StudioFile } from '@vestigia/contract';
import type { Body, Teller, RecipeBook } from './recipe-book';
import { step } from './recipe-book';

/** A ribbon whose colour is placed: dipped ends, a bound speckle, a dark tide line. */
export function addTideLineRibbon(
  doc: StudioFile,
  { materialId }: Teller,
  { of, recipe, colourway }: RecipeBook,
): void {
  const ribbon = doc.recipeVersions.find(
    (v) => doc.recipes.find((r) => r.id === v.recipeId)?.name === 'Weld and a breath of iron',
  )?.body;
  const tideline = recipe(
    'Tide-line ribbon',
    {
      ...(ribbon as Body),
      note: 'Gold with a dark tide line at each end and a bound speckle between. Lay every reel on the printed bands.',
      placed: {
        lengthCm: 90,
        piece: 'length',
        bleedPercent: 3,
        zones: [
          {
            title: 'Bound speckle',
            way: 'bind',
            fromPercent: 35,
            toPercent: 65,
            order: 1,
            minutes: 0,
            waitMin: 0,
            mlPerPiece: null,
            materialId: null,
            spacingCm: 3,
          },
          {
            title: 'Gold all over',
            way: 'dip',
            fromPercent: 0,
            toPercent: 100,
            order: 2,
            minutes: 45,
            waitMin: 30,
            mlPerPiece: null,
            materialId: null,
            spacingCm: null,
          },
          {
            title: 'First tide',
            way: 'modify',
            fromPercent: 0,
            toPercent: 14,
            order: 3,
            minutes: 4,
            waitMin: 10,
            mlPerPiece: null,
            materialId: materialId('Iron sulphate'),
            spacingCm: null,
          },
          {
            title: 'Last tide',
            way: 'modify',
            fromPercent: 86,
            toPercent: 100,
            order: 3,
            minutes: 4,
            waitMin: 10,
            mlPerPiece: null,
            materialId: materialId('Iron sulphate'),
            spacingCm: null,
          },
          {
            title: 'Spray at the edge',
            way: 'spray',
            fromPercent: 14,
            toPercent: 20,
            order: 4,
            minutes: 2,
            waitMin: 0,
            mlPerPiece: 6,
            materialId: materialId('Iron liquor'),
            spacingCm: null,
          },
        ],
      },
    },
    25,
  );
  colourway('Tide Line', tideline, 'Silk ribbon', { L: 61, a: -7, b: 35 }, 'Bookbinder’s headbands.');

  recipe(
    'Stage black',
    {
      fibres: ['linen'],
      liquorRatio: 20,
      allowedMetals: ['stainless'],
      note: 'Whole packets: never half of one. For cloth nobody will wash.',
      steps: [
        step('scour', 'scour', 'Scour hot', 'Soda ash first, then the cloth.', {
          temperatureC: 90,
          ceilingC: 98,
          durationMin: 90,
          usesBath: true,
          doses: [of('Soda ash', 4)],
        }),
        step('black', 'dye', 'Black', 'Packets dissolved in a jug of hot water, then the cloth.', {
          temperatureC: 85,
          ceilingC: 95,
          usesBath: true,
          doses: [{ materialId: materialId('Cloth-black packets'), by: 'packet' }],
        }),
        step('sour', 'rinse', 'Sour rinse', 'A splash of vinegar in the second water.', {
          durationMin: 15,
          attended: true,
          usesBath: true,
          doses: [{ materialId: materialId('White vinegar'), by: 'solution', mlPer100G: 20, gPerL: 50 }],
        }),
        step('dry', 'dry', 'Dry', 'In the loft.', { durationMin: 1440 }),
      ],
    },
    18,
  );
}
