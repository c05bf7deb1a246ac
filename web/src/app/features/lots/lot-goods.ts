import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { GoodsOfLot, GoodsRow, LotState } from '@vestigia/contract';
import type { GoodsKind } from '@vestigia/core';
import { offered } from '../../services/offered';
import { ApiClient } from '../../api/api-client';
import { liveQuery } from '../../api/live-query';
import { newId } from '../../api/new-id';
import { pageAction } from '../../api/page-action';
import { DraftOf } from '../../ui/draft';
import { May } from '../../ui/may';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';
import { When } from '../../ui/when';

const KIND_WORDS: Readonly<Record<GoodsKind, string>> = {
  came: $localize`counted in`,
  setAside: $localize`set aside`,
  putBack: $localize`put back`,
  handOver: $localize`handed over`,
  cameBack: $localize`came back`,
  sold: $localize`sold without an order`,
  gone: $localize`gone another way`,
};

/** Finished pieces of a lot: counted in once it is passed, and where they went; the orders it is meant for. */
@Component({
  selector: 'vs-lot-goods',
  imports: [DraftOf, FormsModule, MatFormFieldModule, MatInputModule, May, NumberField, RefusalNote, RouterLink, When],
  templateUrl: './lot-goods.html',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotGoods {
  private readonly api = inject(ApiClient);
  readonly lotId = input.required<string>();
  readonly state = input.required<LotState>();
  protected readonly kindWords = KIND_WORDS;
  protected readonly goods = liveQuery(
    ['orders', 'lots'],
    () => this.api.get('/api/lots/{id}/goods', { id: this.lotId() }),
    () => this.lotId(),
  );
  protected readonly counting = pageAction();
  protected readonly takingBack = pageAction();
  protected readonly says = {
    left: (r: GoodsRow): string =>
      $localize`${r.onShelf} left on the shelf, ${r.setAside} set aside, ${r.handedOver} handed over, of ${r.inLot}`,
    takeBack: (m: GoodsOfLot['moves'][number]): string => $localize`It was a slip: ${m.pieces} ${KIND_WORDS[m.kind]}`,
  };

  protected readonly counted = computed(() => (this.goods.value()?.rows ?? []).filter((r) => r.came > 0));
  /** What isn't counted in yet. */
  protected readonly rest = computed(() => (this.goods.value()?.rows ?? []).filter((r) => r.came < r.inLot));
  protected readonly mayCount = computed(
    () => this.rest().length > 0 && !['planned', 'cancelled', 'inWork'].includes(this.state()),
  );
  protected readonly group = offered(() => this.rest()[0]?.group ?? '');
  private readonly row = computed(() => this.rest().find((r) => (r.group ?? '') === this.group()));
  protected readonly pieces = offered(() => {
    const row = this.row();
    return row ? row.inLot - row.came : null;
  });
  /** Not passed, as a lot or as these pieces by themselves: it wants a word why. */
  protected readonly wantsWhy = computed(() => this.state() !== 'released' || (this.row()?.apart ?? null) !== null);
  protected readonly note = signal('');
  private readonly moveId = signal(newId());

  protected count(): void {
    const body = {
      id: this.moveId(),
      kind: 'came' as const,
      lotId: this.lotId(),
      group: this.group() || null,
      pieces: this.pieces() ?? 0,
      note: this.note(),
    };
    this.counting.run(this.api.post('/api/goods', body), () => {
      this.moveId.set(newId());
      this.note.set('');
    });
  }

  protected takeBack(moveId: string): void {
    this.takingBack.run(this.api.post('/api/goods/{id}/take-back', { id: newId() }, moveId));
  }
}
