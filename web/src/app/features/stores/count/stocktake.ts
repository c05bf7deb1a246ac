import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router, RouterLink } from '@angular/router';
import type { Stocktake } from '@vestigia/contract';
import { decimals, formatAmount, readAmount } from '@vestigia/core';
import { ApiClient } from '../../../api/api-client';
import { pageAction } from '../../../api/page-action';
import { StudioSettings } from '../../../api/studio-settings';
import { liveQuery } from '../../../api/live-query';
import { Amount } from '../../../format/amount';
import { newId } from '../../../api/new-id';
import { takeFocus } from '../../../services/take-focus';
import { RefusalNote } from '../../../ui/refusal';
import { countedLines, differingLines, nextStockLot, sayBooking } from './stocktake-order';
import { ScrollRegion } from '../../../ui/scroll-region';
import { namesPage } from '../../../services/page-title';
import { Count } from '../../../ui/count';
import { Kept } from '../../../ui/kept';
import { Said } from '../../../ui/said';

type Line = Stocktake['lines'][number];

/** One count: a jar at a time, then the differences with what may be behind them, then all booked together. */
@Component({
  selector: 'vs-stocktake',
  imports: [
    Said,
    Count,
    Kept,
    ScrollRegion,
    RouterLink,
    FormsModule,
    MatFormFieldModule,
    MatInputModule,
    Amount,
    RefusalNote,
  ],
  providers: [StudioSettings],
  templateUrl: './stocktake.html',
  styles: `
    .one {
      border: 3px solid var(--ink);
      padding: 1rem 1.25rem;
      max-width: 46rem;
    }
    .big {
      font-size: 2.6rem;
      font-weight: 700;
      line-height: 1;
      margin: 0;
    }
    .what {
      font-size: 1.2rem;
      margin: 0.25rem 0 0.5rem;
    }
    .reason {
      font: inherit;
      min-height: 32px;
      width: 16rem;
      max-width: 100%;
      box-sizing: border-box;
      border: 1px solid var(--line-strong);
      background: var(--raised);
      color: var(--ink);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StocktakePage {
  /** What its template says by what holds. */
  protected readonly says = {
    wholeStudio: $localize`the whole studio`,
    blind: $localize`, blind`,
    weighsWithContainer: $localize`It weighs, with its container`,
    howMuch: $localize`How much there is`,
    ofWeight: (weight: string | number): string => $localize` of ${weight}`,
    writeIt: $localize`Write what is in it`,
    nextJar: $localize`Next jar`,
    allAgree: $localize`All agree with the screen.`,
    theseDiffer: $localize`These differ. Look before you book.`,
    none: $localize`none`,
    or: $localize`; or `,
  };

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly house = inject(StudioSettings);
  readonly id = input.required<string>();
  protected readonly stocktake = liveQuery(
    ['stores'],
    () => this.api.get('/api/stocktakes/{id}', { id: this.id() }),
    () => this.id(),
  );
  protected readonly entering = pageAction();
  protected readonly weighing = pageAction();
  protected readonly booking = pageAction();
  protected readonly quantityText = signal('');
  protected readonly gross = signal(false);
  protected readonly fromBalance = signal(false);
  protected readonly instrument = signal('');
  protected readonly again = signal('');
  private readonly skipped = signal<readonly string[]>([]);
  protected readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly field = viewChild<ElementRef<HTMLInputElement>>('figure');
  protected readonly amount = formatAmount;
  protected readonly sayBooking = sayBooking;

  protected readonly done = computed(() => countedLines(this.stocktake.value()?.lines ?? []));
  protected readonly differing = computed(() => differingLines(this.stocktake.value()?.lines ?? []));
  protected readonly current = computed(() =>
    nextStockLot(this.stocktake.value()?.lines ?? [], this.again(), this.skipped()),
  );
  /** Where one stands: the jar, not its figures, so that a change elsewhere doesn't empty the field. */
  private readonly at = computed(() => this.current()?.row.id ?? '');
  protected readonly echo = computed(() => {
    const line = this.current();
    if (!line || this.quantityText().trim() === '') return '';
    const reading = readAmount(this.quantityText(), line.row.measure, {
      allowNothing: true,
      ...this.house.measuring(line.bulkDensityGPerMl),
    });
    if (!reading.ok) return reading.message;
    const net = reading.amount - (this.gross() ? (line.tareMg ?? 0) : 0);
    return this.gross() || reading.note
      ? `${formatAmount(Math.max(0, net), line.row.measure)} net${reading.note ? ` (${reading.note})` : ''}`
      : '';
  });

  constructor() {
    namesPage(() => {
      const w = this.stocktake.value();
      return w && $localize`Counting ${w.place || $localize`the whole studio`}`;
    });
    effect(() => {
      this.at();
      const line = untracked(() => this.current());
      this.quantityText.set('');
      this.instrument.set('');
      this.gross.set(line?.tareMg !== null && line?.tareMg !== undefined);
      setTimeout(() => takeFocus(this.field()?.nativeElement, this.host.nativeElement));
    });
  }

  protected enter(line: Line): void {
    this.entering.run(
      this.api.post(
        '/api/stocktakes/{id}/entries',
        {
          id: newId(),
          stockLotId: line.row.id,
          quantityText: this.quantityText(),
          gross: this.gross() && line.row.measure === 'weight',
          seenOnHand: line.row.onHand,
          fromBalance: this.fromBalance(),
        },
        this.id(),
      ),
      () => {
        this.again.set('');
        this.stocktake.reload();
      },
    );
  }

  protected readBalance(line: Line): void {
    this.weighing.run(
      this.api.post('/api/balance/reading', { what: 'stockLot', stockLotId: line.row.id }),
      (reading) => {
        this.instrument.set(
          reading.overload
            ? $localize`${reading.instrument}:instrument:: too heavy for it. Weigh it in parts.`
            : $localize`${reading.instrument}, settled after ${decimals(reading.settledMs / 1000, 1)} s.`,
        );
        if (reading.overload) return;
        this.gross.set(line.tareMg !== null);
        this.quantityText.set(`${reading.weightG} g`);
        this.fromBalance.set(true);
      },
    );
  }

  protected skip(line: Line): void {
    this.again.set('');
    this.skipped.update((s) => [...s, line.row.id]);
  }

  protected reason(stockLotId: string, label: string): void {
    this.reasons.update((r) => ({ ...r, [stockLotId]: label }));
  }

  protected book(): void {
    const reasons = this.differing().map((l) => ({
      stockLotId: l.row.id,
      note: this.reasons()[l.row.id] ?? l.reasons[0] ?? '',
    }));
    this.booking.run(
      this.api.post('/api/stocktakes/{id}/booking', { id: newId(), reasons }, this.id()),
      () => void this.router.navigateByUrl('/stores'),
    );
  }
}
