import { ChangeDetectionStrategy, Component } from '@angular/core';
import { PagesNav } from '../../ui/pages-nav';

/** The pages of Orders. */
@Component({
  selector: 'vs-orders-nav',
  imports: [PagesNav],
  template: `<vs-pages-nav place="Orders" i18n-place [pages]="pages" />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class OrdersNav {
  protected readonly pages = [
    { path: '/orders', name: $localize`Orders` },
    { path: '/orders/goods', name: $localize`Finished pieces` },
    { path: '/orders/customers', name: $localize`Customers` },
  ];
}
