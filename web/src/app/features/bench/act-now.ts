import type { ElementRef } from '@angular/core';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
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
import { sayPotInUse } from '@vestigia/core';
import { RefusalNote } from '../../ui/refusal';
import { ActRun } from './act-run';
import { ActWeigh } from './act-weigh';
import { BenchFocus } from './bench-focus';
import { HeatWatch } from './heat-watch';
import { StartConditions } from './start-conditions';

/** The one thing to do now, with its alarms and its one button. */
@Component({
  selector: 'vs-act-now',
  imports: [ActRun, ActWeigh, FormsModule, HeatWatch, MatFormFieldModule, MatInputModule, RefusalNote, StartConditions],
  templateUrl: './act-now.html',
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActNow {
  protected readonly focus = inject(BenchFocus);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();
  readonly putAway = output<string>();
  readonly phWanted = output();
  private readonly button = viewChild<ElementRef<HTMLButtonElement>>('main');
  private readonly weigher = viewChild(ActWeigh);
  protected readonly weighing = this.focus.weighing;
  protected readonly why = linkedSignal<string, string>({ source: this.focus.which, computation: () => '' });
  protected readonly done = computed(() =>
    this.act().step.attended || this.focus.leftMs() <= 0 ? 'Done' : 'Done early',
  );

  protected readonly potMessage = sayPotInUse;

  /** Presses the one button. */
  press(): void {
    (this.button() ?? this.weigher()?.main())?.nativeElement.click();
  }
}
