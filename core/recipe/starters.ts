import { worded } from '../words/worded';
import type { FibreKind } from '../bath/fibre';
import { fibreFamily } from '../bath/fibre';
import { catalogueEntry } from '../catalogue/catalogue';
import type { CatalogueEntry } from '../catalogue/catalogue-entry';
import type { Dose } from './dose';
import { coldMordant, hotMordant } from './mordant-heat';
import type { RecipeVersion } from './recipe';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';

/** The schools a first recipe can follow. */
export const STARTERS = ['alumHot', 'alumCold', 'onePot', 'tanninAcetate', 'tanninAlum', 'soy', 'direct'] as const;
/** One of `STARTERS`. */
export type Starter = (typeof STARTERS)[number];

/** What a first recipe is called, and what its school costs and gains. */
export const STARTER_LABELS: Readonly<Record<Starter, { readonly label: string; readonly costsAndGains: string }>> =
  worded(() => ({
    alumHot: {
      label: $localize`Alum, hot, then the dye`,
      costsAndGains: $localize`Even and deep; a bath of its own, and a night.`,
    },
    alumCold: {
      label: $localize`Alum, cold, then the dye`,
      costsAndGains: $localize`No fuel and gentle; the pot is taken for days.`,
    },
    onePot: {
      label: $localize`Alum and dye in one pot`,
      costsAndGains: $localize`One bath and one heat; paler, less even.`,
    },
    tanninAcetate: {
      label: $localize`Tannin, aluminium acetate, chalk, then the dye`,
      costsAndGains: $localize`Deepest on plant fibre; three baths before the dye.`,
    },
    tanninAlum: {
      label: $localize`Tannin and alum, then the dye`,
      costsAndGains: $localize`Salts most kitchens have; paler than acetate.`,
    },
    soy: {
      label: $localize`Soy milk, then the dye`,
      costsAndGains: $localize`No metal salt at all; days of drying, washes less fast.`,
    },
    direct: {
      label: $localize`No mordant: the dyestuff holds by itself`,
      costsAndGains: $localize`The shortest way; its own colours only.`,
    },
  }));

const NEEDS: Readonly<Record<Starter, readonly (readonly [key: string, percentOwf: number])[]>> = {
  alumHot: [['potassium-alum', 12]],
  alumCold: [['potassium-alum', 12]],
  onePot: [['potassium-alum', 12]],
  tanninAcetate: [
    ['oak-galls', 10],
    ['aluminium-acetate', 8],
    ['chalk', 5],
  ],
  tanninAlum: [
    ['oak-galls', 10],
    ['potassium-alum', 15],
  ],
  soy: [['soy-milk', 100]],
  direct: [],
};
/** Dyestuffs that go further than a weight of plant for a weight of fibre. General practice. */
const USUAL_PERCENT: Readonly<Record<string, number>> = {
  cochineal: 10,
  lac: 15,
  madder: 50,
  'indian-madder': 50,
  cutch: 30,
  logwood: 20,
  turmeric: 20,
  saffron: 5,
  annatto: 30,
  'old-fustic': 40,
  'osage-orange': 40,
  sappanwood: 40,
  'onion-skins': 50,
  'walnut-hulls': 80,
  alkanet: 100,
};
const ALL_PLANT = 100;

/**
 * The first recipes that suit a fibre and a dyestuff, most usual first; none where the dyestuff comes from a vat or the
 * fibre takes no dye of plants.
 */
export function startersFor(fibre: FibreKind, dyestuff: Pick<CatalogueEntry, 'needs'>): Starter[] {
  const family = fibreFamily(fibre);
  if (family === 'synthetic' || dyestuff.needs === 'vat') return [];
  const onMordant: Starter[] =
    family === 'cellulose' ? ['tanninAcetate', 'tanninAlum', 'soy'] : ['alumHot', 'alumCold', 'onePot'];
  return dyestuff.needs === 'direct' ? ['direct', ...onMordant] : onMordant;
}

/** What a first recipe takes of the catalogue's materials, per cent of the dry weight of fibre, in its order. */
export function starterNeeds(starter: Starter, dyestuffKey: string): { key: string; percentOwf: number }[] {
  return [...NEEDS[starter], [dyestuffKey, USUAL_PERCENT[dyestuffKey] ?? ALL_PLANT] as const].map(
    ([key, percentOwf]) => ({ key, percentOwf }),
  );
}

/** A first recipe's body, but for what only the studio's contract knows. */
export type StarterBody = Pick<
  RecipeVersion,
  'fibres' | 'liquorRatio' | 'allowedMetals' | 'steps' | 'practice' | 'minLiquorRatio'
>;

const RATIO = 30;
const [HOT_C, SILK_C, DAY_MIN] = [82, 65, 1440];

/**
 * A first recipe of a school for a fibre and a dyestuff: general practice, to be tried small and written anew.
 * @param dyestuff its catalogue entry; what it doesn't bear in heat is kept to
 * @param idOf the studio's material for a key of the catalogue
 * @throws RangeError where the school doesn't suit the fibre or the dyestuff
 */
export function starterRecipe(
  starter: Starter,
  fibre: FibreKind,
  dyestuff: Pick<CatalogueEntry, 'key' | 'name' | 'needs' | 'ceilingC'>,
  idOf: (key: string) => string,
): StarterBody {
  if (!startersFor(fibre, dyestuff).includes(starter))
    throw new RangeError(`${starter} suits neither ${dyestuff.name} nor ${fibre}`);
  const needs = starterNeeds(starter, dyestuff.key);
  const dosed = (...keys: readonly string[]): Dose[] =>
    needs
      .filter((n) => keys.includes(n.key))
      .map(({ key, percentOwf }): Dose => {
        const materialId = idOf(key);
        // What is measured out by volume is so many millilitres for 100 g, of whatever strength it is.
        return catalogueEntry(key)?.measure === 'volume'
          ? { materialId, by: 'solution', mlPer100G: percentOwf, gPerL: null }
          : { materialId, by: 'percentOwf', percentOwf };
      });
  const steps: RecipeStep[] = [
    scour(fibre),
    ...before(starter, fibre, dosed),
    ...dyeing(fibre, dyestuff, starter === 'onePot' ? dosed('potassium-alum') : [], dosed(dyestuff.key)),
    recipeStep({
      key: 'rinse',
      kind: 'rinse',
      title: $localize`Rinse`,
      instruction: $localize`Lukewarm, until it runs clear.`,
      durationMin: 20,
      attended: true,
      lookFor: $localize`Clear water`,
    }),
    recipeStep({
      key: 'dry',
      kind: 'dry',
      title: $localize`Dry`,
      instruction: $localize`In the shade.`,
      durationMin: DAY_MIN,
      lookFor: $localize`Dry to the hand`,
    }),
  ];
  return {
    fibres: [fibre],
    liquorRatio: RATIO,
    minLiquorRatio: null,
    allowedMetals: ['stainless', 'enamel', 'glass'],
    practice: {},
    steps,
  };
}

const inBath = (step: Pick<RecipeStep, 'key' | 'kind' | 'title'> & Partial<RecipeStep>): RecipeStep =>
  recipeStep({ usesBath: true, ...step });

function scour(fibre: FibreKind): RecipeStep {
  const gentle = fibreFamily(fibre) !== 'cellulose';
  return inBath({
    key: 'scour',
    kind: 'scour',
    title: $localize`Scour`,
    instruction: gentle
      ? $localize`Warm water with a little neutral soap; don’t rub. Rinse in water as warm as the bath.`
      : $localize`Hot water with a little soap, until it stays clear. Rinse well.`,
    temperatureC: gentle ? 40 : 85,
    durationMin: gentle ? 30 : 60,
    lookFor: $localize`The bath stays clear`,
  });
}

function before(starter: Starter, fibre: FibreKind, dosed: (...keys: readonly string[]) => Dose[]): RecipeStep[] {
  const mordant = (isAcetate: boolean, key: string): RecipeStep =>
    inBath({ key: 'mordant', kind: 'mordant', ...hotMordant({ fibres: [fibre], isAcetate }), doses: dosed(key) });
  const tannin = inBath({
    key: 'tannin',
    kind: 'tannin',
    title: $localize`Tannin`,
    instruction: $localize`Powder stirred into hot water first. Turn now and then; don’t rinse after.`,
    temperatureC: 55,
    durationMin: 120,
    doses: dosed('oak-galls'),
  });
  switch (starter) {
    case 'alumHot':
      return [mordant(false, 'potassium-alum')];
    case 'alumCold':
      return [inBath({ key: 'mordant', kind: 'mordant', ...coldMordant(), doses: dosed('potassium-alum') })];
    case 'tanninAcetate':
      return [
        tannin,
        mordant(true, 'aluminium-acetate'),
        inBath({
          key: 'chalk',
          kind: 'rinse',
          title: $localize`Fix with chalk`,
          instruction: $localize`Chalk stirred into warm water first; turn the pieces in it, then rinse well.`,
          temperatureC: 45,
          durationMin: 20,
          attended: true,
          doses: dosed('chalk'),
        }),
      ];
    case 'tanninAlum':
      return [tannin, mordant(false, 'potassium-alum')];
    case 'soy':
      return [
        inBath({
          key: 'mordant',
          kind: 'mordant',
          title: $localize`Soy milk`,
          instruction: $localize`Fresh and strained. Dip, wring, dry right through; three thin coats, and a week to set.`,
          durationMin: 30,
          attended: true,
          doses: dosed('soy-milk'),
        }),
      ];
    case 'onePot':
    case 'direct':
      return [];
  }
}

function dyeing(
  fibre: FibreKind,
  { name, ceilingC }: Pick<CatalogueEntry, 'name' | 'ceilingC'>,
  withIt: readonly Dose[],
  doses: readonly Dose[],
): RecipeStep[] {
  const temperatureC = Math.min(ceilingC === null ? HOT_C : ceilingC - 5, fibre === 'silk' ? SILK_C : HOT_C);
  const heat = { temperatureC, ...(ceilingC === null ? {} : { ceilingC }) };
  return [
    inBath({
      key: 'extract',
      kind: 'extract',
      title: $localize`Extract ${name.toLowerCase()}`,
      instruction: $localize`Cover with water, raise slowly, hold. Strain twice.`,
      ...heat,
      durationMin: 60,
      strain: 'muslin',
      doses,
      lookFor: $localize`Clearly deeper than the shade wanted`,
    }),
    inBath({
      key: 'dye',
      kind: 'dye',
      title: $localize`Dye`,
      instruction: $localize`Fibre and bath near the same warmth. Raise slowly, hold, turn gently, cool in the bath.`,
      ...heat,
      durationMin: 60,
      doses: withIt,
      lookFor: $localize`Even all round; wet looks deeper than dry`,
    }),
  ];
}
