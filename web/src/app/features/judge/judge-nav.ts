import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

/** The pages of Judge. */
@Component({
  selector: 'vs-judge-nav',
  imports: [RouterLink, RouterLinkActive],
  template: `<nav class="within" aria-label="In Judge">
    @for (page of pages; track page.path) {
      <a
        [routerLink]="page.path"
        routerLinkActive="here"
        ariaCurrentWhenActive="page"
        [routerLinkActiveOptions]="{ exact: page.path === '/judge' }"
        >{{ page.name }}</a
      >
    }
  </nav>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class JudgeNav {
  protected readonly pages = [
    { path: '/judge', name: 'Lots' },
    { path: '/judge/book', name: 'Swatch book' },
    { path: '/judge/palette', name: 'Palette' },
    { path: '/judge/fastness', name: 'Fastness' },
    { path: '/judge/readers', name: 'Readers and files' },
  ];
}
