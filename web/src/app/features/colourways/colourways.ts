import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { Colourway } from '@vestigia/contract';
import { RouterLink } from '@angular/router';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { RefusalNote } from '../../ui/refusal';
import { Swatch } from '../../ui/swatch';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
import { TermTip } from '../../ui/term-tip';
import { Kept } from '../../ui/kept';
import { PutAwayToo, withoutPutAway } from '../../ui/put-away-too';
import { Decimals } from '../../ui/decimals';

/** Every colourway beside its master swatch. */
@Component({
  selector: 'vs-colourways',
  imports: [Decimals, PutAwayToo, Kept, TermTip, CsvButton, ActBar, ScrollRegion, May, RouterLink, RefusalNote, Swatch],
  templateUrl: './colourways.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwaysPage {
  /** What its template says by what holds. */
  protected readonly says = {
    dyeALotOf: (name: unknown): string => $localize`Dye a lot of ${name}`,
  };

  private readonly api = inject(ApiClient);
  protected readonly columns: readonly Column<Colourway>[] = [
    { head: 'colourway', of: (c) => c.name },
    { head: 'base', of: (c) => c.base.name },
    { head: 'recipe', of: (c) => $localize`${c.recipe.name}, version ${c.recipe.number}` },
    { head: 'L*', of: (c) => c.master?.L ?? null },
    { head: 'a*', of: (c) => c.master?.a ?? null },
    { head: 'b*', of: (c) => c.master?.b ?? null },
    { head: 'tolerance', of: (c) => c.toleranceDeltaE },
    { head: 'lots', of: (c) => c.lots },
    { head: 'released', of: (c) => c.released },
    { head: 'note', of: (c) => c.note },
  ];
  protected readonly colourways = liveQuery(['colourways', 'lots'], () => this.api.get('/api/colourways'));
  protected readonly list = withoutPutAway(() => this.colourways.value());
}
