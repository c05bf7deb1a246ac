import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
} from '@angular/core';
import type { LotDetail } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { currentEntries, entriesOfKind } from '@vestigia/core';
import { BathPanel } from './bath-panel';
import type { Panel } from './bench-focus';
import { BenchFocus } from './bench-focus';
import { MoreActionsPanel } from './more-actions-panel';
import { PhPanel } from './ph-panel';
import { SamplePanel } from './sample-panel';
import { StepFactsPanel } from './step-facts-panel';

/** What else can be written down of the step, each in a panel that opens under the buttons. */
@Component({
  selector: 'vs-act-panels',
  imports: [BathPanel, MoreActionsPanel, PhPanel, SamplePanel, StepFactsPanel],
  templateUrl: './act-panels.html',
  styleUrl: './bench.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ActPanels {
  /** What its template says by what holds. */
  protected readonly says = {
    takeTheProbeOut: $localize`Take the probe out`,
    hangTheProbeIn: $localize`Hang the probe in`,
  };

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly focus = inject(BenchFocus);
  readonly act = input.required<BenchAct>();
  readonly lot = input.required<LotDetail>();

  /** A bag of dyestuff hangs in the liquor of this step, and nobody took it out yet. */
  protected readonly bagIsIn = computed(() => {
    const [{ step }, { plan, entries }] = [this.act(), this.lot()];
    const hangs = plan.steps.some(
      (s) => s.strain === 'bag' && (s === step || (s.liquor !== '' && s.liquor === step.liquor)),
    );
    const isOut = entriesOfKind(currentEntries(entries), 'strained').some((e) => e.detail.way === 'bagOut');
    return hangs && !isOut;
  });

  open(panel: Panel): void {
    this.focus.togglePanel(panel);
    afterNextRender(() => this.host.nativeElement.querySelector('.aside')?.scrollIntoView({ block: 'nearest' }), {
      injector: this.injector,
    });
  }

  protected close(): void {
    this.focus.closePanel();
  }
}
