import type { Lab } from '@vestigia/core';
import type { Teller, RecipeBook } from './recipe-book';
import { D65, OVERNIGHT_MIN, step } from './recipe-book';

/** One weld pot for three fibres, whose branches part and meet again. */
export function addThreeFibres({ materialId }: Teller, { of, recipe, colourway }: RecipeBook): void {
  const shades = (wool: Lab, linen: Lab, silk: Lab) =>
    (
      [
        ['Rug wool', wool],
        ['Linen scrim', linen],
        ['Silk ribbon', silk],
      ] as const
    ).map(([name, lab]) => ({ baseMaterialId: materialId(name), ...lab, ...D65, note: '' }));
  const three = recipe(
    'One weld pot, three fibres',
    {
      fibres: ['wool', 'linen', 'silk'],
      liquorRatio: 25,
      minLiquorRatio: 18,
      allowedMetals: ['stainless', 'enamel'],
      water: { asks: 'hard', hardnessDh: null },
      practice: { mordantOnTannin: 'always' },
      note: 'For sets that must sit together: rug, gauze and ribbon from one bath.',
      parts: [
        { key: 'gold', name: 'left gold', sharePercent: 75 },
        { key: 'marsh', name: 'saddened', sharePercent: 25 },
      ],
      expectedShades: shades({ L: 73, a: -4, b: 49 }, { L: 79, a: -3, b: 34 }, { L: 76, a: -5, b: 44 }),
      steps: [
        step(
          'intake',
          'intake',
          'Look them over',
          'Stains, finish, what has been done to them. Tie a knot tag to each.',
          { attended: true, durationMin: 20, lookFor: 'Spots under the lamp' },
        ),
        step('scour wool', 'scour', 'Scour the wool', 'Lukewarm, neutral soap, no rubbing.', {
          after: ['intake'],
          fibres: ['wool', 'silk'],
          temperatureC: 38,
          ceilingC: 45,
          durationMin: 30,
          attended: true,
          doses: [of('Neutral soap', 1.5)],
        }),
        step('scour linen', 'scour', 'Scour the linen', 'Soda ash dissolved first. Simmer, rinse until clear.', {
          after: ['intake'],
          fibres: ['linen'],
          temperatureC: 90,
          ceilingC: 98,
          durationMin: 90,
          usesBath: true,
          doses: [{ materialId: materialId('Soda ash'), by: 'gPerLitre', gPerL: 2 }, of('Neutral soap', 1)],
        }),
        step('tannin', 'tannin', 'Tannin', 'Galls steeped hot, linen in, leave overnight.', {
          after: ['scour linen'],
          fibres: ['linen'],
          temperatureC: 55,
          ceilingC: 65,
          usesBath: true,
          course: [
            { do: 'raise', toC: 55, minutes: 30 },
            { do: 'steep', minutes: OVERNIGHT_MIN },
          ],
          doses: [of('Oak galls, ground', 10)],
        }),
        step('alum', 'mordant', 'Mordant wool and silk', 'Dissolve hot, bath lukewarm before the fibre.', {
          after: ['scour wool'],
          fibres: ['wool', 'silk'],
          temperatureC: 70,
          ceilingC: 75,
          usesBath: true,
          course: [
            { do: 'raise', toC: 70, minutes: 45 },
            { do: 'hold', toC: 70, minutes: 60 },
            { do: 'cool', minutes: OVERNIGHT_MIN },
          ],
          doses: [of('Potassium alum', 12)],
        }),
        step('acetate', 'mordant', 'Mordant the linen', 'Wet cloth in, work it, leave. Chalk bath after.', {
          after: ['tannin'],
          fibres: ['linen'],
          temperatureC: 45,
          ceilingC: 55,
          durationMin: 120,
          usesBath: true,
          doses: [of('Aluminium acetate', 8), of('Chalk', 3)],
        }),
        step(
          'extract',
          'extract',
          'Extract weld',
          'Cover, raise slowly, hold; again with fresh water, both liquors together.',
          {
            after: [],
            temperatureC: 78,
            ceilingC: 80,
            usesBath: true,
            bath: 'dye bath',
            repeats: 2,
            strain: 'muslinTwice',
            doses: [of('Weld, dried tops', 80, 'dried')],
            lookFor: 'Liquor clearly deeper than the shade wanted',
          },
        ),
        step('ph', 'adjustPh', 'Bring it to neutral', 'A third first, stir, test, then the rest in small doses.', {
          after: ['extract'],
          durationMin: 15,
          attended: true,
          usesBath: true,
          bath: 'dye bath',
          targetPh: { low: 6.5, high: 7.2 },
          doses: [{ materialId: materialId('White vinegar'), by: 'toPh', targetPh: 7, reagent: 'vinegar5' }],
        }),
        step('dye', 'dye', 'Dye together', 'All wetted out, in together. Turn gently.', {
          after: ['ph', 'alum', 'acetate'],
          temperatureC: 68,
          ceilingC: 72,
          usesBath: true,
          bath: 'dye bath',
          finishedBy: 'both',
          course: [
            { do: 'raise', toC: 68, minutes: 45 },
            { do: 'hold', toC: 68, minutes: 40 },
            { do: 'coast', minutes: 45 },
          ],
          lookFor: 'Silk leads; lift it when it stands',
        }),
        step('pull', 'pull', 'Pull the golds', 'Lift what stays gold; leave the rest in the pot.', {
          after: ['dye'],
          parts: ['gold'],
          durationMin: 10,
          attended: true,
          finishedBy: 'eye',
        }),
        step('sadden', 'modify', 'Sadden', 'Iron in its own cup, then clear water. Keep them moving.', {
          after: ['dye'],
          parts: ['marsh'],
          durationMin: 6,
          attended: true,
          temperatureC: 40,
          ceilingC: 50,
          usesBath: true,
          finishedBy: 'eye',
          doses: [{ materialId: materialId('Iron sulphate'), by: 'solution', mlPer100G: 100, gPerL: 10 }],
          cautions: ['Out a shade before the one wanted: it goes on until rinsed.'],
        }),
        step('rinse', 'rinse', 'Rinse all', 'Water as warm as the pieces.', {
          after: ['pull', 'sadden'],
          durationMin: 20,
          attended: true,
        }),
        step('dry', 'dry', 'Dry', 'In the loft, out of the sun.', { durationMin: 1440 }),
        step('cure', 'cure', 'Cure', 'Dry and dark.', {
          durationMin: 10_080,
          wait: { minMinutes: 0, maxMinutes: 20_160 },
        }),
        step('wash', 'wash', 'Wash once', 'Neutral soap, lukewarm.', {
          durationMin: 40,
          attended: true,
          temperatureC: 30,
          ceilingC: 40,
        }),
        step('judge', 'judge', 'Judge', 'Dry, in daylight, each against its own shade.', {
          durationMin: 20,
          attended: true,
        }),
      ],
    },
    40,
  );
  colourway(
    'Saltings',
    three,
    'Rug wool',
    { L: 73, a: -4, b: 49 },
    'Rug, gauze and ribbon for the theatre’s marsh scene.',
  );
}
