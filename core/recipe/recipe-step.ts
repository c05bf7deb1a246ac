import type { StepKind } from './step-kind';
import type { FinishedBy, HeatLeg, StrainWay } from './course';
import type { FibreKind } from '../bath/fibre';
import type { VesselMetal } from '../bath/vessel';
import type { Dose } from './dose';

/** One step of a recipe as it is written. Temperatures in °C, times in minutes. */
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
  /** Looked at again every so many minutes while it runs; `null` where nobody asks for it. */
  readonly lookEveryMin: number | null;
  readonly finishedBy: FinishedBy;
  /** How long it may stand before the next step: at least, and at most where something spoils or felts. */
  readonly wait: { readonly minMinutes: number; readonly maxMinutes: number | null } | null;
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

/** A step with everything left unsaid filled in. */
export function recipeStep(given: Pick<RecipeStep, 'kind' | 'title'> & Partial<RecipeStep>): RecipeStep {
  return {
    key: '',
    instruction: '',
    durationMin: 60,
    attended: false,
    lookFor: '',
    lookEveryMin: null,
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
    ...given,
  };
}
