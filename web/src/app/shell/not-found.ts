import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  selector: 'vs-not-found',
  imports: [RouterLink],
  template: `<h1 i18n>Nothing is kept here</h1>
    <p i18n>The address may be mistyped. <a routerLink="/today">Go to Today</a>, or search with <kbd>/</kbd>.</p>`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NotFoundPage {}
