import { Injectable, computed, effect, inject, signal } from '@angular/core';
import type { Bench, LotDetail, ReadRunEntry, Rehearsal, RunEntryView } from '@vestigia/contract';
import type { BenchAct, CheckedEntry, OffTarget, PlannedWeighing, PotInUse, StepRecord } from '@vestigia/core';
import {
  benchActs,
  checkEntry,
  findRunDeviations,
  foldRun,
  offTarget,
  potsInUse,
  ruleOnEntry,
  stepState,
  sayWrongStockLot,
} from '@vestigia/core';
import type { Observable } from 'rxjs';
import { firstValueFrom } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import type { StoredDraft } from '../../api/bench-shelf';
import { Outbox } from '../../api/outbox';
import { ServerClock } from '../../api/server-clock';
import { Session } from '../../api/session';
import { entryLabel } from '../../format/entry-label';
import { newId } from '../../api/new-id';
import type { EntryContent } from './entry-content';

const TICK_MS = 500;

export interface OffNow {
  readonly lotId: string;
  readonly stepIndex: number;
  readonly off: OffTarget;
}

/**
 * The runs on this screen: what the server told last, and on top of it every entry made here that it has not told of
 * yet. The same rules hold here as there, so that an entry is answered at once, with the server or without it.
 */
@Injectable()
export class BenchState {
  private readonly api = inject(ApiClient);
  private readonly outbox = inject(Outbox);
  private readonly clock = inject(ServerClock);
  private readonly session = inject(Session);
  private readonly bench = signal<Bench | undefined>(undefined);
  private readonly rehearsal = signal<
    (Pick<Rehearsal, 'id' | 'speed' | 'startedAt'> & { nowMs: number; atMs: number }) | undefined
  >(undefined);
  private readonly rehearsed = signal<readonly { lotId: string; entry: ReadRunEntry; at: string }[]>([]);
  readonly problem = signal<ShownProblem | undefined>(undefined);
  readonly now = signal(this.clock.now());
  /** The newest weighing that came out off its target, until somebody says what to do about it. */
  readonly off = signal<OffNow | undefined>(undefined);
  private readonly timer = setInterval(() => this.tick(), TICK_MS);

  readonly around = computed(() => this.bench());
  readonly isRehearsal = computed(() => this.rehearsal() !== undefined);
  readonly speed = computed(() => this.rehearsal()?.speed ?? 1);

  /** Lots with what was done here laid over what the server told. */
  readonly lots = computed((): readonly LotDetail[] => {
    const rehearsal = this.rehearsal();
    const over = rehearsal
      ? this.rehearsed()
      : this.outbox.unseen().map((t: StoredDraft) => ({ lotId: t.lotId, entry: t.entry, at: this.outbox.atOf(t) }));
    return (this.bench()?.lots ?? []).map((lot) =>
      this.layOver(
        lot,
        over.filter((t) => t.lotId === lot.summary.id),
      ),
    );
  });

  readonly acts = computed((): readonly BenchAct[] =>
    benchActs(
      this.lots()
        .filter((l) => l.summary.state === 'planned' || l.summary.state === 'inWork')
        .map((l) => ({ lotId: l.summary.id, plan: l.plan, entries: l.entries })),
      this.now(),
    ),
  );

  constructor() {
    effect(() => {
      const bench = this.bench();
      if (bench && !this.isRehearsal())
        this.outbox.seen(new Set(bench.lots.flatMap((l) => l.entries.map((e) => e.id))));
    });
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** What the server told of the bench. */
  take(bench: Bench): void {
    this.clock.set(bench.now);
    this.bench.set(bench);
    this.tick();
  }

  takeRehearsal({ bench, id, speed, startedAt, now }: Rehearsal): void {
    const reported = new Set(bench.lots.flatMap((l) => l.entries.map((e) => e.id)));
    this.rehearsed.update((all) => all.filter((t) => !reported.has(t.entry.id)));
    this.rehearsal.set({ id, speed, startedAt, nowMs: Date.parse(now), atMs: performance.now() });
    this.bench.set(bench);
    this.tick();
  }

  lotOf(lotId: string): LotDetail | undefined {
    return this.lots().find((l) => l.summary.id === lotId);
  }

  recordOf(lotId: string, stepIndex: number): StepRecord | undefined {
    const lot = this.lotOf(lotId);
    return lot ? foldRun(lot.entries, lot.plan.steps.length)[stepIndex] : undefined;
  }

  /**
   * One entry. Answers why it can't be, or nothing: then it is kept, here first, and what it does shows at once.
   */
  async record(lotId: string, stepIndex: number, content: EntryContent): Promise<string | undefined> {
    const lot = this.lotOf(lotId);
    if (!lot) return $localize`That lot is not on this bench. Open it again.`;
    const entry: ReadRunEntry = {
      id: newId(),
      replacesId: null,
      temperatureC: null,
      text: null,
      weighing: null,
      detail: null,
      ...content,
      stepIndex,
    };
    const nowMs = this.notBeforeMs(lot);
    const ruling = ruleOnEntry(
      {
        plan: lot.plan,
        entries: lot.entries,
        lotAt: lot.summary.at,
        nowMs,
        lotTag: lot.summary.tag,
        elsewhere: this.potsElsewhere(lotId),
      },
      entry,
      entry.at === undefined ? nowMs : Date.parse(entry.at),
    );
    if (!ruling.ok) return ruling.refusal.message;
    if (entry.kind === 'weigh' && entry.weighing) {
      const stockLot = lot.stockLots.find((j) => j.id === entry.weighing?.stockLotId);
      const holds = [stockLot?.materialId, stockLot?.solutionOf?.materialId];
      if (stockLot && !holds.includes(entry.weighing.materialId))
        return this.wrongStockLot(
          lot,
          ruling.step.weighings.find((w) => w.materialId === entry.weighing?.materialId),
          stockLot.tag,
        );
    }
    const rehearsal = this.rehearsal();
    if (rehearsal) return this.rehearse(rehearsal.id, lotId, entry);
    await this.outbox.add(
      lotId,
      entry,
      `${lot.summary.tag}, ${ruling.step.title}: ${entryLabel(this.asRecorded(ruling.entry, new Date(nowMs).toISOString()), lot)}`,
    );
    this.lookAtTarget(lotId, entry);
    return undefined;
  }

  /** Pots that the other lots in work hold. */
  potsElsewhere(lotId: string): PotInUse[] {
    return this.lots()
      .filter((l) => l.summary.id !== lotId && l.summary.state === 'inWork')
      .flatMap((l) => potsInUse(l.plan, foldRun(l.entries, l.plan.steps.length), l.summary.tag));
  }

  /** Now, and not before what the lot's record has: what was slow on its way is dated a little later than it was. */
  private notBeforeMs(lot: LotDetail): number {
    return Math.max(this.nowMs(), ...lot.entries.map((e) => Date.parse(e.at)));
  }

  /** Which jar a wrong one was taken for. */
  wrongStockLot(lot: LotDetail, weighing: PlannedWeighing | undefined, tag: string): string {
    const right = (weighing?.picks ?? []).flatMap((p) => lot.stockLots.find((j) => j.id === p.stockLotId) ?? []);
    return sayWrongStockLot(tag, weighing?.materialName ?? $localize`what is wanted`, right);
  }

  private async rehearse(id: string, lotId: string, entry: ReadRunEntry): Promise<string | undefined> {
    this.rehearsed.update((all) => [...all, { lotId, entry, at: entry.at ?? new Date(this.nowMs()).toISOString() }]);
    try {
      const { results } = await firstValueFrom(this.post(id, { lotId, ageMs: 0, entry }));
      const [result] = results;
      if (result && !result.ok) {
        this.rehearsed.update((all) => all.filter((t) => t.entry.id !== entry.id));
        return result.message;
      }
    } catch (problem) {
      this.rehearsed.update((all) => all.filter((t) => t.entry.id !== entry.id));
      return (problem as ShownProblem).detail;
    }
    this.lookAtTarget(lotId, entry);
    await this.readRehearsal(id);
    return undefined;
  }

  private post(
    id: string,
    record: { lotId: string; ageMs: number; entry: ReadRunEntry },
  ): Observable<{ results: { ok: boolean; message: string }[] }> {
    return this.api.post('/api/rehearsals/{id}/run-entries', { drafts: [record] }, id);
  }

  async readRehearsal(id: string): Promise<void> {
    try {
      this.takeRehearsal(await firstValueFrom(this.api.get('/api/rehearsals/{id}', { id })));
      this.problem.set(undefined);
    } catch (problem) {
      this.problem.set(problem as ShownProblem);
    }
  }

  /** After the last portion of a weighing: what being off does, and what could be rescaled. */
  private lookAtTarget(lotId: string, entry: ReadRunEntry): void {
    const lot = this.lotOf(lotId);
    if (entry.kind !== 'weigh' || entry.detail?.more) return;
    const { weighing } = entry;
    const step = lot?.plan.steps[entry.stepIndex];
    if (!lot || !step || !weighing) return;
    const planned = step.weighings.find((w) => w.batch === weighing.batch && w.materialId === weighing.materialId);
    const records = foldRun(lot.entries, lot.plan.steps.length);
    const own =
      records[step.index]?.weighings.filter(
        (w) => w.batch === weighing.batch && w.materialId === weighing.materialId,
      ) ?? [];
    if (!planned || own.length < planned.picks.filter((p) => p.amount > 0).length) return;
    const off = offTarget(
      lot.plan,
      records,
      lot.entries,
      step,
      planned,
      own.reduce((sum, w) => sum + w.amount, 0),
    );
    this.off.set(off ? { lotId, stepIndex: step.index, off } : undefined);
  }

  private layOver(lot: LotDetail, drafts: readonly { entry: ReadRunEntry; at: string }[]): LotDetail {
    const known = new Set(lot.entries.map((e) => e.id));
    const extra = drafts
      .filter((t) => !known.has(t.entry.id))
      .flatMap(({ entry, at }) => {
        const step = lot.plan.steps[entry.stepIndex];
        const check = step && checkEntry(step, entry);
        return check?.ok ? [this.asRecorded(check.entry, at)] : [];
      });
    if (extra.length === 0) return lot;
    const entries = [...lot.entries, ...extra];
    const records = foldRun(entries, lot.plan.steps.length);
    const deviations = findRunDeviations(
      lot.plan,
      entries,
      (stockLot) => lot.stockLots.find((j) => j.id === stockLot)?.tag ?? $localize`another jar`,
      records,
    );
    const hasDeviation = new Set(deviations.map((d) => d.stepIndex));
    const stations = lot.summary.stations.map((s, i) => {
      const record = records[i];
      return record ? { ...s, state: stepState(record), hasDeviation: hasDeviation.has(i) } : s;
    });
    const over = stations.every((s) => s.state === 'done' || s.state === 'skipped');
    const { state } = lot.summary;
    const cancelled = entries.some((e) => e.kind === 'cancel');
    const next = cancelled
      ? ('cancelled' as const)
      : state !== 'planned' && state !== 'inWork' && state !== 'toJudge'
        ? state
        : over
          ? ('toJudge' as const)
          : ('inWork' as const);
    return { ...lot, entries, deviations, summary: { ...lot.summary, stations, state: next } };
  }

  private asRecorded(entry: CheckedEntry, at: string): RunEntryView {
    return { ...entry, at, recordedAt: at, by: this.session.person() ?? { id: '', name: '' }, photos: [] };
  }

  private nowMs(): number {
    const rehearsal = this.rehearsal();
    return rehearsal ? rehearsal.nowMs + (performance.now() - rehearsal.atMs) * rehearsal.speed : this.clock.now();
  }

  private tick(): void {
    this.now.set(this.nowMs());
  }
}
