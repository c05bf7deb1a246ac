import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** The pages of Recipes. */
@Component({
  selector: 'vs-recipes-nav',
  imports: [RouterLink, RouterLinkActive],
  template: `<nav class="within" aria-label="In Recipes">
    @for (page of pages; track page.path) {
      <a
        [routerLink]="page.path"
        routerLinkActive="here"
        ariaCurrentWhenActive="page"
        [routerLinkActiveOptions]="{ exact: true }"
        >{{ page.name }}</a
      >
    }
  </nav>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesNav {
  protected readonly pages = [
    { path: '/recipes', name: 'Recipes' },
    { path: '/recipes/strips', name: 'Strip trials' },
    { path: '/recipes/take-in', name: 'Take in a recipe' },
  ];
}
