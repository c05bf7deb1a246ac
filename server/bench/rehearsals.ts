import type { InstrumentOrder, LotDetail, Person, Rehearsal, RunEntryView, RunEntryResult } from '@vestigia/contract';
import type { PlannedStep, RunRefusal } from '@vestigia/core';
import { findRunDeviations, foldRun, isOver, plannedWeighing, ruleOnEntry, refuseEntry } from '@vestigia/core';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import { Workbench } from '../devices/workbench';
import { foldProgress } from '../lots/lot-progress';
import { readLot } from '../lots/lots-store';
import { Refusal, notFound } from '../shared/problem';
import type { StudioRoom } from '../studio/room';
import { readRoom } from '../studio/room';
import { readAround } from './bench-store';
import { beginBath, potCardFor } from './pot-card';
import type { RunEntryDrafts } from './run-entry-drafts';
import { tell, timed } from './run-entry-drafts';

/** A rehearsal nobody touched for this long is cleared away. */
const FORGOTTEN_MS = 4 * 3_600_000;
const MAX_AT_ONCE = 8;

interface Open {
  readonly id: string;
  readonly person: Person;
  readonly speed: number;
  readonly lot: LotDetail;
  readonly room: StudioRoom;
  readonly startedMs: number;
  readonly bench: Workbench;
  readonly entries: RunEntryView[];
  touchedMs: number;
}

/**
 * Runs of lots against simulated pots, on clocks that may run up to 120 times as fast. They live in memory only:
 * there is no way from here into the ledger or a lot's record, because nothing here writes to the database.
 */
export class Rehearsals {
  private readonly open = new Map<string, Open>();

  constructor(private readonly context: Context) {}

  async start(
    db: Db,
    { id, lotId, speed }: { id: string; lotId: string; speed: number },
    person: Person,
  ): Promise<Rehearsal> {
    this.clearForgotten();
    const known = this.open.get(id);
    if (known) return this.tell(db, known);
    if (this.open.size >= MAX_AT_ONCE)
      throw new Refusal('refused', $localize`${MAX_AT_ONCE} rehearsals are going on. End one first.`, {
        reason: 'tooMany',
      });
    const room = await readRoom(db);
    const startedMs = this.realMs();
    const bench = new Workbench(
      () => startedMs + (this.realMs() - startedMs) * speed,
      () => this.realMs(),
      { name: room.balance.name, capacityG: room.balance.capacityG, resolutionG: room.balance.resolutionG },
    );
    const open: Open = {
      id,
      person,
      speed,
      lot: await readLot(db, lotId),
      room,
      startedMs,
      bench,
      entries: [],
      touchedMs: startedMs,
    };
    this.open.set(id, open);
    return this.tell(db, open);
  }

  async read(db: Db, id: string): Promise<Rehearsal> {
    return this.tell(db, this.find(id));
  }

  /** Entries of a rehearsal, ruled by as those of a run are; the pots follow. */
  draft(id: string, brought: RunEntryDrafts, person: Person): { results: RunEntryResult[] } {
    const open = this.find(id);
    return { results: brought.map((t) => this.take(open, t, person)) };
  }

  order(id: string, order: InstrumentOrder): void {
    const { bench, lot, room } = this.find(id);
    if (order.do !== 'hang') bench.obey(order);
    else
      bench.hang(
        order.lotId === null ? undefined : { lotId: lot.summary.id, stepIndex: order.stepIndex ?? 0 },
        potCardFor(lot, order.stepIndex ?? 0, room),
      );
  }

  bench(id: string): Workbench {
    return this.find(id).bench;
  }

  end(id: string): void {
    this.find(id).bench.close();
    this.open.delete(id);
  }

  close(): void {
    for (const { bench } of this.open.values()) bench.close();
    this.open.clear();
  }

  private realMs(): number {
    return this.context.clock().getTime();
  }

  private nowMs({ startedMs, speed }: Open): number {
    return startedMs + (this.realMs() - startedMs) * speed;
  }

  private find(id: string): Open {
    const open = this.open.get(id);
    if (!open) throw new Refusal('notFound', $localize`That rehearsal is over. Start another from the lot.`);
    open.touchedMs = this.realMs();
    return open;
  }

  private take(open: Open, draft: RunEntryDrafts[number], person: Person): RunEntryResult {
    const { lot, entries } = open;
    const { entry } = draft;
    if (entries.some((e) => e.id === entry.id)) return tell(undefined, entry.id);
    const nowMs = this.nowMs(open);
    // An entry that waited did so while the rehearsal's clock ran on at its own pace.
    const { atMs } = timed({ ...draft, ageMs: draft.ageMs * open.speed }, nowMs);
    const ruling = ruleOnEntry(
      { plan: lot.plan, entries, lotAt: lot.summary.at, nowMs, lotTag: lot.summary.tag, elsewhere: [] },
      entry,
      atMs,
    );
    if (!ruling.ok) return tell({ id: entry.id, ok: false, refusal: ruling.refusal }, entry.id);
    const made = entry.kind === 'weigh' && entry.detail?.solution?.made !== undefined;
    const wrong = entry.kind === 'weigh' && !made ? wrongStockLot(lot, ruling.step, entry.weighing) : undefined;
    if (wrong) return tell({ id: entry.id, ok: false, refusal: wrong }, entry.id);
    const at = new Date(Math.max(atMs, open.startedMs)).toISOString();
    entries.push({
      ...ruling.entry,
      at,
      recordedAt: new Date(nowMs).toISOString(),
      by: { id: person.id, name: person.name },
      photos: [],
    });
    const { id, kind, replacesId } = ruling.entry;
    if (kind === 'start' && replacesId === null) beginBath(open.bench, lot, ruling.step, open.room);
    return tell(undefined, id);
  }

  private async tell(db: Db, open: Open): Promise<Rehearsal> {
    const nowMs = this.nowMs(open);
    const now = new Date(nowMs);
    const lot = rehearsed(open);
    return {
      id: open.id,
      speed: open.speed,
      startedAt: new Date(open.startedMs).toISOString(),
      now: now.toISOString(),
      bench: {
        ...(await readAround(db, open.person.id, this.context.clock())),
        now: now.toISOString(),
        lots: [lot],
        waiting: [],
      },
    };
  }

  private clearForgotten(): void {
    for (const [id, { touchedMs, bench }] of this.open) {
      if (this.realMs() - touchedMs < FORGOTTEN_MS) continue;
      bench.close();
      this.open.delete(id);
    }
  }
}

/** The lot with its run replaced by the rehearsed one: nothing of the real run shows. */
function rehearsed({ lot, entries }: Open): LotDetail {
  const progress = foldProgress({
    lot: { id: lot.summary.id, at: lot.summary.at, plan: lot.plan },
    standards: { master: lot.summary.master, expected: lot.expected },
    entries,
    readings: [],
    eyes: [],
    verdicts: [],
  });
  const tagOf = (stockLot: string): string =>
    lot.stockLots.find((j) => j.id === stockLot)?.tag ?? $localize`another jar`;
  const over = foldRun(entries, lot.plan.steps.length).every(isOver);
  return {
    ...lot,
    entries,
    readings: [],
    verdicts: [],
    deviations: findRunDeviations(lot.plan, entries, tagOf),
    summary: {
      ...lot.summary,
      state: over ? 'toJudge' : progress.state,
      stations: progress.stations,
      next: progress.next ?? null,
      result: null,
      deltaE: null,
    },
  };
}

function wrongStockLot(
  lot: LotDetail,
  step: PlannedStep,
  weighing: { batch: number; materialId: string; stockLotId: string | null } | null,
): RunRefusal | undefined {
  if (!weighing) throw notFound('weighing');
  const stockLot = lot.stockLots.find((j) => j.id === weighing.stockLotId);
  if (stockLot?.materialId === weighing.materialId || stockLot?.solutionOf?.materialId === weighing.materialId)
    return undefined;
  const planned = plannedWeighing(step, weighing);
  const right = (planned?.picks ?? []).flatMap((p) => lot.stockLots.find((s) => s.id === p.stockLotId) ?? []);
  return refuseEntry({
    reason: 'wrongStockLot',
    tag: stockLot?.tag ?? $localize`that one`,
    wanted: planned?.materialName ?? $localize`what is wanted`,
    right,
  });
}
