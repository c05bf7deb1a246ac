import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotSummary } from '@vestigia/contract';
import { formatWeight } from '@vestigia/core';
import { LOT_STATE_WORDS, lotStateClass } from './lot-states';
import { Swatch } from './swatch';
import { Thread } from './thread';
import { When } from './when';

type Column = 'number' | 'colourway' | 'weight' | 'deltaE' | 'at' | 'state';

/** Lots as a ledger, each with its thread. */
@Component({
  selector: 'vs-lot-ledger',
  imports: [RouterLink, Swatch, Thread, When],
  template: ` <div class="scroller">
    <table class="ledger">
      <thead>
        <tr>
          <th [attr.aria-sort]="sortOf('number')"><button type="button" (click)="sortBy('number')">Lot</button></th>
          <th>Thread</th>
          <th>Swatch</th>
          @if (withColourway()) {
            <th [attr.aria-sort]="sortOf('colourway')">
              <button type="button" (click)="sortBy('colourway')">Colourway</button>
            </th>
          }
          <th class="number" [attr.aria-sort]="sortOf('weight')">
            <button type="button" (click)="sortBy('weight')">Pieces, dry</button>
          </th>
          <th [attr.aria-sort]="sortOf('state')"><button type="button" (click)="sortBy('state')">State</button></th>
          <th class="number" [attr.aria-sort]="sortOf('deltaE')">
            <button type="button" (click)="sortBy('deltaE')">ΔE<sub>00</sub> to master</button>
          </th>
          <th [attr.aria-sort]="sortOf('at')"><button type="button" (click)="sortBy('at')">Made</button></th>
        </tr>
      </thead>
      <tbody>
        @for (lot of sorted(); track lot.id) {
          <tr>
            <td>
              <a [routerLink]="['/lots', lot.id]"
                ><strong>{{ lot.tag }}</strong></a
              >
              @if (lot.reorderOf) {
                <br /><span class="small soft again">again of {{ lot.reorderOf.tag }}</span>
              }
            </td>
            <td class="strand">
              <vs-thread
                [stations]="lot.stations"
                [undyed]="lot.undyed"
                [master]="lot.master"
                [result]="lot.result"
                [batches]="lot.batches"
              />
            </td>
            <td>
              @if (lot.result; as result) {
                <vs-swatch [lab]="result" [width]="2.4" [height]="56" [label]="lot.tag" />
              } @else {
                <span class="soft small">not read</span>
              }
            </td>
            @if (withColourway()) {
              <td>
                <a [routerLink]="['/colourways', lot.colourway.id]">{{ lot.colourway.name }}</a>
              </td>
            }
            <td class="number">{{ lot.pieces }} × {{ weight(lot.pieceWeightG) }}</td>
            <td>
              <span [class]="stateClass(lot)">{{ stateWords(lot) }}</span>
            </td>
            <td class="number">{{ lot.deltaE === null ? '–' : lot.deltaE.toFixed(2) }}</td>
            <td class="small">
              <span class="day">{{ lot.at | when }}</span
              ><br /><span class="soft">{{ lot.by.name }}</span>
            </td>
          </tr>
        }
      </tbody>
    </table>
  </div>`,
  styles: `
    .strand {
      min-width: 10rem;
      width: 26%;
    }
    .again,
    .day {
      white-space: nowrap;
    }
    sub {
      font-size: 0.7em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotLedger {
  readonly lots = input.required<readonly LotSummary[]>();
  readonly withColourway = input(true);
  private readonly order = signal<{ column: Column; up: boolean }>({ column: 'number', up: false });

  protected readonly sorted = computed(() => {
    const { column, up } = this.order();
    const sign = up ? 1 : -1;
    return [...this.lots()].sort((a, b) => sign * compare(keyOf(a, column), keyOf(b, column)));
  });

  protected sortBy(column: Column): void {
    this.order.update((o) => ({
      column,
      up: o.column === column ? !o.up : column === 'colourway' || column === 'state',
    }));
  }

  protected sortOf(column: Column): 'ascending' | 'descending' | null {
    const { column: by, up } = this.order();
    return by === column ? (up ? 'ascending' : 'descending') : null;
  }

  protected readonly weight = formatWeight;
  protected readonly stateWords = (lot: LotSummary): string => LOT_STATE_WORDS[lot.state];
  protected readonly stateClass = (lot: LotSummary): string => lotStateClass(lot.state);
}

function keyOf(lot: LotSummary, column: Column): number | string {
  switch (column) {
    case 'number':
      return Number(lot.tag.replace(/\D/g, ''));
    case 'colourway':
      return lot.colourway.name;
    case 'weight':
      return lot.pieces * lot.pieceWeightG;
    case 'deltaE':
      return lot.deltaE ?? -1;
    case 'at':
      return lot.at;
    case 'state':
      return LOT_STATE_WORDS[lot.state];
  }
}

const compare = (a: number | string, b: number | string): number => (a < b ? -1 : a > b ? 1 : 0);
