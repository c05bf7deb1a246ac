import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { HAZARD_LABELS } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { namesPage } from '../../../services/page-title';
import { ActBar } from '../../../ui/act-bar';

/** A label to print and stick on a jar: what it is, since when, and what it can do to people. */
@Component({
  selector: 'vs-print-label',
  imports: [ActBar, RouterLink, RefusalNote, When],
  template: ` <vs-refusal [problem]="stockLot.problem()" />
    @if (stockLot.value(); as j) {
      <div class="head noprint">
        <h1 i18n>Label for {{ j.row.tag }}</h1>
      </div>
      <section class="label" aria-label="The label" i18n-aria-label>
        <p class="tag">{{ j.row.tag }}</p>
        <p class="what">{{ j.row.material }}</p>
        <p>{{ facts(j.row.form, j.facts.plantPart, j.row.source) }}</p>
        <p i18n>
          since {{ j.row.receivedOn | when }}
          @if (j.row.bestBefore) {
            · best before {{ j.row.bestBefore | when }}
          }
          @if (j.facts.tareMg !== null) {
            · container {{ j.facts.tareMg / 1000 }} g
          }
        </p>
        @if (j.row.hazards.length > 0) {
          <ul>
            @for (h of j.row.hazards; track h) {
              <li>{{ label[h] }}</li>
            }
          </ul>
          <p i18n class="small">The supplier’s safety data sheet says more. Never for food again.</p>
        } @else {
          <p i18n class="small">Never for food again.</p>
        }
      </section>
      <vs-act-bar class="of-page">
        <button i18n class="act main" type="button" (click)="print()">Print it</button
        ><a i18n class="act" [routerLink]="['/stores', j.row.id]">Back to the jar</a>
      </vs-act-bar>
    }`,
  styleUrl: './print-label.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PrintLabelPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly label = HAZARD_LABELS;
  protected readonly stockLot = liveQuery(
    ['stores'],
    () => this.api.get('/api/stock-lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly facts = (...of: (string | null)[]): string => of.filter(Boolean).join(', ');

  constructor() {
    namesPage(() => {
      const j = this.stockLot.value()?.row;
      return j && $localize`Label for ${j.tag}`;
    });
  }

  protected print(): void {
    window.print();
  }
}
