import { countLabel } from '../quantity/word-list';
import type { ColourConditions, Lab } from '../colour/lab';
import { meanLab, sameConditions } from '../colour/lab';
import { ciede2000 } from '../colour/ciede2000';

/** A piece looks darker wet than dry, so only the later states settle a shade. */
export const READING_STATES = ['wet', 'dry', 'cured', 'washed'] as const;
/** One of `READING_STATES`. */
export type ReadingState = (typeof READING_STATES)[number];

/** What can be said of a lot. */
export const VERDICTS = ['pass', 'hold', 'refuse'] as const;
/** One of `VERDICTS`. */
export type Verdict = (typeof VERDICTS)[number];

/** A colour reading of one batch, in the state the fibre was in. */
export interface BatchReading extends ColourConditions {
  readonly batch: number;
  readonly state: ReadingState;
  readonly lab: Lab;
}

/** The shade a lot is judged against, with its tolerance in ΔE00. */
export interface MasterStandard extends ColourConditions {
  readonly lab: Lab;
  /** Largest CIEDE2000 (1:1:1) that still passes. */
  readonly toleranceDeltaE: number;
}

/** The latest settled (not wet) reading of every batch, by batch. Readings in the order they were taken. */
export function settledReadings(readings: readonly BatchReading[]): Map<number, BatchReading> {
  const settled = new Map<number, BatchReading>();
  for (const r of readings) if (r.state !== 'wet') settled.set(r.batch, r);
  return settled;
}

/** The colour of a lot over its batches, and how far it lies from the standard, ΔE00. */
export interface LotColour {
  readonly lab: Lab;
  /** ΔE of the batch furthest from the standard. */
  readonly worstDeltaE: number;
  /** Largest ΔE between two batches; 0 with one. */
  readonly betweenBatchesDeltaE: number;
}

const deltaE = (standard: Lab, sample: Lab): number => ciede2000(standard, sample, { kL: 1, kC: 1, kH: 1 }).deltaE;

/**
 * A lot's colour against a standard, from one reading of each batch. Throws RangeError on none.
 * @param standard `null` where there is none yet: then nothing lies far from it
 */
export function lotColour(standard: Lab, batchReadings: readonly BatchReading[]): LotColour;
export function lotColour(
  standard: Lab | null,
  batchReadings: readonly BatchReading[],
): Omit<LotColour, 'worstDeltaE'> & { readonly worstDeltaE: number | null };
export function lotColour(
  standard: Lab | null,
  batchReadings: readonly BatchReading[],
): Omit<LotColour, 'worstDeltaE'> & { readonly worstDeltaE: number | null } {
  const labs = batchReadings.map((r) => r.lab);
  const between = labs.flatMap((x, i) => labs.slice(i + 1).map((y) => deltaE(x, y)));
  return {
    lab: meanLab(labs),
    worstDeltaE: standard === null ? null : Math.max(...labs.map((lab) => deltaE(standard, lab))),
    betweenBatchesDeltaE: Math.max(0, ...between),
  };
}

/** Why a verdict can't be given yet. */
export type VerdictRefusal =
  | { readonly code: 'noReading'; readonly message: string }
  | { readonly code: 'onlyWet'; readonly message: string }
  | { readonly code: 'batchUnread'; readonly batches: readonly number[]; readonly message: string }
  | { readonly code: 'otherConditions'; readonly message: string }
  | { readonly code: 'stepsOpen'; readonly message: string }
  | { readonly code: 'reasonMissing'; readonly message: string };

/** What a verdict is checked against. */
export interface VerdictCase {
  readonly verdict: Verdict;
  readonly reason: string;
  /** `null` where the result was not known beforehand. */
  readonly master: MasterStandard | null;
  readonly batches: number;
  readonly readings: readonly BatchReading[];
  readonly openSteps: number;
}

/**
 * Whether a verdict may be given. Passing needs every step done and a settled reading of every batch under the
 * master's own light and observer: a wet colour is not the colour. Passing beyond the tolerance, holding and refusing
 * need a reason. Without a master there is nothing to compare with, and a dry reading is enough.
 */
export function checkVerdict({
  verdict,
  reason,
  master,
  batches,
  readings,
  openSteps,
}: VerdictCase): VerdictRefusal | undefined {
  const hasReason = reason.trim() !== '';
  if (verdict !== 'pass') {
    return hasReason
      ? undefined
      : {
          code: 'reasonMissing',
          message: `Say why this lot is ${verdict === 'hold' ? 'held' : 'refused'}: the next one to dye it needs to know.`,
        };
  }
  if (openSteps > 0)
    return {
      code: 'stepsOpen',
      message: `${countLabel(openSteps, 'step is', 'steps are')} not finished at the bench. Finish or skip them with a reason, then judge.`,
    };
  if (readings.length === 0)
    return { code: 'noReading', message: 'Nothing has been read yet. Take a dry reading of every batch first.' };
  const settled = settledReadings(readings);
  if (settled.size === 0)
    return {
      code: 'onlyWet',
      message: 'Still wet — don’t judge yet. A wet reading can’t pass a lot: take one when it is dry.',
    };
  const unread = Array.from({ length: batches }, (_, i) => i + 1).filter((b) => !settled.has(b));
  if (unread.length > 0)
    return {
      code: 'batchUnread',
      batches: unread,
      message: `Batch ${unread.join(' and ')} has no dry reading. Every batch is read before the lot is passed.`,
    };
  if (!master) return undefined;
  if ([...settled.values()].some((r) => !sameConditions(r, master))) {
    return {
      code: 'otherConditions',
      message: `The master was read under ${master.illuminant}/${master.observer}°. Read the lot under the same light and observer, else the numbers don’t compare.`,
    };
  }
  const worst = lotColour(master.lab, [...settled.values()]).worstDeltaE;
  if (worst > master.toleranceDeltaE && !hasReason) {
    return {
      code: 'reasonMissing',
      message: `ΔE ${worst.toFixed(2)} is beyond the tolerance of ${master.toleranceDeltaE}. Hold it, refuse it, or pass it and say why.`,
    };
  }
  return undefined;
}
