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
import { live } from '../../api/live';
import { Outbox } from '../../api/outbox';
import { Margin } from '../../shell/margin';
import { isTyping } from '../../shell/places';
import { Alarms } from '../../ui/alarms';
import { newId } from '../../ui/new-id';
import { RefusalNote } from '../../ui/refusal';
import { Thread } from '../../ui/thread';
import { ActRun } from './act-run';
import { ActWeigh } from './act-weigh';
import { BathPanel } from './bath-panel';
import type { Said } from './bench-state';
import { BenchState } from './bench-state';
import { clockWords } from './clock-words';
import { Hands } from './hands';
import { HeatWatch, watchStep } from './heat-watch';
import { PhPanel } from './ph-panel';
import { ProbeReadings } from './probe-readings';
import { leavesBath, standingBath } from './leftover';
import { MorePanel } from './more-panel';
import { SamplePanel } from './sample-panel';
import { samplesOf } from './samples-of';
import type { Panel, SaidOf } from './said-panel';
import { SaidPanel } from './said-panel';
import { WhereBegun } from './where-begun';
import { WrittenDown } from './written-down';

const READ_REHEARSAL_MS = 4000;
/** A bath counts as followed from this many readings on. */
const LEAST_FOLLOWED = 10;
const keyOf = (act: BenchAct): string => `${act.lotId} ${act.step.index}`;

/** The dye day, one thing at a time over all lots in work, to be read at two metres. Space or Enter does the one thing. */
@Component({
  selector: 'vs-bench',
  imports: [
    RouterLink,
    RefusalNote,
    Thread,
    ActRun,
    ActWeigh,
    BathPanel,
    Hands,
    HeatWatch,
    MorePanel,
    PhPanel,
    SamplePanel,
    SaidPanel,
    WhereBegun,
    WrittenDown,
  ],
  providers: [BenchState, Instruments, ProbeReadings],
  template: ` <vs-refusal [problem]="problem()" />
    @if (rehearsing(); as speed) {
      <p class="rehearsing" role="status">
        <strong>Rehearsal</strong> at {{ speed }}×: nothing here is recorded and no stock moves.
        <a [routerLink]="['/lots', lot()?.summary?.id]">End it</a>
      </p>
    }
    @if (state.around()) {
      @if (lot(); as l) {
        <p class="where">
          <a [routerLink]="['/lots', l.summary.id]"
            ><strong>{{ l.summary.tag }}</strong></a
          >
          {{ l.summary.colourway.name }} · {{ l.summary.pieces }} pieces
          @if (handedTo(); as name) {
            · <strong>with {{ name }}</strong>
          }
          @if (others().length > 0 && !id()) {
            <span class="soft">· {{ lotsInWork() }} lots in work</span>
          }
        </p>
        <vs-thread
          [stations]="l.summary.stations"
          [undyed]="l.summary.undyed"
          [master]="l.summary.master"
          [result]="l.summary.result"
          [batches]="l.plan.batches.length"
        />
      }
      <section class="one" aria-live="polite">
        @if (off(); as o) {
          <div class="offered" role="alert">
            <p class="say">
              <strong>{{ o.off.effect }}</strong>
            </p>
            @for (offer of o.off.offers; track offer.key) {
              <p>
                <button class="act" type="button" (click)="rescale(offer.rescale, offer.sentence)">
                  {{ offer.sentence }}
                </button>
              </p>
            }
            <button class="plain" type="button" (click)="state.off.set(undefined)">Leave the rest as planned</button>
          </div>
        }
        @if (leftover(); as left) {
          <div class="offered" role="status">
            @for (b of left; track b.toStores['pot']) {
              <p class="say">
                <strong>{{ b.bath?.vesselName }}</strong
                >: about {{ b.toStores['litres'] }} l left
                @if (b.strength; as f) {
                  , likely {{ f.value }} {{ f.unit }} of {{ b.strengthOf }} in it
                }
                . <a class="act" routerLink="/stores/liquor" [queryParams]="b.toStores">Keep it</a>
              </p>
            }
            <p class="small">What goes down the drain or onto soil is for your local rules to say.</p>
            <button class="plain" type="button" (click)="finished.set(undefined)">Not kept</button>
          </div>
        }
        @if (act(); as a) {
          @if (lot(); as l) {
            @if (lift(); as words) {
              <p class="alarm" [class.urgent]="words.now" role="status">{{ words.sentence }}</p>
            }
            @for (alarm of watch()?.alarms ?? []; track alarm.code) {
              <p class="alarm" [class.urgent]="alarm.urgent" role="alert">{{ alarm.sentence }}</p>
            }
            @switch (a.kind) {
              @case ('weigh') {
                @if (weighing(); as w) {
                  <vs-act-weigh [act]="w" [lot]="l" />
                }
              }
              @case ('begin') {
                <vs-act-run [act]="a" [lot]="l" (putAway)="putAway($event)" />
                @if (lock(); as locked) {
                  <p class="say warn">{{ locked.sentence }}</p>
                  <button #main class="act main bench" type="button" (click)="open('ph')">Take the pH</button>
                } @else {
                  <button #main class="act main bench" type="button" (click)="say('start', { detail: begunIn() })">
                    Begin
                  </button>
                  @if (a.step.usesBath) {
                    <vs-where-begun [lot]="l" [step]="a.step" (said)="begunIn.set($event)" />
                  }
                }
              }
              @case ('resume') {
                <vs-act-run [act]="a" [lot]="l" /><button
                  #main
                  class="act main bench"
                  type="button"
                  (click)="say('resume')"
                >
                  Go on
                </button>
              }
              @case ('pull') {
                <vs-act-run [act]="a" [lot]="l" /><button
                  #main
                  class="act main bench"
                  type="button"
                  (click)="say('pull', { detail: { piece: a.piece } })"
                >
                  Piece {{ a.piece }} is out
                </button>
                <button class="act" type="button" (click)="say('finish', { text: 'finished with pieces still in' })">
                  Finish with the rest still in
                </button>
              }
              @case ('finish') {
                <vs-act-run [act]="a" [lot]="l" [nowC]="nowC()" [leftMs]="leftMs()" />
                <button #main class="act main bench" type="button" (click)="say('finish')">
                  {{ a.step.attended || leftMs() <= 0 ? 'Done' : 'Done early' }}
                </button>
              }
            }
            @if (watch(); as w) {
              @if (a.kind !== 'weigh') {
                <vs-heat-watch [lot]="l" [step]="a.step" [watch]="w" [readings]="drawn()" [elapsedMin]="elapsed()" />
              }
            }
            <vs-refusal [problem]="refused()" />
          }
        } @else if (lot(); as l) {
          @if (l.summary.state === 'toJudge' || l.summary.state === 'held') {
            <h1>All steps done</h1>
            <p class="say">Read it dry, in daylight, then judge it.</p>
            <a
              class="act main bench"
              [routerLink]="rehearsing() ? ['/lots', l.summary.id] : ['/judge', l.summary.id]"
              >{{ rehearsing() ? 'End the rehearsal' : 'Judge it' }}</a
            >
          } @else {
            <h1>{{ l.summary.tag }} is closed</h1>
            <p class="say">Its record can be read, not added to.</p>
            <a class="act main bench" [routerLink]="['/lots', l.summary.id]">Read the record</a>
          }
        } @else {
          <h1>Bench</h1>
          <div class="empty">
            <p>The bench leads lots step by step, all that are in work at once. There is none to work on.</p>
            @if (waiting().length === 0) {
              <a class="act main" routerLink="/lots/new">Start a lot</a>
            }
          </div>
        }
      </section>
      @if (act(); as a) {
        @if (lot(); as l) {
          <div class="actions">
            <button class="act" type="button" (click)="open('note')">Note</button>
            <button class="act" type="button" (click)="open('otherwise')">Went otherwise</button>
            @if (a.record.startedAt) {
              <button class="act" type="button" (click)="open('temperature')">Temperature</button>
              @if (a.step.usesBath) {
                <button class="act" type="button" (click)="open('ph')">pH</button
                ><button class="act" type="button" (click)="open('sample')">Sample</button
                ><button class="act" type="button" (click)="open('bath')">Bath</button>
              }
              @if (a.kind !== 'resume') {
                <button class="act" type="button" (click)="say('pause')">Pause</button>
              }
              @if (mayHang()) {
                <button class="act" type="button" (click)="hang()">
                  {{ hangs() ? 'Take the probe out' : 'Hang the probe in' }}
                </button>
              }
            }
            <button class="act" type="button" (click)="open('more')">More …</button>
          </div>
          @switch (panel()) {
            @case ('ph') {
              @if (a.record.startedAt || lock()) {
                <vs-ph-panel [act]="phAct() ?? a" (said)="sayPh($event)" (closed)="panel.set(undefined)" />
              }
            }
            @case ('sample') {
              <vs-sample-panel
                [act]="a"
                [lot]="l"
                (said)="say('sample', $event)"
                (planned)="say('pulls', $event)"
                (closed)="panel.set(undefined)"
              />
            }
            @case ('bath') {
              <vs-bath-panel [act]="a" [lot]="l" (said)="say('bath', $event)" (closed)="panel.set(undefined)" />
            }
            @case ('more') {
              <vs-more-panel [act]="a" [lot]="l" (said)="sayOf($event)" (closed)="panel.set(undefined)" />
            }
            @default {
              @if (panel(); as p) {
                <vs-said-panel
                  [panel]="p"
                  [act]="a"
                  (said)="sayOf($event)"
                  (photographed)="photograph($event)"
                  (closed)="panel.set(undefined)"
                />
              }
            }
          }
        }
      }
      @if (others().length > 0) {
        <h2>Also at the bench</h2>
        <div class="also">
          @for (o of others(); track key(o)) {
            <button class="act" type="button" (click)="chosen.set(key(o))">
              <strong>{{ tagOf(o) }}</strong> {{ o.step.title }}<span>{{ stateWords(o) }}</span>
            </button>
          }
        </div>
      }
      @if (waiting().length > 0 && !id()) {
        <h2>Not begun</h2>
        <div class="also">
          @for (w of waiting(); track w.id) {
            <a class="act" [routerLink]="['/bench', w.id]"
              ><strong>{{ w.tag }}</strong> {{ w.colourway }}<span>{{ w.pieces }} pieces</span></a
            >
          }
        </div>
      }
      <vs-hands [act]="act()" [open]="rehearsing() !== undefined" />
      @if (lot(); as l) {
        <vs-written-down [lot]="l" />
      }
      <p class="small">
        <a routerLink="/bench/instruments">Instruments of this tablet</a> · <a routerLink="/bench/tags">Tags</a>
        @if (lot(); as l) {
          @if (!rehearsing()) {
            · <a [routerLink]="['/bench/card', l.summary.id]">Bench card</a>
          }
        }
      </p>
    }`,
  styleUrl: './bench.scss',
  host: { '(document:keydown)': 'onKey($event)', '[class.rehearsal]': 'rehearsing() !== undefined' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  private readonly api = inject(ApiClient);
  private readonly host = inject(ElementRef);
  private readonly injector = inject(Injector);
  private readonly margin = inject(Margin);
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
  private readonly read = live(
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
      ? step.baths.map((b) => standingBath(lot, step, record, b.batches[0] ?? 1))
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
          sentence: `${lot.plan.batches.length > 1 ? `Batch ${told.number}: ` : ''}${told.advice.sentence}`,
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
  /** Time left by the clock, and by the hold where a bath's temperature is followed: what a pot sagged is not counted as done. */
  protected readonly leftMs = computed(() => {
    const a = this.act();
    if (a?.kind !== 'finish') return 0;
    const byClock = a.endsMs - this.state.now();
    const hold = this.readings().all.length >= LEAST_FOLLOWED ? this.watch()?.hold : undefined;
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
      this.margin.notes.set(a && a.step.cautions.length > 0 ? [{ title: 'Take care', lines: a.step.cautions }] : []);
      const weighing = this.weighing();
      if (weighing) untracked(() => this.margin.showWorking(weighing.weighing.materialName, weighing.weighing.target));
      else this.margin.working.set(undefined);
    });
    effect(() =>
      this.alarms.set(
        'bench',
        (this.watch()?.alarms ?? [])
          .filter((a) => a.urgent)
          .map((a) => ({
            key: `${this.which()} ${a.code}`,
            sentence: a.sentence,
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

  protected say(kind: RunEntryKind, said: Said = {}): void {
    const a = this.act();
    if (!a) return;
    // An early start by the plan's own order is said so, with what it means, by the panel that offers it.
    this.sayOf({ kind, stepIndex: a.step.index, said });
  }

  protected sayPh(said: Said): void {
    const a = this.phAct();
    if (a) this.sayOf({ kind: 'ph', stepIndex: a.step.index, said });
  }

  protected sayOf({ kind, stepIndex, said }: SaidOf): void {
    const a = this.act();
    if (!a) return;
    void this.state.touch(a.lotId, stepIndex, kind, said).then((sentence) => {
      this.refused.set(sentence === undefined ? undefined : { detail: sentence });
      if (sentence !== undefined) return;
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
    sentence: string,
  ): void {
    const off = this.state.off();
    if (!off) return;
    void this.state
      .touch(off.lotId, off.stepIndex, 'rescale', { text: sentence, detail: { rescale } })
      .then((refused) => {
        if (refused === undefined) this.state.off.set(undefined);
        else this.refused.set({ detail: refused });
      });
  }

  protected photograph(file: File): void {
    const a = this.act();
    if (!a) return;
    const id = newId();
    void this.state.touch(a.lotId, a.step.index, 'note', { id, text: 'photograph' }).then((sentence) => {
      this.refused.set(sentence === undefined ? undefined : { detail: sentence });
      if (sentence === undefined) void this.outbox.addPhoto(a.lotId, id, file);
      this.panel.set(undefined);
    });
  }

  protected putAway(words: string): void {
    this.api
      .post('/api/bench/cautions', { id: newId(), words })
      .subscribe({
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

  protected stateWords(a: BenchAct): string {
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
          : `piece ${a.piece} in ${clockWords(a.dueMs - this.state.now())}`;
      case 'finish':
        return a.step.attended
          ? 'in hand'
          : a.endsMs <= this.state.now()
            ? 'time is up'
            : `${clockWords(a.endsMs - this.state.now())} left`;
    }
  }

  protected tagOf(a: BenchAct): string {
    return this.state.lotOf(a.lotId)?.summary.tag ?? '';
  }

  protected readonly key = keyOf;
}
