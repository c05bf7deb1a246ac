import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { live } from '../../api/live';
import { RefusalNote } from '../../ui/refusal';
import { RecipesNav } from './recipes-nav';

/** Every recipe with its versions and where each stands. */
@Component({
  selector: 'vs-recipes',
  imports: [RouterLink, RecipesNav, RefusalNote],
  template: ` <div class="head">
      <h1>Recipes</h1>
      <div class="actions"><a class="act" routerLink="/recipes/write">Write a recipe</a></div>
    </div>
    <vs-recipes-nav />
    <vs-refusal [problem]="recipes.problem()" />
    @if (recipes.value(); as all) {
      @if (all.length === 0) {
        <div class="empty">
          <p>
            A recipe says what goes in, as per cent of the weight of fibre, and what is done, step by step. Each change
            makes a new version; the one that made a lot can always be read.
          </p>
          <a class="act main" routerLink="/recipes/write">Write a recipe</a>
        </div>
      } @else {
        <div class="scroller">
          <table class="ledger">
            <thead>
              <tr>
                <th>Recipe</th>
                <th>For</th>
                <th class="number">Steps</th>
                <th>Versions</th>
                <th>What goes in</th>
              </tr>
            </thead>
            <tbody>
              @for (r of all; track r.id) {
                <tr>
                  <td>
                    <a [routerLink]="['/recipes', r.versions.at(-1)?.id]"
                      ><strong>{{ r.name }}</strong></a
                    >
                  </td>
                  <td>{{ r.fibres.join(', ') }}</td>
                  <td class="number">{{ r.steps }}</td>
                  <td>
                    @for (v of r.versions; track v.id) {
                      <a [routerLink]="['/recipes', v.id]">{{ v.number }}</a>
                      <span
                        class="state"
                        [class.strong]="v.standing === 'proven'"
                        [class.open]="v.standing === 'trial'"
                        >{{ v.standing }}</span
                      >
                    }
                  </td>
                  <td class="small">{{ r.materials.join(' · ') }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
    }`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesPage {
  private readonly api = inject(ApiClient);
  protected readonly recipes = live(['recipes'], () => this.api.get('/api/recipes'));
}
