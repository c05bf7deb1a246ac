import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LotSummary } from '@vestigia/contract';
import { formatWeight } from '@vestigia/core';
import { LOT_STATE_LABELS, lotStateClass } from '../format/lot-states';
import { Swatch } from './swatch';
import { Thread } from './thread';
import { When } from './when';
import { ScrollRegion } from './scroll-region';
import { TermTip } from './term-tip';
import { Kept } from './kept';
import { Decimals } from './decimals';

type Column = 'number' | 'colourway' | 'weight' | 'deltaE' | 'at' | 'state';

/** Lots as a ledger, each with its thread. */
@Component({
  selector: 'vs-lot-ledger',
  imports: [Decimals, Kept, TermTip, ScrollRegion, RouterLink, Swatch, Thread, When],
  templateUrl: './lot-ledger.html',
  styles: `
    .strand {
      min-width: 10rem;
      width: 12rem;
    }
    vs-swatch {
      padding: 0.15rem;
    }
    sub {
      font-size: 0.7em;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotLedger {
  /** What its template says by what holds. */
  protected readonly says = {
    byEye: $localize`by eye`,
    notRead: $localize`not read`,
  };

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
  protected readonly stateLabel = (lot: LotSummary): string => LOT_STATE_LABELS[lot.state];
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
      return LOT_STATE_LABELS[lot.state];
  }
}

const compare = (a: number | string, b: number | string): number => (a < b ? -1 : a > b ? 1 : 0);
