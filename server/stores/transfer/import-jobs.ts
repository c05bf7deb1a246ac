import { setImmediate } from 'node:timers/promises';
import type { ImportJob, Person, TransferKind } from '@vestigia/contract';
import type { Context } from '../../shared/context';
import type { By } from '../../shared/recorded-by';
import type { Db } from '../../db/database';
import { insertRows } from '../../db/insert-rows';
import { conversions, liquorEntries, lots, materials, movements, people, stockLots } from '../../db/schema';
import type { Writer } from '../../http/write';
import { uuidv7 } from '../../shared/ids';
import { noteDeed, tellNoRows } from '../../shared/deeds';
import { lotTag } from '../../shared/lot-tag';
import { Refusal, notFound } from '../../shared/problem';
import type { ImportPlan } from './import-outcome';
import { planImport, stampOf } from './import-plan';

/** More rows than this are worth clearing up after. */
const MANY = 2000;
/** Imports kept to be looked at; the oldest is forgotten. */
const MAX_JOBS = 6;

class Cancelled extends Error {}

interface Job {
  readonly id: string;
  readonly kind: TransferKind;
  /** What the file is called. */
  readonly name: string;
  readonly by: Person;
  state: ImportJob['state'];
  done: number;
  total: number;
  problem: string;
  plan: ImportPlan | undefined;
  /** All rows are in and only the commit is left: too late to stop. */
  sealed: boolean;
}

/** Imports under way: read and previewed first, then written whole or not at all; either part can be stopped. */
export class ImportJobs {
  private readonly jobs = new Map<string, Job>();

  constructor(
    private readonly context: Context,
    private readonly writer: Writer,
  ) {}

  begin({ kind, name }: { kind: TransferKind; name: string }, bytes: Uint8Array, by: Person): ImportJob {
    const now = this.context.clock();
    const job: Job = {
      id: uuidv7(now),
      kind,
      name,
      by,
      state: 'reading',
      done: 0,
      total: 0,
      problem: '',
      plan: undefined,
      sealed: false,
    };
    this.jobs.set(job.id, job);
    for (const old of [...this.jobs.values()].slice(0, -MAX_JOBS))
      if (old.state !== 'writing') this.jobs.delete(old.id);
    void this.read(job, bytes, now);
    return view(job);
  }

  look(id: string): ImportJob {
    return view(this.find(id));
  }

  /** Begins to write what was previewed. */
  run(id: string): ImportJob {
    const job = this.find(id);
    if (job.state !== 'ready' || !job.plan)
      throw new Refusal(
        'refused',
        job.state === 'done'
          ? $localize`This file is in already.`
          : $localize`This import can’t be written. Choose the file again.`,
        { reason: 'notReady' },
      );
    if (job.plan.fates.refused > 0)
      throw new Refusal(
        'refused',
        $localize`${job.plan.fates.refused} rows can’t be taken, so none are. Mend them in the file and choose it again.`,
        { reason: 'rowsRefused' },
      );
    job.state = 'writing';
    job.done = 0;
    job.total = job.plan.materials.length + job.plan.stockLots.length + job.plan.movements.length;
    void this.write(job, job.plan);
    return view(job);
  }

  cancel(id: string): ImportJob {
    const job = this.find(id);
    if (job.state === 'done' || job.sealed)
      throw new Refusal('refused', $localize`It is written already. Reverse what should not be there.`);
    job.state = 'cancelled';
    return view(job);
  }

  private find(id: string): Job {
    const job = this.jobs.get(id);
    if (!job) throw notFound('import');
    return job;
  }

  private async read(job: Job, bytes: Uint8Array, now: Date): Promise<void> {
    try {
      const reading = await planImport(
        this.context.database.db,
        job.kind,
        bytes,
        job.by.name,
        now,
        async (done, total) => {
          await this.context.answering.first();
          await this.step(job, done, total);
        },
      );
      if (reading.ok) job.plan = reading.plan;
      else job.problem = reading.message;
      job.state = reading.ok ? 'ready' : 'refused';
    } catch (error) {
      this.fail(job, error);
    }
  }

  private async write(job: Job, plan: ImportPlan): Promise<void> {
    try {
      await this.writer.write({
        call: 'import',
        key: undefined,
        body: null,
        byId: job.by.id,
        run: async (tx, now) => {
          if ((await stampOf(tx)) !== plan.stamp)
            throw new Refusal(
              'changedMeanwhile',
              $localize`Something on the shelf moved since this file was read. Choose it again to see what would become of it now.`,
            );
          await tellNoRows(tx);
          await noteDeed(tx, {
            now,
            byId: job.by.id,
            kind: 'brought',
            thing: 'file',
            name: job.name,
            changes: {
              materials: [null, plan.materials.length],
              jars: [null, plan.stockLots.length],
              movements: [null, plan.movements.length],
              people: [null, plan.newPeople.length],
            },
          });
          await writePlan(tx, plan, { now, byId: job.by.id }, (done) => this.step(job, done, job.total));
          await this.step(job, job.total, job.total);
          job.sealed = true;
        },
      });
      job.state = 'done';
      job.done = job.total;
      this.context.changes.tell(['stores', 'studio']);
      if (plan.movements.length > MANY) await this.context.database.tidy();
    } catch (error) {
      this.fail(job, error);
    }
  }

  private async step(job: Job, done: number, total: number): Promise<void> {
    // Others are served first, so that a stop asked for meanwhile is heard here and not after the commit.
    await setImmediate();
    if (job.state === 'cancelled') throw new Cancelled();
    job.done = done;
    job.total = total;
  }

  private fail(job: Job, error: unknown): void {
    if (error instanceof Cancelled) return;
    job.state = 'refused';
    job.sealed = false;
    job.problem =
      error instanceof Refusal
        ? error.detail
        : $localize`Something broke while the file was taken in. Nothing was kept; try again.`;
    if (!(error instanceof Refusal)) this.context.log.error({ err: error }, 'import');
  }
}

const view = (job: Job): ImportJob => ({
  id: job.id,
  kind: job.kind,
  state: job.state,
  done: job.done,
  total: job.total,
  problem: job.problem,
  fates: job.plan?.fates ?? { new: 0, here: 0, refused: 0 },
  newPeople: job.plan?.newPeople ?? [],
  rows: job.plan ? [...job.plan.rows] : [],
});

/**
 * Writes a plan in one transaction. What comes in goes before what goes out, so that no slice of a long history ends
 * below nothing; `at` keeps the true order.
 */
async function writePlan(
  tx: Db,
  plan: ImportPlan,
  { now, byId }: By,
  step: (done: number) => Promise<void>,
): Promise<void> {
  const at = now.toISOString();
  await insertRows(
    tx,
    people,
    plan.newPeople.map((name) => ({ id: uuidv7(now), name, role: 'helper' as const })),
  );
  const personOf = new Map(
    (await tx.select({ id: people.id, name: people.name }).from(people)).map((p) => [p.name, p.id]),
  );
  const lotOf = new Map(
    (await tx.select({ id: lots.id, number: lots.number }).from(lots)).map((l) => [lotTag(l.number), l.id]),
  );
  await insertRows(tx, materials, plan.materials, step);
  await insertRows(
    tx,
    stockLots,
    plan.stockLots.map(({ liquor: _liquor, ...s }) => s),
    (done) => step(plan.materials.length + done),
  );
  await insertRows(
    tx,
    liquorEntries,
    plan.stockLots.flatMap((s) =>
      s.liquor === null
        ? []
        : [{ id: uuidv7(now), stockLotId: s.id, kind: 'save' as const, after: s.liquor, at: s.liquor.at ?? at, byId }],
    ),
  );
  await insertRows(
    tx,
    conversions,
    plan.conversions.map(({ by, ...c }) => ({ ...c, byId: personOf.get(by) ?? byId })),
  );
  const inTime = [...plan.movements]
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map(({ created: _created, by, lot, conversion, ...m }) => {
      const lotId = lotOf.get(lot) ?? null;
      return {
        ...m,
        byId: personOf.get(by) ?? byId,
        broughtById: byId,
        lotId,
        lotRef: lotId === null && lot !== '' ? lot : null,
        conversionId: conversion,
      };
    });
  const before = plan.materials.length + plan.stockLots.length;
  const comesIn = inTime.filter((m) => m.amount >= 0);
  await insertRows(tx, movements, comesIn, (done) => step(before + done));
  await insertRows(
    tx,
    movements,
    inTime.filter((m) => m.amount < 0),
    (done) => step(before + comesIn.length + done),
  );
}
