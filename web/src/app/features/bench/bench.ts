import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct, RunDetail, RunEntryKind } from '@vestigia/core';
import { adviseLift, foldRun, minutesInWork, phLock, stepState } from '@vestigia/core';
import { of } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { Instruments } from '../../api/instruments';
import { liveQuery } from '../../api/live-query';
import { Outbox } from '../../api/outbox';
import { ContextPanel } from '../../services/context-panel';
import { isTyping } from '../../services/is-typing';
import { Alarms } from '../../services/alarms';
import { newId } from '../../api/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { ActRun } from './act-run';
import { ActWeigh } from './act-weigh';
import { BathPanel } from './bath-panel';
import type { RunEntryFields } from './bench-state';
import { BenchState } from './bench-state';
import { clockLabel } from './clock-label';
import { SimulatorControls } from './simulator-controls';
import { HeatWatch, watchStep } from './heat-watch';
import { PhPanel } from './ph-panel';
import { ProbeReadings } from './probe-readings';
import { leavesBath, currentBath } from './leftover';
import { MoreActionsPanel } from './more-actions-panel';
import { SamplePanel } from './sample-panel';
import { samplesOf } from './samples-of';
import type { Panel, RunEntryRequest } from './step-facts-panel';
import { StepFactsPanel } from './step-facts-panel';
import { StartConditions } from './start-conditions';
import { RunEntryLog } from './run-entry-log';

const READ_REHEARSAL_MS = 4000;
/** A bath counts as followed from this many readings on. */
const MIN_FOLLOWED = 10;
const keyOf = (act: BenchAct): string => `${act.lotId} ${act.step.index}`;

/**
 * The dye day, one thing at a time over all lots in work, to be read at two metres. Space or Enter does the one
 * thing.
 */
@Component({
  selector: 'vs-bench',
  imports: [
    RouterLink,
    RefusalNote,
    Thread,
    ActRun,
    ActWeigh,
    BathPanel,
    SimulatorControls,
    HeatWatch,
    MoreActionsPanel,
    PhPanel,
    SamplePanel,
    StepFactsPanel,
    StartConditions,
    RunEntryLog,
  ],
  providers: [BenchState, Instruments, ProbeReadings],
  templateUrl: './bench.html',
  styleUrl: './bench.scss',
  host: { '(document:keydown)': 'onKey($event)', '[class.rehearsal]': 'rehearsing() !== undefined' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  private readonly api = inject(ApiClient);
  private readonly host = inject(ElementRef);
  private readonly injector = inject(Injector);
  private readonly contextPanel = inject(ContextPanel);
  private readonly outbox = inject(Outbox);
  private readonly alarms = inject(Alarms);
  private readonly instruments = inject(Instruments);
  private readonly probe = inject(ProbeReadings);
  protected readonly state = inject(BenchState);
  /** One lot only; all in work where absent. */
  readonly id = input<string>();
  readonly rehearsal = input<string>();
  private readonly main = viewChild<ElementRef<HTMLButtonElement>>('main');
  private readonly weigher = viewChild(ActWeigh);
  private readonly read = liveQuery(
    ['lots', 'stores', 'studio'],
    () =>
      this.rehearsal()
        ? of(undefined)
        : this.api.get('/api/bench', { query: this.id() ? { lot: this.id() ?? '' } : {} }),
    () => `${this.id() ?? ''} ${this.rehearsal() ?? ''}`,
  );
  protected readonly problem = computed(() =>
    this.state.around() ? undefined : (this.read.problem() ?? this.state.problem()),
  );
  protected readonly panel = signal<Panel | undefined>(undefined);
  protected readonly refused = signal<ShownProblem | undefined>(undefined);
  protected readonly off = this.state.off;

  private readonly acts = computed(() => {
    const id = this.id();
    return id ? this.state.acts().filter((a) => a.lotId === id) : this.state.acts();
  });
  /** Chosen by hand, until it is done. */
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly act = computed(() => this.acts().find((a) => keyOf(a) === this.chosen()) ?? this.acts()[0]);
  protected readonly weighing = computed(() => {
    const a = this.act();
    return a?.kind === 'weigh' ? a : undefined;
  });
  protected readonly others = computed(() => this.acts().filter((a) => a !== this.act()));
  protected readonly lot = computed((): LotDetail | undefined => {
    const a = this.act();
    return a
      ? this.state.lotOf(a.lotId)
      : (this.state.lotOf(this.id() ?? '') ?? (this.rehearsal() ? this.state.lots()[0] : undefined));
  });
  protected readonly lotsInWork = computed(() => this.state.lots().length);
  protected readonly waiting = computed(() => this.state.around()?.waiting ?? []);
  protected readonly rehearsing = computed(() => (this.rehearsal() ? this.state.speed() : undefined));
  private readonly which = computed(() => {
    const a = this.act();
    return a ? keyOf(a) : '';
  });
  private readonly running = computed(() => {
    const a = this.act();
    return a?.record.startedAt === undefined
      ? undefined
      : { lotId: a.lotId, stepIndex: a.step.index, startedAt: a.record.startedAt, typed: a.record.temperatures ?? [] };
  });
  private readonly readings = computed(() => {
    const running = this.running();
    return running ? this.probe.of(running) : { all: [], drawn: [] };
  });
  protected readonly drawn = computed(() => this.readings().drawn);
  protected readonly watch = computed(() => {
    const a = this.act();
    const lot = this.lot();
    return a && lot && a.record.startedAt !== undefined && stepState(a.record) === 'running'
      ? watchStep(lot, a.step, this.readings().all, this.state.around()?.room.roomC ?? 18)
      : undefined;
  });
  protected readonly nowC = computed(() => {
    const last = this.readings().all.at(-1);
    return last === undefined ? undefined : Math.round(last.temperatureC * 10) / 10;
  });
  protected readonly elapsed = computed(() => {
    const a = this.act();
    return a ? minutesInWork(a.record, this.state.now()) : 0;
  });
  /** The step finished last, whose baths are offered to Stores until the next begins. */
  protected readonly finished = signal<{ readonly lotId: string; readonly stepIndex: number } | undefined>(undefined);
  protected readonly leftover = computed(() => {
    const finished = this.finished();
    const lot = finished && !this.rehearsal() ? this.state.lotOf(finished.lotId) : undefined;
    const [step, record] =
      finished && lot
        ? [lot.plan.steps[finished.stepIndex], this.state.recordOf(finished.lotId, finished.stepIndex)]
        : [];
    return lot && step && record && leavesBath(lot, step)
      ? step.baths.map((b) => currentBath(lot, step, record, b.batches[0] ?? 1))
      : undefined;
  });
  private readonly minute = computed(() => Math.floor(this.elapsed()));
  /** Who took the lot over last. */
  protected readonly handedTo = computed(
    () =>
      this.lot()
        ?.entries.filter((e) => e.kind === 'hand')
        .at(-1)?.detail?.toPerson?.name,
  );
  /** Where the step is really begun, when that isn't as planned. */
  protected readonly begunIn = linkedSignal<string, RunDetail | null>({
    source: () => this.which(),
    computation: () => null,
  });
  /** When the samples say that the shade wanted is there: the most advanced of the batches speaks. */
  protected readonly lift = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    if (!a || !lot || (a.kind !== 'finish' && a.kind !== 'pull')) return undefined;
    const minute = this.minute();
    const all = (['piece', 'liquor'] as const).flatMap((of) =>
      lot.plan.batches.map(({ number }) => ({
        of,
        number,
        advice: adviseLift(samplesOf(a.record, of, number), minute),
      })),
    );
    const told = all.find((x) => x.advice.state === 'liftNow') ?? all.find((x) => x.advice.state !== 'tooFew');
    return told
      ? {
          now: told.advice.state === 'liftNow',
          message: `${lot.plan.batches.length > 1 ? `Batch ${told.number}: ` : ''}${told.advice.message}`,
        }
      : undefined;
  });
  /** Why protein fibre may not go in yet, and where its bath's pH is taken. */
  protected readonly lock = computed(() => {
    const [a, lot] = [this.act(), this.lot()];
    return a?.kind === 'begin' && lot
      ? phLock(lot.plan, foldRun(lot.entries, lot.plan.steps.length), a.step)
      : undefined;
  });
  /** The step a pH belongs to: the one that asks for it, where the next waits for it. */
  protected readonly phAct = computed((): BenchAct | undefined => {
    const [a, locked, lot] = [this.act(), this.lock(), this.lot()];
    const step = locked && lot?.plan.steps[locked.stepIndex];
    return a && step ? { ...a, step, record: this.state.recordOf(a.lotId, step.index) ?? a.record } : a;
  });
  /**
   * Time left by the clock, and by the hold where a bath's temperature is followed: what a pot sagged is not counted
   * as done.
   */
  protected readonly leftMs = computed(() => {
    const a = this.act();
    if (a?.kind !== 'finish') return 0;
    const byClock = a.endsMs - this.state.now();
    const hold = this.readings().all.length >= MIN_FOLLOWED ? this.watch()?.hold : undefined;
    return hold ? Math.max(byClock, (hold.wantedMin - hold.heldMin) * 60_000) : byClock;
  });
  protected readonly mayHang = computed(
    () => !this.rehearsal() && this.act()?.step.usesBath === true && this.instruments.sourceOf('probe') !== 'hand',
  );
  protected readonly hangs = computed(() => this.instruments.hanging()?.lotId === this.act()?.lotId);

  constructor() {
    effect(() => {
      const bench = this.read.value();
      if (bench) this.state.take(bench);
    });
    effect((onCleanup) => {
      const id = this.rehearsal();
      this.instruments.start(id ?? null);
      if (!id) return;
      void this.state.readRehearsal(id);
      const timer = setInterval(() => void this.state.readRehearsal(id), READ_REHEARSAL_MS);
      onCleanup(() => clearInterval(timer));
    });
    effect(() => {
      this.which();
      // Where the recipe asks for a pH, that is what the step is for.
      const a = untracked(this.act);
      this.panel.set(a?.kind === 'finish' && a.step.targetPh && (a.record.phs ?? []).length === 0 ? 'ph' : undefined);
      this.refused.set(undefined);
    });
    effect(() => {
      const a = this.act();
      this.contextPanel.notes.set(
        a && a.step.cautions.length > 0 ? [{ title: 'Take care', lines: a.step.cautions }] : [],
      );
      const weighing = this.weighing();
      if (weighing)
        untracked(() => this.contextPanel.showWorking(weighing.weighing.materialName, weighing.weighing.target));
      else this.contextPanel.working.set(undefined);
    });
    effect(() =>
      this.alarms.set(
        'bench',
        (this.watch()?.alarms ?? [])
          .filter((a) => a.urgent)
          .map((a) => ({
            key: `${this.which()} ${a.code}`,
            message: a.message,
            path: location.pathname,
            rehearsal: this.rehearsal() !== undefined,
          })),
      ),
    );
    effect(() => {
      const running = this.running();
      if (running && !this.rehearsal()) this.probe.fetch(running.lotId, running.stepIndex);
    });
    inject(DestroyRef).onDestroy(() => {
      this.alarms.set('bench', []);
      this.instruments.stop();
      this.state.stop();
      this.probe.stop();
    });
  }

  protected onKey(event: KeyboardEvent): void {
    const onControl = event.target instanceof HTMLElement && event.target.closest('button, a, summary') !== null;
    if (
      (event.key !== ' ' && event.key !== 'Enter') ||
      isTyping(event.target) ||
      onControl ||
      event.repeat ||
      event.defaultPrevented
    )
      return;
    event.preventDefault();
    (this.main() ?? this.weigher()?.main())?.nativeElement.click();
  }

  protected open(panel: Panel): void {
    this.panel.update((p) => (p === panel ? undefined : panel));
    afterNextRender(
      () => (this.host.nativeElement as HTMLElement).querySelector('.aside')?.scrollIntoView({ block: 'nearest' }),
      { injector: this.injector },
    );
  }

  protected say(kind: RunEntryKind, fields: RunEntryFields = {}): void {
    const a = this.act();
    if (!a) return;
    // An early start by the plan's own order is said so, with what it means, by the panel that offers it.
    this.sayOf({ kind, stepIndex: a.step.index, fields });
  }

  protected sayPh(fields: RunEntryFields): void {
    const a = this.phAct();
    if (a) this.sayOf({ kind: 'ph', stepIndex: a.step.index, fields });
  }

  protected sayOf({ kind, stepIndex, fields }: RunEntryRequest): void {
    const a = this.act();
    if (!a) return;
    void this.state.record(a.lotId, stepIndex, kind, fields).then((message) => {
      this.refused.set(message === undefined ? undefined : { detail: message });
      if (message !== undefined) return;
      if (!['ph', 'sample', 'bath'].includes(kind)) this.panel.set(undefined);
      if (kind === 'start') {
        this.chosen.set(`${a.lotId} ${stepIndex}`);
        // The house's probe goes on into the next bath by itself; one on this tablet's port is told.
        if (this.instruments.sourceOf('probe') === 'serial' && this.instruments.hanging()?.lotId === a.lotId)
          this.probe.hang({ lotId: a.lotId, stepIndex });
      }
      if (['finish', 'skip', 'resume'].includes(kind)) this.chosen.set(undefined);
      if (kind === 'finish' || kind === 'start')
        this.finished.set(kind === 'finish' ? { lotId: a.lotId, stepIndex } : undefined);
    });
  }

  protected rescale(
    rescale: readonly { stepIndex: number; batch: number; materialId: string; factor: number }[],
    message: string,
  ): void {
    const off = this.state.off();
    if (!off) return;
    void this.state
      .record(off.lotId, off.stepIndex, 'rescale', { text: message, detail: { rescale } })
      .then((refused) => {
        if (refused === undefined) this.state.off.set(undefined);
        else this.refused.set({ detail: refused });
      });
  }

  protected photograph(file: File): void {
    const a = this.act();
    if (!a) return;
    const id = newId();
    void this.state.record(a.lotId, a.step.index, 'note', { id, text: 'photograph' }).then((message) => {
      this.refused.set(message === undefined ? undefined : { detail: message });
      if (message === undefined) void this.outbox.addPhoto(a.lotId, id, file);
      this.panel.set(undefined);
    });
  }

  protected putAway(label: string): void {
    this.api.post('/api/bench/cautions', { id: newId(), label }).subscribe({
      next: () => (this.rehearsal() ? void this.state.readRehearsal(this.rehearsal() ?? '') : this.read.reload()),
      error: (problem: ShownProblem) => this.refused.set(problem),
    });
  }

  protected hang(): void {
    const a = this.act();
    if (!a) return;
    const lotId = this.hangs() ? null : a.lotId;
    this.probe.hang(lotId === null ? undefined : { lotId, stepIndex: a.step.index });
    if (this.instruments.sourceOf('probe') === 'simulated')
      this.instruments
        .order({ kind: 'probe', do: 'hang', lotId, stepIndex: a.step.index })
        .subscribe({ error: (problem: ShownProblem) => this.refused.set(problem) });
  }

  protected stateLabel(a: BenchAct): string {
    switch (a.kind) {
      case 'begin':
        return 'can begin';
      case 'weigh':
        return `weigh out ${a.weighing.materialName}`;
      case 'resume':
        return 'paused';
      case 'pull':
        return a.dueMs <= this.state.now()
          ? `pull piece ${a.piece} now`
          : `piece ${a.piece} in ${clockLabel(a.dueMs - this.state.now())}`;
      case 'finish':
        return a.step.attended
          ? 'in hand'
          : a.endsMs <= this.state.now()
            ? 'time is up'
            : `${clockLabel(a.endsMs - this.state.now())} left`;
    }
  }

  protected tagOf(a: BenchAct): string {
    return this.state.lotOf(a.lotId)?.summary.tag ?? '';
  }

  protected readonly key = keyOf;
}
