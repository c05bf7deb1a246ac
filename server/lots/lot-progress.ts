import type { EyeReadingView, LotDetail, LotState, ReadingView, RunEntryView } from '@vestigia/contract';
import type { FamilyStandards, KeptPlan, LotPlan, ShadeOf, StepRecord } from '@vestigia/core';
import {
  completePlan,
  findRunDeviations,
  foldFamily,
  foldRun,
  hottestC,
  isSettled,
  isWithin,
  judgedAlone,
  nextStepIndex,
  placeShade,
  standingVerdicts,
  currentEntries,
  stepState,
} from '@vestigia/core';
import { and, eq, getTableColumns, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import type { RunningOfLot } from '../db/schema';
import { lotProgress, lots } from '../db/schema';
import { notFound } from '../shared/problem';
import type { LotRow } from './lots-store';
import { currentEyes, currentReadings } from './lots-store';
import { readPartsOfLots } from './lot-parts';
import { standardsAmong } from './standards';

type Progress = typeof lotProgress.$inferInsert;

export interface LotFacts {
  readonly lot: Pick<LotRow, 'id' | 'at'> & { readonly plan: KeptPlan };
  readonly standards: FamilyStandards;
  readonly entries: readonly RunEntryView[];
  readonly readings: readonly ReadingView[];
  readonly eyes: readonly EyeReadingView[];
  /** Verdicts in the order they were given. */
  readonly verdicts: readonly Pick<LotDetail['verdicts'][number], 'verdict' | 'of' | 'at' | 'takenBack'>[];
}

/** Folds everything recorded of a lot into where it stands. Pure: the same facts always give the same progress. */
export function foldProgress({ lot, standards, entries, readings, eyes, verdicts }: LotFacts): Progress {
  const plan = completePlan(lot.plan);
  const given = standingVerdicts(verdicts);
  const { steps } = plan;
  const records = foldRun(entries, steps.length);
  const next = nextStepIndex(records);
  const nextStep = next === undefined ? undefined : steps[next];
  const cancelled = currentEntries(entries).some((e) => e.kind === 'cancel');
  // A piece read again later, faded or washed, adds to its history; what was judged stays as it was judged.
  const final = given.filter((v) => v.verdict !== 'hold');
  const judged = <T extends ShadeOf & { readonly at: string }>(all: readonly T[]): T[] =>
    all.filter((r) => final.every(({ of, at }) => r.at <= at || (of !== null && !isWithin(placeShade(plan, r), of))));
  const ofLot = given.filter((v) => v.of === null);
  const family = foldFamily(plan, standards, currentReadings(judged(readings)), judgedAlone(given));
  const going = family.filter((m) => m.apart === null);
  const read = going.filter((m) => m.lab !== null);
  const seen = currentEyes(judged(eyes)).filter((e) => isSettled(e.state));
  const hasDeviation = new Set(
    findRunDeviations(plan, entries, () => $localize`another jar`, records).map((d) => d.stepIndex),
  );
  return {
    lotId: lot.id,
    state: cancelled
      ? 'cancelled'
      : stateOf(
          ofLot.at(-1)?.verdict,
          next,
          entries.some((e) => e.kind === 'start' || e.kind === 'skip'),
        ),
    stations: steps.map((step, i) => ({
      kind: step.kind,
      title: step.title,
      state: stepState(records[i] ?? { stepIndex: i, temperaturesC: [], weighings: [] }),
      hasDeviation: hasDeviation.has(i),
    })),
    running: cancelled ? [] : runningOf(plan, records),
    next:
      nextStep === undefined || cancelled
        ? null
        : {
            index: nextStep.index,
            title: nextStep.title,
            startedAt: records[nextStep.index]?.startedAt ?? null,
            durationMin: nextStep.durationMin,
            attended: nextStep.attended,
          },
    // The lot shows as the shade it is named for; it lies as far from what was wanted as its furthest shade.
    result: going[0]?.lab ?? read[0]?.lab ?? null,
    deltaE: read.some((m) => m.deltaE !== null) ? Math.max(...read.map((m) => m.deltaE ?? 0)) : null,
    family: family.length > 1 ? family.map(({ label, lab, deltaE, apart }) => ({ label, lab, deltaE, apart })) : null,
    seen: read.length === 0 ? (seen.at(-1)?.seen ?? null) : null,
    lastAt: entries.at(-1)?.recordedAt ?? lot.at,
  };
}

const HOT_C = 45;

/** Steps in work, with their pauses put off: what the pot line shows and what must not be forgotten. */
function runningOf(plan: LotPlan, records: readonly StepRecord[]): RunningOfLot[] {
  return plan.steps.flatMap((step) => {
    const record = records[step.index];
    if (record?.startedAt === undefined || !['running', 'paused'].includes(stepState(record))) return [];
    const planned =
      step.baths.length > 0
        ? step.baths.map((b) => b.vesselName)
        : step.usesBath
          ? plan.batches.map((b) => b.vesselName)
          : [];
    return [
      {
        stepIndex: step.index,
        title: step.title,
        vesselNames: [...new Set(record.vessels?.map((v) => v.vesselName) ?? planned)],
        startedAt: new Date(Date.parse(record.startedAt) + (record.pausedMs ?? 0)).toISOString(),
        pausedAt: record.pausedAt ?? null,
        durationMin: step.durationMin,
        attended: step.attended,
        hot: (hottestC({ course: step.course, temperatureC: step.temperatureC }) ?? 0) >= HOT_C,
      },
    ];
  });
}

function stateOf(verdict: 'pass' | 'hold' | 'refuse' | undefined, next: number | undefined, begun: boolean): LotState {
  if (verdict === 'pass') return 'released';
  if (verdict === 'refuse') return 'refused';
  if (verdict === 'hold') return 'held';
  if (next === undefined) return 'toJudge';
  return begun ? 'inWork' : 'planned';
}

const AS_FOLDED = Object.fromEntries(
  Object.entries(getTableColumns(lotProgress)).map(([key, { name }]) => [key, sql`excluded.${sql.identifier(name)}`]),
);

/** Folds lots again and keeps the results; called in the transaction of whatever changed them. */
async function refoldLots(db: Db, lotIds: readonly string[]): Promise<Progress[]> {
  const all = await readPartsOfLots(
    db,
    lotIds,
    ...(['lot', 'standing', 'expected', 'entries', 'readings', 'eyes', 'verdicts'] as const),
  );
  const folded = all.map(({ lot, standing, expected, ...parts }) =>
    foldProgress({ lot, standards: standardsAmong(lot, standing, expected), ...parts }),
  );
  if (folded.length > 0)
    await db.insert(lotProgress).values(folded).onConflictDoUpdate({ target: lotProgress.lotId, set: AS_FOLDED });
  return folded;
}

export async function refoldProgress(db: Db, lotId: string): Promise<Progress> {
  const [progress] = await refoldLots(db, [lotId]);
  if (!progress) throw notFound('lot');
  return progress;
}

export async function readState(db: Db, lotId: string): Promise<LotState> {
  const [row] = await db.select({ state: lotProgress.state }).from(lotProgress).where(eq(lotProgress.lotId, lotId));
  return row?.state ?? 'planned';
}

/** So many lots are folded at a time. */
const PIECE = 50;

/** Folds these lots, as many as there are. */
export async function refoldMany(db: Db, lotIds: readonly string[]): Promise<void> {
  for (let i = 0; i < lotIds.length; i += PIECE) await refoldLots(db, lotIds.slice(i, i + PIECE));
}

/** Folds every lot: after a studio file was opened. */
export async function refoldAll(db: Db): Promise<void> {
  const all = await db.select({ id: lots.id }).from(lots);
  await refoldMany(
    db,
    all.map(({ id }) => id),
  );
}

/** Folds lots again that an earlier version of the program folded, where it knew less. */
export async function refoldStale(db: Db): Promise<void> {
  const stale = await db
    .select({ id: lotProgress.lotId })
    .from(lotProgress)
    .where(and(isNull(lotProgress.running), inArray(lotProgress.state, ['planned', 'inWork'])));
  await refoldMany(
    db,
    stale.map(({ id }) => id),
  );
}
