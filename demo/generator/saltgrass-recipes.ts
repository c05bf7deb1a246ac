import type { recipeBody } from '@vestigia/contract';
import type { z } from 'zod';
import type { StepKind } from '@vestigia/core';

export type BodySeed = z.input<typeof recipeBody>;

export type StepSeed = Omit<BodySeed['steps'][number], 'doses'> & {
  doses: readonly (readonly [material: string, percentOwf: number])[];
};

export type RecipeSeed = Omit<BodySeed, 'steps'> & { name: string; steps: readonly StepSeed[] };

export const step = (
  kind: StepKind,
  title: string,
  instruction: string,
  durationMin: number,
  attended: boolean,
  lookFor: string,
  rest: Partial<StepSeed> = {},
): StepSeed => ({
  kind,
  title,
  instruction,
  durationMin,
  attended,
  lookFor,
  usesBath: false,
  doses: [],
  ...rest,
});

export const scourWool = step(
  'scour',
  'Scour',
  'Lukewarm water and neutral soap. Press, don’t rub. Rinse until clear at the same warmth.',
  30,
  true,
  'Rinse water clear',
  { temperatureC: 38, ceilingC: 45, doses: [['Neutral soap', 1.5]] },
);

export const scourLinen = step(
  'scour',
  'Scour hot',
  'Soda ash dissolved first, then the cloth. Simmer, then rinse until clear.',
  90,
  false,
  'Water yellow, then clear',
  {
    temperatureC: 90,
    ceilingC: 98,
    usesBath: true,
    doses: [
      ['Soda ash', 4],
      ['Neutral soap', 1],
    ],
  },
);

export const wetOut = step(
  'wetOut',
  'Wet out',
  'Plain water, all pieces under.',
  60,
  false,
  'No dry patch, nothing floats',
);

export const alum = (percent: number): StepSeed =>
  step(
    'mordant',
    'Mordant hot',
    'Dissolve the alum in hot water, then the tartar; bath lukewarm before the fibre goes in. Raise slowly, hold, cool in the bath.',
    60,
    false,
    'No grains at the bottom',
    {
      temperatureC: 82,
      ceilingC: 88,
      usesBath: true,
      doses: [
        ['Potassium alum', percent],
        ['Cream of tartar', 5],
      ],
    },
  );

export const coldAlum = step(
  'mordant',
  'Mordant cold',
  'Dissolve the alum hot, cool, then the silk. Cover and leave.',
  1440,
  false,
  'Nothing floats',
  { temperatureC: 18, ceilingC: 30, usesBath: true, doses: [['Potassium alum', 12]] },
);

export const acetate = step(
  'mordant',
  'Mordant with acetate',
  'Dissolve, wet cloth in, work it for ten minutes, then leave. Chalk bath after.',
  120,
  false,
  'Evenly wet',
  {
    temperatureC: 45,
    ceilingC: 55,
    usesBath: true,
    doses: [
      ['Aluminium acetate', 8],
      ['Chalk', 3],
    ],
  },
);

export const finish = (cureMin: number): StepSeed[] => [
  step('rinse', 'Rinse', 'Water as warm as the pieces. Squeeze, don’t wring.', 20, true, 'Water clear'),
  step('dry', 'Dry', 'In the loft, out of the sun.', 1440, false, 'Dry to the hand'),
  step('cure', 'Cure', 'Leave dry and dark before the proper wash.', cureMin, false, 'Nothing to see: let it be'),
  step('wash', 'Wash once', 'Neutral soap, lukewarm, rinse clear, dry.', 40, true, 'No colour in the last rinse', {
    temperatureC: 30,
    ceilingC: 40,
  }),
];

export const extract = (
  dye: string,
  percent: number,
  temperatureC: number,
  ceilingC: number,
  minutes: number,
): StepSeed =>
  step(
    'extract',
    `Extract ${dye.toLowerCase().split(',')[0]}`,
    'Cover with water, raise slowly, hold. Strain twice through muslin.',
    minutes,
    false,
    'Liquor clearly deeper than the shade wanted',
    { temperatureC, ceilingC, usesBath: true, doses: [[dye, percent]] },
  );

export const dye = (temperatureC: number, ceilingC: number, minutes: number): StepSeed =>
  step(
    'dye',
    'Dye',
    'Fibre and bath near the same warmth. Raise slowly, hold, turn gently, cool in the bath.',
    minutes,
    false,
    'Even all round; stop early if it stands deep enough',
    { temperatureC, ceilingC, usesBath: true },
  );

export const sadden = (percent: number): StepSeed =>
  step(
    'modify',
    'Sadden with iron',
    'Iron dissolved in its own cup, then stirred into clear water. Pieces in together, keep them moving.',
    6,
    true,
    'Turns at once: out a shade before the one wanted',
    { temperatureC: 40, ceilingC: 50, usesBath: true, doses: [['Iron sulphate', percent]] },
  );

export const INERT: RecipeSeed['allowedMetals'] = ['stainless', 'enamel'];

export const WOOL_WEEK = 10_080;

export const RECIPES: readonly RecipeSeed[] = [
  {
    name: 'Weld on alum',
    fibres: ['wool', 'alpaca'],
    liquorRatio: 30,
    allowedMetals: ['stainless', 'enamel', 'aluminium'],
    note: 'Hard water wanted: chalk if only the barrel is to hand.',
    minLiquorRatio: 22,
    water: { asks: 'hard', hardnessDh: null },
    steps: [scourWool, alum(15), extract('Weld, dried tops', 100, 78, 82, 60), dye(75, 80, 60), ...finish(WOOL_WEEK)],
  },
  {
    name: 'Alder cones, saddened',
    fibres: ['wool'],
    liquorRatio: 30,
    allowedMetals: INERT,
    note: 'Brings its own tannin: no mordant.',
    steps: [
      scourWool,
      wetOut,
      extract('Alder cones', 150, 95, 100, 90),
      dye(90, 95, 75),
      sadden(1.5),
      ...finish(WOOL_WEEK),
    ],
  },
  {
    name: 'Cutch brown',
    fibres: ['wool'],
    liquorRatio: 25,
    allowedMetals: INERT,
    note: 'Extract: dissolve lump by lump.',
    steps: [scourWool, wetOut, extract('Cutch', 30, 85, 95, 40), dye(85, 92, 90), ...finish(WOOL_WEEK)],
  },
  {
    name: 'Galls and iron',
    fibres: ['linen', 'cotton'],
    liquorRatio: 20,
    allowedMetals: INERT,
    note: 'Tannin first, iron after. Rinse between.',
    steps: [
      scourLinen,
      step('tannin', 'Tannin', 'Galls steeped hot, cloth in, leave overnight.', 720, false, 'Tea-coloured and even', {
        temperatureC: 55,
        ceilingC: 65,
        usesBath: true,
        doses: [['Oak galls, ground', 20]],
      }),
      sadden(3),
      ...finish(4320),
    ],
  },
  {
    name: 'Weld and a breath of iron',
    fibres: ['silk'],
    liquorRatio: 40,
    allowedMetals: ['stainless'],
    note: 'Silk loses its shine if it boils.',
    steps: [
      wetOut,
      coldAlum,
      extract('Weld, dried tops', 80, 75, 80, 60),
      dye(65, 72, 45),
      sadden(0.8),
      ...finish(WOOL_WEEK),
    ],
  },
  {
    name: 'Bedstraw brick',
    fibres: ['wool'],
    liquorRatio: 30,
    allowedMetals: INERT,
    note: 'Goes brown above 70 °C.',
    steps: [scourWool, alum(12), extract('Bedstraw root', 120, 62, 68, 120), dye(62, 68, 90), ...finish(WOOL_WEEK)],
  },
  {
    name: 'Tansy on linen',
    fibres: ['linen'],
    liquorRatio: 20,
    allowedMetals: ['stainless', 'enamel', 'aluminium'],
    note: '',
    steps: [scourLinen, acetate, extract('Tansy, dried', 120, 80, 85, 60), dye(70, 78, 60), ...finish(4320)],
  },
  {
    name: 'Buckthorn gold',
    fibres: ['wool'],
    liquorRatio: 30,
    allowedMetals: INERT,
    note: 'The berries are poisonous: gloves, and out of reach.',
    steps: [scourWool, alum(15), extract('Buckthorn berries', 60, 80, 88, 60), dye(78, 85, 60), ...finish(WOOL_WEEK)],
  },
  {
    name: 'Alkanet on silk',
    fibres: ['silk'],
    liquorRatio: 40,
    allowedMetals: ['stainless'],
    note: '',
    steps: [wetOut, coldAlum, extract('Alkanet root', 100, 60, 65, 90), dye(55, 62, 60), ...finish(WOOL_WEEK)],
  },
  {
    name: 'Safflower blush',
    fibres: ['silk'],
    liquorRatio: 40,
    allowedMetals: ['stainless'],
    note: 'Fades in a window: say so to the customer.',
    steps: [wetOut, extract('Safflower petals', 150, 30, 35, 60), dye(25, 30, 60), ...finish(WOOL_WEEK)],
  },
];
