import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LabUnder } from '@vestigia/contract';
import { deltaEBy } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { linkToColour } from '../../ui/colours-given';
import { Swatch } from '../../ui/swatch';
import { Decimals } from '../../ui/decimals';

const EARLIER = 6;
const NEAR = 8;

/** A shade beside the earlier lots of its colourway, and beside whatever of the record lies nearest. */
@Component({
  selector: 'vs-neighbours',
  imports: [Decimals, RouterLink, Swatch],
  template: `<div class="mounts beside">
      <figure>
        <vs-swatch [lab]="lab()" [width]="6" [height]="90" label="this" i18n-label />
        <figcaption i18n>this</figcaption>
      </figure>
      @for (e of earlier(); track e.lot.id) {
        <figure>
          <vs-swatch [lab]="e.lab" [width]="6" [height]="90" [label]="e.lot.tag" />
          <figcaption>
            <a [routerLink]="['/lots', e.lot.id]">{{ e.lot.tag }}</a><br />ΔE00 {{ e.deltaE | decimals: 1 }}
          </figcaption>
        </figure>
      } @empty {
        <p i18n>No earlier lot of this colourway has a colour.</p>
      }
    </div>
    <div class="mounts beside">
      @for (n of near(); track $index) {
        <figure>
          <vs-swatch [lab]="lab()" [width]="3" [height]="90" label="this" i18n-label /><vs-swatch
            [lab]="n.lab"
            [width]="3"
            [height]="90"
            [label]="n.title"
          />
          <figcaption>
            <a [routerLink]="link(n)">{{ n.title }}</a><br />{{ n.detail }}<br />ΔE00 {{ n.deltaE | decimals: 1 }}
          </figcaption>
        </figure>
      }
    </div>`,
  styles: `
    .beside {
      padding: 1.5rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Neighbours {
  private readonly api = inject(ApiClient);
  readonly lab = input.required<LabUnder>();
  readonly lotId = input.required<string>();
  readonly colourwayId = input.required<string>();
  protected readonly link = linkToColour;
  private readonly colourway = liveQuery(
    ['lots', 'colourways'],
    () => this.api.get('/api/colourways/{id}', { id: this.colourwayId() }),
    () => this.colourwayId(),
  );
  protected readonly earlier = computed(() =>
    (this.colourway.value()?.lots ?? [])
      .flatMap((lot) =>
        lot.result && lot.id !== this.lotId()
          ? [{ lot, lab: lot.result, deltaE: deltaEBy('de00', lot.result, this.lab()) }]
          : [],
      )
      .slice(0, EARLIER),
  );
  private readonly nearest = liveQuery(
    ['lots', 'swatches', 'colourways'],
    () => {
      const { L, a, b } = this.lab();
      const query = { L: String(L), a: String(a), b: String(b), count: String(NEAR + EARLIER) };
      return this.api.get('/api/colours/nearest', { query });
    },
    () => JSON.stringify(this.lab()),
  );
  /** What is of this lot, or stands above already, is no neighbour. */
  protected readonly near = computed(() => {
    const shown = new Set([this.lotId(), ...this.earlier().map((e) => e.lot.id)]);
    return (this.nearest.value() ?? []).filter((n) => !shown.has(n.id)).slice(0, NEAR);
  });
}
