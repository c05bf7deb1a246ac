import { ChangeDetectionStrategy, Component, computed, inject, input, output, viewChild } from '@angular/core';
import type { Material } from '@vestigia/contract';
import { cieWhiteness } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { readAnewWhenStale } from '../../../api/opened-on';
import { pageAction } from '../../../api/page-action';
import type { GroundRead } from '../../../ui/ground-colour';
import { GroundColour } from '../../../ui/ground-colour';
import { Swatch } from '../../../ui/swatch';
import { Decimals } from '../../../ui/decimals';
import { LabFigures } from '../../../ui/lab-figures';

/** What a base looks like undyed, how white it is, and a way to read it: where every shade on it begins. */
@Component({
  selector: 'vs-material-ground',
  imports: [Decimals, GroundColour, LabFigures, Swatch],
  template: `@if (material().base; as base) {
    <h2 i18n>Undyed</h2>
    <p>
      <vs-swatch [lab]="base.undyed" [width]="3" [label]="says.undyed(material().name)" /> {{ base.undyed | lab
      }}{{ base.undyedSpectrum ? says.bandByBand : '' }}.
      @if (whiteness(); as w) {
        <ng-container i18n
          >CIE whiteness {{ w.whiteness | decimals: 0 }}, tint {{ w.tint | decimals: 1
          }}{{ w.isInRange ? '' : says.outsideFormula }}.</ng-container
        >
      }
    </p>
    <vs-ground-colour
      [colour]="base.undyed"
      [busy]="keeping.busy()"
      [problem]="keeping.problem()"
      (kept)="put($event)"
    />
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialGround {
  /** What its template says by what holds. */
  protected readonly says = {
    undyed: (name: string | number): string => $localize`${name}, undyed`,
    bandByBand: $localize`, band by band`,
    outsideFormula: $localize`; outside what the formula was made for, it only ranks one base against another`,
  };

  private readonly api = inject(ApiClient);
  readonly material = input.required<Material>();
  readonly changed = output();
  protected readonly keeping = pageAction();
  private readonly reading = viewChild(GroundColour);
  /** `undefined` for what was read under another light. */
  protected readonly whiteness = computed(() => {
    const undyed = this.material().base?.undyed;
    return undyed?.illuminant === 'D65' ? cieWhiteness(undyed, undyed.observer) : undefined;
  });

  constructor() {
    readAnewWhenStale(this.keeping, () => this.changed.emit());
  }

  protected put({ colour, spectrum }: GroundRead): void {
    const { id, base, ...rest } = this.material();
    if (!base) return;
    const body = { ...rest, base: { ...base, undyed: colour, undyedSpectrum: spectrum } };
    this.keeping.run(this.api.put('/api/materials/{id}', body, id), () => {
      this.reading()?.clear();
      this.changed.emit();
    });
  }
}
