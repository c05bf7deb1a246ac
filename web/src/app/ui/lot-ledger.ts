import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
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
import type { Choosing } from './choosing';
import { Decimals } from './decimals';
import type { LedgerColumn, LedgerView } from './ledger-view';
import { ledgerViewHere } from './ledger-view';
import { RowGap } from './row-gap';
import { RowWindow } from './row-window';
import { SortHead } from './sort-head';

/** What a ledger of lots can be sorted by and shown without. */
export const LOT_COLUMNS: readonly LedgerColumn<LotSummary>[] = [
  { key: 'number', name: $localize`Lot`, by: (l) => Number(l.tag.replace(/\D/g, '')), falls: true, stays: true },
  { key: 'thread', name: $localize`Thread` },
  { key: 'swatch', name: $localize`Swatch` },
  { key: 'colourway', name: $localize`Colourway`, by: (l) => l.colourway.name },
  { key: 'weight', name: $localize`Pieces, dry`, by: (l) => l.pieces * l.pieceWeightG, falls: true },
  { key: 'state', name: $localize`State`, by: (l) => LOT_STATE_LABELS[l.state] },
  { key: 'deltaE', name: $localize`ΔE to master`, by: (l) => l.deltaE, falls: true },
  { key: 'at', name: $localize`Made`, by: (l) => l.at, falls: true },
];

/** Lots as a ledger, each with its thread. */
@Component({
  selector: 'vs-lot-ledger',
  imports: [Decimals, Kept, RowGap, RowWindow, SortHead, TermTip, ScrollRegion, RouterLink, Swatch, Thread, When],
  templateUrl: './lot-ledger.html',
  styles: `
    .strand {
      min-width: 10rem;
      width: 12rem;
    }
    vs-swatch {
      padding: 0.15rem;
    }
    // Drawn in part, its columns don’t change their widths with the rows that come and go.
    .part {
      table-layout: fixed;
      min-width: 67rem;
    }
    .part thead th {
      width: 6rem;
    }
    .part thead th.box {
      width: 3.5rem;
    }
    .part thead th.first {
      width: 12rem;
    }
    .part thead th.strand {
      width: 10rem;
    }
    .part thead th.standing {
      width: 7rem;
    }
    .part thead th.colourway {
      width: auto;
    }
    .part thead th.made {
      width: 11rem;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LotLedger {
  /** What its template says by what holds. */
  protected readonly says = {
    byEye: $localize`by eye`,
    notRead: $localize`not read`,
    choose: (tag: string): string => $localize`Choose ${tag}:tag:`,
  };

  readonly lots = input.required<readonly LotSummary[]>();
  readonly withColourway = input(true);
  /** How a page that has only this list looks at it; else the list is sorted by itself. */
  readonly view = input<LedgerView<LotSummary>>();
  private readonly own = ledgerViewHere(LOT_COLUMNS, '-number', () => this.lots());
  protected readonly shown = computed(() => this.view() ?? this.own);
  protected readonly rows = computed(() => (this.view() ? this.lots() : this.own.sorted()));
  /** Where several of them can be chosen. */
  readonly choosing = input<Choosing<LotSummary>>();

  protected readonly weight = formatWeight;
  protected readonly stateLabel = (lot: LotSummary): string => LOT_STATE_LABELS[lot.state];
  protected readonly stateClass = (lot: LotSummary): string => lotStateClass(lot.state);
}
