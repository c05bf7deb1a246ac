import { Injectable, computed, inject, linkedSignal, signal, untracked } from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, RunDetails, ShadeOf } from '@vestigia/core';
import {
  adviseLift,
  entriesOfKind,
  foldRun,
  legNow,
  lookAgain,
  minutesInWork,
  phLock,
  potsInUse,
  potTaken,
  stepState,
} from '@vestigia/core';
import type { ShownProblem } from '../../api/api-client';
import { Instruments } from '../../api/instruments';
import { newId } from '../../api/new-id';
import { Outbox } from '../../api/outbox';
import { BenchState } from './bench-state';
import type { EntryContent, EntryRequest } from './entry-content';
import { watchStep } from './heat-watch';
import { currentBath, leavesBath } from './leftover';
import { ProbeReadings } from './probe-readings';
import { samplesOf } from './samples-of';
import { PictureSizer } from '../../services/picture-sizer';

/** What may lie open under the one thing to do. */
export type Panel = 'note' | 'otherwise' | 'temperature' | 'ph' | 'sample' | 'bath' | 'more';

/** A bath counts as followed from this many readings on. */
const MIN_FOLLOWED = 10;
/** Kinds whose panel stays open: one is seldom alone. */
const PANEL_STAYS: readonly EntryContent['kind'][] = ['ph', 'sample', 'bath'];

/** A photograph, and of what of the lot it is; `undefined`: of the step as a whole. */
export interface PhotoOf {
  readonly file: File;
  readonly of: ShadeOf | undefined;
}

/** Names an act among all on the bench. */
export const actKey = (act: Pick<BenchAct, 'lotId' | 'step'>): string => `${act.lotId} ${act.step.index}`;

/** The one thing the bench page shows: which act, of which lot, what its probe and samples say, and what is done to it. */
@Injectable()
export class BenchFocus {
  private readonly state = inject(BenchState);
  private readonly outbox = inject(Outbox);
  private readonly sizer = inject(PictureSizer);
  private readonly instruments = inject(Instruments);
  private readonly probe = inject(ProbeReadings);

  /** One lot only; all in work where absent. */
  readonly onlyLotId = signal<string | undefined>(undefined);
  readonly rehearsalId = signal<string | undefined>(undefined);

  private readonly acts = computed(() => {
    const id = this.onlyLotId();
    return id ? this.state.acts().filter((a) => a.lotId === id) : this.state.acts();
  });
  /** Chosen by hand, until it is done. */
  readonly chosen = signal<string | undefined>(undefined);
  /** The act a panel was opened under: the page stays with it while somebody writes there, whatever comes due elsewhere. */
  private readonly opened = signal<string | undefined>(undefined);
  readonly act = computed(() => {
    const named = (key: string | undefined) => this.acts().find((a) => actKey(a) === key);
    return named(this.opened()) ?? named(this.chosen()) ?? this.acts()[0];
  });
  readonly others = computed(() => this.acts().filter((a) => a !== this.act()));
  readonly weighing = computed(() => {
    const a = this.act();
    return a?.kind === 'weigh' ? a : undefined;
  });
  readonly lot = computed((): LotDetail | undefined => {
    const a = this.act();
    if (a) return this.state.lotOf(a.lotId);
    return this.state.lotOf(this.onlyLotId() ?? '') ?? (this.rehearsalId() ? this.state.lots()[0] : undefined);
  });
  readonly which = computed(() => {
    const a = this.act();
    return a ? actKey(a) : '';
  });
  readonly rehearsing = computed(() => (this.rehearsalId() ? this.state.speed() : undefined));

  /** What lies open; where the recipe asks for a pH, that is what the step is for. */
  readonly panel = linkedSignal<string, Panel | undefined>({
    source: this.which,
    computation: () => {
      const a = untracked(this.act);
      return a?.kind === 'finish' && a.step.targetPh && (a.record.phs ?? []).length === 0 ? 'ph' : undefined;
    },
  });
  readonly refused = linkedSignal<string, ShownProblem | undefined>({
    source: this.which,
    computation: () => undefined,
  });
  /** Where the step is really begun, when that isn't as planned. */
  readonly begunIn = linkedSignal<string, RunDetails['start'] | null>({ source: this.which, computation: () => null });

  readonly running = computed(() => {
    const a = this.act();
    return a?.record.startedAt === undefined
      ? undefined
      : { lotId: a.lotId, stepIndex: a.step.index, startedAt: a.record.startedAt, typed: a.record.temperatures ?? [] };
  });
  private readonly readings = computed(() => {
    const running = this.running();
    return running ? this.probe.of(running) : { all: [], drawn: [] };
  });
  readonly drawn = computed(() => this.readings().drawn);
  readonly watch = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    return a && lot && a.record.startedAt !== undefined && stepState(a.record) === 'running'
      ? watchStep(lot, a.step, this.readings().all, this.state.around()?.room.roomC ?? 18)
      : undefined;
  });
  readonly nowC = computed(() => {
    const last = this.readings().all.at(-1);
    return last === undefined ? undefined : Math.round(last.temperatureC * 10) / 10;
  });
  readonly elapsedMin = computed(() => {
    const a = this.act();
    return a ? minutesInWork(a.record, this.state.now()) : 0;
  });
  private readonly wholeMinute = computed(() => Math.floor(this.elapsedMin()));
  /**
   * Time left by the clock, and by the hold where a bath's temperature is followed: what a pot sagged is not counted
   * as done.
   */
  readonly leftMs = computed(() => {
    const a = this.act();
    if (a?.kind !== 'finish') return 0;
    const byClock = a.endsMs - this.state.now();
    const hold = this.readings().all.length >= MIN_FOLLOWED ? this.watch()?.hold : undefined;
    return hold ? Math.max(byClock, (hold.wantedMin - hold.heldMin) * 60_000) : byClock;
  });

  /** Who took the lot over last. */
  readonly handedTo = computed(() => entriesOfKind(this.lot()?.entries ?? [], 'hand').at(-1)?.detail.toPerson.name);
  /** When the samples say that the shade wanted is there: the most advanced of the batches speaks. */
  readonly lift = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    return a && lot && (a.kind === 'finish' || a.kind === 'pull') ? liftAdvice(a, lot, this.wholeMinute()) : undefined;
  });
  /** When somebody pressed that they looked, without writing anything down. */
  private readonly seenMs = linkedSignal<string, number>({ source: this.which, computation: () => 0 });
  readonly look = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    return a && lot
      ? lookAgain(a.step, a.record, lot.entries, { nowMs: this.state.now(), seenMs: this.seenMs() })
      : undefined;
  });
  /** The leg of its course that a running step is in: in sight whatever the hands do. */
  readonly leg = computed(() => {
    const a = this.act();
    return a?.record.startedAt === undefined ? undefined : legNow(a.step, this.elapsedMin());
  });
  /** Why protein fibre may not go in yet, and where its bath's pH is taken. */
  readonly lock = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    if (a?.kind !== 'begin' || !lot) return undefined;
    return phLock(lot.plan, foldRun(lot.entries, lot.plan.steps.length), a.step);
  });
  /** The pot that still holds another liquor, of those the step would be begun in. */
  readonly potTaken = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    if (a?.kind !== 'begin' || !lot) return undefined;
    const own = potsInUse(lot.plan, foldRun(lot.entries, lot.plan.steps.length), lot.summary.tag);
    const elsewhere = this.rehearsalId() ? [] : this.state.potsElsewhere(lot.summary.id);
    return potTaken(a.step, this.begunIn()?.vessels, { own, elsewhere });
  });
  /** The step a pH belongs to: the one that asks for it, where the next waits for it. */
  readonly phAct = computed((): BenchAct | undefined => {
    const [a, locked, lot] = [this.act(), this.lock(), this.lot()];
    const step = locked && lot?.plan.steps[locked.stepIndex];
    return a && step ? { ...a, step, record: this.state.recordOf(a.lotId, step.index) ?? a.record } : a;
  });

  /** The step finished last, whose baths are offered to Stores until the next begins. */
  readonly finished = signal<{ readonly lotId: string; readonly stepIndex: number } | undefined>(undefined);
  readonly leftover = computed(() => {
    const finished = this.rehearsalId() ? undefined : this.finished();
    const lot = finished && this.state.lotOf(finished.lotId);
    if (!lot) return undefined;
    const step = lot.plan.steps[finished.stepIndex];
    const record = this.state.recordOf(finished.lotId, finished.stepIndex);
    if (!step || !record || !leavesBath(lot, step)) return undefined;
    return step.baths.map((b) => currentBath(lot, step, record, b.batches[0] ?? 1));
  });

  readonly mayHang = computed(
    () => !this.rehearsalId() && this.act()?.step.usesBath === true && this.instruments.sourceOf('probe') !== 'hand',
  );
  readonly hangs = computed(() => this.instruments.hanging()?.lotId === this.act()?.lotId);

  looked(): void {
    this.seenMs.set(this.state.now());
  }

  togglePanel(panel: Panel): void {
    if (this.panel() === panel) {
      this.closePanel();
      return;
    }
    this.opened.set(this.which());
    this.panel.set(panel);
  }

  closePanel(): void {
    this.opened.set(undefined);
    this.panel.set(undefined);
  }

  /** Enters something for the step in focus. */
  record(content: EntryContent): Promise<boolean> {
    const a = this.act();
    return a ? this.recordAt({ stepIndex: a.step.index, content }) : Promise.resolve(false);
  }

  /** Enters a pH where it belongs. */
  recordPh(content: EntryContent): void {
    const a = this.phAct();
    if (a) void this.recordAt({ stepIndex: a.step.index, content });
  }

  /** Enters something for a step of the lot in focus; what can't be entered is answered under the one thing to do. */
  async recordAt({ stepIndex, content }: EntryRequest): Promise<boolean> {
    const a = this.act();
    if (!a) return false;
    const from = this.panel();
    const message = await this.state.record(a.lotId, stepIndex, content);
    this.refused.set(message === undefined ? undefined : { detail: message });
    if (message !== undefined) return false;
    // A panel opened meanwhile is another's: what is being written there stays.
    if (!PANEL_STAYS.includes(content.kind) && this.panel() === from) this.closePanel();
    this.moveOn(a.lotId, stepIndex, content.kind);
    return true;
  }

  private moveOn(lotId: string, stepIndex: number, kind: EntryContent['kind']): void {
    if (kind === 'start') {
      this.chosen.set(`${lotId} ${stepIndex}`);
      this.finished.set(undefined);
      // The house's probe goes on into the next bath by itself; one on this tablet's port is told.
      if (this.instruments.sourceOf('probe') === 'serial' && this.instruments.hanging()?.lotId === lotId)
        this.probe.hang({ lotId, stepIndex });
    }
    if (kind === 'finish' || kind === 'skip' || kind === 'resume') this.chosen.set(undefined);
    if (kind === 'finish') this.finished.set({ lotId, stepIndex });
  }

  /** Rescales later doses to the weighing that came out otherwise. */
  async rescale(rescale: RunDetails['rescale']['rescale'], text: string): Promise<void> {
    const off = this.state.off();
    if (!off) return;
    const refused = await this.state.record(off.lotId, off.stepIndex, { kind: 'rescale', text, detail: { rescale } });
    if (refused === undefined) this.state.off.set(undefined);
    else this.refused.set({ detail: refused });
  }

  async photograph({ file, of }: PhotoOf): Promise<void> {
    const a = this.act();
    if (!a) return;
    const id = newId();
    if (await this.record({ kind: 'note', id, text: 'photograph', detail: of ? { of } : null }))
      await this.outbox.addPhoto(a.lotId, id, await this.sizer.toSend(file));
  }

  /** Hangs the probe into the bath of the step in focus, or takes it out. */
  toggleProbe(): void {
    const a = this.act();
    if (!a) return;
    const lotId = this.hangs() ? null : a.lotId;
    this.probe.hang(lotId === null ? undefined : { lotId, stepIndex: a.step.index });
    if (this.instruments.sourceOf('probe') === 'simulated')
      this.instruments
        .order({ kind: 'probe', do: 'hang', lotId, stepIndex: a.step.index })
        .subscribe({ error: (problem: ShownProblem) => this.refused.set(problem) });
  }
}

function liftAdvice(act: BenchAct, lot: LotDetail, minute: number): { now: boolean; message: string } | undefined {
  const all = (['piece', 'liquor'] as const).flatMap((of) =>
    lot.plan.batches.map(({ number }) => ({ number, advice: adviseLift(samplesOf(act.record, of, number), minute) })),
  );
  const told = all.find((x) => x.advice.state === 'liftNow') ?? all.find((x) => x.advice.state !== 'tooFew');
  if (!told) return undefined;
  const batch = lot.plan.batches.length > 1 ? $localize`Batch ${told.number}:number:: ` : '';
  return { now: told.advice.state === 'liftNow', message: `${batch}${told.advice.message}` };
}
