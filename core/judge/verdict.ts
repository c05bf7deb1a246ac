import { worded } from '../words/worded';
import { trimZeros } from '../quantity/weight';
import { countLabel } from '../quantity/word-list';
import type { EyeReading, JudgeRule } from './by-eye';
import { isSeenSame, sayEye } from './by-eye';
import type { ShadeOf } from '../scaling/shade-of';
import { shadeKey } from '../scaling/shade-of';
import type { ColourConditions, Lab } from '../colour/lab';
import { meanLab, sameConditions } from '../colour/lab';
import type { DeltaEFormula } from '../colour/delta-e';
import { deltaEBy } from '../colour/delta-e';
import { decimals } from '../quantity/shown-in';

/** What a piece has been through when it is read. */
export const READING_STATES = ['wet', 'damp', 'dry', 'cured', 'washed', 'exposed'] as const;
/** One of `READING_STATES`. */
export type ReadingState = (typeof READING_STATES)[number];

/** Water deepens a piece and light fades it: only what lies between settles a shade. */
export const isSettled = (state: ReadingState): boolean => state !== 'wet' && state !== 'damp' && state !== 'exposed';

/** What can be said of a lot. */
export const VERDICTS = ['pass', 'hold', 'refuse'] as const;
/** One of `VERDICTS`. */
export type Verdict = (typeof VERDICTS)[number];

/** A colour reading of one shade of a lot, in the state the fibre was in. */
export interface ShadeReading extends ColourConditions, ShadeOf {
  readonly state: ReadingState;
  readonly lab: Lab;
}

/** A colour that a shade of a lot is held against. */
export type Standard = Lab & ColourConditions & { readonly formula?: DeltaEFormula | undefined };

/** The latest settled reading of every shade of every batch. Readings in the order they were taken. */
export function settledReadings(readings: readonly ShadeReading[]): ShadeReading[] {
  const settled = new Map<string, ShadeReading>();
  for (const r of readings) if (isSettled(r.state)) settled.set(`${r.batch} ${shadeKey(r)}`, r);
  return [...settled.values()];
}

/** The colour of a lot over its batches, and how far it lies from the standard, ΔE00. */
export interface LotColour {
  readonly lab: Lab;
  /** ΔE of the batch furthest from the standard. */
  readonly worstDeltaE: number;
  /** Largest ΔE between two batches; 0 with one. */
  readonly betweenBatchesDeltaE: number;
}

/** By the standard’s own formula; CIEDE2000 where it has none. */
const deltaE = (standard: Lab & Pick<Standard, 'formula'>, sample: Lab): number =>
  deltaEBy(standard.formula ?? 'de00', standard, sample);

/**
 * A lot's colour against a standard, from one reading of each batch. Throws RangeError on none.
 * @param standard `null` where there is none yet: then nothing lies far from it
 */
export function lotColour(standard: Lab, batchReadings: readonly ShadeReading[]): LotColour;
export function lotColour(
  standard: Lab | null,
  batchReadings: readonly ShadeReading[],
): Omit<LotColour, 'worstDeltaE'> & { readonly worstDeltaE: number | null };
export function lotColour(
  standard: Lab | null,
  batchReadings: readonly ShadeReading[],
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
  | { readonly code: 'nothingLeft'; readonly message: string }
  | { readonly code: 'reasonMissing'; readonly message: string }
  | { readonly code: 'readingWanted'; readonly message: string }
  | { readonly code: 'secondEye'; readonly message: string };

/** What a verdict is checked against. */
export interface VerdictCase {
  readonly verdict: Verdict;
  readonly reason: string;
  /**
   * Everything that has to be seen: each batch, and each of its shades where they differ, by name. What is held or
   * refused by itself is not among them.
   */
  readonly units: readonly (ShadeOf & { readonly label: string })[];
  /** What a shade is held against; `null` where that was not known beforehand. */
  readonly standardOf: (of: ShadeOf) => Standard | null;
  /** Largest CIEDE2000 (1:1:1) that still passes. */
  readonly toleranceDeltaE: number;
  readonly readings: readonly ShadeReading[];
  readonly eyes: readonly EyeReading[];
  readonly rule: JudgeRule;
  readonly openSteps: number;
}

/** Whether something seen is of a unit: of that very shade, or of what it is a part of. */
const isOf = (seen: ShadeOf, unit: ShadeOf): boolean =>
  seen.batch === unit.batch &&
  seen.dip === unit.dip &&
  (seen.zone === null || seen.zone === unit.zone) &&
  (seen.piece === null || seen.piece === unit.piece) &&
  (seen.group === null || seen.group === unit.group);

/** What nobody has seen dry yet: neither read nor, where eyes count, looked at. */
export function unseenUnits({
  units,
  readings,
  eyes,
  rule,
}: Pick<VerdictCase, 'units' | 'readings' | 'eyes' | 'rule'>): VerdictCase['units'] {
  const settled: readonly ShadeOf[] = settledReadings(readings);
  const looked = rule === 'reading' ? [] : eyes.filter((e) => isSettled(e.state));
  return units.filter((unit) => ![...settled, ...looked].some((seen) => isOf(seen, unit)));
}

/**
 * What a verdict rests on, and so how sure it is: a reading of everything, else eyes; `null` where something was not
 * seen at all.
 */
export function verdictRestsOn({
  units,
  readings,
  eyes,
}: Pick<VerdictCase, 'units' | 'readings' | 'eyes'>): 'reading' | 'twoEyes' | 'eye' | null {
  const settled = settledReadings(readings);
  const dry = eyes.filter((e) => isSettled(e.state));
  const seen = units.map((unit) => ({
    isRead: settled.some((r) => isOf(r, unit)),
    people: new Set(dry.filter((e) => isOf(e, unit)).map((e) => e.byId)).size,
  }));
  if (seen.every((u) => u.isRead)) return 'reading';
  if (seen.some((u) => !u.isRead && u.people === 0)) return null;
  return seen.every((u) => u.isRead || u.people > 1) ? 'twoEyes' : 'eye';
}

/**
 * Whether a verdict may be given. Passing needs every step done, and every shade of every batch seen dry: read under
 * its standard's own light and observer, or by eye where the studio's rule lets an eye pass. A wet colour is not the
 * colour. Passing what is beyond the tolerance or was seen otherwise, holding and refusing need a reason. Without a
 * standard there is nothing to compare with, and being seen dry is enough.
 */
export function checkVerdict(asked: VerdictCase): VerdictRefusal | undefined {
  const { verdict, openSteps } = asked;
  const hasReason = asked.reason.trim() !== '';
  if (verdict !== 'pass')
    return hasReason
      ? undefined
      : {
          code: 'reasonMissing',
          message: $localize`Say why it is ${verdict === 'hold' ? $localize`held` : $localize`refused`}:verdict:: the next one to dye it needs to know.`,
        };
  if (asked.units.length === 0)
    return {
      code: 'nothingLeft',
      message: $localize`Every part of this lot is held or refused by itself. Pass one of them, or refuse the lot.`,
    };
  if (openSteps > 0)
    return {
      code: 'stepsOpen',
      message: $localize`${countLabel(openSteps, $localize`step is`, $localize`steps are`)} not finished at the bench. Finish or skip them with a reason, then judge.`,
    };
  return refuseUnseen(asked) ?? refuseUnlike(asked, hasReason);
}

function refuseUnseen({ units, readings, eyes, rule }: VerdictCase): VerdictRefusal | undefined {
  const looks = rule === 'reading' ? [] : eyes;
  if (readings.length === 0 && eyes.length === 0)
    return {
      code: 'noReading',
      message: $localize`Nothing has been ${rule === 'reading' ? $localize`read` : $localize`read or looked at`} yet. Take a dry reading of every batch first${rule === 'reading' ? '' : $localize`, or judge it by eye`}.`,
    };
  const settled = settledReadings(readings);
  const dry = looks.filter((e) => isSettled(e.state));
  if (settled.length === 0 && dry.length === 0)
    return eyes.length > looks.length
      ? READING_WANTED
      : {
          code: 'onlyWet',
          message: $localize`Still wet — don’t judge yet. A wet reading can’t pass a lot: take one when it is dry.`,
        };
  const unseen = unseenUnits({ units, readings, eyes, rule });
  const named = [...new Set(unseen.map((u) => u.label))];
  if (unseen.length > 0)
    return rule === 'reading' && eyes.length > 0
      ? READING_WANTED
      : {
          code: 'batchUnread',
          batches: [...new Set(unseen.map((u) => u.batch))],
          message: $localize`${named.join($localize` and `)} ${named.length > 1 ? $localize`have` : $localize`has`} not been seen dry. Everything is seen before the lot is passed.`,
        };
  return rule === 'twoEyes' && verdictRestsOn({ units, readings, eyes }) === 'eye'
    ? {
        code: 'secondEye',
        message: $localize`One person has looked. This studio passes by two pairs of eyes: ask somebody else to look too.`,
      }
    : undefined;
}

const READING_WANTED: VerdictRefusal = worded(() => ({
  code: 'readingWanted',
  message: $localize`This studio passes lots only with a reading. Take a dry one of every batch; what was seen by eye is kept beside it.`,
}));

function refuseUnlike(
  { readings, eyes, rule, units, standardOf, toleranceDeltaE }: VerdictCase,
  hasReason: boolean,
): VerdictRefusal | undefined {
  const read = settledReadings(readings).flatMap((r) => {
    const standard = standardOf(r);
    return standard ? [{ ...r, standard }] : [];
  });
  const other = read.find((r) => !sameConditions(r, r.standard));
  if (other) {
    const { illuminant, observer } = other.standard;
    return {
      code: 'otherConditions',
      message: $localize`The master was read under ${illuminant}/${observer}°. Read the lot under the same light and observer, else the numbers don’t compare.`,
    };
  }
  if (hasReason) return undefined;
  const worst = Math.max(0, ...read.map((r) => deltaE(r.standard, r.lab)));
  if (worst > toleranceDeltaE)
    return {
      code: 'reasonMissing',
      message: $localize`ΔE ${decimals(worst, 2)} is beyond the tolerance of ${trimZeros(toleranceDeltaE, 2)}. Hold it, refuse it, or pass it and say why.`,
    };
  const unread = unseenUnits({ units, readings, eyes: [], rule });
  const unlike =
    rule === 'reading'
      ? undefined
      : eyes.find((e) => isSettled(e.state) && !isSeenSame(e.seen) && unread.some((unit) => isOf(e, unit)));
  return unlike
    ? {
        code: 'reasonMissing',
        message: $localize`It was seen ${sayEye(unlike.seen)}. Hold it, refuse it, or pass it and say why.`,
      }
    : undefined;
}
