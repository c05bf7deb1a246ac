import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import type { Colourway } from '@vestigia/contract';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
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
import { inAddress } from '../../services/in-address';
import { fitsWords } from '../../ui/fits-words';
import { ledgerView } from '../../ui/ledger-view';
import { RowGap } from '../../ui/row-gap';
import { RowWindow } from '../../ui/row-window';
import { Said } from '../../ui/said';
import { SortHead } from '../../ui/sort-head';
import { ViewMenu } from '../../ui/view-menu';
import { PutAwayToo, withoutPutAway } from '../../ui/put-away-too';
import { Decimals } from '../../ui/decimals';

/** Every colourway beside its master swatch. */
@Component({
  selector: 'vs-colourways',
  imports: [
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RowGap,
    RowWindow,
    Said,
    SortHead,
    ViewMenu,
    Decimals,
    PutAwayToo,
    Kept,
    TermTip,
    CsvButton,
    ActBar,
    ScrollRegion,
    May,
    RouterLink,
    RefusalNote,
    Swatch,
  ],
  templateUrl: './colourways.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ColourwaysPage {
  /** What its template says by what holds. */
  protected readonly says = {
    dyeALotOf: (name: string | number): string => $localize`Dye a lot of ${name}`,
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
  protected readonly label = inAddress('find');
  protected readonly view = ledgerView<Colourway>(
    [
      { key: 'master', name: $localize`Master` },
      { key: 'colourway', name: $localize`Colourway`, by: (c) => c.name, stays: true },
      { key: 'base', name: $localize`Base`, by: (c) => c.base.name },
      { key: 'recipe', name: $localize`Recipe`, by: (c) => c.recipe.name },
      { key: 'tolerance', name: $localize`Tolerance ΔE00` },
      { key: 'lots', name: $localize`Lots`, by: (c) => c.lots, falls: true },
    ],
    'colourway',
    () => this.list.shown().filter((c) => fitsWords(this.label(), c.name, c.base.name, c.recipe.name, c.note)),
  );
}
