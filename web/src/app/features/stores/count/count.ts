import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { liveQuery } from '../../../api/live-query';
import { newId } from '../../../api/new-id';
import { RefusalNote } from '../../../ui/refusal';
import { When } from '../../../ui/when';
import { StoresNav } from '../stores-nav';
import { Count } from '../../../ui/count';
import { ScrollRegion } from '../../../ui/scroll-region';
import { ActBar } from '../../../ui/act-bar';

/** Begins a walk along the shelf, place by place, or goes on with one. */
@Component({
  selector: 'vs-count',
  imports: [
    ActBar,
    ScrollRegion,
    Count,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    StoresNav,
    When,
  ],
  templateUrl: './count.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CountPage {
  /** What its template says by what holds. */
  protected readonly says = {
    chosen: (jar: string | number): string => $localize`${jar} chosen`,
    wholeStudio: $localize`the whole studio`,
    blind: $localize`, blind`,
  };

  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  protected readonly action = pageAction();
  protected readonly stocktakes = liveQuery(['stores'], () => this.api.get('/api/stocktakes'));
  private readonly shelf = liveQuery(['stores'], () => this.api.get('/api/stores'));
  protected readonly place = signal('');
  protected readonly blind = signal(true);
  protected readonly places = computed(() => {
    const stockLots = new Map<string, number>();
    for (const row of this.shelf.value() ?? [])
      if (row.onHand > 0 && row.place !== '') stockLots.set(row.place, (stockLots.get(row.place) ?? 0) + 1);
    return [...stockLots].map(([place, n]) => ({ place, stockLots: n })).sort((a, b) => a.place.localeCompare(b.place));
  });

  protected start(): void {
    const id = newId();
    this.action.run(
      this.api.post('/api/stocktakes', { id, place: this.place(), chosen: null, blind: this.blind() }),
      () => void this.router.navigate(['/stores/count', id]),
    );
  }
}
