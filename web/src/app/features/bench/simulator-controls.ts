import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { InstrumentOrder } from '@vestigia/contract';
import type { BenchAct } from '@vestigia/core';
import { Instruments } from '../../api/instruments';
import type { ShownProblem } from '../../api/api-client';
import { RefusalNote } from '../../ui/refusal';

/**
 * Hands on the simulated instruments: what lies on the pan, how hot the burner, the lid. Shown only where they are
 * simulated.
 */
@Component({
  selector: 'vs-simulator-controls',
  imports: [RefusalNote],
  template: ` @if (simulated()) {
    <details class="hands" [open]="open()">
      <summary i18n>Hands on the simulated instruments</summary>
      @if (balance()) {
        <p i18n>
          On the pan:
          @if (targetG(); as g) {
            <button class="act" type="button" (click)="put(g)">what is wanted</button>
            <button class="act" type="button" (click)="put(g * 0.6)">too little</button>
            <button class="act" type="button" (click)="put(g * 1.12)">too much</button>
          }
          <button class="act" type="button" (click)="put(180)">an empty jug</button>
          <button class="act" type="button" (click)="put(0)">nothing</button>
        </p>
      }
      @if (probe()) {
        <p i18n>
          Burner:
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'heat', share: 0 })">off</button>
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'heat', share: 0.35 })">low</button>
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'heat', share: 1 })">full</button> Lid:
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'lid', on: true })">on</button>
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'lid', on: false })">off</button>
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'pour', ml: 1000, temperatureC: 12 })">
            Pour in a litre of cold water
          </button>
          <button class="act" type="button" (click)="order({ kind: 'probe', do: 'acid', ml: 5 })">
            5 ml of vinegar
          </button>
        </p>
      }
      <p i18n>
        Lead of the balance:
        <button class="act" type="button" (click)="order({ kind: 'balance', do: 'unplug', out: true })">out</button>
        <button class="act" type="button" (click)="order({ kind: 'balance', do: 'unplug', out: false })">in</button>
      </p>
      <vs-refusal [problem]="problem()" />
    </details>
  }`,
  styles: `
    .hands {
      border: 2px dashed var(--ink);
      padding: 0.5rem 1rem;
      margin: 1rem 0;
    }
    p {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
      align-items: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SimulatorControls {
  private readonly instruments = inject(Instruments);
  readonly act = input<BenchAct | undefined>(undefined);
  readonly open = input(false);
  protected readonly problem = signal<ShownProblem | undefined>(undefined);
  protected readonly balance = computed(
    () => this.instruments.connected() && this.instruments.sourceOf('balance') === 'simulated',
  );
  protected readonly probe = computed(
    () => this.instruments.connected() && this.instruments.sourceOf('probe') === 'simulated',
  );
  protected readonly simulated = computed(() => this.balance() || this.probe());
  protected readonly targetG = computed(() => {
    const a = this.act();
    return a?.kind === 'weigh' && a.weighing.measure === 'weight' ? (a.target - a.soFar) / 1000 : undefined;
  });

  protected put(weightG: number): void {
    this.order({ kind: 'balance', do: 'put', weightG: Math.round(weightG * 1000) / 1000 });
  }

  protected order(order: InstrumentOrder): void {
    this.instruments.order(order).subscribe({
      next: () => this.problem.set(undefined),
      error: (problem: ShownProblem) => this.problem.set(problem),
    });
  }
}
