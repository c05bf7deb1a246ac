import type { VesselMetal } from '../bath/vessel';
import type { FibreKind } from '../bath/fibre';
import type { PhReagent } from '../bath/ph';
import type { WaterAsk } from '../bath/water';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import type { MaterialForm } from '../stock/material-facts';
import type { PlacedPlan } from './placed';
import type { Practice } from './practice';

/** The stations of a lot, in the order dyers work. */
export const STEP_KINDS = [
  'intake',
  'scour',
  'tannin',
  'mordant',
  'wetOut',
  'extract',
  'strain',
  'makeUp',
  'adjustPh',
  'dye',
  'pull',
  'exhaust',
  'modify',
  'rinse',
  'dry',
  'cure',
  'wash',
  'judge',
] as const;
export type StepKind = (typeof STEP_KINDS)[number];
export const STEP_KIND_WORDS: Readonly<Record<StepKind, string>> = {
  intake: 'intake',
  scour: 'scour',
  tannin: 'tannin',
  mordant: 'mordant',
  wetOut: 'wet out',
  extract: 'extract',
  strain: 'strain',
  makeUp: 'make up the bath',
  adjustPh: 'adjust pH',
  dye: 'dye',
  pull: 'pull',
  exhaust: 'exhaust dip',
  modify: 'modify',
  rinse: 'rinse',
  dry: 'dry',
  cure: 'cure',
  wash: 'final wash',
  judge: 'judge',
};

/** What each kind of step is for. */
export const STEP_PURPOSES: Readonly<Record<StepKind, string>> = {
  intake: 'to know the fibre, its weight and what was done to it',
  scour: 'to take out oil, size and finish, so that dye goes in evenly',
  tannin: 'to give cellulose something to hold the mordant',
  mordant: 'to bind the dye to the fibre',
  wetOut: 'to let dye in everywhere at once',
  extract: 'to draw the dye out of the plant',
  strain: 'to keep bits from spotting the cloth',
  makeUp: 'to give the pieces room to move',
  adjustPh: 'to bring the bath to where fibre and colour are safe',
  dye: 'to bring the dye onto the fibre',
  pull: 'to take some out sooner, for a lighter shade',
  exhaust: 'to use what the bath still holds, for lighter relatives',
  modify: 'to shift the shade',
  rinse: 'to take loose dye away',
  dry: 'to dry without bleaching',
  cure: 'to let the colour settle before the wash',
  wash: 'to take off what would come off later',
  judge: 'to say whether it is the colour',
};

/** A dose of a material, in the way dyers write it. Every way is turned into grams, millilitres or packets to measure out. */
export type Dose = { readonly materialId: string } & (
  | {
      readonly by: 'percentOwf';
      readonly percentOwf: number;
      /** The form the per cent was proven with; other forms are converted. */ readonly form?: MaterialForm | null;
    }
  | { readonly by: 'gPerLitre'; readonly gPerL: number }
  | { readonly by: 'solution'; readonly mlPer100G: number; readonly gPerL: number }
  | { readonly by: 'perPiece'; readonly gPerPiece: number }
  | { readonly by: 'packet' }
  | { readonly by: 'spoons'; readonly spoonsPer100G: number; readonly unit: KitchenUnit; readonly system: VolumeSystem }
  | { readonly by: 'toPh'; readonly targetPh: number; readonly reagent: PhReagent }
);
export const DOSE_WAYS = ['percentOwf', 'gPerLitre', 'solution', 'perPiece', 'packet', 'spoons', 'toPh'] as const;
export type DoseWay = (typeof DOSE_WAYS)[number];

export const HEAT_LEGS = ['raise', 'hold', 'coast', 'cool', 'steep'] as const;
export type HeatLegKind = (typeof HEAT_LEGS)[number];
export const HEAT_LEG_WORDS: Readonly<Record<HeatLegKind, string>> = {
  raise: 'raise to',
  hold: 'hold at',
  coast: 'lid on, heat off',
  cool: 'cool in the bath',
  steep: 'steep off the heat',
};

/** One leg of a temperature course. */
export interface HeatLeg {
  readonly do: HeatLegKind;
  /** Temperature at its end, °C; absent where it goes where it goes. */
  readonly toC?: number | undefined;
  readonly minutes: number;
}

export const STRAIN_WAYS = ['bag', 'sieve', 'muslin', 'muslinTwice', 'leaveIn'] as const;
export type StrainWay = (typeof STRAIN_WAYS)[number];
export const STRAIN_WORDS: Readonly<Record<StrainWay, string>> = {
  bag: 'dyestuff in a bag, lifted out',
  sieve: 'through a sieve',
  muslin: 'through muslin',
  muslinTwice: 'twice through muslin',
  leaveIn: 'plant matter left in',
};

export const FINISHED_BY = ['clock', 'eye', 'both'] as const;
export type FinishedBy = (typeof FINISHED_BY)[number];

export interface RecipeStep {
  /** Short name within its recipe, by which other steps follow it; its place in the list where empty. */
  readonly key: string;
  readonly kind: StepKind;
  readonly title: string;
  readonly instruction: string;
  /** Temperature to reach and hold, °C; absent where none is asked for. */
  readonly temperatureC?: number | undefined;
  /** Never above this, °C: where the dyestuff dulls or the fibre suffers. */
  readonly ceilingC?: number | undefined;
  readonly durationMin: number;
  /** Hands are needed all the time, or only at its ends. */
  readonly attended: boolean;
  readonly lookFor: string;
  readonly finishedBy: FinishedBy;
  /** How long it may stand before the next step: at least, and at most where something spoils or felts. */
  readonly wait: { readonly leastMin: number; readonly mostMin: number | null } | null;
  /** Keys of the steps it follows; `null`: the one before it in the list. */
  readonly after: readonly string[] | null;
  /** Only for these fibres, or only for these parts of the pieces; all of them where empty. */
  readonly fibres: readonly FibreKind[];
  readonly parts: readonly string[];
  /** This step is done in a vessel with liquor made up to the liquor ratio. */
  readonly usesBath: boolean;
  /** Steps that name the same bath use the same liquor; empty: a bath of its own. */
  readonly bath: string;
  /** Allowed here, and this ratio here; the recipe's own where empty or `null`. */
  readonly metals: readonly VesselMetal[];
  readonly liquorRatio: number | null;
  readonly course: readonly HeatLeg[];
  /** How many times over: extractions of the same dyestuff, dips in the same bath. */
  readonly repeats: number;
  readonly strain: StrainWay | null;
  readonly targetPh: { readonly low: number; readonly high: number } | null;
  readonly cautions: readonly string[];
  readonly doses: readonly Dose[];
}

/** A share of the pieces that goes its own way for some steps: modified and not, pulled sooner and later. */
export interface RecipePart {
  readonly key: string;
  readonly name: string;
  readonly sharePercent: number;
}

/** What scaling needs to know of a recipe version. Immutable once made. */
export interface RecipeVersion {
  readonly id: string;
  readonly recipeName: string;
  readonly number: number;
  readonly fibres: readonly FibreKind[];
  /** ml of liquor per gram of fibre. */
  readonly liquorRatio: number;
  /** The shortest bath that still came out level, ml per g; `null`: only the ratio itself is proven. */
  readonly liquorRatioLeast: number | null;
  /** How near a weighing must come to its target, per cent; the balance's step where that is more. */
  readonly weighWithinPercent?: number | undefined;
  readonly allowedMetals: readonly VesselMetal[];
  readonly water: WaterAsk;
  /** The schools it was proven in; the house's own where not said. */
  readonly practice: Practice;
  readonly parts: readonly RecipePart[];
  readonly placed: PlacedPlan | null;
  readonly steps: readonly RecipeStep[];
}

/** A step with everything left unsaid filled in. */
export function recipeStep(said: Pick<RecipeStep, 'kind' | 'title'> & Partial<RecipeStep>): RecipeStep {
  return {
    key: '',
    instruction: '',
    durationMin: 60,
    attended: false,
    lookFor: '',
    finishedBy: 'clock',
    wait: null,
    after: null,
    fibres: [],
    parts: [],
    usesBath: false,
    bath: '',
    metals: [],
    liquorRatio: null,
    course: [],
    repeats: 1,
    strain: null,
    targetPh: null,
    cautions: [],
    doses: [],
    ...said,
  };
}

/** Steps at which the fibre is not in the pot: the dyestuff is alone. */
const WITHOUT_PIECES: readonly StepKind[] = ['extract', 'strain', 'makeUp', 'adjustPh'];
export const takesPieces = ({ kind }: { readonly kind: StepKind | 'fibre' }): boolean =>
  kind === 'fibre' || !WITHOUT_PIECES.includes(kind);

/** The hottest it gets, °C: by its course where it has one. */
export function hottestC(step: Pick<RecipeStep, 'course' | 'temperatureC'>): number | undefined {
  const legs = step.course.flatMap((leg) =>
    leg.toC !== undefined && (leg.do === 'raise' || leg.do === 'hold') ? [leg.toC] : [],
  );
  return legs.length > 0 ? Math.max(...legs) : step.temperatureC;
}

/** Minutes a step takes in all: the sum of its course where it has one, as many times as it is repeated. */
export function stepMinutes(step: Pick<RecipeStep, 'course' | 'durationMin' | 'repeats'>): number {
  const once = step.course.length > 0 ? step.course.reduce((sum, leg) => sum + leg.minutes, 0) : step.durationMin;
  return once * step.repeats;
}
