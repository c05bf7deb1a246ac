import { ChangeDetectionStrategy, Component, computed, inject, input, output, viewChild } from '@angular/core';
import type { LabUnder, StockLot } from '@vestigia/contract';
import type { Spectrum } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { readAnewWhenStale } from '../../../api/opened-on';
import { pageAction } from '../../../api/page-action';
import { GroundColour } from '../../../ui/ground-colour';
import { withFacts } from './with-facts';
import { sayLab } from '@vestigia/core';

/** What this lot of a base looks like before it is dyed here: a yellower bale is foretold as one. */
@Component({
  selector: 'vs-stock-lot-ground',
  imports: [GroundColour],
  template: `<h2 i18n>Its colour before dyeing</h2>
    <p>{{ said() }}</p>
    <vs-ground-colour
      [colour]="stockLot().facts.colour"
      [busy]="keeping.busy()"
      [problem]="keeping.problem()"
      (kept)="put($event.colour, $event.spectrum)"
    >
      @if (isOnlyRead()) {
        <button i18n class="act" type="button" [disabled]="keeping.busy()" (click)="put(null, null)">
          Take it as the base again
        </button>
      }
    </vs-ground-colour>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StockLotGround {
  private readonly api = inject(ApiClient);
  readonly stockLot = input.required<StockLot>();
  readonly changed = output();
  protected readonly keeping = pageAction();
  private readonly reading = viewChild.required(GroundColour);
  /** It was read here, not dyed. */
  protected readonly isOnlyRead = computed(() => {
    const { colour, treatment } = this.stockLot().facts;
    return colour !== null && treatment === null;
  });
  protected readonly said = computed(() => {
    const { colour, colourSpectrum, treatment } = this.stockLot().facts;
    if (!colour)
      return $localize`Nobody read it by itself: what is dyed on it is foretold as on any of this base. A bale that is yellower, greyer or dyed before comes out otherwise; read it, and that is counted in.`;
    const read = `${sayLab(colour)}${colourSpectrum ? $localize`, band by band` : ''}`;
    return $localize`${treatment === null ? $localize`Read` : $localize`Kept`} as ${read}:read:: what is dyed on it is foretold from there.`;
  });

  constructor() {
    readAnewWhenStale(this.keeping, () => this.changed.emit());
  }

  protected put(colour: LabUnder | null, colourSpectrum: Spectrum | null): void {
    const body = withFacts(this.stockLot(), { colour, colourSpectrum });
    this.keeping.run(this.api.put('/api/stock-lots/{id}', body, this.stockLot().row.id), () => {
      this.reading().clear();
      this.changed.emit();
    });
  }
}
