import type { Lab } from '../colour/lab';
import type { Spectrum } from '../colour/spectrum';

/** What a bath of a dyeing was for: fibre is mordanted, dyed, modified, each in its own. */
export const DYEING_STAGES = ['mordant', 'dye', 'modifier'] as const;
/** One of `DYEING_STAGES`. */
export type DyeingStage = (typeof DYEING_STAGES)[number];

/** What a material does in a dyeing. */
export type DyeingRole = 'dyestuff' | 'mordant' | 'modifier' | 'assistant';

/** What went in out of one jar. A material out of two jars stands twice. */
export interface MatchDose {
  readonly stage: DyeingStage;
  readonly materialId: string;
  readonly role: DyeingRole;
  readonly stockLotId: string;
  /** Per cent of dry weight of fibre, as weighed: the jar’s strength is not in it. */
  readonly percentOwf: number;
  /** How long the jar stood since it came, years. */
  readonly ageYears: number;
}

/** Corner points of a bath’s temperature from when the fibre goes in to when it comes out; straight between them. */
export interface BathCourse {
  readonly stage: DyeingStage;
  readonly points: readonly { readonly minute: number; readonly celsius: number }[];
}

/** A colour as it was read: under D65 and 10°, with its spectrum where there is one. */
export interface MeasuredColour {
  readonly lab: Lab;
  readonly spectrum: Spectrum | null;
}

/** Everything that a shade comes from, as the match sees it: a lot, a strip, a strike-off, or what is planned. */
export interface Dyeing {
  /** Dyeings of one colourway share what the model gets wrong of it. */
  readonly colourwayId: string | null;
  readonly purpose: 'lot' | 'strikeOff' | 'strip';
  readonly fibre: string;
  readonly baseId: string;
  readonly baseLotId: string;
  /** That lot of the base, before anything was done to it. */
  readonly undyed: MeasuredColour;
  readonly doses: readonly MatchDose[];
  readonly courses: readonly BathCourse[];
  readonly water: {
    readonly id: string;
    readonly ph: number;
    readonly hardnessDh: number;
    readonly ironMgPerL: number;
  };
  readonly metal: string;
  /** Litres of bath to a kilogram of fibre. */
  readonly liquorRatio: number;
  /** 1 in a fresh bath; 2 and more in what the dips before left. */
  readonly dip: number;
}

/** A dyeing with what came out, dry. */
export interface DyedAndRead {
  /** Of the lot, strip or strike-off: what a prediction is traced back to. */
  readonly id: string;
  readonly dyeing: Dyeing;
  readonly colour: MeasuredColour;
}

/** What is known of a jar before it was dyed with. */
export interface KnownStrength {
  readonly stockLotId: string;
  /** Against the reference lot, per cent. */
  readonly percent: number;
  /** The lot that the others are told against. */
  readonly isReference?: boolean;
}

/** What is at least this share of its bath is the bath. */
const A_BATH = 0.5;
/** Whether a dose is the bath itself, a vat or a kept liquor: no share is taken of it. */
export const isBathItself = ({ percentOwf }: Pick<MatchDose, 'percentOwf'>, liquorRatio: number): boolean =>
  percentOwf >= A_BATH * 100 * liquorRatio;
