import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** The pages of Stores. */
@Component({
  selector: 'vs-stores-nav',
  imports: [RouterLink, RouterLinkActive],
  template: `<nav class="within" aria-label="In Stores">
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
export class StoresNav {
  protected readonly pages = [
    { path: '/stores', name: 'Shelf' },
    { path: '/stores/ahead', name: 'Looking ahead' },
    { path: '/stores/count', name: 'Count' },
    { path: '/stores/materials', name: 'Materials' },
    { path: '/stores/gathered', name: 'Gathered' },
    { path: '/stores/worth', name: 'Worth' },
    { path: '/stores/files', name: 'Files' },
  ];
}
