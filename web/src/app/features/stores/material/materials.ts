import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { Material } from '@vestigia/contract';
import { HAZARD_LABELS, MATERIAL_KIND_LABELS } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { liveQuery } from '../../../api/live-query';
import { RefusalNote } from '../../../ui/refusal';
import { StoresNav } from '../stores-nav';
import { Count } from '../../../ui/count';
import { inAddress } from '../../../services/in-address';
import { May } from '../../../ui/may';
import { ScrollRegion } from '../../../ui/scroll-region';
import { ActBar } from '../../../ui/act-bar';
import { Degrees } from '../../../ui/degrees';
import type { Column } from '../../../ui/csv-button';
import { CsvButton } from '../../../ui/csv-button';
import { Kept } from '../../../ui/kept';
import { jarsGave } from '../../../ui/jars-gave';
import { Swatch } from '../../../ui/swatch';
import { PutAwayToo, withoutPutAway } from '../../../ui/put-away-too';
import { fitsWords } from '../../../ui/fits-words';
import { ledgerView } from '../../../ui/ledger-view';
import { RowGap } from '../../../ui/row-gap';
import { RowWindow } from '../../../ui/row-window';
import { SortHead } from '../../../ui/sort-head';
import { ViewMenu } from '../../../ui/view-menu';
import { Said } from '../../../ui/said';

/** Every material the studio knows, with what matters at the pot. */
@Component({
  selector: 'vs-materials',
  imports: [
    Said,
    RowGap,
    RowWindow,
    SortHead,
    ViewMenu,
    PutAwayToo,
    Swatch,
    Kept,
    CsvButton,
    Degrees,
    ActBar,
    ScrollRegion,
    May,
    Count,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    RefusalNote,
    StoresNav,
  ],
  templateUrl: './materials.html',
  styles: `
    /* Fourteen rows are in sight at a desk: heads keep to one line, in German too, and nothing stands above them. */
    .ledger {
      margin-top: 0;
    }
    .ledger thead th {
      white-space: nowrap;
    }
    .ledger .brief {
      max-width: 8.5rem;
    }
    .ledger .kind {
      max-width: 7.5rem;
    }
    .ledger .forms,
    .ledger .fast {
      max-width: 6rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MaterialsPage {
  /** What its template says by what holds. */
  protected readonly says = {
    gaveLastOn: (tag: string | number, base: string | number): string => $localize`gave last, ${tag} on ${base}`,
    bringsTannin: $localize`, brings tannin`,
  };

  private readonly api = inject(ApiClient);
  protected readonly gave = jarsGave();
  protected readonly kinds = MATERIAL_KIND_LABELS;
  protected readonly materials = liveQuery(['stores'], () => this.api.get('/api/materials'));
  protected readonly list = withoutPutAway(() => this.materials.value());
  protected readonly label = inAddress('find');
  protected readonly columns: readonly Column<Material>[] = [
    { head: 'material', of: (m) => m.name },
    { head: 'kind', of: (m) => MATERIAL_KIND_LABELS[m.kind] },
    { head: 'plant', of: (m) => m.facts.botanicalName },
    { head: 'forms', of: (m) => m.facts.forms.join(', ') },
    { head: 'kept by', of: (m) => m.measure },
    { head: 'not above, °C', of: (m) => m.facts.ceilingC },
    { head: 'hazards', of: (m) => m.hazards.map((h) => HAZARD_LABELS[h]).join('; ') },
    { head: 'note', of: (m) => m.note },
  ];
  protected readonly view = ledgerView<Material>(
    [
      { key: 'gave', name: $localize`Gave` },
      { key: 'material', name: $localize`Material`, by: (m) => m.name, stays: true },
      { key: 'kind', name: $localize`Kind`, by: (m) => MATERIAL_KIND_LABELS[m.kind] },
      { key: 'plant', name: $localize`Plant`, by: (m) => m.facts.botanicalName || null },
      { key: 'forms', name: $localize`Forms` },
      { key: 'for', name: $localize`For` },
      { key: 'ceiling', name: $localize`Not above`, by: (m) => m.facts.ceilingC },
      { key: 'water', name: $localize`Water` },
      { key: 'fast', name: $localize`Light · wash` },
      { key: 'care', name: $localize`With care`, by: (m) => m.hazards.length, falls: true },
    ],
    'material',
    () =>
      this.list
        .shown()
        .filter(({ name, kind, facts: { botanicalName, plantPart } }) =>
          fitsWords(this.label(), name, kind, MATERIAL_KIND_LABELS[kind], botanicalName, plantPart),
        ),
  );
}
