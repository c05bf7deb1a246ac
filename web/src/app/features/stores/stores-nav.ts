import { ChangeDetectionStrategy, Component } from '@angular/core';
import { PagesNav } from '../../ui/pages-nav';

/** The pages of Stores. */
@Component({
  selector: 'vs-stores-nav',
  imports: [PagesNav],
  template: `<vs-pages-nav place="Stores" [pages]="pages" />`,
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
