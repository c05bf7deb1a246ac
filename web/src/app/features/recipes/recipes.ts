import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { RecipeSummary } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { Swatch } from '../../ui/swatch';
import { RefusalNote } from '../../ui/refusal';
import { RecipesNav } from './recipes-nav';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';

/** Every recipe with its versions and where each stands. */
@Component({
  selector: 'vs-recipes',
  imports: [ActBar, ScrollRegion, May, RouterLink, RecipesNav, RefusalNote, Swatch],
  styles: `
    vs-swatch {
      padding: 0.15rem;
    }
    .ledger .brief {
      max-width: 26rem;
    }
  `,
  templateUrl: './recipes.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesPage {
  private readonly api = inject(ApiClient);
  /** Where a version is read: without its amounts where they are kept from whoever looks. */
  protected readonly linkTo = (recipe: RecipeSummary, versionId: string | undefined): readonly unknown[] =>
    recipe.lacksAmounts ? ['/recipes', versionId, 'outline'] : ['/recipes', versionId];
  protected readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
}
