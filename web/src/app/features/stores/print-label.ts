import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { HAZARD_WORDS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

/** A label to print and stick on a jar: what it is, since when, and what it can do to people. */
@Component({
  selector: 'vs-print-label',
  imports: [RouterLink, RefusalNote, When],
  template: ` <vs-refusal [problem]="jar.problem()" />
    @if (jar.value(); as j) {
      <div class="head noprint">
        <h1>Label for {{ j.row.tag }}</h1>
        <div class="actions">
          <button class="act main" type="button" (click)="print()">Print it</button
          ><a class="act" [routerLink]="['/stores', j.row.id]">Back to the jar</a>
        </div>
      </div>
      <section class="label" aria-label="The label">
        <p class="tag">{{ j.row.tag }}</p>
        <p class="what">{{ j.row.material }}</p>
        <p>{{ facts(j.row.form, j.facts.plantPart, j.row.source) }}</p>
        <p>
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
              <li>{{ words[h] }}</li>
            }
          </ul>
          <p class="small">The supplier’s safety data sheet says more. Never for food again.</p>
        } @else {
          <p class="small">Never for food again.</p>
        }
      </section>
    }`,
  styles: `
    .label {
      border: 3px solid var(--ink);
      padding: 0.75rem 1rem;
      width: 22rem;
      max-width: 100%;
      box-sizing: border-box;
      background: var(--raised);
    }
    .label p {
      margin: 0.15rem 0;
    }
    .tag {
      font-size: 2.6rem;
      font-weight: 700;
      line-height: 1;
    }
    .what {
      font-size: 1.4rem;
      font-weight: 700;
    }
    ul {
      margin: 0.5rem 0;
      padding: 0.4rem 0 0.4rem 1.2rem;
      border-top: 6px double var(--ink);
      font-weight: 600;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PrintLabelPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  protected readonly words = HAZARD_WORDS;
  protected readonly jar = live(
    ['stores'],
    () => this.api.get('/api/stock-lots/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly facts = (...of: (string | null)[]): string => of.filter(Boolean).join(', ');

  protected print(): void {
    window.print();
  }
}
