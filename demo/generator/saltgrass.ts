import type { BaseFacts, Material, MaterialFacts, recipeBody } from '@vestigia/contract';
import type { z } from 'zod';
import type { Hazard, Lab, StepKind } from '@vestigia/core';
import { CATALOGUE } from '@vestigia/core';

/** The invented studio's furniture: what it owns, dyes with and promises. Everything here is made up. */
export const PEOPLE = [
  { name: 'Corin Ashlock', passphrase: 'mud on the slipway' },
  { name: 'Isaby Fennimore', passphrase: 'heron at low tide' },
  { name: 'Wenna Tidewell', passphrase: 'seven wet hanks' },
] as const;

export const SETTINGS = {
  name: 'Saltgrass Dyehouse',
  zone: 'Europe/London',
  signInNote:
    'A studio to try things in. Corin: mud on the slipway · Isaby: heron at low tide · Wenna: seven wet hanks',
  balanceName: 'bench balance',
  balanceResolutionG: 0.1,
  balanceCapacityG: 3000,
  volumeSystem: 'imperial' as const,
  currency: 'GBP',
  provenNeeds: 3,
  roomC: 16,
  coldWaterC: 10,
  hotWaterC: 52,
  liftLimitKg: 16,
  energyMinorPerKwh: 27,
  practice: {
    mordantOnTannin: 'none',
    aluminium: 'alum15',
    mordantHeat: 'hot',
    tartar: 'with',
    rinseMordant: 'no',
    doseBy: 'fibre',
    form: 'dried',
    straining: 'twice',
    finish: 'overnight',
    rinse: 'cure',
    sun: 'never',
    endPoint: 'eye',
    vessel: 'inert',
    measuring: 'balance',
    modifiers: 'crystals',
  },
};

export const HEAT_SOURCES = [
  { name: 'Gas ring', powerW: 7500, efficiencyPercent: 45, note: 'Bottle in the yard.' },
  { name: 'Hob, both plates', powerW: 3600, efficiencyPercent: 65, note: '' },
  { name: 'Hot plate', powerW: 1500, efficiencyPercent: 60, note: 'Slow with anything big.' },
] as const;

export const VESSELS = [
  {
    name: 'Long pan',
    metal: 'stainless',
    workingMl: 28_000,
    emptyG: 3400,
    heat: 'Hob, both plates',
    note: 'Two burners wide.',
  },
  {
    name: 'Tall kettle',
    metal: 'stainless',
    workingMl: 48_000,
    emptyG: 6100,
    heat: 'Gas ring',
    note: 'Never lifted full.',
  },
  { name: 'Chipped enamel', metal: 'enamel', workingMl: 16_000, emptyG: 2900, heat: 'Hot plate', note: '' },
  {
    name: 'Dented pot',
    metal: 'aluminium',
    workingMl: 32_000,
    heldIron: true,
    heat: 'Hob, both plates',
    note: 'Once held iron, before our time. Scrubbed twice.',
  },
  {
    name: 'Iron cauldron',
    metal: 'iron',
    workingMl: 24_000,
    heldIron: true,
    emptyG: 14_000,
    heat: 'Gas ring',
    note: 'Only where iron is wanted.',
  },
  {
    name: 'Ribbon pan',
    metal: 'stainless',
    workingMl: 6_000,
    emptyG: 900,
    heat: 'Hot plate',
    note: 'For silk and strike-offs.',
  },
] as const;

export const WATERS = [
  { name: 'Tap', ph: 7.5, hardnessDh: 14, ironMgPerL: 0.05, note: 'Hard. Strip test in spring and autumn.' },
  { name: 'Rain barrel', ph: 6.3, hardnessDh: 1, ironMgPerL: null, note: 'Runs low in August.' },
] as const;

type MaterialSeed = Pick<Material, 'name' | 'kind' | 'hazards'> & {
  note?: string;
  measure?: Material['measure'];
  base?: BaseFacts;
  facts?: Partial<MaterialFacts>;
};
const undyed = (L: number, a: number, b: number): BaseFacts['undyed'] => ({
  L,
  a,
  b,
  illuminant: 'D65',
  observer: '10',
});
const hazards = (...of: Hazard[]): Hazard[] => of;

/** What the catalogue says of it, and what this house adds. */
const known = (key: string, more: Partial<MaterialFacts> = {}): { facts: Partial<MaterialFacts> } => {
  const entry = CATALOGUE.find((e) => e.key === key);
  if (!entry) throw new Error(`no ${key} in the catalogue`);
  const {
    botanicalName,
    plantPart,
    forms,
    fibreGroups,
    ceilingC,
    water,
    phLow,
    phHigh,
    light,
    wash,
    bringsTannin,
    season,
  } = entry;
  return {
    facts: {
      botanicalName,
      plantPart,
      forms: [...forms],
      fibreGroups: [...fibreGroups],
      ceilingC,
      water,
      phLow,
      phHigh,
      light,
      wash,
      bringsTannin,
      season,
      ...more,
    },
  };
};

export const MATERIALS: readonly MaterialSeed[] = [
  {
    name: 'Rug wool',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'wool', pieceWord: 'hank', usualPieceWeightG: 200, undyed: undyed(84.2, 0.9, 12.6) },
    note: 'Two-ply, scoured at the mill.',
    facts: { leadTimeDays: 28 },
  },
  {
    name: 'Linen scrim',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'linen', pieceWord: 'length', usualPieceWeightG: 250, undyed: undyed(80.6, 1.6, 13.8) },
    note: 'Loomstate: wants a hot scour.',
    facts: { leadTimeDays: 35 },
  },
  {
    name: 'Silk ribbon',
    kind: 'fibre',
    hazards: [],
    base: { fibre: 'silk', pieceWord: 'reel', usualPieceWeightG: 25, undyed: undyed(91.4, -0.2, 6.1) },
    facts: { leadTimeDays: 42 },
  },
  {
    name: 'Potassium alum',
    kind: 'mordant',
    hazards: hazards('dust'),
    ...known('potassium-alum', { leadTimeDays: 10 }),
  },
  {
    name: 'Aluminium acetate',
    kind: 'mordant',
    hazards: hazards('dust', 'irritant'),
    ...known('aluminium-acetate', { leadTimeDays: 10 }),
  },
  {
    name: 'Cream of tartar',
    kind: 'assistant',
    hazards: hazards('dust'),
    ...known('cream-of-tartar', { leadTimeDays: 10 }),
  },
  { name: 'Chalk', kind: 'assistant', hazards: hazards('dust', 'carbonate'), ...known('chalk') },
  {
    name: 'Soda ash',
    kind: 'assistant',
    hazards: hazards('caustic', 'carbonate', 'dust'),
    ...known('soda-ash', { leadTimeDays: 10 }),
  },
  { name: 'Neutral soap', kind: 'detergent', hazards: [], ...known('neutral-soap') },
  {
    name: 'White vinegar',
    kind: 'modifier',
    measure: 'volume',
    hazards: hazards('acid'),
    ...known('white-vinegar', { leadTimeDays: 1 }),
  },
  { name: 'Iron sulphate', kind: 'modifier', hazards: hazards('ironSalt', 'dust'), ...known('iron-sulphate') },
  { name: 'Weld, dried tops', kind: 'dyestuff', hazards: [], ...known('weld') },
  { name: 'Alder cones', kind: 'dyestuff', hazards: [], ...known('alder-cones') },
  { name: 'Cutch', kind: 'dyestuff', hazards: hazards('dust'), ...known('cutch', { leadTimeDays: 21 }) },
  { name: 'Buckthorn berries', kind: 'dyestuff', hazards: hazards('poisonous'), ...known('buckthorn-berries') },
  { name: 'Tansy, dried', kind: 'dyestuff', hazards: hazards('irritant'), ...known('tansy') },
  { name: 'Bedstraw root', kind: 'dyestuff', hazards: [], ...known('bedstraw-root') },
  { name: 'Safflower petals', kind: 'dyestuff', hazards: [], ...known('safflower', { leadTimeDays: 21 }) },
  { name: 'Alkanet root', kind: 'dyestuff', hazards: hazards('irritant'), ...known('alkanet', { leadTimeDays: 21 }) },
  { name: 'Oak galls, ground', kind: 'tannin', hazards: hazards('dust'), ...known('oak-galls', { leadTimeDays: 21 }) },
  {
    name: 'Tansy heads, fresh',
    kind: 'dyestuff',
    hazards: hazards('irritant'),
    ...known('tansy', { forms: ['fresh'] }),
    note: 'Dried the same week.',
  },
  { name: 'Alum bath, saved', kind: 'mordant', measure: 'volume', hazards: [], facts: { forms: ['liquor'] } },
  {
    name: 'Iron liquor',
    kind: 'modifier',
    measure: 'volume',
    hazards: hazards('ironSalt', 'acid'),
    ...known('iron-liquor'),
  },
  {
    name: 'Cloth-black packets',
    kind: 'packet',
    measure: 'pieces',
    hazards: hazards('dust'),
    facts: { fibreGroups: ['cellulose'], packet: { contentsG: 20, fibreG: 250, auxiliaries: [] } },
    note: 'For stage blacks nobody will wash. One packet to a length.',
  },
  {
    name: 'Pot bleach',
    kind: 'detergent',
    measure: 'volume',
    hazards: hazards('chlorineBleach', 'caustic', 'irritant'),
    ...known('chlorine-bleach', { reorderPoint: 2_000_000, reorderQuantity: 4_000_000, leadTimeDays: 2 }),
    note: 'For scrubbing pots only.',
  },
];

type BodySeed = z.input<typeof recipeBody>;
type StepSeed = Omit<BodySeed['steps'][number], 'doses'> & {
  doses: readonly (readonly [material: string, percentOwf: number])[];
};
export type RecipeSeed = Omit<BodySeed, 'steps'> & { name: string; steps: readonly StepSeed[] };

const step = (
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

const scourWool = step(
  'scour',
  'Scour',
  'Lukewarm water and neutral soap. Press, don’t rub. Rinse until clear at the same warmth.',
  30,
  true,
  'Rinse water clear',
  { temperatureC: 38, ceilingC: 45, doses: [['Neutral soap', 1.5]] },
);
const scourLinen = step(
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
const wetOut = step('wetOut', 'Wet out', 'Plain water, all pieces under.', 60, false, 'No dry patch, nothing floats');
const alum = (percent: number): StepSeed =>
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
const coldAlum = step(
  'mordant',
  'Mordant cold',
  'Dissolve the alum hot, cool, then the silk. Cover and leave.',
  1440,
  false,
  'Nothing floats',
  { temperatureC: 18, ceilingC: 30, usesBath: true, doses: [['Potassium alum', 12]] },
);
const acetate = step(
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
const finish = (cureMin: number): StepSeed[] => [
  step('rinse', 'Rinse', 'Water as warm as the pieces. Squeeze, don’t wring.', 20, true, 'Water clear'),
  step('dry', 'Dry', 'In the loft, out of the sun.', 1440, false, 'Dry to the hand'),
  step('cure', 'Cure', 'Leave dry and dark before the proper wash.', cureMin, false, 'Nothing to see: let it be'),
  step('wash', 'Wash once', 'Neutral soap, lukewarm, rinse clear, dry.', 40, true, 'No colour in the last rinse', {
    temperatureC: 30,
    ceilingC: 40,
  }),
];
const extract = (dye: string, percent: number, temperatureC: number, ceilingC: number, minutes: number): StepSeed =>
  step(
    'extract',
    `Extract ${dye.toLowerCase().split(',')[0]}`,
    'Cover with water, raise slowly, hold. Strain twice through muslin.',
    minutes,
    false,
    'Liquor clearly deeper than the shade wanted',
    { temperatureC, ceilingC, usesBath: true, doses: [[dye, percent]] },
  );
const dye = (temperatureC: number, ceilingC: number, minutes: number): StepSeed =>
  step(
    'dye',
    'Dye',
    'Fibre and bath near the same warmth. Raise slowly, hold, turn gently, cool in the bath.',
    minutes,
    false,
    'Even all round; stop early if it stands deep enough',
    { temperatureC, ceilingC, usesBath: true },
  );
const sadden = (percent: number): StepSeed =>
  step(
    'modify',
    'Sadden with iron',
    'Iron dissolved in its own cup, then stirred into clear water. Pieces in together, keep them moving.',
    6,
    true,
    'Turns at once: out a shade before the one wanted',
    { temperatureC: 40, ceilingC: 50, usesBath: true, doses: [['Iron sulphate', percent]] },
  );

const INERT: RecipeSeed['allowedMetals'] = ['stainless', 'enamel'];
const WOOL_WEEK = 10_080;

export const RECIPES: readonly RecipeSeed[] = [
  {
    name: 'Weld on alum',
    fibres: ['wool', 'alpaca'],
    liquorRatio: 30,
    allowedMetals: ['stainless', 'enamel', 'aluminium'],
    note: 'Hard water wanted: chalk if only the barrel is to hand.',
    liquorRatioLeast: 22,
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

export interface ColourwaySeed {
  readonly name: string;
  readonly recipe: string;
  readonly base: string;
  /** What the dyestuff gives at the recipe's dose and full strength. */
  readonly shade: Lab;
  readonly dyestuff: string;
  readonly toleranceDeltaE: number;
  readonly sizes: readonly string[];
  readonly note: string;
}

const lab = (L: number, a: number, b: number): Lab => ({ L, a, b });
export const COLOURWAYS: readonly ColourwaySeed[] = [
  {
    name: 'Marram',
    recipe: 'Weld on alum',
    base: 'Rug wool',
    shade: lab(74.6, -4.8, 51.2),
    dyestuff: 'Weld, dried tops',
    toleranceDeltaE: 2.5,
    sizes: ['12 hanks of 200 g', '6 hanks of 200 g', '2.4 kg', '5 x 200 g'],
    note: 'For the rug weaver’s borders.',
  },
  {
    name: 'Sluice',
    recipe: 'Alder cones, saddened',
    base: 'Rug wool',
    shade: lab(43.1, 3.6, 11.4),
    dyestuff: 'Alder cones',
    toleranceDeltaE: 2,
    sizes: ['8 hanks of 200 g', '5 hanks of 200 g'],
    note: '',
  },
  {
    name: 'Wreckwood',
    recipe: 'Cutch brown',
    base: 'Rug wool',
    shade: lab(40.2, 17.3, 22.8),
    dyestuff: 'Cutch',
    toleranceDeltaE: 2,
    sizes: ['10 hanks of 200 g', '1.6 kg', '4 x 200 g'],
    note: 'The weaver’s ground colour.',
  },
  {
    name: 'Low Tide',
    recipe: 'Galls and iron',
    base: 'Linen scrim',
    shade: lab(47.5, 0.4, 2.6),
    dyestuff: 'Oak galls, ground',
    toleranceDeltaE: 2,
    sizes: ['6 lengths of 250 g', '4 lengths of 250 g'],
    note: 'Gauzes for the theatre.',
  },
  {
    name: 'Samphire',
    recipe: 'Weld and a breath of iron',
    base: 'Silk ribbon',
    shade: lab(58.8, -7.9, 36.5),
    dyestuff: 'Weld, dried tops',
    toleranceDeltaE: 2,
    sizes: ['8 reels of 25 g', '12 reels of 25 g'],
    note: 'Bookbinder’s markers.',
  },
  {
    name: 'Foreshore',
    recipe: 'Bedstraw brick',
    base: 'Rug wool',
    shade: lab(49.7, 32.4, 25.9),
    dyestuff: 'Bedstraw root',
    toleranceDeltaE: 2.5,
    sizes: ['6 hanks of 200 g', '3 lb 8 oz'],
    note: '',
  },
  {
    name: 'Tansy Bank',
    recipe: 'Tansy on linen',
    base: 'Linen scrim',
    shade: lab(76.3, -0.6, 42.9),
    dyestuff: 'Tansy, dried',
    toleranceDeltaE: 3,
    sizes: ['5 lengths of 250 g', '8 lengths of 250 g'],
    note: 'Footlight curtains.',
  },
  {
    name: 'Creek Gold',
    recipe: 'Buckthorn gold',
    base: 'Rug wool',
    shade: lab(66.4, 8.7, 56.1),
    dyestuff: 'Buckthorn berries',
    toleranceDeltaE: 2.5,
    sizes: ['5 hanks of 200 g', '9 hanks of 200 g'],
    note: '',
  },
  {
    name: 'Slack Water',
    recipe: 'Alkanet on silk',
    base: 'Silk ribbon',
    shade: lab(51.2, 7.6, -9.8),
    dyestuff: 'Alkanet root',
    toleranceDeltaE: 2.5,
    sizes: ['10 reels of 25 g'],
    note: 'Endpapers’ ribbon.',
  },
  {
    name: 'Winkle',
    recipe: 'Safflower blush',
    base: 'Silk ribbon',
    shade: lab(76.9, 25.8, 7.4),
    dyestuff: 'Safflower petals',
    toleranceDeltaE: 2.5,
    sizes: ['8 reels of 25 g'],
    note: 'Not for windows.',
  },
];

/** Deliveries a year: material, place on the shelf, source, grams or ml each, months between, months it keeps, strength of each coming. */
export interface SupplySeed {
  readonly material: string;
  readonly place: string;
  readonly source: string;
  readonly each: number;
  readonly everyMonths: number;
  readonly keepsMonths: number | null;
  readonly strengths: readonly number[];
  /** Pence for a gram or millilitre; 0 for what is grown or gathered. */
  readonly pence: number;
}

const supply = (
  material: string,
  place: string,
  source: string,
  each: number,
  everyMonths: number,
  keepsMonths: number | null,
  pence: number,
  strengths: readonly number[] = [1],
): SupplySeed => ({ material, place, source, each, everyMonths, keepsMonths, pence, strengths });
export const SUPPLIES: readonly SupplySeed[] = [
  supply('Rug wool', 'Loft, east rail', 'the fell mill', 20_000, 3, null, 1.9),
  supply('Linen scrim', 'Loft, west rail', 'the drapers’ clearance', 14_000, 4, null, 2.6),
  supply('Silk ribbon', 'Cabinet 1', 'the ribbon loom', 3_500, 5, null, 11),
  supply('Potassium alum', 'Mordant cupboard, top', 'order of the quarter', 4_000, 4, null, 0.9),
  supply('Aluminium acetate', 'Mordant cupboard, top', 'order of the quarter', 1_500, 7, 36, 3.4),
  supply('Cream of tartar', 'Mordant cupboard, middle', 'order of the quarter', 2_000, 5, null, 1.6),
  supply('Chalk', 'Mordant cupboard, middle', 'order of the quarter', 1_000, 12, null, 0.4),
  supply('Soda ash', 'Mordant cupboard, floor', 'order of the quarter', 2_500, 6, null, 0.5),
  supply('Neutral soap', 'By the sink', 'order of the quarter', 1_500, 5, 24, 1.1),
  supply('White vinegar', 'By the sink', 'the village shop', 5_000, 8, 24, 0.12),
  supply('Iron sulphate', 'Locked box', 'order of the quarter', 800, 10, 36, 0.8),
  supply('Weld, dried tops', 'Drying loft, jar row A', 'own bed by the sea wall', 13_000, 6, 30, 0, [1, 0.84, 0.93]),
  supply('Alder cones', 'Drying loft, jar row B', 'carr wood, with leave', 16_000, 7, 60, 0, [1, 1.08]),
  supply('Cutch', 'Cabinet 2', 'order of the year', 4_500, 9, null, 4.2, [1, 0.95]),
  supply('Buckthorn berries', 'Locked box', 'hedge by the pound', 5_000, 8, 18, 0, [1, 0.9]),
  supply('Tansy, dried', 'Drying loft, jar row A', 'creek bank, with leave', 9_000, 6, 24, 0, [1, 0.88]),
  supply('Bedstraw root', 'Drying loft, jar row C', 'grown in the sand bed', 9_500, 7, 48, 0, [1, 1.05]),
  supply('Safflower petals', 'Cabinet 2', 'order of the year', 3_000, 9, 20, 5.5),
  supply('Alkanet root', 'Cabinet 2', 'order of the year', 2_600, 9, 30, 4.8),
  supply('Oak galls, ground', 'Cabinet 2', 'order of the year', 2_200, 8, null, 3.9, [1, 0.97]),
];
