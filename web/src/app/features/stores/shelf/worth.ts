import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import { formatMoney } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { Amount } from '../../../format/amount';
import { RefusalNote } from '../../../ui/refusal';
import { StoresNav } from '../stores-nav';
import { ScrollRegion } from '../../../ui/scroll-region';
import { DayField } from '../../../ui/day-field';
import { DayPicker } from '../../../ui/day-picker';

/** What the shelf is worth, first in first out and at the moving average, on any day. */
@Component({
  selector: 'vs-worth',
  imports: [
    DayField,
    DayPicker,
    ScrollRegion,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Amount,
    RefusalNote,
    StoresNav,
  ],
  templateUrl: './worth.html',
  styles: `
    .day {
      max-width: 13rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorthPage {
  private readonly api = inject(ApiClient);
  protected readonly on = signal('');
  protected readonly money = formatMoney;
  protected readonly worth = liveQuery(
    ['stores'],
    () => this.api.get('/api/stores/valuation', { query: this.on() === '' ? {} : { on: this.on() } }),
    () => this.on(),
  );
}
