import { worded } from '../words/worded';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import type { GreyGrade } from '../colour/grey-scale';

/** What is tried: washing beside white cloth, or light on half of a card. */
export const FASTNESS_KINDS = ['wash', 'light'] as const;
/** One of `FASTNESS_KINDS`. */
export type FastnessKind = (typeof FASTNESS_KINDS)[number];
/** Where a card hangs. */
export const FASTNESS_PLACES = ['window', 'openShelf'] as const;
/** One of `FASTNESS_PLACES`. */
export type FastnessPlace = (typeof FASTNESS_PLACES)[number];
/** Each in words. */
export const FASTNESS_PLACE_LABELS: Readonly<Record<FastnessPlace, string>> = worded(() => ({
  window: $localize`in a window`,
  openShelf: $localize`on an open shelf`,
}));

/**
 * How much of the light of a window reaches an open shelf in the same room: a rule of thumb (daylight a few metres
 * from a window is a tenth to a twentieth of that on the sill), said wherever it is used.
 */
export const SHELF_SHARE = 0.1;

/** What a half-covered card showed after so many days. */
export interface FadedAfter {
  readonly days: number;
  readonly deltaE00: number;
}

/** How a colour fades: ΔE00(t) = most × (1 − e^(−t ÷ days)). */
export interface FadingCurve {
  readonly mostDeltaE00: number;
  readonly timeConstantDays: number;
  readonly place: FastnessPlace;
  /** Root mean square of what the curve leaves, ΔE00. */
  readonly residualDeltaE00: number;
  readonly readings: number;
}

/** Below this many readings of the open half there is no curve. */
export const LEAST_FOR_FADING = 2;

/**
 * A fading curve through the readings of a card, by least squares over the time constant; first-order fading, as
 * most dyes on textiles follow once begun (Giles, J. Appl. Chem. 15, 1965, 541). `null` below `LEAST_FOR_FADING`
 * readings after the first day, or where nothing faded.
 */
export function fitFading(readings: readonly FadedAfter[], place: FastnessPlace): FadingCurve | null {
  const faded = readings.filter((r) => r.days > 0);
  if (faded.length < LEAST_FOR_FADING) return null;
  const longest = Math.max(...faded.map((r) => r.days));
  let best: FadingCurve | null = null;
  for (let i = 0; i <= 120; i++) {
    // From a fiftieth of the time watched to twenty times it; beyond that it is a straight line.
    const timeConstantDays = (longest / 50) * 1000 ** (i / 120);
    const shape = faded.map((r) => 1 - Math.exp(-r.days / timeConstantDays));
    const square = shape.reduce((sum, s) => sum + s * s, 0);
    const mostDeltaE00 = shape.reduce((sum, s, j) => sum + s * (faded[j]?.deltaE00 ?? 0), 0) / square;
    const squares = shape.reduce((sum, s, j) => sum + ((faded[j]?.deltaE00 ?? 0) - mostDeltaE00 * s) ** 2, 0);
    const residualDeltaE00 = Math.sqrt(squares / faded.length);
    if (mostDeltaE00 > 0 && (!best || residualDeltaE00 < best.residualDeltaE00))
      best = { mostDeltaE00, timeConstantDays, place, residualDeltaE00, readings: faded.length };
  }
  return best;
}

/** Days of the card's own light that so many days at a place are worth. */
const lightDays = (days: number, from: FastnessPlace, at: FastnessPlace): number =>
  from === at ? days : at === 'openShelf' ? days * SHELF_SHARE : days / SHELF_SHARE;

/** How far a colour has faded after so many days at a place, ΔE00. */
export const fadedAfter = (curve: FadingCurve, days: number, at: FastnessPlace): number =>
  curve.mostDeltaE00 * (1 - Math.exp(-lightDays(days, curve.place, at) / curve.timeConstantDays));

/** Days at a place until the fading is so far, ΔE00; `null` where it never gets there. */
export function daysToFade(curve: FadingCurve, deltaE00: number, at: FastnessPlace): number | null {
  if (curve.mostDeltaE00 <= deltaE00) return null;
  const days = -curve.timeConstantDays * Math.log(1 - deltaE00 / curve.mostDeltaE00);
  return curve.place === at ? days : at === 'openShelf' ? days / SHELF_SHARE : days * SHELF_SHARE;
}

/** Days after which a card is looked at again, the first time and each time after: twice as long each time. */
const LIGHT_DUE_DAYS = [3, 7, 14, 28, 56, 112, 224, 448];
/** A washed scrap is read once it is dry. */
const WASH_DUE_DAYS = 2;

/** When a test is to be read next: days after it began; `null` once it has been read for the last time. */
export function nextDueDays(kind: FastnessKind, readOnDays: readonly number[]): number | null {
  const last = Math.max(0, ...readOnDays);
  if (kind === 'wash') return readOnDays.some((d) => d > 0) ? null : WASH_DUE_DAYS;
  return LIGHT_DUE_DAYS.find((d) => d > last) ?? null;
}

/** How far the open half of a card lies from the covered one, ΔE00 at 1:1:1. */
export const fadedBetween = (covered: Lab, open: Lab): number =>
  ciede2000(covered, open, { kL: 1, kC: 1, kH: 1 }).deltaE;

/** Grades of what was tried: the worst of each. */
export interface FastnessGrades {
  readonly lightChange: GreyGrade | null;
  readonly washChange: GreyGrade | null;
  readonly staining: GreyGrade | null;
}

/** The worst of several grades; `null` of none. */
export const worstGrade = (grades: readonly (GreyGrade | null)[]): GreyGrade | null =>
  grades.reduce<GreyGrade | null>((worst, g) => (g === null || (worst !== null && worst <= g) ? worst : g), null);

/** From this grade down a change is told to whoever buys the goods. */
export const TELLS_FROM: GreyGrade = 3;

/** What is printed with the goods, from what was tried; untried is said too. */
export function careText({ lightChange, washChange, staining }: FastnessGrades): string[] {
  const lines: string[] = [];
  if (washChange === null && staining === null) lines.push($localize`Its fastness to washing has not been tried.`);
  else {
    if (staining !== null && staining <= TELLS_FROM) lines.push($localize`Wash it alone: it stains white cloth.`);
    if (washChange !== null && washChange <= TELLS_FROM)
      lines.push($localize`Wash it seldom, cool, with neutral soap: it pales with washing.`);
    if (lines.length === 0) lines.push($localize`Wash it cool, with neutral soap.`);
  }
  if (lightChange === null) lines.push($localize`Its fastness to light has not been tried.`);
  else
    lines.push(
      lightChange <= TELLS_FROM
        ? $localize`Keep it out of the sun and off open shelves: it fades.`
        : $localize`Don’t leave it in a window for long.`,
    );
  return lines;
}
