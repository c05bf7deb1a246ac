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
    { path: '/stores', name: $localize`Shelf` },
    { path: '/stores/ahead', name: $localize`Looking ahead` },
    { path: '/stores/count', name: $localize`Count` },
    { path: '/stores/materials', name: $localize`Materials` },
    { path: '/stores/gathered', name: $localize`Gathered` },
    { path: '/stores/worth', name: $localize`Worth` },
    { path: '/stores/files', name: $localize`Files` },
  ];
}
