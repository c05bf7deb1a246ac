import type { StudioFile } from '@vestigia/contract';
import type { RecipeBook, Teller } from './recipe-book';
import { step } from './recipe-book';
import { known } from './saltgrass-materials';

/** What came to the house later: an indigo vat with what feeds it, and a bath that is used a second time. */
const LATER = [
  { name: 'Indigo, ground', kind: 'dyestuff', key: 'indigo', measure: 'weight', hazards: ['dust'] },
  { name: 'Fructose', kind: 'assistant', key: 'fructose', measure: 'weight', hazards: [] },
  {
    name: 'Hydrated lime',
    kind: 'assistant',
    key: 'hydrated-lime',
    measure: 'weight',
    hazards: ['caustic', 'dust', 'irritant'],
  },
] as const;

const LIQUORS = [
  { name: 'Blue vat', hazards: ['caustic', 'irritant'], needs: 'vat' },
  { name: 'Cutch bath, kept', hazards: [], needs: 'direct' },
] as const;

/** Materials, recipes and colourways that live on liquors which are kept: dips in a vat, a paler shade from a second use. */
export function addSecondUses(
  doc: StudioFile,
  { random, endMs, materialIds }: Teller,
  { recipe, colourway }: RecipeBook,
): void {
  const add = (name: string, material: Omit<StudioFile['materials'][number], 'id' | 'name'>): string => {
    const id = random.id(endMs - DAYS_BEFORE * DAY_MS);
    doc.materials.push({ id, name, ...material });
    materialIds.set(name, id);
    return id;
  };
  for (const { name, kind, key, measure, hazards } of LATER)
    add(name, { kind, measure, hazards: [...hazards], note: '', base: null, ...known(key) });
  const [vat, cutch] = LIQUORS.map(({ name, hazards, needs }) =>
    add(name, {
      kind: 'dyestuff',
      measure: 'volume',
      hazards: [...hazards],
      note: '',
      base: null,
      facts: { forms: ['liquor'], needs },
    }),
  );
  const finish = [
    step('rinse', 'rinse', 'Rinse', 'Water as warm as the pieces, until it runs clear.', {
      durationMin: 25,
      attended: true,
    }),
    step('dry', 'dry', 'Dry', 'In the loft, out of the sun.', { durationMin: 1440 }),
  ];
  const dips = recipe(
    'Four dips in the blue vat',
    {
      fibres: ['linen', 'cotton'],
      liquorRatio: 30,
      allowedMetals: ['stainless', 'enamel'],
      note: 'Look at the vat first. Pieces wetted out and squeezed, in without air; lifted slowly over the edge.',
      practice: { vatKind: 'fruit' },
      steps: [
        step('scour', 'scour', 'Scour hot', 'Soda ash dissolved first, then the cloth.', {
          temperatureC: 90,
          ceilingC: 98,
          durationMin: 90,
          usesBath: true,
          doses: [{ materialId: materialIds.get('Soda ash') ?? '', by: 'percentOwf', percentOwf: 4 }],
        }),
        step('wet out', 'wetOut', 'Wet out', 'Warm water, no dry spot left.', { durationMin: 60 }),
        step(
          'dips',
          'dye',
          'Dip and air',
          'In without bubbles, under all the time; lift, open out, let it turn blue.',
          {
            usesBath: true,
            attended: true,
            ceilingC: 50,
            course: [
              { do: 'hold', toC: 42, minutes: 6 },
              { do: 'air', minutes: 20 },
            ],
            repeats: 4,
            lookFor: 'Yellow-green as it leaves the vat, blue within minutes',
            doses: [{ materialId: vat ?? '', by: 'allThere' }],
          },
        ),
        ...finish,
      ],
    },
    34,
  );
  colourway('Deep Channel', dips, 'Linen scrim', { L: 33.5, a: -1.2, b: -21.4 }, 'The theatre’s night sky.');
  const again = recipe(
    'Second use of a cutch bath',
    {
      fibres: ['wool'],
      liquorRatio: 25,
      minLiquorRatio: 18,
      allowedMetals: ['stainless', 'enamel'],
      note: 'A bath that dyed Wreckwood, kept cold: strain it, warm it, dye.',
      steps: [
        step('scour', 'scour', 'Scour', 'Lukewarm water and neutral soap.', {
          temperatureC: 38,
          ceilingC: 45,
          durationMin: 30,
          attended: true,
        }),
        step('wet out', 'wetOut', 'Wet out', 'Plain water, all pieces under.', {}),
        step('dye', 'dye', 'Dye in what is left', 'Strained and lukewarm; raise slowly, hold.', {
          temperatureC: 85,
          ceilingC: 92,
          durationMin: 90,
          usesBath: true,
          doses: [{ materialId: cutch ?? '', by: 'liquor' }],
        }),
        ...finish,
      ],
    },
    48,
  );
  colourway('Ebb', again, 'Rug wool', { L: 58.6, a: 10.2, b: 17.8 }, 'Wreckwood’s paler sister, for the same rug.');
}

const DAYS_BEFORE = 60;
const DAY_MS = 86_400_000;
