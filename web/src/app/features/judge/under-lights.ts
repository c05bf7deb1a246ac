import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LabUnder } from '@vestigia/contract';
import type { ColourConditions, Spectrum } from '@vestigia/core';
import { decimals, ILLUMINANTS, deltaEBy, labOfSpectrum, metamerism } from '@vestigia/core';
import { Swatch } from '../../ui/swatch';

const LIGHT_LABELS: Readonly<Record<ColourConditions['illuminant'], string>> = {
  D65: $localize`daylight`,
  D50: $localize`warm daylight`,
  A: $localize`a lamp`,
  F10: $localize`a shop’s tubes`,
};
const round = (value: number): number => Math.round(value * 100) / 100;

/** Something that was read band by band. */
export interface ReadSpectrally {
  readonly name: string;
  readonly spectrum: Spectrum;
}

/** A shade beside another under the lights it will be seen in: what matches in daylight may part under a lamp. */
@Component({
  selector: 'vs-under-lights',
  imports: [Swatch],
  template: `<div class="mounts lights">
      @for (l of lights(); track l.light) {
        <figure>
          <vs-swatch [lab]="l.own" [width]="5" [height]="90" [label]="says.underLight(own().name, l.label)" />
          @if (l.other; as other) {
            <vs-swatch
              [lab]="other"
              [width]="5"
              [height]="90"
              [label]="says.underLight(beside()?.name ?? '', l.label)"
            />
          }
          <figcaption>{{ l.label }}{{ l.said }}</figcaption>
        </figure>
      }
    </div>
    @if (beside(); as b) {
      <p i18n class="small">{{ own().name }} beside {{ b.name }}: {{ parts() }}</p>
    } @else {
      <p i18n class="small soft">Nothing else was read band by band to lay beside it.</p>
    }`,
  styles: `
    .lights vs-swatch {
      padding: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnderLights {
  /** What its template says by what holds. */
  protected readonly says = {
    underLight: (name: string | number, label: string | number): string => $localize`${name} in ${label}`,
  };

  readonly own = input.required<ReadSpectrally>();
  readonly beside = input<ReadSpectrally>();
  readonly observer = input<ColourConditions['observer']>('10');
  protected readonly lights = computed(() =>
    ILLUMINANTS.map((light) => {
      const conditions = { illuminant: light, observer: this.observer() };
      const of = (spectrum: Spectrum): LabUnder => ({ ...labOfSpectrum(spectrum, conditions), ...conditions });
      const [own, beside] = [of(this.own().spectrum), this.beside()];
      const other = beside && of(beside.spectrum);
      const said = other ? `, ΔE00 ${decimals(deltaEBy('de00', other, own), 1)}` : '';
      return { light, label: LIGHT_LABELS[light], own, other, said };
    }),
  );
  protected readonly parts = computed(() => {
    const beside = this.beside();
    if (!beside) return '';
    const reference = { illuminant: 'D65' as const, observer: this.observer() };
    const apart = (['A', 'F10'] as const).map((illuminant) => ({
      label: LIGHT_LABELS[illuminant],
      index: metamerism(beside.spectrum, this.own().spectrum, {
        reference,
        test: { illuminant, observer: this.observer() },
      }),
    }));
    return apart
      .map(
        ({ label, index }) => $localize`under ${label} they part by ${decimals(round(index), 1)} (metamerism, ΔE*ab)`,
      )
      .join('; ');
  });
}
