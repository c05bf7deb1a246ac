import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChild } from '@angular/core';
import type { LabUnder } from '@vestigia/contract';
import type { Spectrum } from '@vestigia/core';
import { MATCH_CONDITIONS } from '@vestigia/core';
import type { ShownProblem } from '../api/api-client';
import { ColourEntry } from './colour-entry';
import { RefusalNote } from './refusal';

/** What fibre looks like before it is dyed, as it was read. */
export interface GroundRead {
  readonly colour: LabUnder;
  readonly spectrum: Spectrum | null;
}

const USUAL = { L: 86, a: 0, b: 9 } as const;

/** Reads what fibre looks like before it is dyed: where every shade on it begins. */
@Component({
  selector: 'vs-ground-colour',
  imports: [ColourEntry, RefusalNote],
  template: `<details>
      <summary>{{ colour() ? says.readItAgain : says.readIt }}</summary>
      <vs-colour-entry [under]="under" [start]="start()" />
      <button i18n class="act" type="button" [disabled]="busy()" (click)="keep()">Keep its colour</button>
      <ng-content />
    </details>
    <vs-refusal [problem]="missing() ?? problem()" />`,
  styles: `
    summary {
      min-height: 44px;
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GroundColour {
  /** What its template says by what holds. */
  protected readonly says = {
    readItAgain: $localize`Read it again`,
    readIt: $localize`Read it`,
  };

  readonly colour = input.required<LabUnder | null>();
  readonly busy = input(false);
  readonly problem = input<ShownProblem | undefined>(undefined);
  readonly kept = output<GroundRead>();
  protected readonly under = MATCH_CONDITIONS;
  private readonly entry = viewChild.required(ColourEntry);
  protected readonly start = computed((): LabUnder => this.colour() ?? { ...USUAL, ...this.under });
  protected readonly missing = signal<ShownProblem | undefined>(undefined);

  protected keep(): void {
    const entry = this.entry();
    const isWhole = !entry.isEmpty() && !entry.isBegun();
    this.missing.set(isWhole ? undefined : { detail: $localize`Give the colour as L*, a* and b*, all three.` });
    if (!isWhole) return;
    const { lab, taken } = entry.value();
    this.kept.emit({ colour: { ...lab, ...this.under }, spectrum: taken.spectrum });
  }

  /** Once it is kept. */
  clear(): void {
    this.entry().clear();
  }
}
