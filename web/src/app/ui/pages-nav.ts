import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** The pages of one place, side by side under its name. */
@Component({
  selector: 'vs-pages-nav',
  imports: [RouterLink, RouterLinkActive],
  template: `<nav class="within" [attr.aria-label]="says.pagesOf(place())">
    @for (page of pages(); track page.path) {
      <a
        [routerLink]="page.path"
        routerLinkActive="here"
        ariaCurrentWhenActive="page"
        [routerLinkActiveOptions]="options"
        >{{ page.name }}</a
      >
    }
  </nav>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PagesNav {
  /** What its template says by what holds. */
  protected readonly says = {
    pagesOf: (place: string | number): string => $localize`In ${place}`,
  };

  /** Whatever the page was brought with in its address. */
  protected readonly options = {
    paths: 'exact',
    queryParams: 'ignored',
    matrixParams: 'ignored',
    fragment: 'ignored',
  } as const;
  readonly place = input.required<string>();
  readonly pages = input.required<readonly { readonly path: string; readonly name: string }[]>();
}
