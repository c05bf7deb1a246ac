import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { sayStepCaution } from '@vestigia/core';
import { of } from 'rxjs';
import type { ShownProblem } from '../../api/api-client';
import { ApiClient } from '../../api/api-client';
import { Session } from '../../api/session';
import { Instruments } from '../../api/instruments';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { Alarms } from '../../services/alarms';
import { ContextPanel } from '../../services/context-panel';
import { SingleKeys } from '../../services/single-keys';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { ActNow } from './act-now';
import { ActPanels } from './act-panels';
import { AlsoAtBench } from './also-at-bench';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';
import { DoneJustNow } from './done-just-now';
import { LeftoverOffer } from './leftover-offer';
import { NoAct } from './no-act';
import { OffTargetOffer } from './off-target-offer';
import { ProbeReadings } from './probe-readings';
import { RunEntryLog } from './run-entry-log';
import { SimulatorControls } from './simulator-controls';
import { Count } from '../../ui/count';
import { May } from '../../ui/may';
import { namesPage } from '../../services/page-title';

const READ_REHEARSAL_MS = 4000;

/**
 * The dye day, one thing at a time over all lots in work, to be read at two metres. Space or Enter does the one
 * thing.
 */
@Component({
  selector: 'vs-bench',
  imports: [
    Count,
    ActNow,
    ActPanels,
    AlsoAtBench,
    DoneJustNow,
    LeftoverOffer,
    May,
    NoAct,
    OffTargetOffer,
    RefusalNote,
    RouterLink,
    RunEntryLog,
    SimulatorControls,
    Thread,
  ],
  providers: [BenchState, BenchFocus, Instruments, ProbeReadings],
  templateUrl: './bench.html',
  styleUrl: './bench.scss',
  host: { '(document:keydown)': 'onKey($event)', '[class.rehearsal]': 'focus.rehearsing() !== undefined' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  /** What its template says by what holds. */
  protected readonly says = {
    nothingHere: $localize`Nothing is at the bench`,
  };

  private readonly api = inject(ApiClient);
  private readonly contextPanel = inject(ContextPanel);
  private readonly alarms = inject(Alarms);
  private readonly instruments = inject(Instruments);
  private readonly probe = inject(ProbeReadings);
  protected readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  private readonly session = inject(Session);
  private readonly keys = inject(SingleKeys);
  protected readonly mayRecord = computed(() => this.session.may('helper'));
  /** One lot only; all in work where absent. */
  readonly id = input<string>();
  readonly rehearsal = input<string>();
  private readonly now = viewChild(ActNow);
  protected readonly panels = viewChild(ActPanels);
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

  constructor() {
    namesPage(() => {
      const act = this.focus.act();
      return act && $localize`Bench · ${act.step.title}`;
    });
    effect(() => {
      this.focus.onlyLotId.set(this.id());
      this.focus.rehearsalId.set(this.rehearsal());
    });
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
    effect(() => this.tellContext());
    effect(() => this.alarms.set('bench', this.urgent()));
    effect(() => {
      const running = this.focus.running();
      if (running && !this.rehearsal()) this.probe.fetch(running.lotId, running.stepIndex);
    });
    inject(DestroyRef).onDestroy(() => {
      this.alarms.set('bench', []);
      this.instruments.stop();
      this.state.stop();
      this.probe.stop();
    });
  }

  /** Cautions and the working of what is weighed stand beside the sheet. */
  private tellContext(): void {
    const lines = (this.focus.act()?.step.cautions ?? []).map(sayStepCaution);
    this.contextPanel.notes.set(lines.length > 0 ? [{ title: $localize`Take care`, lines }] : []);
    const weighing = this.focus.weighing()?.weighing;
    if (weighing) untracked(() => this.contextPanel.showWorking(weighing.materialName, weighing.target));
    else this.contextPanel.working.set(undefined);
  }

  private readonly urgent = computed(() =>
    (this.focus.watch()?.alarms ?? [])
      .filter((a) => a.urgent)
      .map((a) => ({
        key: `${this.focus.which()} ${a.code}`,
        message: a.message,
        path: location.pathname,
        rehearsal: this.rehearsal() !== undefined,
      })),
  );

  protected onKey(event: KeyboardEvent): void {
    const onControl = event.target instanceof HTMLElement && event.target.closest('button, a, summary') !== null;
    if ((event.key !== ' ' && event.key !== 'Enter') || onControl || event.repeat || !this.keys.isPages(event)) return;
    event.preventDefault();
    this.now()?.press();
  }

  protected putAway(caution: string): void {
    this.api.post('/api/bench/cautions', { id: newId(), caution }).subscribe({
      next: () => (this.rehearsal() ? void this.state.readRehearsal(this.rehearsal() ?? '') : this.read.reload()),
      error: (problem: ShownProblem) => this.focus.refused.set(problem),
    });
  }
}
