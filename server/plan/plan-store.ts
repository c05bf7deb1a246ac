import type { NewHousePlan, PlanFactsView } from '@vestigia/contract';
import {
  checkPlan,
  completePlan,
  dayOf,
  easeWaits,
  foldRun,
  housePlanProblem,
  learntKey,
  placeInMinutes,
  planClock,
  planStepId,
  plannable,
  sayPlanBreach,
  STEP_KIND_LABELS,
  withLearnt,
} from '@vestigia/core';
import type { PlanAnswer, PlanProblem, PlannableStep } from '@vestigia/core';
import { asc, desc, eq, inArray, ne } from 'drizzle-orm';
import type { Db } from '../db/database';
import {
  colourways,
  heatSources,
  lotProgress,
  lots,
  lotsWanted,
  people,
  plans,
  recipeVersions,
  vessels,
} from '../db/schema';
import { readPartsOfLots } from '../lots/lot-parts';
import { readPromisedLots } from '../orders/read-orders';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { studioToday, studioZone } from '../studio/studio-store';
import { readStockAhead } from './arrivals';
import { veilFor } from '../studio/veil';
import { readHouseTimes } from './house-times';
import { readLearnt } from './learnt';

/** Lots with steps still to come. */
const OPEN = ['planned', 'inWork'] as const;

/** All a plan is made of. Lots kept from whoever asks are told by the kinds of their steps alone. */
export async function readPlanFacts(db: Db, now: Date, personId: string): Promise<PlanFactsView> {
  const veil = await veilFor(db, personId);
  const open = await db
    .select({
      id: lots.id,
      number: lots.number,
      pieces: lots.pieces,
      at: lots.at,
      plan: lots.plan,
      colourway: colourways.name,
      ownMaster: lots.master,
      master: colourways.master,
      result: lotProgress.result,
      wantedOn: lotsWanted.wantedOn,
      recipeId: recipeVersions.recipeId,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .innerJoin(recipeVersions, eq(recipeVersions.id, lots.recipeVersionId))
    .leftJoin(lotsWanted, eq(lotsWanted.lotId, lots.id))
    .where(inArray(lotProgress.state, [...OPEN]))
    .orderBy(asc(lots.number));
  const promised = await readPromisedLots(db);
  const runs = await readPartsOfLots(
    db,
    open.map((l) => l.id),
    'entries',
  );
  const house = {
    now: now.toISOString(),
    zone: await studioZone(db),
    times: await readHouseTimes(db),
    people: await db
      .select({ id: people.id, name: people.name })
      .from(people)
      // Who only looks on has no hands in it.
      .where(ne(people.role, 'guest'))
      .orderBy(asc(people.name)),
    vessels: await db
      .select({ id: vessels.id, name: vessels.name, heatSourceId: vessels.heatSourceId })
      .from(vessels)
      .orderBy(asc(vessels.workingMl)),
    heatSources: await db
      .select({ id: heatSources.id, name: heatSources.name, powerW: heatSources.powerW })
      .from(heatSources)
      .orderBy(asc(heatSources.name)),
  };
  const learnt = await readLearnt(db, house);
  const told = open.map((lot, i) => {
    const plan = completePlan(lot.plan);
    const records = foldRun(runs[i]?.entries ?? [], plan.steps.length);
    return {
      lot,
      plan,
      records,
      tag: lotTag(lot.number),
      agreedOn: dayOf(Date.parse(lot.at), house.zone),
      isBegun: (index: number): boolean => {
        const record = records[index];
        return record?.startedAt !== undefined || record?.skippedReason !== undefined;
      },
      isKept: veil?.lotIds.has(lot.id) === true,
    };
  });
  const kept = veil ? await recipesOf(db, [...veil.versionIds]) : [];
  const isKeptKey = (key: string): boolean => kept.some((recipeId) => key.startsWith(recipeId));
  const stock = await readStockAhead(db, await studioToday(db, now), told);
  return {
    ...house,
    took: learnt.took,
    kept: learnt.kept,
    learnt: [...learnt.times].flatMap(([key, time]) => (isKeptKey(key) ? [] : [{ key, ...time }])),
    awaited: stock.awaited,
    lots: told.map((own) => {
      const { lot, plan, records } = own;
      const shown = (step: PlannableStep): PlannableStep =>
        own.isKept ? { ...step, title: step.kind === 'fibre' ? step.title : STEP_KIND_LABELS[step.kind] } : step;
      return {
        id: lot.id,
        tag: own.tag,
        pieces: lot.pieces,
        colourway: lot.colourway,
        lab: lot.result ?? lot.ownMaster ?? lot.master,
        ...promiseOf(lot.wantedOn, promised.get(lot.id)),
        steps: plan.steps.map((s) => {
          const known = learnt.times.get(learntKey(lot.recipeId, s));
          const { vesselIds, after, hazards, times, ...step } = shown(plannable(s));
          return {
            ...step,
            times: withLearnt(times, known),
            learntOf: known?.lots ?? null,
            beginFromOn: stock.beginFromOn(own, s.index),
            beginByOn: stock.beginByOn(own, s.index),
            vesselIds: [...vesselIds],
            after: [...after],
            hazards: [...hazards],
          };
        }),
        records: records.map(({ startedAt, finishedAt, skippedReason }) => ({
          ...(startedAt === undefined ? {} : { startedAt }),
          ...(finishedAt === undefined ? {} : { finishedAt }),
          ...(skippedReason === undefined ? {} : { skippedReason }),
        })),
      };
    }),
    accepted: await readAccepted(db),
  };
}

async function recipesOf(db: Db, versionIds: readonly string[]): Promise<string[]> {
  const rows = await db
    .selectDistinct({ recipeId: recipeVersions.recipeId })
    .from(recipeVersions)
    .where(inArray(recipeVersions.id, [...versionIds]));
  return rows.map((r) => r.recipeId);
}

/** A lot is wanted by the earlier of two days: what somebody said of it, and what an order says. */
function promiseOf(
  own: string | null,
  ordered: { readonly wantedOn: string; readonly order: { id: string; number: number } } | undefined,
): Pick<PlanFactsView['lots'][number], 'wantedOn' | 'order'> {
  if (!ordered || (own !== null && own <= ordered.wantedOn)) return { wantedOn: own, order: null };
  return { wantedOn: ordered.wantedOn, order: ordered.order };
}

async function readAccepted(db: Db): Promise<PlanFactsView['accepted']> {
  const [row] = await db
    .select({ id: plans.id, plan: plans.plan, at: plans.at, by: people.name })
    .from(plans)
    .innerJoin(people, eq(people.id, plans.byId))
    .orderBy(desc(plans.seq))
    .limit(1);
  return row ? { ...row.plan, id: row.id, at: new Date(row.at).toISOString(), by: row.by } : null;
}

/**
 * Goes by a plan from now on. It is held to every rule first, by the studio as it is now: what was begun, taken or
 * closed meanwhile makes it another plan.
 * @throws {Refusal} where it breaks a rule, or another was accepted since
 */
export async function acceptPlan(db: Db, { id, origin, after, plan }: NewHousePlan, { now, byId }: By): Promise<void> {
  const facts = await readPlanFacts(db, now, byId);
  if ((facts.accepted?.id ?? null) !== after)
    throw new Refusal(
      'refused',
      $localize`${facts.accepted?.by ?? ''} has accepted another plan since. Look at it; yours is worked out again from there.`,
      {
        reason: 'planMoved',
      },
    );
  const { problem } = housePlanProblem({ ...facts, accepted: withLocksKept(facts.accepted, plan) }, origin);
  // Longest waits after what is done already aren’t held against a plan: nobody can mend them.
  const eased = { ...problem, lots: problem.lots.map((l) => easeWaits(l).lot) };
  const breach = checkPlan(eased, answerOf(problem, plan, origin))[0];
  if (breach)
    throw new Refusal(
      'refused',
      $localize`${sayPlanBreach(problem, breach)} Something changed since this plan was made: it is worked out again.`,
      { reason: 'planBroken' },
    );
  await db.insert(plans).values({ id, plan, at: now.toISOString(), byId });
}

/** A lock excuses a step from the rules only where it was locked before, at that very place; a new one is looked at. */
function withLocksKept(before: PlanFactsView['accepted'], plan: NewHousePlan['plan']): PlanFactsView['accepted'] {
  const keyOf = ({ lotId, stepIndex, startAt, endAt }: NewHousePlan['plan']['places'][number]): string =>
    `${planStepId(lotId, stepIndex)} ${startAt} ${endAt}`;
  const still = new Set(plan.places.filter((p) => p.locked).map(keyOf));
  return before && { ...before, places: before.places.map((p) => ({ ...p, locked: p.locked && still.has(keyOf(p)) })) };
}

/** A kept plan as an answer to the problem, facts where they are. */
function answerOf(problem: PlanProblem, plan: NewHousePlan['plan'], origin: string): PlanAnswer {
  const clock = planClock(origin);
  const steps = new Map(problem.lots.flatMap((l) => l.steps.map((s) => [s.id, s] as const)));
  const kept = plan.places.map((p) => placeInMinutes(p, clock));
  const placed = [
    ...kept.filter((p) => !steps.get(p.stepId)?.fixed),
    ...[...steps.values()].flatMap((s) => (s.fixed ? [s.fixed] : [])),
  ];
  const at = new Map(placed.map((p) => [p.stepId, p]));
  const thing = new Map(plan.holds.map((h) => [h.holdId, h.resourceId]));
  const have = new Set(placed.map((p) => p.stepId));
  return {
    format: 'vestigia-plan',
    version: 1,
    placed,
    holds: problem.lots.flatMap((l) =>
      l.holds.map((h) => ({
        holdId: h.id,
        resourceId: thing.get(h.id) ?? '',
        fromMin: at.get(h.fromStepId)?.startMin ?? 0,
        toMin: Math.max(at.get(h.fromStepId)?.endMin ?? 0, at.get(h.toStepId)?.endMin ?? 0),
      })),
    ),
    lots: [],
    unplaced: problem.lots.flatMap((l) => {
      const missing = l.steps.find((s) => !have.has(s.id));
      return missing && l.steps.every((s) => s.fixed ?? !have.has(s.id)) ? [{ lotId: l.id, stepId: missing.id }] : [];
    }),
    cost: { lateMin: 0, finishMin: 0, outOfHours: 0, heatWh: 0, moved: 0, total: 0 },
    bound: 0,
    rounds: 0,
    proven: false,
  };
}
