import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { GoodsRow } from '@vestigia/contract';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { inAddress } from '../../services/in-address';
import { ActBar } from '../../ui/act-bar';
import type { Column } from '../../ui/csv-button';
import { CsvButton } from '../../ui/csv-button';
import { fitsWords } from '../../ui/fits-words';
import { May } from '../../ui/may';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { ScrollRegion } from '../../ui/scroll-region';
import { Swatch } from '../../ui/swatch';
import { OrdersNav } from './orders-nav';

const SHOWN = { left: $localize`what is left`, all: $localize`all` } as const;
const keyOf = (r: GoodsRow): string => `${r.lot.id} ${r.group ?? ''}`;

/** What lies finished on the shelf, of which lot: what can be sold, and what a later order would have to match. */
@Component({
  selector: 'vs-goods',
  imports: [
    ActBar,
    CsvButton,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    May,
    NumberField,
    OrdersNav,
    RefusalNote,
    RouterLink,
    ScrollRegion,
    Swatch,
  ],
  templateUrl: './goods.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GoodsPage {
  private readonly api = inject(ApiClient);
  protected readonly goods = liveQuery(['orders', 'lots'], () => this.api.get('/api/goods'));
  protected readonly words = inAddress('find');
  protected readonly shown = inAddress('show', 'left');
  protected readonly choices = Object.entries(SHOWN).map(([key, name]) => ({ key, name }));
  protected readonly moving = pageAction();
  protected readonly columns: readonly Column<GoodsRow>[] = [
    { head: 'lot', of: (g) => g.lot.tag },
    { head: 'colourway', of: (g) => g.colourway.name },
    { head: 'base', of: (g) => g.base },
    { head: 'which', of: (g) => g.label },
    { head: 'left on the shelf', of: (g) => g.onShelf },
    { head: 'set aside', of: (g) => g.setAside },
    { head: 'handed over', of: (g) => g.handedOver },
    { head: 'gone otherwise', of: (g) => g.gone },
    { head: 'finished', of: (g) => g.came },
    { head: 'in the lot', of: (g) => g.inLot },
  ];
  protected readonly rows = computed(() =>
    (this.goods.value() ?? []).filter(
      (g) =>
        (this.shown() === 'all' || g.onShelf + g.setAside > 0) &&
        fitsWords(this.words(), g.lot.tag, g.colourway.name, g.base, g.label),
    ),
  );
  protected readonly says = {
    take: (g: GoodsRow): string => $localize`Take some off: ${g.lot.tag}`,
  };
  protected readonly key = keyOf;

  /** The row from which pieces are taken just now, and how. */
  protected readonly taken = signal<string | undefined>(undefined);
  protected readonly pieces = signal<number | null>(1);
  protected readonly kind = signal<'sold' | 'gone'>('sold');
  protected readonly note = signal('');
  /** The same move until it succeeded, however often it is sent. */
  private readonly moveId = signal(newId());

  protected open(row: GoodsRow): void {
    this.taken.set(this.taken() === keyOf(row) ? undefined : keyOf(row));
    this.pieces.set(1);
    this.note.set('');
    this.moving.clear();
  }

  protected take(row: GoodsRow): void {
    const body = {
      id: this.moveId(),
      kind: this.kind(),
      lotId: row.lot.id,
      group: row.group,
      pieces: this.pieces() ?? 0,
      note: this.note(),
    };
    this.moving.run(this.api.post('/api/goods', body), () => {
      this.taken.set(undefined);
      this.moveId.set(newId());
    });
  }
}
