import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { STRIP_FACTOR_WORDS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { RecipesNav } from './recipes-nav';

/** Every strip trial. */
@Component({
  selector: 'vs-strip-trials',
  imports: [RouterLink, RecipesNav, RefusalNote, When],
  template: ` <div class="head">
      <h1>Strip trials</h1>
      <div class="actions"><a class="act" routerLink="/recipes/strips/new">Lay out a trial</a></div>
    </div>
    <vs-recipes-nav />
    <vs-refusal [problem]="trials.problem()" />
    @if (trials.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>
            A strip trial is the quickest way to learn: equal strips, one thing varied, all else alike. The best strip
            becomes a recipe.
          </p>
          <a class="act main" routerLink="/recipes/strips/new">Lay out a trial</a>
        </div>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th>Trial</th>
                <th>Varies</th>
                <th class="number">Strips</th>
                <th class="number">Read</th>
                <th>Recipe</th>
                <th>Laid out</th>
              </tr>
            </thead>
            <tbody>
              @for (t of all; track t.id) {
                <tr>
                  <td>
                    <a [routerLink]="['/recipes/strips', t.id]"
                      ><strong>{{ t.name }}</strong></a
                    >
                  </td>
                  <td>{{ words[t.factor] }}</td>
                  <td class="number">{{ t.strips }}</td>
                  <td class="number">{{ t.read }}</td>
                  <td>
                    <a [routerLink]="['/recipes', t.recipeVersionId]">{{ t.recipe }}</a>
                  </td>
                  <td class="small">{{ t.at | when }}, {{ t.by.name }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StripTrialsPage {
  private readonly api = inject(ApiClient);
  protected readonly words = STRIP_FACTOR_WORDS;
  protected readonly trials = live(['recipes'], () => this.api.get('/api/strip-trials'));
}
