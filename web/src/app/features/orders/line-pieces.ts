import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RouterLink } from '@angular/router';
import type { GoodsRow, OrderLine } from '@vestigia/contract';
import type { GoodsKind } from '@vestigia/core';
import { ApiClient } from '../../api/api-client';
import { newId } from '../../api/new-id';
import { offered } from '../../services/offered';
import { pageAction } from '../../api/page-action';
import { May } from '../../ui/may';
import { NumberField } from '../../ui/number-field';
import { RefusalNote } from '../../ui/refusal';

type Held = OrderLine['held'][number];
const keyOf = (r: { readonly lot: { readonly id: string }; readonly group: string | null }): string =>
  `${r.lot.id} ${r.group ?? ''}`;

/** Pieces of a line: set aside from the shelf, in sets where they have to match, and handed over. */
@Component({
  selector: 'vs-line-pieces',
  imports: [FormsModule, MatFormFieldModule, MatInputModule, May, NumberField, RefusalNote, RouterLink],
  template: `
    @if (line().held.length > 0) {
      <table class="ledger">
        <caption i18n class="unseen">
          Pieces of this line
        </caption>
        <thead>
          <tr>
            <th i18n scope="col">Of</th>
            @if (line().setOf !== null) {
              <th i18n scope="col" class="number">Set</th>
            }
            <th i18n scope="col" class="number">Set aside</th>
            <th i18n scope="col" class="number">Handed over</th>
            <th i18n scope="col">To do</th>
          </tr>
        </thead>
        <tbody>
          @for (h of line().held; track h.lot.id + h.group + h.set) {
            <tr>
              <th scope="row">
                <a [routerLink]="['/lots', h.lot.id]">{{ h.lot.tag }}</a> {{ h.label }}
              </th>
              @if (line().setOf !== null) {
                <td class="number">{{ h.set }}</td>
              }
              <td class="number">{{ h.setAside }}</td>
              <td class="number">{{ h.handedOver }}</td>
              <td>
                <ng-container *vsMay="'helper'">
                  @if (h.setAside > 1) {
                    <mat-form-field class="few" subscriptSizing="dynamic"
                      ><mat-label i18n>How many</mat-label
                      ><input
                        matInput
                        vsNumber
                        [name]="'many of ' + heldKey(h)"
                        [attr.aria-label]="says.howMany(h)"
                        [ngModel]="written(h)"
                        (ngModelChange)="chooseMany(h, $event)"
                    /></mat-form-field>
                  }
                  @if (h.setAside > 0) {
                    @if (isOpen()) {
                      <button
                        class="act"
                        type="button"
                        [disabled]="moving.busy() || !manyOf(h)"
                        [attr.aria-label]="says.handOver(h, manyOf(h))"
                        (click)="move('handOver', h, manyOf(h))"
                      >
                        <span i18n>Hand over</span>
                      </button>
                    }
                    <button
                      class="plain"
                      type="button"
                      [disabled]="moving.busy() || !manyOf(h)"
                      [attr.aria-label]="says.putBack(h, manyOf(h))"
                      (click)="move('putBack', h, manyOf(h))"
                    >
                      <span i18n>Put back</span>
                    </button>
                  }
                  @if (h.handedOver > 0) {
                    <button
                      class="plain"
                      type="button"
                      [disabled]="moving.busy()"
                      [attr.aria-label]="says.cameBack(h)"
                      (click)="move('cameBack', h, 1)"
                    >
                      <span i18n>One came back</span>
                    </button>
                  }
                </ng-container>
              </td>
            </tr>
          }
        </tbody>
      </table>
    }
    @if (isOpen() && open() > 0) {
      <ng-container *vsMay="'helper'">
        @if (there().length > 0) {
          <form class="fields" (ngSubmit)="setAside()">
            <mat-form-field
              ><mat-label i18n>From the shelf</mat-label
              ><select matNativeControl name="from" [(ngModel)]="from">
                @for (g of there(); track key(g)) {
                  <option [value]="key(g)">{{ says.offer(g) }}</option>
                }
              </select></mat-form-field
            >
            <mat-form-field
              ><mat-label i18n>Pieces</mat-label><input matInput vsNumber name="pieces" [(ngModel)]="pieces"
            /></mat-form-field>
            @if (line().setOf !== null) {
              <mat-form-field
                ><mat-label i18n>Into set</mat-label><input matInput vsNumber name="set" [(ngModel)]="set"
              /></mat-form-field>
            }
            <div>
              <button i18n class="act" type="submit" [disabled]="moving.busy() || !pieces()">Set them aside</button>
            </div>
          </form>
        } @else if (line().lots.length > 0) {
          <p i18n class="small soft">
            Nothing of it lies on the shelf yet. Count a lot’s pieces in on the lot’s own page, once it is passed.
          </p>
        }
      </ng-container>
    }
    <vs-refusal [problem]="moving.problem()" />
  `,
  styles: `
    .few {
      width: 7rem;
      margin-right: 0.5rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LinePieces {
  private readonly api = inject(ApiClient);
  readonly line = input.required<OrderLine>();
  /** Finished pieces of all lots. */
  readonly goods = input.required<readonly GoodsRow[]>();
  /** Whether anything is still set aside and handed over for it. */
  readonly isOpen = input.required<boolean>();
  protected readonly moving = pageAction();
  protected readonly key = keyOf;
  protected readonly says = {
    offer: ({ lot, label, colourway, onShelf }: GoodsRow): string =>
      $localize`${[lot.tag, label, colourway.name].filter((w) => w !== '').join(', ')}, ${onShelf} left`,
    handOver: (h: Held, many: number): string => $localize`Hand over ${many} of ${h.lot.tag}`,
    putBack: (h: Held, many: number): string => $localize`Put back ${many} of ${h.lot.tag}`,
    howMany: (h: Held): string => $localize`How many of ${h.lot.tag}`,
    cameBack: (h: Held): string => $localize`One came back of ${h.lot.tag}`,
  };

  protected readonly open = computed(() => {
    const { pieces, standing } = this.line();
    return Math.max(0, pieces - standing.handedOver - standing.setAside);
  });
  /** What lies on the shelf and may be meant: lots meant for it first, then the lot it matches, then its colourway. */
  protected readonly there = computed(() => {
    const { lots, matchLotId, colourwayId } = this.line();
    const meant = new Set(lots.map((l) => l.id));
    const rank = (g: GoodsRow): number => {
      if (meant.has(g.lot.id)) return 0;
      if (g.lot.id === matchLotId) return 1;
      return g.colourway.id === colourwayId ? 2 : 3;
    };
    return this.goods()
      .filter((g) => g.onShelf > 0)
      .sort((one, other) => rank(one) - rank(other));
  });
  protected readonly from = offered(() => {
    const [first] = this.there();
    return first ? keyOf(first) : '';
  });
  /** The set that isn’t full yet. */
  protected readonly set = offered(() => {
    const { setOf, sets } = this.line();
    if (setOf === null) return null;
    return sets.find((s) => s.pieces < setOf)?.set ?? sets.length + 1;
  });
  protected readonly pieces = offered(() => {
    const { setOf, sets } = this.line();
    const room = setOf === null ? Infinity : setOf - (sets.find((s) => s.set === this.set())?.pieces ?? 0);
    const from = this.there().find((g) => keyOf(g) === this.from());
    const many = Math.min(this.open(), room, from?.onShelf ?? 0);
    return many > 0 ? many : null;
  });
  private readonly moveId = signal(newId());

  protected setAside(): void {
    const from = this.there().find((g) => keyOf(g) === this.from());
    if (!from) return;
    this.send('setAside', from, this.pieces() ?? 0, this.set());
  }

  /** How many of what is set aside go next, where somebody wrote another number than all. */
  private readonly many = signal<Readonly<Record<string, number | null>>>({});
  protected readonly heldKey = ({ lot, group, set }: Held): string => `${lot.id} ${group ?? ''} ${set ?? ''}`;

  /** Nothing while what is written is no number: it stays in its field as it is. */
  protected written(held: Held): number | null {
    const written = this.many()[this.heldKey(held)];
    return written === undefined ? held.setAside : written;
  }

  protected manyOf(held: Held): number {
    return this.written(held) ?? 0;
  }

  protected chooseMany(held: Held, many: number | null): void {
    this.many.update((all) => ({ ...all, [this.heldKey(held)]: many }));
  }

  protected move(kind: GoodsKind, held: Held, pieces: number): void {
    const key = this.heldKey(held);
    this.send(kind, held, pieces, held.set, () =>
      this.many.update((all) => Object.fromEntries(Object.entries(all).filter(([of]) => of !== key))),
    );
  }

  private send(
    kind: GoodsKind,
    of: { readonly lot: { readonly id: string }; readonly group: string | null },
    pieces: number,
    set: number | null,
    moved: () => void = () => undefined,
  ): void {
    const body = { id: this.moveId(), kind, lotId: of.lot.id, group: of.group, pieces, lineId: this.line().id, set };
    this.moving.run(this.api.post('/api/goods', body), () => {
      this.moveId.set(newId());
      moved();
    });
  }
}
