import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';

/** Every colourway beside its master swatch. */
@Component({
  selector: 'vs-colourways',
  imports: [ActBar, ScrollRegion, May, RouterLink, RefusalNote, Swatch],
  templateUrl: './colourways.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwaysPage {
  private readonly api = inject(ApiClient);
  protected readonly colourways = liveQuery(['colourways', 'lots'], () => this.api.get('/api/colourways'));
}
