import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { FastnessOf } from '@vestigia/contract';
import { TELLS_FROM, sayGreyGrade } from '@vestigia/core';
import { ApiClient } from '../api/api-client';
import { liveQuery } from '../api/live-query';
import { When } from './when';
import { ScrollRegion } from './scroll-region';
import { Decimals } from './decimals';

type Grade = FastnessOf['pairs'][number]['lightChange'];

/** How fast what something was dyed with is, by pair of dyestuff and mordant, and what is printed with the goods. */
@Component({
  selector: 'vs-fastness-known',
  imports: [Decimals, ScrollRegion, RouterLink, When],
  template: `@if (known.value(); as k) {
    @if (onlyWarnings()) {
      @if (isPoor()) {
        <p>
          <strong i18n>What was tried with this:</strong> {{ k.care.join(' ') }}
          <a i18n class="noprint" routerLink="/judge/fastness">Tests</a>
        </p>
      }
    } @else if (k.pairs.length > 0) {
      <h2 i18n>How fast it is</h2>
      @if (tried()) {
        <div class="scroller">
          <table class="ledger">
            <caption i18n class="unseen">
              How fast its dyestuffs are
            </caption>
            <thead>
              <tr>
                <th i18n scope="col">Dyestuff on mordant</th>
                <th i18n scope="col" class="number">Light</th>
                <th i18n scope="col" class="number">Washing</th>
                <th i18n scope="col" class="number">Stains white</th>
                <th i18n scope="col" class="number">Tests</th>
              </tr>
            </thead>
            <tbody>
              @for (p of k.pairs; track $index) {
                <tr>
                  <th scope="row">{{ p.dyestuff }}{{ p.mordant ? says.on(p.mordant) : '' }}</th>
                  <td class="number">{{ say(p.lightChange) }}</td>
                  <td class="number">{{ say(p.washChange) }}</td>
                  <td class="number">{{ say(p.staining) }}</td>
                  <td class="number">{{ p.tests }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <p i18n class="small soft">The worst grade that was tried, 1 to 5 by the grey scales; 5 is no change.</p>
      }
      <p i18n>
        With the goods:
        @for (line of k.care; track line) {
          <strong>{{ line }} </strong>
        }
        <a class="noprint" routerLink="/judge/fastness">Tests</a>
      </p>
    }
    @if (k.onShelf; as s) {
      <p i18n>
        On an open shelf since {{ s.since | when }}: expect it faded by ΔE00 {{ s.deltaE00 | decimals: 1 }} by now, with
        a tenth of a window’s light there.
      </p>
    }
  }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FastnessKnown {
  /** What its template says by what holds. */
  protected readonly says = {
    on: (mordant: string | number): string => $localize` on ${mordant}`,
  };

  private readonly api = inject(ApiClient);
  readonly subject = input.required<'lot' | 'recipeVersion' | 'stockLot'>();
  readonly subjectId = input.required<string>();
  protected readonly known = liveQuery(
    ['fastness'],
    () => this.api.get('/api/fastness/of', { query: { subject: this.subject(), id: this.subjectId() } }),
    () => `${this.subject()} ${this.subjectId()}`,
  );
  /** A line where it is told with the goods, and nothing where nothing has to be. */
  readonly onlyWarnings = input(false);
  protected readonly isPoor = computed(() =>
    (this.known.value()?.pairs ?? []).some((p) =>
      [p.lightChange, p.washChange, p.staining].some((g) => g !== null && g <= TELLS_FROM),
    ),
  );
  protected readonly tried = computed(() => (this.known.value()?.pairs ?? []).some((p) => p.tests > 0));
  protected readonly say = (grade: Grade): string => (grade === null ? '–' : sayGreyGrade(grade));
}
