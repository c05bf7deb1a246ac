import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { sayLeg, sayMinutes, sayPotInUse } from '@vestigia/core';
import { Tone } from '../../services/tone';
import { RefusalNote } from '../../ui/refusal';
import { ActRun } from './act-run';
import { ActWeigh } from './act-weigh';
import { ActZone } from './act-zone';
import { BenchFocus } from './bench-focus';
import { BenchState } from './bench-state';
import { clockLabel } from './clock-label';
import { legLabelOf } from './leg-label';
import { HeatWatch } from './heat-watch';
import { StartConditions } from './start-conditions';

/** Done this much early is likely a slip. */
const ASK_FROM_MS = 5 * 60_000;

/** The one thing to do now, with its alarms and its one button. */
@Component({
  selector: 'vs-act-now',
  imports: [
    ActRun,
    ActWeigh,
    ActZone,
    FormsModule,
    HeatWatch,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    StartConditions,
  ],
  templateUrl: './act-now.html',
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActNow {
  /** What its template says by what holds. */
  protected readonly says = {
    lookNow: $localize`Look now`,
    lookAgainIn: (now: string | number): string => $localize`Look again in ${now}`,
    then: (next: string | number): string => $localize`; then ${next}`,
  };

  protected readonly state = inject(BenchState);
  protected readonly focus = inject(BenchFocus);
  private readonly tone = inject(Tone);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly putAway = output<string>();
  readonly phWanted = output();
  private readonly button = viewChild<ElementRef<HTMLButtonElement>>('main');
  private readonly weigher = viewChild(ActWeigh);
  private readonly placer = viewChild(ActZone);
  protected readonly weighing = this.focus.weighing;
  protected readonly why = linkedSignal<string, string>({ source: this.focus.which, computation: () => '' });
  protected readonly done = computed(() =>
    this.act().step.attended || this.focus.leftMs() <= 0 ? $localize`Done` : $localize`Done early`,
  );

  /** A step with long to go was called done: that is asked once. */
  protected readonly asked = linkedSignal<string, boolean>({ source: this.focus.which, computation: () => false });
  protected readonly leftLabel = computed(() => sayMinutes(this.focus.leftMs() / 60_000));

  constructor() {
    const isDue = computed(() => this.focus.look()?.isDue === true);
    effect(() => {
      if (isDue()) this.tone.once();
    });
  }

  protected finish(): void {
    const early = !this.act().step.attended && this.focus.leftMs() > ASK_FROM_MS;
    if (early) this.asked.set(true);
    else void this.focus.record({ kind: 'finish' });
  }

  protected readonly legLabel = computed(() => {
    const leg = this.focus.leg();
    return leg ? legLabelOf(this.act().step, leg) : '';
  });
  protected readonly sayLeg = sayLeg;
  protected readonly clock = clockLabel;
  protected readonly minutes = sayMinutes;
  protected readonly potMessage = sayPotInUse;

  /** Presses the one button. */
  press(): void {
    (this.button() ?? this.weigher()?.main() ?? this.placer()?.main())?.nativeElement.click();
  }
}
