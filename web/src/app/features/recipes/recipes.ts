import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { RecipeSummary } from '@vestigia/contract';
import { said } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { Swatch } from '../../ui/swatch';
import { RefusalNote } from '../../ui/refusal';
import { RecipesNav } from './recipes-nav';
import { May } from '../../ui/may';
import { ScrollRegion } from '../../ui/scroll-region';
import { ActBar } from '../../ui/act-bar';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
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

/** Every recipe with its versions and where each stands. */
@Component({
  selector: 'vs-recipes',
  imports: [
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RowGap,
    RowWindow,
    Said,
    SortHead,
    ViewMenu,
    PutAwayToo,
    Kept,
    CsvButton,
    ActBar,
    ScrollRegion,
    May,
    RouterLink,
    RecipesNav,
    RefusalNote,
    Swatch,
  ],
  styles: `
    vs-swatch {
      padding: 0.15rem;
    }
    .ledger .brief {
      max-width: 26rem;
    }
  `,
  templateUrl: './recipes.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RecipesPage {
  /** What its template says by what holds. */
  protected readonly says = {
    gaveLastOn: (base: string | number): string => $localize`gave last, on ${base}`,
  };

  private readonly api = inject(ApiClient);
  /** Where a version is read: without its amounts where they are kept from whoever looks. */
  protected readonly linkTo = (recipe: RecipeSummary, versionId: string | undefined): readonly unknown[] =>
    recipe.lacksAmounts ? ['/recipes', versionId, 'outline'] : ['/recipes', versionId];
  protected readonly columns: readonly Column<RecipeSummary>[] = [
    { head: 'recipe', of: (r) => r.name },
    { head: 'for', of: (r) => r.fibres.join(', ') },
    { head: 'steps', of: (r) => r.steps },
    { head: 'versions', of: (r) => r.versions.map((v) => `${v.number} ${v.status}`).join(', ') },
    { head: 'materials', of: (r) => r.materials.join(', ') },
    { head: 'gave on', of: (r) => r.gave?.base ?? null },
    { head: 'L*', of: (r) => r.gave?.lab.L ?? null },
    { head: 'a*', of: (r) => r.gave?.lab.a ?? null },
    { head: 'b*', of: (r) => r.gave?.lab.b ?? null },
  ];
  protected readonly recipes = liveQuery(['recipes'], () => this.api.get('/api/recipes'));
  protected readonly list = withoutPutAway(() => this.recipes.value());
  protected readonly label = inAddress('find');
  protected readonly view = ledgerView<RecipeSummary>(
    [
      { key: 'gave', name: $localize`Gave` },
      { key: 'recipe', name: $localize`Recipe`, by: (r) => r.name, stays: true },
      { key: 'for', name: $localize`For`, by: (r) => r.fibres.map(said).join(', ') },
      { key: 'steps', name: $localize`Steps`, by: (r) => r.steps },
      { key: 'versions', name: $localize`Versions`, by: (r) => r.versions.at(-1)?.status ?? null },
      { key: 'materials', name: $localize`What goes in` },
    ],
    'recipe',
    () =>
      this.list
        .shown()
        .filter((r) => fitsWords(this.label(), r.name, ...r.fibres, ...r.fibres.map(said), ...r.materials)),
  );
}
