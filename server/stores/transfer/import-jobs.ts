import { setImmediate } from 'node:timers/promises';
import type { ImportJob, TransferKind } from '@vestigia/contract';
import type { Person } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Context } from '../../context';
import type { Db } from '../../db/database';
import type { Writer } from '../../http/write';
import { uuidv7 } from '../../ids';
import { Refusal, notFound } from '../../problem';
import type { ImportPlan } from './import-plan';
import { planImport, stampOf } from './import-plan';

/** Rows sent to the database at once: small enough that a cancel is heard soon. */
const CHUNK = 2000;
/** Imports kept to be looked at; the oldest is forgotten. */
const MOST_JOBS = 6;

class Cancelled extends Error {}

interface Job {
  readonly id: string;
  readonly kind: TransferKind;
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

  constructor(private readonly context: Context, private readonly writer: Writer) {}

  begin(kind: TransferKind, bytes: Uint8Array, by: Person): ImportJob {
    const now = this.context.clock();
    const job: Job = { id: uuidv7(now), kind, by, state: 'reading', done: 0, total: 0, problem: '', plan: undefined, sealed: false };
    this.jobs.set(job.id, job);
    for (const old of [...this.jobs.values()].slice(0, -MOST_JOBS)) if (old.state !== 'writing') this.jobs.delete(old.id);
    void this.read(job, bytes, now);
    return view(job);
  }

  look(id: string): ImportJob {
    return view(this.find(id));
  }

  /** Begins to write what was previewed. */
  run(id: string): ImportJob {
    const job = this.find(id);
    if (job.state !== 'ready' || !job.plan) throw new Refusal('refused', job.state === 'done' ? 'This file is in already.' : 'This import can’t be written. Choose the file again.', { reason: 'notReady' });
    if (job.plan.fates.refused > 0) throw new Refusal('refused', `${job.plan.fates.refused} rows can’t be taken, so none are. Mend them in the file and choose it again.`, { reason: 'rowsRefused' });
    job.state = 'writing';
    job.done = 0;
    job.total = job.plan.materials.length + job.plan.stockLots.length + job.plan.movements.length;
    void this.write(job, job.plan);
    return view(job);
  }

  cancel(id: string): ImportJob {
    const job = this.find(id);
    if (job.state === 'done' || job.sealed) throw new Refusal('refused', 'It is written already. Reverse what should not be there.');
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
      const reading = await planImport(this.context.database.db, job.kind, bytes, job.by.name, now, (done, total) => this.step(job, done, total));
      if (reading.ok) job.plan = reading.plan;
      else job.problem = reading.sentence;
      job.state = reading.ok ? 'ready' : 'refused';
    } catch (error) {
      this.fail(job, error);
    }
  }

  private async write(job: Job, plan: ImportPlan): Promise<void> {
    try {
      await this.writer.write({ call: 'import', key: undefined, body: null, run: async (tx, now) => {
        if ((await stampOf(tx)) !== plan.stamp) throw new Refusal('changedMeanwhile', 'Something on the shelf moved since this file was read. Choose it again to see what would become of it now.');
        await writePlan(tx, plan, { now, byId: job.by.id }, (done) => this.step(job, done, job.total));
        await this.step(job, job.total, job.total);
        job.sealed = true;
      } });
      if (plan.movements.length > CHUNK) await this.context.database.tidy();
      job.state = 'done';
      job.done = job.total;
      this.context.changes.tell(['stores', 'studio']);
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
    job.problem = error instanceof Refusal ? error.detail : 'Something broke while the file was taken in. Nothing was kept; try again.';
    if (!(error instanceof Refusal)) this.context.log.error({ err: error }, 'import');
  }
}

const view = (job: Job): ImportJob => ({
  id: job.id, kind: job.kind, state: job.state, done: job.done, total: job.total, problem: job.problem,
  fates: job.plan?.fates ?? { new: 0, here: 0, refused: 0 }, newPeople: job.plan?.newPeople ?? [], rows: job.plan ? [...job.plan.rows] : [],
});

/** Writes a plan in one transaction, rows as JSON so that fifty thousand go in as quickly as they are read. */
async function writePlan(tx: Db, plan: ImportPlan, { now, byId }: { now: Date; byId: string }, step: (done: number) => Promise<void>): Promise<void> {
  let done = 0;
  const insert = async (rows: readonly object[], statement: (json: string) => ReturnType<typeof sql>): Promise<void> => {
    for (let i = 0; i < rows.length; i += CHUNK) {
      await step(done);
      const chunk = rows.slice(i, i + CHUNK);
      await tx.execute(statement(JSON.stringify(chunk)));
      done += chunk.length;
    }
  };
  if (plan.newPeople.length > 0) await tx.execute(sql`INSERT INTO people (id, name) SELECT r.id, r.name FROM json_to_recordset(${JSON.stringify(plan.newPeople.map((name) => ({ id: uuidv7(now), name })))}::json) AS r(id uuid, name text)`);
  await insert(plan.materials, (json) => sql`INSERT INTO materials (id, name, kind, measure, hazards, note, base, facts)
    SELECT r.id, r.name, r.kind, r.measure, r.hazards, r.note, CASE WHEN jsonb_typeof(r.base) = 'null' THEN NULL ELSE r.base END, r.facts FROM json_to_recordset(${json}::json) AS r(id uuid, name text, kind text, measure text, hazards jsonb, note text, base jsonb, facts jsonb)`);
  await insert(plan.stockLots, (json) => sql`INSERT INTO stock_lots (id, material_id, tag, received_on, best_before, place, source, note, cost_minor, facts)
    SELECT r.id, r."materialId", r.tag, r."receivedOn", r."bestBefore", r.place, r.source, r.note, r."costMinor", r.facts
    FROM json_to_recordset(${json}::json) AS r(id uuid, "materialId" uuid, tag text, "receivedOn" date, "bestBefore" date, place text, source text, note text, "costMinor" bigint, facts jsonb)`);
  const liquors = plan.stockLots.filter((s) => s.liquor !== null).map((s) => ({ id: uuidv7(now), jar: s.id, after: s.liquor, at: s.liquor?.at ?? now.toISOString() }));
  if (liquors.length > 0) await tx.execute(sql`INSERT INTO liquor_entries (id, stock_lot_id, kind, after, at, by_id) SELECT r.id, r.jar, 'save', r.after, r.at, ${byId}::uuid FROM json_to_recordset(${JSON.stringify(liquors)}::json) AS r(id uuid, jar uuid, after jsonb, at timestamptz)`);
  if (plan.conversions.length > 0) await tx.execute(sql`INSERT INTO conversions (id, kind, loss_mg, note, at, by_id) SELECT r.id, r.kind, r."lossMg", r.note, r.at, p.id FROM json_to_recordset(${JSON.stringify(plan.conversions)}::json) AS r(id uuid, kind text, "lossMg" bigint, note text, at timestamptz, by text) JOIN people p ON p.name = r.by`);
  const inTime = [...plan.movements].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  await writeMovements(inTime.map(({ made: _made, ...m }) => m), insert);
}

/** Chunks of a jar's long history may not end below nothing on the way, so all that comes in goes before what goes out; `at` keeps the true order. */
async function writeMovements(inTime: readonly { amount: number; stockLotId: string }[], insert: (rows: readonly object[], statement: (json: string) => ReturnType<typeof sql>) => Promise<void>): Promise<void> {
  const statement = (json: string): ReturnType<typeof sql> => sql`INSERT INTO movements (id, stock_lot_id, kind, amount, lot_id, lot_ref, conversion_id, reverses_id, note, at, recorded_at, by_id)
    SELECT r.id, r."stockLotId", r.kind, r.amount, l.id, CASE WHEN l.id IS NULL AND r.lot <> '' THEN r.lot END, r.conversion, r."reversesId", r.note, r.at, r."recordedAt", p.id
    FROM json_to_recordset(${json}::json) AS r(id uuid, "stockLotId" uuid, kind text, amount bigint, lot text, conversion uuid, "reversesId" uuid, note text, at timestamptz, "recordedAt" timestamptz, by text)
    JOIN people p ON p.name = r.by LEFT JOIN lots l ON l.number = substring(r.lot FROM '^Lot (\\d{1,9})$')::int`;
  await insert(inTime.filter((m) => m.amount >= 0), statement);
  await insert(inTime.filter((m) => m.amount < 0), statement);
}
