import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { Amount } from '../../../format/amount';
import { FigureValue } from '../../../ui/figure-value';
import { RefusalNote } from '../../../ui/refusal';
import { Swatch } from '../../../ui/swatch';
import { When } from '../../../ui/when';
import { StoresNav } from '../stores-nav';
import { ScrollRegion } from '../../../ui/scroll-region';
import { ActBar } from '../../../ui/act-bar';

/** What was gathered: what an hour of picking gave, how much it dyes, and how it came out. */
@Component({
  selector: 'vs-gathered',
  imports: [ActBar, ScrollRegion, RouterLink, Amount, FigureValue, RefusalNote, Swatch, When, StoresNav],
  templateUrl: './gathered.html',
  styles: `
    .when {
      white-space: nowrap;
    }
    .shades {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GatheredPage {
  /** What its template says by what holds. */
  protected readonly says = {
    notDyedWithYet: $localize`not dyed with yet`,
  };

  private readonly api = inject(ApiClient);
  protected readonly rows = liveQuery(['stores', 'lots'], () => this.api.get('/api/stores/gathered'));
}
