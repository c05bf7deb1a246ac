import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal, viewChild } from '@angular/core';
import type { LabUnder, StockLot } from '@vestigia/contract';
import type { Spectrum } from '@vestigia/core';
import { MATCH_CONDITIONS } from '@vestigia/core';
import type { ShownProblem } from '../../../api/api-client';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { ColourEntry } from '../../../ui/colour-entry';
import { RefusalNote } from '../../../ui/refusal';

/** What this lot of a base looks like before it is dyed here: a yellower bale is foretold as one. */
@Component({
  selector: 'vs-stock-lot-ground',
  imports: [ColourEntry, RefusalNote],
  template: `<h2>Its colour before dyeing</h2>
    <p>{{ said() }}</p>
    <details>
      <summary>{{ stockLot().facts.colour ? 'Read it again' : 'Read it' }}</summary>
      <vs-colour-entry [under]="under" [start]="start()" />
      <button class="act" type="button" [disabled]="keeping.busy()" (click)="keep()">Keep its colour</button>
      @if (isOnlyRead()) {
        <button class="act" type="button" [disabled]="keeping.busy()" (click)="put(null, null)">
          Take it as the base again
        </button>
      }
    </details>
    <vs-refusal [problem]="missing() ?? keeping.problem()" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotGround {
  private readonly api = inject(ApiClient);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly keeping = pageAction();
  protected readonly under = MATCH_CONDITIONS;
  private readonly entry = viewChild.required(ColourEntry);
  protected readonly start = computed(
    (): LabUnder => this.stockLot().facts.colour ?? { L: 86, a: 0, b: 9, ...this.under },
  );
  /** It was read here, not dyed. */
  protected readonly isOnlyRead = computed(() => {
    const { colour, treatment } = this.stockLot().facts;
    return colour !== null && treatment === null;
  });
  protected readonly said = computed(() => {
    const { colour, colourSpectrum, treatment } = this.stockLot().facts;
    if (!colour)
      return 'Nobody read it by itself: what is dyed on it is foretold as on any of this base. A bale that is yellower, greyer or dyed before comes out otherwise; read it, and that is counted in.';
    const read = `L* ${colour.L.toFixed(1)}, a* ${colour.a.toFixed(1)}, b* ${colour.b.toFixed(1)}${colourSpectrum ? ', band by band' : ''}`;
    return `${treatment === null ? 'Read' : 'Kept'} as ${read}: what is dyed on it is foretold from there.`;
  });
  protected readonly missing = signal<ShownProblem | undefined>(undefined);

  protected keep(): void {
    const entry = this.entry();
    const isWhole = !entry.isEmpty() && !entry.isBegun();
    this.missing.set(isWhole ? undefined : { detail: 'Give the colour as L*, a* and b*, all three.' });
    if (!isWhole) return;
    const { lab, taken } = entry.value();
    this.put({ ...lab, ...this.under }, taken.spectrum);
  }

  protected put(colour: LabUnder | null, colourSpectrum: Spectrum | null): void {
    const { facts, row, note, version } = this.stockLot();
    const body = {
      version,
      place: row.place,
      note,
      bestBefore: row.bestBefore,
      facts: { ...facts, colour, colourSpectrum },
    };
    this.keeping.run(this.api.put('/api/stock-lots/{id}', body, row.id), () => {
      this.entry().clear();
      this.changed.emit();
    });
  }
}
