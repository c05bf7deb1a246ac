import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { STRIP_FACTOR_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';
import { RecipesNav } from './recipes-nav';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import { Kept } from '../../ui/kept';

/** Every strip trial. */
@Component({
  selector: 'vs-strip-trials',
  imports: [Kept, ActBar, ScrollRegion, RouterLink, RecipesNav, RefusalNote, When],
  templateUrl: './strip-trials.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StripTrialsPage {
  private readonly api = inject(ApiClient);
  protected readonly label = STRIP_FACTOR_LABELS;
  protected readonly trials = liveQuery(['recipes'], () => this.api.get('/api/strip-trials'));
}
