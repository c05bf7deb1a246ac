import type { LotState, ProblemCode, ReadRunEntry, RunEntryView } from '@vestigia/contract';
import type { CheckedEntry, CheckedEntryOf, PlannedStep, RunEntry, RunRefusal, Weighed } from '@vestigia/core';
import {
  foldRun,
  mayBeToldLate,
  hazardsOf,
  isOver,
  plannedWeighing,
  potsOf,
  refuseEntry,
  ruleOnEntry,
  smallestIn,
} from '@vestigia/core';
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { insertRows } from '../db/insert-rows';
import { people, runEntries, vessels } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';
import { findMaterial } from '../stores/materials-store';
import { giveBackFromLot, takeForLot } from '../stores/movements';
import { studioToday } from '../studio/studio-store';
import { readState, refoldProgress } from './lot-progress';
import type { LotRow } from './lots-store';
import { findLot, readEntries } from './lots-store';
import { potsOfOtherLots } from './pots-of-lots';
import { probedStep } from './probe-log';
import { promiseAgain, releaseReservations } from './release-reservations';
import { bookWeighing, checkAddedJar, checkWeighing } from './take-weighing';

const CLOSED: readonly LotState[] = ['released', 'refused', 'cancelled'];

/** An entry with when it happened, epoch ms; not before the entry `afterId`, where that one was taken. */
export interface TimedEntry {
  readonly entry: ReadRunEntry;
  readonly atMs: number;
  readonly afterId?: string;
}
export type EntryResult =
  | { readonly id: string; readonly ok: true }
  | { readonly id: string; readonly ok: false; readonly refusal: RunRefusal };

/** Records one thing done at the bench, or says why not. */
export async function recordEntry(db: Db, lotId: string, entry: ReadRunEntry, by: By): Promise<{ id: string }> {
  const [result] = await recordEntries(
    db,
    lotId,
    [{ entry, atMs: entry.at === undefined ? by.now.getTime() : Date.parse(entry.at) }],
    by,
  );
  if (result && !result.ok) throw asRefusal(result.refusal);
  return { id: entry.id };
}

const CODES: Readonly<Partial<Record<RunRefusal['reason'], ProblemCode>>> = {
  noSuchStep: 'notFound',
  noSuchStockLot: 'notFound',
  over: 'alreadyDone',
  replacedAlready: 'alreadyDone',
  pulledAlready: 'alreadyDone',
  idReused: 'idReused',
};

function asRefusal({ reason, message }: RunRefusal): Refusal {
  const code = CODES[reason];
  return code ? new Refusal(code, message) : new Refusal('refused', message, { reason });
}

/**
 * Records things done at the bench in the order they were done, moves stock by what was really weighed, and folds the
 * lot again once. One that can't be taken is answered with its sentence and changes nothing; those after it go on.
 * One that was taken before is answered again and done once.
 */
export async function recordEntries(
  db: Db,
  lotId: string,
  brought: readonly TimedEntry[],
  by: By,
): Promise<EntryResult[]> {
  const lot = await findLot(db, lotId);
  const run = new OpenRun(db, lot, await readState(db, lotId), await readEntries(db, lotId), by);
  const results: EntryResult[] = [];
  for (const timed of brought) {
    const refusal = await run.take(timed);
    results.push(refusal ? { id: timed.entry.id, ok: false, refusal } : { id: timed.entry.id, ok: true });
  }
  await run.settle();
  return results;
}

/** One lot's run while touches are taken into it: rows wait together until something needs them in the database. */
class OpenRun {
  private rows: (typeof runEntries.$inferInsert)[] = [];
  private changed = false;
  private readonly who: Promise<{ id: string; name: string }>;

  constructor(
    private readonly db: Db,
    private readonly lot: LotRow,
    private readonly state: LotState,
    private readonly entries: RunEntryView[],
    private readonly by: By,
  ) {
    this.who = db
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(eq(people.id, by.byId))
      .then(([p]) => p ?? { id: by.byId, name: '' });
  }

  async take(timed: TimedEntry): Promise<RunRefusal | undefined> {
    const { entry } = timed;
    const atMs = Math.max(timed.atMs, this.takenAtMs(timed.afterId));
    const known = this.entries.find((e) => e.id === entry.id);
    if (known)
      return known.kind === entry.kind && known.stepIndex === entry.stepIndex
        ? undefined
        : refuseEntry({ reason: 'idReused' });
    const mayStill = this.state !== 'cancelled' && mayBeToldLate(entry);
    if (CLOSED.includes(this.state) && !mayStill) return refuseEntry({ reason: 'closed', state: this.state });
    const ruling = ruleOnEntry(
      {
        plan: this.lot.plan,
        entries: this.entries,
        lotAt: this.lot.at,
        nowMs: this.by.now.getTime(),
        lotTag: lotTag(this.lot.number),
        elsewhere: entry.kind === 'start' ? await potsOfOtherLots(this.db, this.lot.id) : [],
      },
      entry,
      atMs,
    );
    if (!ruling.ok) return ruling.refusal;
    if (entry.kind === 'weigh' && ruling.entry.kind === 'weigh')
      return this.takeWeighing(ruling.entry, atMs, entry.weighing?.movementId ?? uuidv7(this.by.now), ruling.replaced);
    if (entry.kind === 'add' && ruling.entry.kind === 'add' && ruling.entry.weighing !== null)
      return this.takeAdded(
        { ...ruling.entry, weighing: ruling.entry.weighing },
        atMs,
        entry.weighing?.movementId ?? uuidv7(this.by.now),
        ruling.replaced,
      );
    if (entry.kind === 'finish' && entry.replacesId === null) await this.noteProbed(entry, atMs);
    await this.add(ruling.entry, atMs);
    if (entry.kind === 'takeBack' && ruling.replaced) await this.giveBack(ruling.replaced);
    if (entry.kind === 'cancel') await releaseReservations(this.db, this.lot.id, this.by);
    if (entry.kind === 'finish' || entry.kind === 'skip') await this.releaseWhatIsOver();
    return undefined;
  }

  private takenAtMs(id: string | undefined): number {
    const entry = id === undefined ? undefined : this.entries.find((e) => e.id === id);
    return entry ? Date.parse(entry.at) : -Infinity;
  }

  async settle(): Promise<void> {
    await this.write();
    if (this.changed) await refoldProgress(this.db, this.lot.id);
  }

  private async add(checked: CheckedEntry, atMs: number): Promise<void> {
    const entry = { ...checked, at: new Date(atMs).toISOString(), recordedAt: this.by.now.toISOString() };
    this.rows.push({ ...entry, lotId: this.lot.id, byId: this.by.byId });
    this.entries.push({ ...entry, by: await this.who, photos: [] });
    this.changed = true;
  }

  private async write(): Promise<void> {
    const rows = this.rows.splice(0);
    await insertRows(this.db, runEntries, rows);
  }

  private async takeWeighing(
    entry: CheckedEntryOf<'weigh'>,
    atMs: number,
    movementId: string,
    replaced: RunEntry | undefined,
  ): Promise<RunRefusal | undefined> {
    const checked = await checkWeighing(this.db, this.lot, entry, replaced, await this.dayOf(atMs));
    if ('reason' in checked) return checked;
    const { amount, contents } = checked;
    const detail = contents ? { ...entry.detail, contents } : entry.detail;
    await this.add({ ...entry, detail, weighing: { ...entry.weighing, amount } }, atMs);
    await this.write();
    if (replaced) await giveBackFromLot(this.db, replaced.id, this.by);
    await bookWeighing(this.db, this.lot, entry, { ...checked, movementId, atMs }, this.by);
    await this.markIronPots(entry);
    return undefined;
  }

  /** What was weighed by a slip goes back into its jar, and is promised to the lot again. */
  private async giveBack({ id, kind, stepIndex, weighing }: RunEntry): Promise<void> {
    if (!weighing || weighing.stockLotId === null) return;
    await this.write();
    await giveBackFromLot(this.db, id, this.by, $localize`taken back`);
    const { steps } = this.lot.plan;
    const [step, record] = [steps[stepIndex], foldRun(this.entries, steps.length)[stepIndex]];
    const planned = step && plannedWeighing(step, weighing);
    if (kind !== 'weigh' || !planned || !record || isOver(record)) return;
    const taken = record.weighings
      .filter((w) => w.batch === planned.batch && w.materialId === planned.materialId)
      .reduce((sum, w) => sum + w.amount, 0);
    const wanted = Math.round(planned.target.value * smallestIn(planned.measure)) - taken;
    await promiseAgain(this.db, this.lot.id, weighing, wanted, this.by);
  }

  private dayOf(atMs: number): Promise<string> {
    return studioToday(this.db, new Date(atMs));
  }

  /** Something that wasn't planned, out of a jar: it leaves the shelf like any weighing. */
  private async takeAdded(
    entry: CheckedEntryOf<'add'> & { readonly weighing: Weighed },
    atMs: number,
    movementId: string,
    replaced: RunEntry | undefined,
  ): Promise<RunRefusal | undefined> {
    const checked = await checkAddedJar(this.db, entry, replaced, await this.dayOf(atMs));
    if ('reason' in checked) return checked;
    const { amount, contents } = checked;
    const detail = contents ? { ...entry.detail, contents } : entry.detail;
    await this.add({ ...entry, detail, weighing: { ...entry.weighing, amount } }, atMs);
    await this.write();
    if (replaced) await giveBackFromLot(this.db, replaced.id, this.by);
    const { stockLotId } = entry.weighing;
    if (stockLotId !== null && !this.lot.offBooks)
      await takeForLot(
        this.db,
        { id: movementId, stockLotId, amount, lotId: this.lot.id, runEntryId: entry.id, atMs },
        this.by,
      );
    await this.markIronPots(entry);
    return undefined;
  }

  /** A pot that iron goes into is marked; the studio unmarks it once it is scrubbed and tried. */
  private async markIronPots({
    stepIndex,
    weighing,
  }: {
    readonly stepIndex: number;
    readonly weighing: Weighed;
  }): Promise<void> {
    const { steps } = this.lot.plan;
    const step = steps[stepIndex];
    const { hazards, facts } = await findMaterial(this.db, weighing.materialId);
    if (!step || !hazardsOf({ hazards, catalogueKey: facts.catalogueKey }).includes('ironSalt')) return;
    const record = foldRun(this.entries, steps.length)[stepIndex];
    const ids = potsOf(step, record?.vessels, weighing.batch).map((pot) => pot.vesselId);
    if (ids.length === 0) return;
    await this.db
      .update(vessels)
      .set({ heldIron: true, version: sql`${vessels.version} + 1` })
      .where(and(inArray(vessels.id, ids), eq(vessels.heldIron, false)));
  }

  /**
   * Where a probe hung in the bath, the hottest it saw and what of the hold was held is written down with the finish,
   * so that nobody has to.
   */
  private async noteProbed(finish: ReadRunEntry, atMs: number): Promise<void> {
    const { steps } = this.lot.plan;
    const [record, step] = [foldRun(this.entries, steps.length)[finish.stepIndex], steps[finish.stepIndex]];
    if (record?.startedAt === undefined || !step) return;
    const probed = await probedStep(this.db, this.lot.id, step, Date.parse(record.startedAt));
    if (!probed) return;
    await this.add(
      {
        id: uuidv7(this.by.now),
        stepIndex: finish.stepIndex,
        kind: 'temperature',
        replacesId: null,
        temperatureC: probed.hottestC,
        text: $localize`hottest by the probe`,
        weighing: null,
        detail: {
          readBy: probed.simulated ? 'simulated' : 'instrument',
          ...(probed.heldMin === undefined ? {} : { heldMin: probed.heldMin }),
          course: probed.course,
        },
      },
      Math.min(probed.atMs, atMs),
    );
  }

  /** A material that no open step needs is promised no longer. */
  private async releaseWhatIsOver(): Promise<void> {
    const { steps } = this.lot.plan;
    const records = foldRun(this.entries, steps.length);
    const idsIn = (steps: readonly PlannedStep[]): string[] =>
      steps.flatMap((s) => s.weighings.map((w) => w.materialId));
    const needed = new Set(idsIn(steps.filter((s) => !isOver(records[s.index]))));
    const over = idsIn(steps.filter((s) => isOver(records[s.index]))).filter((id) => !needed.has(id));
    if (over.length > 0) await releaseReservations(this.db, this.lot.id, this.by, over);
  }
}
