import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { compareVersions } from '@vestigia/core';
import { of } from 'rxjs';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';

/** Two versions of a recipe side by side: only what differs, in dyers' words. */
@Component({
  selector: 'vs-compare-versions',
  imports: [RouterLink, RefusalNote],
  template: ` <vs-refusal [problem]="is.problem() ?? was.problem()" />
    @if (is.value(); as b) {
      <div class="head">
        <h1>{{ b.recipe.name }}: what changed</h1>
        <div class="actions">
          <a class="act" [routerLink]="['/recipes', b.id]">Back to version {{ b.number }}</a>
        </div>
      </div>
      <p class="refs">
        Set version {{ b.number }} beside:
        @for (o of b.recipe.versions; track o.id) {
          @if (o.id !== b.id) {
            <a [routerLink]="[]" [queryParams]="{ with: o.id }" [attr.aria-current]="o.id === with() ? 'page' : null"
              >version {{ o.number }}</a
            >
          }
        }
      </p>
      @if (was.value(); as a) {
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th></th>
                <th>
                  Version {{ a.number }} <span class="state">{{ a.standing }}</span>
                </th>
                <th>
                  Version {{ b.number }} <span class="state">{{ b.standing }}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              @for (d of differences(); track $index) {
                <tr>
                  <td>{{ d.where }}</td>
                  <td>{{ d.was }}</td>
                  <td>
                    <strong>{{ d.is }}</strong>
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="3">Nothing differs between the two.</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  styles: `
    td {
      max-width: 22rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CompareVersionsPage {
  private readonly api = inject(ApiClient);
  readonly id = input.required<string>();
  readonly with = input<string | undefined>(undefined);
  protected readonly is = live(
    ['recipes'],
    () => this.api.get('/api/recipe-versions/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly was = live(
    ['recipes'],
    () => {
      const id = this.with();
      return id ? this.api.get('/api/recipe-versions/{id}', { id }) : of(undefined);
    },
    () => this.with(),
  );
  protected readonly differences = computed(() => {
    const [a, b] = [this.was.value(), this.is.value()];
    if (!a || !b) return [];
    const names = new Map([...a.materials, ...b.materials].map((m) => [m.id, m.name]));
    const [first, second] = a.number < b.number ? [a, b] : [b, a];
    const found = compareVersions(first.body, second.body, (id) => names.get(id) ?? '');
    return first === a ? found : found.map((d) => ({ where: d.where, was: d.is, is: d.was }));
  });
}
