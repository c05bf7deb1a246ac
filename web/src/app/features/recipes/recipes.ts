import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { RecipesNav } from './recipes-nav';

/** Every recipe with its versions and where each stands. */
@Component({
  selector: 'vs-recipes',
  imports: [RouterLink, RecipesNav, RefusalNote],
  templateUrl: './recipes.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesPage {
  private readonly api = inject(ApiClient);
  protected readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
}
