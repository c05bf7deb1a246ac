import { ChangeDetectionStrategy, Component } from '@angular/core';
import { PagesNav } from '../../ui/pages-nav';

/** The pages of Recipes. */
@Component({
  selector: 'vs-recipes-nav',
  imports: [PagesNav],
  template: `<vs-pages-nav place="Recipes" [pages]="pages" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesNav {
  protected readonly pages = [
    { path: '/recipes', name: $localize`Recipes` },
    { path: '/recipes/strips', name: $localize`Strip trials` },
    { path: '/recipes/take-in', name: $localize`Take in a recipe` },
  ];
}
