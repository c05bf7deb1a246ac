import { setImmediate } from 'node:timers/promises';
import type { PlanFactsView } from '@vestigia/contract';
import type { DoneByPlan, Hindcast, LearntTimes, LotsTook, PlansKept, StepRecord, StepTook } from '@vestigia/core';
import { completePlan, foldRun, hindcast, learnTimes, lotsTook, plannable, plansKept, stepsTook } from '@vestigia/core';
import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotProgress, lots, plans, recipeVersions } from '../db/schema';
import { readPartsOfLots } from '../lots/lot-parts';

/** What earlier lots say of the times of the next. */
export interface Learnt {
  readonly times: LearntTimes;
  readonly took: LotsTook | null;
  readonly kept: PlansKept | null;
}

/** The newest lots that are done; older ones were dyed by other habits. */
const MOST_LOTS = 40;

/** Learnt once from the same lots and hours: it is a matter of what stands in the record alone. */
const known: { key: string; learnt: Learnt } = { key: '', learnt: { times: new Map(), took: null, kept: null } };

/** Learns from the newest lots that are done and whose times were written down as they went. */
export async function readLearnt(
  db: Db,
  house: Pick<PlanFactsView, 'now' | 'zone' | 'times' | 'people' | 'vessels' | 'heatSources'>,
): Promise<Learnt> {
  const done = await db
    .select({ id: lots.id, lastAt: lotProgress.lastAt })
    .from(lotProgress)
    .innerJoin(lots, eq(lots.id, lotProgress.lotId))
    .where(
      and(
        inArray(lotProgress.state, ['released', 'refused', 'held', 'toJudge']),
        isNull(lots.recordedAt),
        eq(lots.offBooks, false),
      ),
    )
    .orderBy(desc(lots.number))
    .limit(MOST_LOTS);
  const { now: _now, ...steady } = house;
  const key = JSON.stringify([done, steady]);
  if (known.key !== key) {
    known.learnt = await learn(
      db,
      house,
      done.map((d) => d.id),
    );
    known.key = key;
  }
  return known.learnt;
}

async function learn(db: Db, house: Parameters<typeof readLearnt>[1], lotIds: readonly string[]): Promise<Learnt> {
  if (lotIds.length === 0) return { times: new Map(), took: null, kept: null };
  const rows = await db
    .select({ id: lots.id, plan: lots.plan, recipeId: recipeVersions.recipeId })
    .from(lots)
    .innerJoin(recipeVersions, eq(recipeVersions.id, lots.recipeVersionId))
    .where(inArray(lots.id, [...lotIds]))
    .orderBy(lots.number);
  const runs = await readPartsOfLots(db, lotIds, 'entries');
  const took: StepTook[] = [];
  const hindcasts: Hindcast[] = [];
  const told: { readonly id: string; readonly records: readonly StepRecord[] }[] = [];
  for (const [i, { id, plan, recipeId }] of rows.entries()) {
    const { steps } = completePlan(plan);
    const records = foldRun(runs[i]?.entries ?? [], steps.length);
    told.push({ id, records });
    took.push(...stepsTook(recipeId, steps, records));
    const lot = { id, tag: '', pieces: 0, wantedOn: null, steps: steps.map(plannable), records };
    const cast = hindcast(house, lot);
    if (cast) hindcasts.push(cast);
    // Each takes a plan of its own; whoever touches something meanwhile is served between two.
    await setImmediate();
  }
  return { times: learnTimes(took), took: lotsTook(hindcasts), kept: plansKept(await doneByPlan(db, told)) };
}

/** When the plan that was gone by as each lot was begun said it would be done, and when it was. */
async function doneByPlan(
  db: Db,
  told: readonly { readonly id: string; readonly records: readonly StepRecord[] }[],
): Promise<DoneByPlan[]> {
  const spans = told.flatMap(({ id, records }) => {
    const startedAt = records.flatMap((r) => r.startedAt ?? []).sort()[0];
    const doneAt = records
      .flatMap((r) => r.finishedAt ?? [])
      .sort()
      .at(-1);
    return startedAt === undefined || doneAt === undefined ? [] : [{ id, startedAt, doneAt }];
  });
  const { rows } = await db.execute<{ id: string; saidAt: string | null }>(sql`SELECT of_lot.id, (
      SELECT max(e ->> 'endAt')
      FROM (SELECT ${plans.plan} AS plan FROM ${plans} WHERE ${plans.at} <= of_lot.started_at ORDER BY ${plans.seq} DESC LIMIT 1) p,
        jsonb_array_elements(p.plan -> 'places') e
      WHERE e ->> 'lotId' = of_lot.id::text) AS "saidAt"
    FROM unnest(${sql.param(spans.map((s) => s.id))}::uuid[], ${sql.param(spans.map((s) => s.startedAt))}::timestamptz[])
      AS of_lot(id, started_at)`);
  const said = new Map(rows.map((r) => [r.id, r.saidAt]));
  return spans.flatMap(({ id, doneAt }) => {
    const saidAt = said.get(id);
    return saidAt ? [{ saidAt, doneAt }] : [];
  });
}
