import { median } from '../quantity/median';
import type { PlannedStep } from '../scaling/lot-plan';
import type { StepRecord } from '../run/step-record';
import type { StepTimes } from './step-times';

/** A step that was done: whose it was, how long it was meant to take and how long it took, minutes. */
export interface StepTook {
  /** The recipe’s step, whatever its version. */
  readonly key: string;
  readonly meantMin: number;
  readonly tookMin: number;
}

/** How long a step really takes, as a share of what its recipe says, and of how many lots that is. */
export interface LearntTime {
  readonly factor: number;
  readonly lots: number;
}

/** What is learnt, by the recipe’s steps. */
export type LearntTimes = ReadonlyMap<string, LearntTime>;

/** Fewer say nothing. */
export const LEAST_TO_LEARN = 3;
/** A step forgotten for days, or finished with one press, teaches nothing. */
const [LEAST_SHARE, MOST_SHARE] = [0.25, 4];
const MINUTE_MS = 60_000;

/** Names a step over the versions of its recipe. */
export const learntKey = (recipeId: string, step: Pick<PlannedStep, 'key' | 'title'>): string =>
  `${recipeId} ${step.key || step.title}`;

/**
 * Whether a step’s time is what it turns out to be: somebody stays with it, or it ends when it looks so. What ends by the
 * clock takes what its recipe says, however late somebody came to it.
 */
const turnsOut = (step: Pick<PlannedStep, 'attended' | 'finishedBy' | 'kind'>): boolean =>
  step.attended || step.finishedBy !== 'clock' || step.kind === 'dry';

/** How long the steps of a lot took whose time turns out, without pauses. */
export function stepsTook(recipeId: string, steps: readonly PlannedStep[], records: readonly StepRecord[]): StepTook[] {
  return steps.flatMap((step, i) => {
    const { startedAt, finishedAt, skippedReason, pausedMs = 0 } = records[i] ?? {};
    if (startedAt === undefined || finishedAt === undefined || skippedReason !== undefined) return [];
    if (step.durationMin <= 0 || !turnsOut(step)) return [];
    const tookMin = (Date.parse(finishedAt) - Date.parse(startedAt) - pausedMs) / MINUTE_MS;
    const share = tookMin / step.durationMin;
    if (share < LEAST_SHARE || share > MOST_SHARE) return [];
    return [{ key: learntKey(recipeId, step), meantMin: step.durationMin, tookMin }];
  });
}

/** What is learnt of steps that were done: the middle one of what they took, of three lots or more. */
export function learnTimes(took: readonly StepTook[]): LearntTimes {
  const shares = new Map<string, number[]>();
  for (const { key, meantMin, tookMin } of took) shares.set(key, [...(shares.get(key) ?? []), tookMin / meantMin]);
  return new Map(
    [...shares].flatMap(([key, all]): [string, LearntTime][] =>
      all.length < LEAST_TO_LEARN ? [] : [[key, { factor: median(all), lots: all.length }]],
    ),
  );
}

/** A step’s times with what was learnt of it in place of what its recipe says. Whole minutes. */
export function withLearnt(times: StepTimes, learnt: LearntTime | undefined): StepTimes {
  if (!learnt) return times;
  const aloneMin = Math.max(1, Math.round(times.aloneMin * learnt.factor));
  const longer = times.aloneMaxMin === null ? null : times.aloneMaxMin - times.aloneMin;
  return { ...times, aloneMin, aloneMaxMin: longer === null ? null : aloneMin + longer };
}
