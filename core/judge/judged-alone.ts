import type { LotPlan } from '../scaling/lot-plan';
import type { ShadeOf } from '../scaling/shade-of';
import { sayShade, shadeKey } from '../scaling/shade-of';
import type { Verdict, VerdictCase } from './verdict';

/**
 * A verdict as it was given: of one shade of a lot alone, or (`null`) of the lot. `at` ISO in UTC; `takenBack` once it
 * was.
 */
export interface GivenVerdict {
  readonly verdict: Verdict;
  readonly of: ShadeOf | null;
  readonly at: string;
  readonly takenBack: object | null;
}

/** The verdicts that stand, in the order they were given. */
export const standingVerdicts = <T extends Pick<GivenVerdict, 'takenBack'>>(given: readonly T[]): T[] =>
  given.filter((v) => v.takenBack === null);

/** So long after it was given a verdict can be taken back, ms. Afterwards others have gone by it. */
export const TAKE_VERDICT_BACK_WITHIN_MS = 60 * 60 * 1000;

/** The verdict that can still be taken back: the last that stands, within the hour. `nowMs` since 1970. */
export function takeBackable<T extends GivenVerdict>(given: readonly T[], nowMs: number): T | undefined {
  const last = standingVerdicts(given).at(-1);
  return last && nowMs - Date.parse(last.at) <= TAKE_VERDICT_BACK_WITHIN_MS ? last : undefined;
}

/** What stands of a shade that was judged alone. */
export type JudgedAlone = GivenVerdict & { readonly of: ShadeOf };

/** Whether something of `part` is of `whole`: the same batch, and wherever the whole is told apart the same. */
export const isWithin = (part: ShadeOf, whole: ShadeOf): boolean =>
  part.batch === whole.batch &&
  part.dip === whole.dip &&
  (whole.group === null || part.group === whole.group) &&
  (whole.zone === null || part.zone === whole.zone) &&
  (whole.piece === null || part.piece === whole.piece);

/** The last verdict that stands on each shade that was judged alone. Verdicts in the order they were given. */
export function judgedAlone(given: readonly GivenVerdict[]): JudgedAlone[] {
  const last = new Map<string, JudgedAlone>();
  for (const v of standingVerdicts(given)) if (v.of) last.set(`${v.of.batch} ${shadeKey(v.of)}`, { ...v, of: v.of });
  return [...last.values()];
}

/** Those that the rest of a lot is judged without: held or refused by themselves. */
export const setApart = (alone: readonly JudgedAlone[]): JudgedAlone[] => alone.filter((v) => v.verdict !== 'pass');

/** What one shade of a lot is called where it is spoken of by itself: with its batch, where there are several. */
export function sayAlone(plan: Pick<LotPlan, 'groups' | 'batches'>, of: ShadeOf): string {
  const shade = sayShade(plan, of);
  return plan.batches.length > 1 || shade === ''
    ? [$localize`batch ${of.batch}`, shade].filter((w) => w !== '').join(', ')
    : shade;
}

/** Whether a shade is all there is of a lot, so that a verdict on it is one on the lot. */
export const isWholeLot = (plan: Pick<LotPlan, 'groups' | 'batches'>, of: ShadeOf): boolean =>
  plan.batches.length <= 1 &&
  of.zone === null &&
  of.piece === null &&
  of.dip === null &&
  (of.group === null || plan.groups.length <= 1);

type Seen = Pick<VerdictCase, 'units' | 'readings' | 'eyes'>;

/** What a verdict on the lot goes by: all that was seen of it but what is held or refused by itself. */
export function seenOfRest({ units, readings, eyes }: Seen, alone: readonly JudgedAlone[]): Seen {
  const apart = setApart(alone);
  const isLeft = (seen: ShadeOf): boolean => !apart.some(({ of }) => isWithin(seen, of));
  return { units: units.filter(isLeft), readings: readings.filter(isLeft), eyes: eyes.filter(isLeft) };
}

/** What a verdict on one shade alone goes by. */
export function seenOfShade({ readings, eyes }: Seen, of: ShadeOf, plan: Pick<LotPlan, 'groups' | 'batches'>): Seen {
  const isOfIt = (seen: ShadeOf): boolean => isWithin(seen, of);
  return {
    units: [{ ...of, label: sayAlone(plan, of) }],
    readings: readings.filter(isOfIt),
    eyes: eyes.filter(isOfIt),
  };
}
