import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotDetail } from '@vestigia/contract';
import { LIGHT_PLACE_LABELS } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { Amount } from '../../format/amount';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { KeepPieces } from './keep-pieces';
import { KeepSpent } from './keep-spent';
import { ScrollRegion } from '../../ui/scroll-region';
import { Said } from '../../ui/said';

/** What came of a lot and stands in Stores, where it went on to, and what else may be kept of it. */
@Component({
  selector: 'vs-kept-of-lot',
  imports: [Said, ScrollRegion, RouterLink, Amount, KeepPieces, KeepSpent, RefusalNote, Swatch],
  templateUrl: './kept-of-lot.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class KeptOfLot {
  private readonly api = inject(ApiClient);
  readonly lot = input.required<LotDetail>();
  protected readonly light = LIGHT_PLACE_LABELS;
  protected readonly kept = liveQuery(
    ['stores', 'lots'],
    () => this.api.get('/api/lots/{id}/kept', { id: this.lot().summary.id }),
    () => this.lot().summary.id,
  );
}
